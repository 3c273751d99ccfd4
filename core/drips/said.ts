import { likeness, LIKENESS_BOUND, LONG_AGO_BOUND, opening } from '../judging'
import type { Wording } from '../model'
import type { Recipient } from '../writers'
import type { EarlierCaption } from './request'

/** How many of a brand's last captions on a network a closing line stays away from. */
const RESTS = 30

/** What has been said so far: before a drip, and in it. A value; `saying` gives the next one. */
export interface Said {
  /** Everything on each network, the newest last. */
  captions: readonly EarlierCaption[]
  /** The wordings of this drip with their accounts, the newest first. */
  drip: readonly { account: string; network: string; wording: Wording }[]
  /** How this drip's captions open, and those of its piece that are not long ago. */
  openings: ReadonlySet<string>
  /** How those of its piece opened that are long ago, by account. */
  openedLongAgo: ReadonlyMap<string, ReadonlySet<string>>
  /** Their titles, wherever they stand. */
  titles: ReadonlySet<string>
}

/** What was said before a drip begins. */
export const saidBefore = (earlier: readonly EarlierCaption[] = []): Said => ({
  captions: earlier,
  drip: [],
  openings: new Set(earlier.filter((c) => c.samePiece && !c.longAgo).map((c) => opening(c.text))),
  openedLongAgo: openingsByAccount(earlier.filter((c) => c.samePiece && c.longAgo)),
  titles: new Set(earlier.flatMap((c) => (c.samePiece && c.title ? [c.title] : []))),
})

function openingsByAccount(captions: readonly EarlierCaption[]): Map<string, Set<string>> {
  const openings = new Map<string, Set<string>>()
  for (const { account, text } of captions)
    openings.set(account, (openings.get(account) ?? new Set()).add(opening(text)))
  return openings
}

/** What has been said once a wording is added. */
export function saying(said: Said, wording: Wording, { id, network }: Recipient): Said {
  const { text, closing, title } = wording
  return {
    ...said,
    captions: [...said.captions, { account: id, network, text, closing }],
    drip: [{ account: id, network, wording }, ...said.drip],
    openings: new Set([...said.openings, opening(text)]),
    titles: title === null ? said.titles : new Set([...said.titles, title]),
  }
}

/** The captions on a network, the newest last. */
export const saidOn = (said: Said, network: string): readonly EarlierCaption[] =>
  said.captions.filter((c) => c.network === network)

/** The house's closing lines that stand under what was said lately on a network, or in this drip. */
export function closedLately(said: Said, network: string): ReadonlySet<string> {
  const lately = saidOn(said, network).slice(-RESTS)
  return new Set([...lately, ...said.drip.map((d) => d.wording)].flatMap((w) => w.closing ?? []))
}

/** Whether two wordings give the same places of a piece and begin with the same words. */
function saysTheSame(a: Pick<Wording, 'text' | 'spans'>, b: Pick<Wording, 'text' | 'spans'>): boolean {
  const same =
    a.spans.length === b.spans.length &&
    a.spans.every((s, i) => s.start === b.spans[i]?.start && s.end === b.spans[i]?.end)
  return same && opening(a.text) === opening(b.text)
}

/**
 * Whether a wording may follow what was said: it opens as no other of the drip, under its own title, says
 * the very words of none, and is not too like what its network has.
 */
export function isFresh(
  said: Said,
  made: Pick<Wording, 'text' | 'title' | 'spans'>,
  network: string,
): boolean {
  const { text, title } = made
  if (title === null ? said.openings.has(opening(text)) : said.titles.has(title)) return false
  if (said.drip.some(({ wording }) => saysTheSame(wording, made))) return false
  return saidOn(said, network).every(
    (c) => likeness(c.text, text) <= (c.longAgo ? LONG_AGO_BOUND : LIKENESS_BOUND),
  )
}
