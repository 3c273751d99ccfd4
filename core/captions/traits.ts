import type { PieceContent } from '../model'
import { isBelief } from './belief'
import type { Draft } from './drafts'
import { quantitiesIn } from './grounding'
import type { Topic } from './topics'

/** What a reader who has not seen the piece makes of a draft. */
export interface Traits {
  /** It names what the piece is about. */
  about: boolean
  /** It is one statement without a word of that. */
  lone: boolean
  /** It opens on a thing or on somebody that the piece told of before. */
  strange: boolean
  /** How many numbers its first paragraph holds. */
  figures: number
}

/** The traits of a draft; `subject` are the words of the piece's key phrases. */
export function traitsOf(
  draft: Draft,
  piece: PieceContent,
  topic: Topic,
  subject: ReadonlySet<string>,
): Traits {
  const about = touches(draft, topic)
  return {
    about,
    lone: !about && draft.opens !== 'order' && isLone(draft, subject),
    strange: (draft.known && isStrange(draft, topic.lemmas, subject)) || opensOnSomebody(piece, draft),
    figures: quantitiesIn(draft.paragraphs[0] ?? '').length,
  }
}

/** Whether a draft is one statement without a word of what the piece is about. */
function isLone({ paragraphs, lemmas }: Draft, subject: ReadonlySet<string>): boolean {
  const body = paragraphs.join(' ')
  if (/[.!?:]["”’)]* \S/.test(body) || /^[“"]/.test(body)) return false
  return ![...lemmas].some((l) => subject.has(l))
}

/** Whether a draft opens on "the" and a thing that a reader of it alone has not heard of. */
function isStrange({ paragraphs }: Draft, ...subjects: ReadonlySet<string>[]): boolean {
  const [first = ''] = paragraphs
  // "The call that everyone imitates" says itself which; "the usual answer" is what people say.
  if (/^The (?:\S+ ){1,4}(?:that|who|which|of)\b/.test(first) || isBelief(first)) return false
  const [, one = '', two = ''] = /^The ([\p{L}-]+) ([\p{L}-]+)/u.exec(first) ?? []
  return ![one, two].some((w) =>
    subjects.some((s) => s.has(w) || s.has(w.replace(/(?:es|s)$/, '')) || s.has(w.replace(/s$/, ''))),
  )
}

/** Whether a draft opens on somebody by a name that the piece has told before, and its title has not. */
function opensOnSomebody(piece: PieceContent, { paragraphs, spans }: Draft): boolean {
  const [, name] = /^(\p{Lu}[\p{L}-]{2,})(?:[’']s)? \p{Ll}/u.exec(paragraphs[0] ?? '') ?? []
  if (!name || piece.title.includes(name)) return false
  const told = piece.text.search(new RegExp(`[\\p{L},;] ${name}\\b|\\b${name} \\p{Lu}`, 'u'))
  return told >= 0 && told < (spans[0]?.start ?? 0)
}

/** Whether a text begins with a word of the label that would stand before it. */
export function beginsLike(text: string, label: string): boolean {
  const words = (said: string): string[] => said.toLowerCase().match(/\p{L}{4,}/gu) ?? []
  const own = new Set(words(label))
  return words(text)
    .slice(0, 3)
    .some((w) => own.has(w))
}

/** Whether a draft names what the piece is about. */
function touches(draft: Draft, topic: Topic): boolean {
  for (const lemma of draft.lemmas) if (topic.lemmas.has(lemma)) return true
  return topic.lemmas.size === 0
}
