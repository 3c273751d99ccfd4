import { nanoid } from 'nanoid'
import { Fault, type Passage, type Piece } from '../../../core/model'
import { heavy } from '../../workers'
import { commit, must, patch, put, remove, type Write } from '../store'

const CONTEXT = 40
const LONGEST = 1600

/** Keeps a passage, leaves it out, or puts it back among the spare ones. */
export async function choosePassage(id: string, choice: Passage['choice']): Promise<void> {
  const passage = await must('passages', id)
  const label =
    choice === 'kept'
      ? 'Keep a passage'
      : choice === 'left out'
        ? 'Leave a passage out'
        : 'Put a passage among the spare ones'
  await commit({ brand: passage.brand, label }, [patch('passages', id, (p) => ({ ...p, choice })) as Write])
}

/** Adds a passage that a person selected, widened to whole words. Gives its id. */
export async function addPassage(piece: Piece, start: number, end: number): Promise<string> {
  const place = wholeWords(piece.text, start, end)
  const length = place.end - place.start
  if (length < 12)
    throw new Fault('bad-request', 'Select a little more: a passage wants at least a few words.')
  if (length > LONGEST)
    throw new Fault(
      'bad-request',
      `This selection has ${length} characters; a passage has at most ${LONGEST}. Select less.`,
    )
  const passage = await passageFor(piece, place.start, place.end, nanoid())
  await commit({ brand: piece.brand, label: 'Add a passage' }, [put('passages', passage) as Write])
  return passage.id
}

/** Moves a passage's end by a sentence: outwards or inwards. */
export async function stretchPassage(piece: Piece, passage: Passage, by: 1 | -1): Promise<void> {
  const ends = piece.sentences.map((s) => s.end)
  const end =
    by === 1
      ? ends.find((e) => e > passage.end)
      : [...ends].reverse().find((e) => e < passage.end && e > passage.start)
  if (end === undefined)
    throw new Fault('bad-request', by === 1 ? 'The piece ends here.' : 'A passage has at least one sentence.')
  const changed = await passageFor(piece, passage.start, end, passage.id)
  await commit({ brand: piece.brand, label: by === 1 ? 'Stretch a passage' : 'Shorten a passage' }, [
    put('passages', { ...changed, choice: passage.choice, by: passage.by }) as Write,
  ])
}

export async function removePassage(passage: Passage): Promise<void> {
  await commit({ brand: passage.brand, label: 'Remove a passage' }, [remove('passages', passage.id) as Write])
}

async function passageFor(piece: Piece, start: number, end: number, id: string): Promise<Passage> {
  const found = await heavy().passageAt(piece, start, end)
  return {
    ...found,
    id,
    brand: piece.brand,
    piece: piece.id,
    revision: piece.revision,
    before: piece.text.slice(Math.max(0, start - CONTEXT), start),
    after: piece.text.slice(end, end + CONTEXT),
    choice: 'kept',
    by: 'person',
    lostPlace: false,
  }
}

function wholeWords(text: string, start: number, end: number): { start: number; end: number } {
  let from = start
  let to = end
  while (
    from > 0 &&
    /[\p{L}\p{N}’'-]/u.test(text[from] ?? '') &&
    /[\p{L}\p{N}’'-]/u.test(text[from - 1] ?? '')
  )
    from--
  while (
    to < text.length &&
    /[\p{L}\p{N}’'-]/u.test(text[to - 1] ?? '') &&
    /[\p{L}\p{N}’'-]/u.test(text[to] ?? '')
  )
    to++
  if (/[.!?]/.test(text[to] ?? '')) to++
  while (from < to && /\s/.test(text[from] ?? '')) from++
  while (to > from && /\s/.test(text[to - 1] ?? '')) to--
  return { start: from, end: to }
}
