import { nanoid } from 'nanoid'
import {
  around,
  Fault,
  type FoundPassage,
  type Passage,
  type Place,
  type WholePiece,
} from '../../../core/model'
import { heavy } from '../../workers'
import { askWriter } from '../services'
import { commit, must, patch, put, remove, type Write } from '../store'

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
  await commit({ brand: passage.brand, label }, [patch('passages', id, (p) => ({ ...p, choice }))])
}

/** Adds a passage that a person selected, widened to whole words. Gives its id. */
export async function addPassage(piece: WholePiece, start: number, end: number): Promise<string> {
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
  await commit({ brand: piece.brand, label: 'Add a passage' }, [put('passages', passage)])
  return passage.id
}

/** Moves one edge of a passage by a sentence: outwards (1) or inwards (−1). */
export async function stretchPassage(
  piece: WholePiece,
  passage: Passage,
  edge: 'start' | 'end',
  by: 1 | -1,
): Promise<void> {
  const starts = piece.sentences.map((s) => s.start)
  const ends = piece.sentences.map((s) => s.end)
  const start =
    edge === 'end'
      ? passage.start
      : by === 1
        ? [...starts].reverse().find((s) => s < passage.start)
        : starts.find((s) => s > passage.start && s < passage.end)
  const end =
    edge === 'start'
      ? passage.end
      : by === 1
        ? ends.find((e) => e > passage.end)
        : [...ends].reverse().find((e) => e < passage.end && e > passage.start)
  if (start === undefined || end === undefined)
    throw new Fault(
      'bad-request',
      by === -1
        ? 'A passage has at least one sentence.'
        : edge === 'end'
          ? 'The piece ends here.'
          : 'The piece begins here.',
    )
  await reshape(piece, passage, start, end, by === 1 ? 'Stretch a passage' : 'Shorten a passage')
}

/** Joins a passage with the next one in the text, and what stands between them, into one. */
export async function joinPassage(
  piece: WholePiece,
  passage: Passage,
  passages: readonly Passage[],
): Promise<void> {
  const next = passages
    .filter((p) => !p.lostPlace && p.choice !== 'left out' && p.start >= passage.end)
    .sort((a, b) => a.start - b.start)[0]
  if (!next) throw new Fault('bad-request', 'No passage follows this one in the text. Stretch it instead.')
  await reshape(piece, passage, passage.start, next.end, 'Join two passages', [remove('passages', next.id)])
}

async function reshape(
  piece: WholePiece,
  passage: Passage,
  start: number,
  end: number,
  label: string,
  writes: Write[] = [],
): Promise<void> {
  if (end - start > LONGEST)
    throw new Fault(
      'bad-request',
      `That would be ${end - start} characters; a passage has at most ${LONGEST}.`,
    )
  const changed = await passageFor(piece, start, end, passage.id)
  await commit({ brand: piece.brand, label }, [
    put('passages', { ...changed, choice: passage.choice, by: passage.by }),
    ...writes,
  ])
}

export async function removePassage(passage: Passage): Promise<void> {
  await commit({ brand: passage.brand, label: 'Remove a passage' }, [remove('passages', passage.id)])
}

/**
 * Has the connected writer choose the passages of a piece. What it chooses is kept, what the built-in chooser
 * kept becomes spare, and what a person added or left out stays as it is. Gives how many it chose. Throws where
 * the piece is too long to be sent whole, or the answer names no sentence of it.
 */
export async function choosePassagesConnected(
  piece: WholePiece,
  passages: readonly Passage[],
): Promise<number> {
  const messages = await heavy().commissionChoice(piece)
  if (!messages)
    throw new Fault(
      'bad-request',
      'This piece is too long to be sent to a writer whole. Choose by hand here.',
    )
  const { text } = await askWriter(messages)
  const found = await heavy().choiceOf(text, piece)
  if (found.length === 0)
    throw new Fault(
      'bad-answer',
      'The connected writer’s answer names no sentences of this piece. The choice there is stays.',
    )
  const mine = passages.filter((p) => p.by === 'machine' && p.choice !== 'left out' && !p.lostPlace)
  const same = (f: Place): Passage | undefined => mine.find((p) => p.start === f.start && p.end === f.end)
  const kept = new Set(found.map((f) => same(f)?.id))
  const turned = mine.filter((p) => (p.choice === 'kept') !== kept.has(p.id))
  await commit({ brand: piece.brand, label: 'Passages by the connected writer' }, [
    ...turned.map((p) =>
      put('passages', { ...p, choice: kept.has(p.id) ? ('kept' as const) : ('spare' as const) }),
    ),
    ...found.filter((f) => !same(f)).map((f) => put('passages', passageOf(piece, f, nanoid(), 'machine'))),
  ])
  return found.length
}

async function passageFor(piece: WholePiece, start: number, end: number, id: string): Promise<Passage> {
  return passageOf(piece, await heavy().passageAt(piece, start, end), id, 'person')
}

/** A passage of a piece as it is kept. */
export function passageOf(piece: WholePiece, found: FoundPassage, id: string, by: Passage['by']): Passage {
  return {
    ...found,
    id,
    brand: piece.brand,
    piece: piece.id,
    revision: piece.revision,
    ...around(piece.text, found.start, found.end),
    choice: 'kept',
    by,
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
