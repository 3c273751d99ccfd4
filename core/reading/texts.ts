import type { PieceContent } from '../model'
import type { Known } from './about'
import { assemblePiece } from './piece'

/** Words of one's own as a piece, a paragraph each, as they were written: none of them is taken for a page's furniture. */
export function readTexts(
  texts: readonly string[],
  { title = '', author, categories = [] }: Pick<Known, 'title' | 'author' | 'categories'>,
): PieceContent {
  return assemblePiece(
    {
      title,
      url: null,
      author: author || null,
      publishedAt: null,
      language: null,
      categories,
      summary: '',
      video: null,
    },
    texts.map((text) => ({ kind: 'paragraph', text, furniture: null })),
    [],
  )
}
