import { houseOf } from '../../../core/house'
import type { Brand, Gate, Pipeline, Post } from '../../../core/model'
import { datedLine } from '../../../core/pipeline'
import { tagFiguresFor } from '../services'
import { all, wholePiece } from '../store'

/**
 * A post that was written alone, in the words of the connected writer where its brand writes by that; where it fails, in those of the
 * built-in writer, with the reason (`writeConnected`). `beside` are posts that are not kept yet, `day` names the occasion it is for.
 */
export async function byItsWriter(
  post: Post,
  brand: Brand,
  of: {
    pipeline?: Pick<Pipeline, 'make'> | undefined
    gate: Gate
    beside?: readonly Post[]
    day?: string
  },
): Promise<Post> {
  if (brand.houseStyle.writer !== 'connected') return post
  const { writeConnected } = await import('./connected')
  const piece = await wholePiece(post.piece ?? '', post.pieceRevision)
  const [passages, standing, tagFigures] = await Promise.all([
    all('passages', 'piece', piece.id),
    all('posts'),
    tagFiguresFor(piece, [post.network]),
  ])
  const [written = post] = await writeConnected(
    {
      posts: [post],
      standing: [...standing, ...(of.beside ?? [])],
      brand,
      house: { ...houseOf(brand, of.pipeline?.make), dated: datedLine(post) },
      piece,
      passages,
      gate: of.gate,
      tagFigures,
      ...(of.day === undefined ? {} : { day: of.day }),
    },
    () => undefined,
  )
  return written
}
