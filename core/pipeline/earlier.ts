import type { EarlierCaption } from '../drips'
import type { Post } from '../model'

const DAY = 86_400_000
/** Days for which captions count fully: nothing opens like them, and little may be like them. */
const LATELY_DAYS = 90
/** Days for which they count at all, so that an account never says the same twice in a year. */
const YEAR_DAYS = 365

/** How long ago a caption stood, or how far ahead it stands, as seen from a moment: lately, within a year, or not any more. */
export function sinceThen(
  post: Pick<Post, 'at' | 'publishedAt' | 'wished'>,
  moment: string,
): 'lately' | 'long ago' | 'forgotten' {
  const days = Math.abs(Date.parse(moment) - Date.parse(post.at ?? post.publishedAt ?? post.wished)) / DAY
  return days <= LATELY_DAYS ? 'lately' : days <= YEAR_DAYS ? 'long ago' : 'forgotten'
}

/** The captions of the last 90 days, the piece's own of the last year, and those to come, the newest last, as its writer minds them. */
export function earlierCaptions(
  posts: readonly Post[],
  now: string,
  piece: string | null = null,
): EarlierCaption[] {
  return posts
    .flatMap((post) => {
      const samePiece = piece !== null && post.piece === piece
      const toCome = (post.at ?? post.publishedAt ?? post.wished) > now
      const since = toCome ? 'lately' : sinceThen(post, now)
      const minded = since === 'lately' || (samePiece && since === 'long ago')
      return post.state !== 'set aside' && minded ? [{ post, samePiece, longAgo: since === 'long ago' }] : []
    })
    .sort((a, b) => (a.post.at ?? a.post.wished).localeCompare(b.post.at ?? b.post.wished))
    .map(({ post: { account, network, wording }, samePiece, longAgo }) => ({
      account,
      network,
      text: wording.text,
      title: wording.title,
      closing: wording.closing,
      samePiece,
      longAgo,
    }))
}
