import { houseOf } from '../house'
import { sourceText, type CheckContext } from '../judging'
import { codedCard, creditsOf, type Brand, type Post, type WholePiece } from '../model'
import { mediaIn, network } from '../networks'
import { addressesIn, bareWords, trigrams } from '../text'
import { sinceThen } from './earlier'

/** The address that a post leads to, also where a person only typed it among the words; null where there is none. */
export function linkedPage(post: Pick<Post, 'piece' | 'link' | 'wording'>): string | null {
  return post.link ?? (post.piece ? null : (addressesIn(post.wording.text)[0]?.text ?? null))
}

/** The line of an occasion's post that names its day; null where it has none. */
export function datedLine({ occasion, wording }: Pick<Post, 'occasion' | 'wording'>): string | null {
  return occasion ? wording.closing : null
}

/**
 * Those of many posts against which a post's caption is checked: of its network, and with three words in a row
 * or all words in common with it. No other can repeat it or be alike.
 */
export function neighboursOf(post: Post, posts: readonly Post[]): Post[] {
  const bare = bareWords(post.wording.text)
  const mine = [...trigrams(post.wording.text)]
  return posts.filter((p) => {
    if (p.id === post.id || p.network !== post.network) return false
    const theirs = trigrams(p.wording.text)
    return mine.some((g) => theirs.has(g)) || (bare !== '' && bareWords(p.wording.text) === bare)
  })
}

/** The context in which a post's caption is checked, from the records around it. */
export function contextFor(
  post: Post,
  brand: Brand,
  /** Null where a person wrote the post by itself: its words answer to no piece. */
  piece: WholePiece | null,
  posts: readonly Post[],
): CheckContext {
  return {
    profile: network(post.network),
    house: { ...houseOf(brand), dated: datedLine(post) },
    source: piece && sourceText(piece),
    language: piece?.language ?? null,
    writtenAt: piece?.publishedAt ?? null,
    link: post.link,
    keepsUntil: piece?.keeps.until ?? null,
    goesOut: (post.at ?? post.wished).slice(0, 10),
    linkTrouble: (linkedPage(post) && (piece ?? post).linkCheck?.trouble) ?? null,
    ...mediaIn(post),
    alts: post.media.map((m) => m.alt),
    credits: creditsOf(post.media),
    codes: post.media.filter(({ source }) => codedCard(source)).length,
    beside: post.wording,
    others: posts
      .filter((p) => p.id !== post.id && p.network === post.network && p.state !== 'set aside')
      // What comes again by a rule says the same each time, and is meant to.
      .filter((p) => !post.recurrence || p.recurrence !== post.recurrence || p.account !== post.account)
      .flatMap((p) => {
        const since = sinceThen(p, post.at ?? post.wished)
        const other = { text: p.wording.text, sibling: p.account !== post.account }
        return since === 'forgotten' ? [] : [{ ...other, longAgo: since === 'long ago' }]
      }),
  }
}
