import { nanoid } from 'nanoid'
import { Fault, type Passage, type WholePiece } from '../../../core/model'
import type { ShortTexts } from '../../../core/formats'
import { heavy } from '../../workers'
import { nowIso } from '../clock'
import { all, commit, newAction, patch, put, remove, wholePiece } from '../store'
import { passageOf } from './passages'
import { takeWriting } from './writing'

/**
 * Puts short texts on the shelf as a collection: one piece, of which each text is a passage. Under a title that stands already
 * they take the place of those there: what stays keeps when it was out, what is no longer among them stands off the shelf.
 * It is one action. Gives the piece's id.
 */
export async function keepCollection(brand: string, title: string, { texts }: ShortTexts): Promise<string> {
  const name = title.trim()
  if (name === '') throw new Fault('bad-request', 'Give the collection a name, so that you find it again.')
  const sources = (await all('sources', 'brand', brand)).filter(
    (s) => s.kind === 'writing' && s.title === name,
  )
  const named = await Promise.all(sources.map((s) => all('pieces', 'source', s.id)))
  if (named.flat().some((p) => !p.collection))
    throw new Fault(
      'bad-request',
      `“${name}” is the name of a piece of writing that was taken in. Give the collection another name, so that it stays as it is.`,
    )
  const count = texts.length === 1 ? 'a short text' : `${texts.length} short texts`
  const actor = { brand, label: `Put ${count} on the shelf`, action: newAction() }
  const read = await heavy().readTexts(texts, { title: name })
  const [id] = await takeWriting(brand, name, [read], 'manuscript', actor)
  const piece = await wholePiece(id ?? '')
  const standing = await all('passages', 'piece', piece.id)
  const mine = standing.filter((p) => p.by === 'person' && !p.lostPlace)
  const places = placesOf(piece).filter(
    (place) => !mine.some((p) => p.start === place.start && p.end === place.end),
  )
  const found = await heavy().passagesAt(piece, places)
  await commit(actor, [
    // What the machine chose of it are parts of texts, or several in one.
    ...standing.filter((p) => p.by === 'machine').map((p) => remove('passages', p.id)),
    ...found.map((f) =>
      put('passages', { ...passageOf(piece, f, nanoid(), 'person'), shelf: 'on' } satisfies Passage),
    ),
    patch('pieces', piece.id, (p) => ({ ...p, collection: true, dealt: { by: 'the shelf', at: nowIso() } })),
  ])
  return piece.id
}

/** Where each text of a collection stands in it. */
function placesOf({ blocks }: WholePiece): { start: number; end: number }[] {
  return blocks.filter((b) => b.kind !== 'heading').map(({ start, end }) => ({ start, end }))
}

/** Short texts out of a file (`shortTextsOf`). */
export function shortTextsOfFile(name: string, bytes: Uint8Array): Promise<ShortTexts> {
  return heavy().shortTextsOf(name, bytes)
}
