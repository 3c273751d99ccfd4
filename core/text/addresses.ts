/** A web address in running text, with what may close the sentence behind it. */
const CANDIDATE = /https?:\/\/[^\s<>"“”„«»—]+/giu
/** Marks that end a clause and no address. */
const CLOSING = /[.,;:!?'’‘…–-]$/u
const PAIRS: Readonly<Record<string, string>> = { ')': '(', ']': '[', '}': '{' }

/** A web address as it stands in a text: its place, the end not included. */
export interface Address {
  start: number
  end: number
  text: string
}

/**
 * The web addresses of a text, in order. Punctuation that closes the sentence is no part of one; a closing
 * bracket is where it has its opening one inside: `https://a.example/Lamb_(food)`.
 */
export function addressesIn(text: string): Address[] {
  const found: Address[] = []
  for (const match of text.matchAll(CANDIDATE)) {
    const address = trimmed(match[0])
    if (!/^https?:\/\/[^/?#]/i.test(address)) continue
    found.push({ start: match.index, end: match.index + address.length, text: address })
  }
  return found
}

function trimmed(candidate: string): string {
  let address = candidate
  for (;;) {
    const last = address.slice(-1)
    const opens = PAIRS[last]
    const lone = opens !== undefined && count(address, opens) < count(address, last)
    if (!lone && !CLOSING.test(address)) return address
    address = address.slice(0, -1)
  }
}

const count = (text: string, mark: string): number => text.split(mark).length - 1

/** A text without its web addresses; something else may stand in their place. */
export function withoutAddresses(text: string, by: string | ((address: string) => string) = ''): string {
  // Most texts have none, which this tells at once.
  if (!text.includes('://')) return text
  let rest = ''
  let at = 0
  for (const address of addressesIn(text)) {
    rest += text.slice(at, address.start) + (typeof by === 'string' ? by : by(address.text))
    at = address.end
  }
  return rest + text.slice(at)
}
