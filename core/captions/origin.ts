import { readSentences, shorterSentences, turned, unjoined } from '../language'
import type { PieceContent } from '../model'
import { withoutAddresses, withoutTags } from '../text'
import { analyse } from '../reading'
import { withoutFillers } from '../speech'
import { closingsFor } from './closings'
import { FRAMES, fill } from './frames'
import { headlines } from './titles'
import { topicOf } from './topics'
import { ANGLES } from '../model'

/** Where a sentence of a caption comes from. */
export type Origin =
  | 'the piece'
  | 'the piece, reworded by grammar'
  | 'a heading'
  | 'a list'
  | 'the library'
  | 'the house'
  | 'the post'

const plain = (text: string): string =>
  text
    .replace(/[“”„"]/g, '')
    .replace(/[’‘]/g, "'")
    .replace(/[\s\u00a0]+/g, ' ')
    .replace(/[.:!?…]+$/, '')
    .trim()
    .toLowerCase()

/**
 * Accounts for every sentence of a caption written in the plain house: whether it stands in the
 * piece as it is, was reworded by one of the rules of grammar, or is one of the library's lines.
 * Null for a sentence that nothing accounts for: one cut in two, or made up.
 */
export function originsOf(
  text: string,
  piece: PieceContent,
  own: readonly string[] = [],
): { sentence: string; origin: Origin | null }[] {
  const known = sourcesOf(piece)
  const lines = withoutTags(withoutAddresses(text), '')
    .replace(/\]\(\)/g, ']')
    .split('\n')
    .map((l) => l.replace(/^(?:#+|>|–|-|✅|\d+\.|\d+:\d\d(?::\d\d)?) /u, '').trim())
    .filter(Boolean)
  return lines.flatMap((line) => {
    const whole = known.get(plain(line)) ?? lineOf(line, own)
    if (whole) return [{ sentence: line, origin: whole }]
    const each = accounted(line, known, own)
    // A label stands before the first of its sentences, unless it is only the beginning of one.
    const label = /^([^:]{3,70}): (?=\S)/.exec(line)
    const labelled = label ? (known.get(plain(label[1] ?? '')) ?? null) : null
    if (!label || !labelled || each.every((e) => e.origin !== null)) return each
    return [
      { sentence: label[0].trim(), origin: labelled },
      ...accounted(line.slice(label[0].length), known, own),
    ]
  })
}

/** Where each sentence of a line comes from; a line that is known whole is one. */
function accounted(
  line: string,
  known: ReadonlyMap<string, Origin>,
  own: readonly string[],
): { sentence: string; origin: Origin | null }[] {
  const whole = known.get(plain(line))
  if (whole) return [{ sentence: line, origin: whole }]
  return readSentences(line).map((s) => {
    const sentence = line.slice(s.start, s.end).replace(/ — .{2,60}$/, '')
    return {
      sentence,
      origin: known.get(plain(sentence)) ?? asked(sentence, known) ?? lineOf(sentence, own),
    }
  })
}

/** "Do you name a time?" of "Name a time." */
function asked(sentence: string, known: ReadonlyMap<string, Origin>): Origin | null {
  const [, order] = /^Do you (.+)\?$/.exec(sentence) ?? []
  return order && known.has(plain(order)) ? 'the piece, reworded by grammar' : null
}

function lineOf(line: string, own: readonly string[]): Origin | null {
  if (/^(?:Link in the (?:first comment|profile)\.|By .{2,60}\.|\[.*\])$/.test(line) || /^[—–] /.test(line))
    return 'the post'
  return own.some((o) => plain(o) === plain(line)) ? 'the house' : null
}

const cache = new WeakMap<PieceContent, ReadonlyMap<string, Origin>>()

/** Everything a sentence of a caption may be, by its plain form. */
function sourcesOf(piece: PieceContent): ReadonlyMap<string, Origin> {
  const before = cache.get(piece)
  if (before) return before
  const known = new Map<string, Origin>()
  const add = (text: string, origin: Origin): void => {
    if (!known.has(plain(text))) known.set(plain(text), origin)
  }
  const spoken = (text: string): string => (piece.video ? withoutFillers(text) : text)
  for (const s of analyse(piece)) add(spoken(s.text), 'the piece')
  for (const s of analyse(piece)) {
    const forms = new Set([s.text, spoken(s.text)])
    // A sentence may lose several parts, one after the other.
    for (let round = 0; round < 4; round++)
      for (const form of [...forms]) {
        for (const shorter of shorterSentences(form)) forms.add(shorter)
        for (const other of [turned(form), unjoined(form)]) if (other) forms.add(other)
      }
    for (const form of forms) add(form, 'the piece, reworded by grammar')
  }
  for (const block of piece.blocks) {
    const text = piece.text.slice(block.start, block.end)
    if (block.kind === 'heading') add(text, 'a heading')
    if (block.kind === 'item') add(text, 'a list')
  }
  add(piece.title, 'a heading')
  for (const h of headlines(piece, 80)) add(h.text, 'a heading')
  const topic = topicOf(piece)
  if (topic.label) add(topic.label, 'a heading')
  for (const s of analyse(piece)) {
    const defined = /^((?:An?|The) [\p{Ll}][\p{Ll} -]{2,40}?) is an? /u.exec(s.text)?.[1]
    if (defined) add(`What is ${defined}`, 'the piece, reworded by grammar')
  }
  for (const chapter of piece.video?.chapters ?? []) add(chapter.title, 'a heading')
  for (const angle of ANGLES) {
    for (const frame of FRAMES[angle]) {
      const text = fill(frame.text, topic)
      if (text) add(text, 'the library')
    }
    for (const line of closingsFor(angle, topic)) add(line, 'the library')
  }
  cache.set(piece, known)
  return known
}
