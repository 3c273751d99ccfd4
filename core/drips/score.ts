import { briefOf, leanOf, lengthOf, openingOf, type WholeBrief } from '../house'
import { opening } from '../judging'
import { readingEase } from '../language'
import type { Wording } from '../model'
import { graphemes, measure, network } from '../networks'
import { plainly, SHAPES, type Draft } from '../setting'
import { hash32, firstSentence } from '../text'
import type { Assignment } from '../writers'

/** What repeating costs, as a factor: the account's last angle, the one before, its last length, an opening that it had long ago. */
const AGAIN = { last: 0.88, second: 0.96, length: 0.97, opening: 0.85 }
/** What another speaker than the voice's costs, and words harder than its reader likes. */
const OTHER_SPEAKER = 0.95
const HARD = 0.95
/** How much of two equal wordings is left to the seed. */
const CHANCE = 0.02

/**
 * How good a wording is for its account, 0 to a little over 1: how likely readers would post what it says (`Draft.worth`),
 * times how well its form suits the network's readers: its length against the brief's, a hook that is read
 * at a glance, sentences and paragraphs as the shape has them; more or less, by an eighth at most, for what
 * earned more or less there (`leanOf`); less for what repeats the account's last posts, for another speaker
 * than the voice's, and for hard words. `before` are the account's wordings of this drip, the newest first; `opened` is
 * how captions of the piece opened that its readers saw long ago.
 */
export function scoreWording(
  made: Omit<Wording, 'score'>,
  draft: Draft,
  { order, account }: Pick<Assignment, 'order' | 'account'>,
  before: readonly Wording[],
  opened: ReadonlySet<string> = new Set(),
): number {
  const profile = network(account.network)
  const brief = briefOf(profile, order.house)
  const body = draft.paragraphs.map(plainly).join(' ')
  const length = measure(made.text, profile.text)
  const score =
    draft.worth *
    lengthFits(length, brief) *
    hookFits(made.text) *
    shapeFits(draft, brief) *
    variety(made, length, before, brief) *
    (opened.has(opening(made.text)) ? AGAIN.opening : 1) *
    leanOf(
      { angle: made.angle, length: lengthOf(made.text, profile), opening: openingOf(made.text) },
      brief.leanings,
    ) *
    (speaksAsAnother(body, brief) ? OTHER_SPEAKER : 1) *
    ((readingEase(body) ?? 100) < brief.reading - 20 ? HARD : 1)
  const chance = hash32(`${order.seed} ${account.id} ${made.text}`) / 2 ** 32
  return Math.round(score * (1 - CHANCE * chance) * 1000) / 1000
}

/** What is shorter than the brief's least loses up to a quarter. */
const lengthFits = (length: number, { length: { least } }: WholeBrief): number =>
  length >= least ? 1 : 0.75 + (0.25 * length) / least

/** A first sentence is read at a glance up to about 110 characters, and says little below eighteen. */
function hookFits(text: string): number {
  const hook = graphemes(firstSentence(text.split('\n')[0] ?? ''))
  if (hook < 18) return 0.9
  return hook <= 110 ? 1 : Math.max(0.8, 1 - (hook - 110) / 500)
}

function shapeFits(draft: Draft, brief: WholeBrief): number {
  const shape = SHAPES[brief.shape]
  const body = shape.lays(draft.paragraphs)
  const sentences = draft.paragraphs.reduce((n, p) => n + (p.kind === 'prose' ? p.sentences.length : 2), 0)
  return shape.suits(sentences, body.split('\n\n').length)
}

function variety(
  made: Omit<Wording, 'score'>,
  length: number,
  [last, second]: readonly Wording[],
  { length: { least, most } }: WholeBrief,
): number {
  const angle = made.angle === last?.angle ? AGAIN.last : made.angle === second?.angle ? AGAIN.second : 1
  const near = last && Math.abs(graphemes(last.text) - length) < 0.08 * (most - least)
  return angle * (near ? AGAIN.length : 1)
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
