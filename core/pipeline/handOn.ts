import { around, quotable, type Passage, type Piece, type Post, type WholePiece } from '../model'
import { readTexts } from '../reading'
import { withoutAddresses, withoutTags } from '../text'
import { takeWriting } from './take'

/**
 * A published post as a piece of its own, for the pipeline that takes it over: its words without addresses and
 * hashtags, all of them one passage that is kept; it leads to where the post stands. It keeps as long as the piece
 * that it was made from. Null where no words are left.
 */
export function pieceOfPost(
  post: Post,
  piece: Piece,
  of: { id: string; from: string; to: string; by: string; now: string },
): { piece: WholePiece; passages: Passage[] } | null {
  const words = [post.wording.text, ...post.wording.parts]
    .flatMap((part) => part.split(/\n{2,}/))
    .map((part) => withoutTags(withoutAddresses(part)).replace(/\s+/g, ' ').trim())
    .filter((part) => /[\p{L}\p{N}]/u.test(part))
  const content = readTexts(words, {
    title: post.wording.title ?? piece.title,
    categories: piece.categories,
    ...(piece.author ? { author: piece.author } : {}),
  })
  const text = quotable(content)
  if (text === '') return null
  const pictures = post.media.flatMap(({ source, alt }) =>
    source.from === 'address' && /^https?:/.test(source.url)
      ? [{ url: source.url, alt, caption: '', width: null, height: null, block: -1 }]
      : [],
  )
  const made = takeWriting(
    {
      ...content,
      url: post.publicUrl ?? post.link ?? piece.url,
      publishedAt: post.publishedAt,
      language: piece.language,
      images: pictures,
    },
    { id: of.id, brand: piece.brand, source: piece.source, now: of.now },
    {
      itemId: post.id,
      kind: piece.kind,
      keeps: { ...piece.keeps, phrases: [] },
      handedTo: [of.to],
      through: [...piece.through, of.from],
      // It waits for that pipeline alone, for nobody in Intake.
      dealt: { by: of.by, at: of.now },
    },
  )
  const passage: Passage = {
    id: `${made.id}.whole`,
    brand: made.brand,
    piece: made.id,
    revision: 1,
    start: 0,
    end: made.text.length,
    text: made.text,
    kind: 'statement',
    score: 1,
    reasons: ['a whole post'],
    ...around(made.text, 0, made.text.length),
    choice: 'kept',
    by: 'machine',
    lostPlace: false,
  }
  return { piece: made, passages: [passage] }
}
