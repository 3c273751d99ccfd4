import { z } from 'zod'
import { ASKS } from '../angles'
import { briefOf, type WholeBrief } from '../house'
import { checkCaption, opening, sourceText, substanceOf, ungrounded } from '../judging'
import type { Angle, ChatMessage, Check, FoundPassage, PieceContent, Place, Wording } from '../model'
import { measure, network, type NetworkProfile } from '../networks'
import { proseDraft, SHAPES, titleFor } from '../setting'
import { withoutFillers } from '../speech'
import { endsSentence, firstSentence, withoutAddresses, withoutTags } from '../text'
import { settled, type Order, type Recipient } from './assignment'
import { stockOf } from './stock'

/** What a connected writer is asked for: one caption of a passage, for one account. */
export interface Commission extends Order {
  account: Recipient
  passage: FoundPassage
  angle: Angle
  beat: number
  /** The other captions of its drip, on whichever network: none opens like another. */
  drip: readonly string[]
  /** The titles of the drip's other posts: none comes twice. */
  titles?: readonly string[]
  /** The occasion that it is for, by its name; absent for none. */
  day?: string | undefined
  /** What the brand's accounts said before. */
  earlier?: readonly { account: string; network: string; text: string }[]
}

/** What became of an answer: a caption with its checks, or what is wrong with it, to be sent back. */
export type Weighed = { wording: Wording; checks: Check[] } | { faults: string[] }

/** What an answer says of one post; `places` where it says it in the author's own sentences. */
export interface Reply {
  text: string
  title: string | null
  places?: readonly Place[]
}

/** How much of what stands around a passage is given beside it, in characters. */
const AROUND = 2400

/** The rules of every question; `given` says what the writer is given to stay within. */
export function rulesFor(house: Order['house'], given: string): string[] {
  return [
    `You write posts${house.brand ? ` for ${house.brand}` : ''} from articles. You are given ${given}.`,
    'Stay within them. Every number, name, date, quotation, promise and superlative you write stands there, in the same sense. Prefer the author’s own sentences; shorten or join them only so far as they still say the same.',
    'Write whole sentences that can be understood without the article: none begins with a pronoun or a connective whose noun stayed behind, none says “below”, “this article” or “click here”.',
    'No hashtags, no links, no emoji, no headings, no markup: those are added afterwards.',
  ]
}

/** What one post is to be: its network, shape, lengths and angle, a line each. */
export function wantedOf({ account, house, angle, link, day }: Commission): string[] {
  const profile = network(account.network)
  const brief = briefOf(profile, house)
  const lines = [
    `Network: ${profile.name} (${profile.kind}). Shape: ${SHAPES[brief.shape].asks}.`,
    `Length of the text: between ${brief.length.least} and ${mostOf(profile, brief, link)} characters.`,
  ]
  if (profile.text.fold !== null && !profile.title)
    lines.push(
      `The first sentence has at most ${profile.text.fold} characters, since the rest is folded away.`,
    )
  if (profile.title)
    lines.push(`The title has at most ${profile.title.limit} characters, and is no sentence of the text.`)
  if (day)
    lines.push(
      `It goes out on this day: ${day}. Choose of the passage what suits that day; whatever names the day is added afterwards.`,
    )
  return [...lines, `Angle: ${angle}: ${ASKS[angle]}.`, `Voice: ${voiceOf(brief)}.`]
}

/** How the house writes, and which openings and titles are taken, a line each. */
export function heldTo({ house, drip, titles }: Pick<Commission, 'house' | 'drip' | 'titles'>): string[] {
  const { style } = house
  const lines: string[] = []
  if (drip.length)
    lines.push(
      `Other posts of this article open so; open otherwise:\n${drip
        .slice(0, 40)
        .map((t) => `- ${opening(t)}`)
        .join('\n')}`,
    )
  if (titles?.length) lines.push(`Titles that are taken: ${titles.join('; ')}.`)
  if (style.spelling !== 'as written') lines.push(`Spelling: ${style.spelling}.`)
  if (style.neverSay.length) lines.push(`Never say: ${style.neverSay.join('; ')}.`)
  return lines
}

/**
 * The instructions for one caption: the brief, the house style, and the passage with what stands
 * around it, with the rule to stay within them.
 */
export function commission(request: Commission): ChatMessage[] {
  const { piece, house, passage, account } = request
  // What was said is given without its ums.
  const written = (text: string): string => (piece.video ? withoutFillers(text) : text)
  const rules = [
    ...rulesFor(house, 'a passage of an article and what stands around it'),
    `Answer with JSON and nothing else: {"text": string${network(account.network).title ? ', "title": string' : ''}}`,
  ]
  const wanted = [
    ...wantedOf(request),
    ...heldTo(request),
    `Title of the article: ${piece.title}`,
    `The passage:\n"""\n${written(piece.text.slice(passage.start, passage.end))}\n"""`,
    `What stands around it, to be understood by; draw on it only where the passage is too short for the length:\n"""\n${written(around(piece, passage))}\n"""`,
  ]
  return [
    { role: 'system', content: rules.join('\n') },
    { role: 'user', content: wanted.join('\n') },
  ]
}

/** The same once more with what was wrong with the answer. */
export function sentBack(
  messages: readonly ChatMessage[],
  answer: string,
  faults: readonly string[],
): ChatMessage[] {
  return [
    ...messages,
    { role: 'assistant', content: answer.slice(0, 8000) },
    {
      role: 'user',
      content: `That cannot go out:\n${faults.map((f) => `- ${f}`).join('\n')}\nWrite it again, by the same rules.`,
    },
  ]
}

/** About how many characters a hashtag takes with its space. */
const A_TAG = 14

/** Links and tags take their room from what a brief allows. */
const mostOf = (profile: NetworkProfile, brief: WholeBrief, link: string | null): number =>
  Math.max(
    60,
    Math.min(brief.length.most, profile.text.limit ?? Infinity) -
      (link !== null && brief.link === 'text' ? (profile.text.linkCounts ?? link.length) + 1 : 0) -
      brief.hashtags * A_TAG,
  )

function voiceOf({ voice }: WholeBrief): string {
  const side = (value: number, low: string, high: string): string[] =>
    value === 0 ? [] : [`${Math.abs(value) === 2 ? 'very ' : ''}${value < 0 ? low : high}`]
  const sides = [
    ...side(voice.formality, 'casual', 'formal'),
    ...side(voice.vividness, 'plain', 'vivid'),
    ...side(voice.warmth, 'reserved', 'warm'),
  ]
  const speaks = {
    we: 'speaks as “we”',
    I: 'speaks as “I”',
    you: 'speaks to “you”',
    nobody: 'without “I” or “we”',
  }[voice.speaker]
  return [...(sides.length ? sides : ['neither formal nor casual']), speaks].join(', ')
}

/** The piece's own words around a passage, whole blocks, the nearest first. */
function around(piece: PieceContent, passage: FoundPassage): string {
  const own = piece.blocks.filter((b) => b.furniture === null)
  const at = own.findIndex((b) => b.end > passage.start)
  let from = Math.max(0, at)
  let to = from
  const size = (): number => (own[to]?.end ?? 0) - (own[from]?.start ?? 0)
  while (size() < AROUND && (from > 0 || to < own.length - 1)) {
    if (from > 0) from--
    if (to < own.length - 1 && size() < AROUND) to++
  }
  return own
    .slice(from, to + 1)
    .map((b) => piece.text.slice(b.start, b.end))
    .join('\n\n')
}

const Answer = z.object({ text: z.string(), title: z.string().nullish() })

/** How good a connected writer's draft is taken to be: it was asked for, and is judged by the rules alone. */
const GIVEN = 0.7

/** The share of an answer's words of substance that must be the piece's. */
const OWN_SHARE = 0.6

/**
 * Holds an answer against everything a caption of our own is held against: it is freed of fences
 * and of talk around it, fitted to the network like any draft, and checked. What a block or a flag
 * says of it is given back as faults, in sentences that can be sent back.
 */
export function weighAnswer(answer: string | Reply, request: Commission): Weighed {
  const { piece, passage, account, angle, house } = request
  const profile = network(account.network)
  const brief = briefOf(profile, house)
  const { text, title, places } = typeof answer === 'string' ? unwrapped(answer) : answer
  const paragraphs = text
    .split(/\n\s*\n/)
    .map((p) => (piece.video ? withoutFillers(p) : p).trim())
    .filter(Boolean)
  const faults: string[] = []
  if (paragraphs.length === 0) return { faults: ['There were no words in it.'] }
  if (!endsSentence(paragraphs[paragraphs.length - 1] ?? ''))
    faults.push('It stops in the middle of a sentence.')
  const source = sourceText(piece)
  const words = substanceOf(text).size
  const foreign = ungrounded(text, source, [house.brand]).filter((u) => u.kind === 'word').length
  if (words === 0 || foreign > words * (1 - OWN_SHARE))
    return { faults: ['It says something else than the passage. Use the passage’s own words.'] }
  const draft = proseDraft(angle, paragraphs, places ?? [{ start: passage.start, end: passage.end }], GIVEN)
  const stock = stockOf(piece)
  const free = stock.headlines.filter((h) => !request.titles?.includes(h.text))
  const named = profile.title ? (title ?? titleFor(draft, free, piece)) : null
  const set = settled({ order: request, stock, account, passage, beat: request.beat }, draft, named)
  if (!set) return { faults: [...faults, ...whyNot(text, profile, brief, request.link)] }
  const wording: Wording = { ...set, by: 'connected', score: GIVEN }
  const near = (request.earlier ?? []).filter((e) => e.network === account.network)
  if (request.drip.some((text) => opening(text) === opening(wording.text)))
    faults.push('Another post opens with the same words. Open with another sentence.')
  if (wording.title !== null && request.titles?.includes(wording.title))
    faults.push('Another post has the same title. Give it another.')
  const checks = checkCaption(wording.text, {
    profile,
    house,
    source,
    writtenAt: piece.publishedAt,
    link: request.link,
    // Whether it has any is seen later.
    pictures: profile.media.pictures.least,
    clips: profile.media.clips.least,
    others: near.map((e) => ({ text: e.text, sibling: e.account !== account.id })),
    beside: wording,
  })
  faults.push(...checks.filter((c) => c.severity !== 'note').map((c) => c.message))
  return faults.length ? { faults } : { wording, checks }
}

/** The words of an answer without a fence, JSON, talk before it, hashtags and links. */
function unwrapped(answer: string): Reply {
  const parsed = Answer.safeParse(jsonIn(answer))
  return parsed.success ? replyOf(parsed.data.text, parsed.data.title) : replyOf(unfenced(answer))
}

/** What an answer says, without hashtags and links, which are added afterwards. */
export function replyOf(
  text: string,
  title: string | null | undefined = null,
  places?: readonly Place[],
): Reply {
  const bare = withoutTags(withoutAddresses(text), '')
    .replace(/[ \t]{2,}/g, ' ')
    .trim()
  return { text: bare, title: title?.trim() || null, ...(places ? { places } : {}) }
}

const unfenced = (answer: string): string => /```(?:\w+)?\s*([\s\S]*?)```/.exec(answer)?.[1] ?? answer

/** The JSON object in an answer, whatever stands around it; null where there is none that can be read. */
export function jsonIn(answer: string): unknown {
  try {
    return JSON.parse(/\{[\s\S]*\}/.exec(unfenced(answer))?.[0] ?? '')
  } catch {
    return null
  }
}

/** Why a text did not fit, in sentences that help to write it again. */
function whyNot(text: string, profile: NetworkProfile, brief: WholeBrief, link: string | null): string[] {
  const length = measure(text, profile.text)
  const most = mostOf(profile, brief, link)
  const first = measure(firstSentence(text.split('\n')[0] ?? ''), profile.text)
  const reasons: string[] = []
  if (length > most || length < brief.length.least)
    reasons.push(`It has ${length} characters; write between ${brief.length.least} and ${most}.`)
  if (profile.text.fold !== null && !profile.title && first > profile.text.fold)
    reasons.push(`Its first sentence has ${first} characters; write at most ${profile.text.fold}.`)
  return reasons.length ? reasons : [`It does not fit ${profile.name}. Write it shorter.`]
}
