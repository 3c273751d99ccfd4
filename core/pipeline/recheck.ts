import { sourceText, type CheckContext } from '../captions'
import type { Brand, Post, WholePiece } from '../model'
import { network } from '../networks'

/** The context in which a post's caption is checked, from the records around it. */
export function contextFor(
  post: Post,
  brand: Brand,
  piece: WholePiece,
  posts: readonly Post[],
): CheckContext {
  return {
    profile: network(post.network),
    house: { style: brand.houseStyle, brand: brand.name },
    source: sourceText(piece),
    pictures: post.media ? 1 : 0,
    others: posts
      .filter((p) => p.id !== post.id && p.network === post.network && p.state !== 'set aside')
      .map((p) => ({ text: p.wording.text, sibling: p.account !== post.account })),
  }
}
