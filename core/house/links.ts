import type { HouseStyle, Wording } from '../model'
import { addressesIn, printOf } from '../text'

/** What the templates of link tags are filled with. */
export interface LinkFacts {
  brand: string
  network: string
  pipeline: string
  angle: string
  account: string
  beat: number
}

/**
 * An address with a house's link tags, each filled from the post's facts in lower case with dashes
 * for spaces; a parameter that the address has already is replaced. An address that is none is
 * given back as it is.
 */
export function taggedLink(url: string, tags: HouseStyle['linkTags'], facts: LinkFacts): string {
  if (tags.length === 0) return url
  let address: URL
  try {
    address = new URL(url)
  } catch {
    return url
  }
  for (const { name, value } of tags) {
    const filled = value.replace(
      /\{(brand|network|pipeline|angle|account|beat)\}/g,
      (_, key: keyof LinkFacts) => String(facts[key]),
    )
    const plain = printOf(filled).replaceAll(' ', '-')
    if (plain) address.searchParams.set(name, plain)
  }
  return address.toString()
}

/** The tags that count visits in the usual way (utm parameters). */
export const USUAL_TAGS: HouseStyle['linkTags'] = [
  { name: 'utm_source', value: '{network}' },
  { name: 'utm_medium', value: 'social' },
  { name: 'utm_campaign', value: '{pipeline}' },
  { name: 'utm_content', value: '{angle}-{beat}' },
]

/** The link that a wording carries to the same page as `link`, with its own tags; `link` where it carries none. */
export function linkOf(
  wording: Pick<Wording, 'text' | 'parts' | 'firstComment'>,
  link: string | null,
): string | null {
  if (link === null) return null
  const page = (url: string): string => url.replace(/[?#].*$/, '')
  const said = [wording.text, ...wording.parts, wording.firstComment ?? ''].join('\n')
  return addressesIn(said).find((a) => page(a.text) === page(link))?.text ?? link
}
