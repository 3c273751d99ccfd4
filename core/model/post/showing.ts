import { alikeIn, drawnCard, pictureKey } from './media'
import type { Post } from './post'

/** That an account shows a picture, by its key, on a day, counted from some other day. Like pictures go by one key. */
export interface Showing {
  picture: string
  account: string
  network: string
  day: number
}

const DAY = 86_400_000

/** The pictures of a post that readers would know again: of cards only the first, the others are its slides. */
export function shownOf(media: Post['media']): Post['media'] {
  return media.filter(({ source }, i) => i === 0 || drawnCard(source) === null)
}

/**
 * Which pictures posts show (`shownOf`), with their days counted from one day on, in the order of the posts. `alike` says by
 * what a picture is known; without it, like ones among those of the posts are one.
 */
export function showings(
  posts: readonly Post[],
  from: string,
  alike: (key: string) => string = alikeIn(posts.flatMap((p) => p.media)),
): Showing[] {
  return posts.flatMap(({ account, network, media, state, publishedAt, at, wished }) =>
    state === 'set aside'
      ? []
      : shownOf(media).map(({ source }) => ({
          picture: alike(pictureKey(source)),
          account,
          network,
          day: Math.round((Date.parse((publishedAt ?? at ?? wished).slice(0, 10)) - Date.parse(from)) / DAY),
        })),
  )
}

/**
 * Which of some showings break the rule for pictures, by their index: the same picture on a network again before `restDays`
 * are over, or twice in a row on an account. Of each two the later one is named; on one day the one that comes later
 * in the list.
 */
export function repeatsAmong(shown: readonly Showing[], restDays: number): Set<number> {
  const inTime = shown.map((s, i) => ({ ...s, i })).sort((a, b) => a.day - b.day || a.i - b.i)
  const last = new Map<string, number>()
  const before = new Map<string, string>()
  const repeated = new Set<number>()
  for (const { i, picture, account, network, day } of inTime) {
    const key = `${network} ${picture}`
    const then = last.get(key)
    if ((then !== undefined && day - then < restDays) || before.get(account) === picture) repeated.add(i)
    last.set(key, day)
    before.set(account, picture)
  }
  return repeated
}
