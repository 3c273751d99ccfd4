import type { FoundPassage, Wording } from '../model'
import { graphemes, measure, type NetworkProfile } from '../networks'
import { NUMBER_WORDS, readingEase } from '../language'
import type { WholeBrief } from './brief'
import { firstSentence } from '../text'
import type { Draft } from './drafts'

/** What a wording is scored beside its own words. */
export interface Scored {
  draft: Draft
  profile: NetworkProfile
  brief: WholeBrief
  passage: FoundPassage
  /** Whether a reader sees what it is about. */
  about: boolean
  /** The account's captions before it, the newest first. */
  before: readonly Pick<Wording, 'angle' | 'text'>[]
}

/**
 * How good a wording is for its network, about 0 to 1. Weighted: the passage's own score 0.2, its
 * length against the brief's band 0.2, a hook that is read at a glance 0.2, how much of the passage
 * it says 0.15, paragraphs as the network's readers expect 0.15, particular words 0.1. Taken off:
 * 0.12 for the account's last angle again and 0.04 for the one before, 0.04 for its last length,
 * 0.12 for opening on something known only from the piece, 0.08 where nothing says what it is
 * about, 0.07 for words that are not the piece's, 0.05 for another speaker than the voice's, 0.05 for words
 * harder than its reader likes.
 */
export function scoreWording(
  made: Omit<Wording, 'score'>,
  { draft, profile, brief, passage, about, before }: Scored,
): number {
  const length = measure(made.text, profile.text)
  const { least, most } = brief.length
  const band = length < least ? length / least : length > most ? most / length : 1
  const body = draft.paragraphs.join(' ')
  const hook = graphemes(firstSentence(draft.paragraphs[0] ?? ''))
  const hookScore = hook < 18 ? 0.5 : hook <= 110 ? 1 : Math.max(0.3, 1 - (hook - 110) / 160)
  const numbered =
    /\d/.test(body) ||
    body
      .toLowerCase()
      .split(/[^a-z]+/)
      .some((w) => (NUMBER_WORDS[w] ?? 0) >= 3)
  const covers = Math.min(1, overlap(made.spans, passage) / Math.max(1, passage.end - passage.start))
  let score =
    0.2 * passage.score +
    0.2 * band +
    0.2 * hookScore +
    0.15 * covers +
    0.15 * shapeOf(draft, made, brief) +
    0.1 * (numbered ? 1 : 0.4)
  const [last, second] = before
  if (made.angle === last?.angle) score -= 0.12
  else if (made.angle === second?.angle) score -= 0.04
  if (last && Math.abs(measure(last.text, profile.text) - length) < 0.08 * (most - least)) score -= 0.04
  if (draft.known) score -= 0.12
  if (!about) score -= 0.08
  if (draft.framed || made.frame !== null) score -= 0.07
  if (speaksAsAnother(body, brief)) score -= 0.05
  const ease = readingEase(body)
  if (ease !== null && ease < brief.reading - 20) score -= 0.05
  return Math.max(0, score)
}

/** How near its paragraphs come to what a network's readers expect. */
function shapeOf(draft: Draft, made: Omit<Wording, 'score'>, brief: WholeBrief): number {
  const count = draft.paragraphs.length
  switch (brief.shape) {
    case 'considered':
      return Math.min(1, count / 3)
    case 'letter':
      return Math.min(1, count / 4)
    case 'neighbourly':
      return count <= 3 ? 1 : 0.7
    case 'pictures speak':
      return count <= 2 ? 1 : 0.6
    default:
      return count <= 1 || made.text.includes('\n') ? 1 : 0.8
  }
}

/** "I tried it" where the brand says "we" or nobody speaks: true, but in another's voice. */
function speaksAsAnother(body: string, { voice }: WholeBrief): boolean {
  const outside = body.replace(/“[^”]*”/g, ' ')
  const I = /\b(?:I|my|me)\b/.test(outside)
  const we = /\b(?:we|our|us)\b/i.test(outside)
  if (voice.speaker === 'I') return we && !I
  if (voice.speaker === 'we') return I
  return I || (voice.speaker === 'you' && we)
}

function overlap(
  spans: readonly { start: number; end: number }[],
  place: { start: number; end: number },
): number {
  return spans.reduce(
    (sum, s) => sum + Math.max(0, Math.min(s.end, place.end) - Math.max(s.start, place.start)),
    0,
  )
}
