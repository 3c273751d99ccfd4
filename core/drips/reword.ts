import {
  asked,
  contract,
  inVoice,
  isEnglish,
  isImperative,
  readingEase,
  readSentences,
  shortenUntil,
  shorterSentences,
  turned,
  unjoined,
} from '../language'
import type { Angle, FoundPassage, Wording } from '../model'
import { measure, network } from '../networks'
import { briefOf, type House } from '../house'
import { likeness } from '../judging'
import { plainWording, stockOf, type Order, type Recipient, type Stock } from '../writers'
import { formsOf } from './forms'
import { candidatesFor } from './rank'
import type { EarlierCaption } from './request'

/** What may be asked of another wording. */
export const WAYS = [
  'another',
  'shorter',
  'longer',
  'plainer',
  'warmer',
  'bolder',
  'as a question',
  'another angle',
  'another passage',
  'as a thread',
  'as a poll',
] as const
export type Way = (typeof WAYS)[number]

export interface RewordRequest extends Order {
  /** The kept passages, best first, and after them the spare ones. */
  passages: readonly FoundPassage[]
  spare: readonly FoundPassage[]
  earlier?: readonly EarlierCaption[]
  account: Recipient
  /** How many wordings are wanted; five when not said. */
  wordings?: number | undefined
  /** The post's wording and passage now; null where a person wrote it freely. */
  current: Wording
  passage: FoundPassage | null
  way: Way
  /** The angle that is asked for, where it is one. */
  to?: Angle | undefined
}

/**
 * Other wordings of a post in some way, best first, each unlike the present one and the others.
 * They are written from the piece as every caption is; where the piece gives none in that way, the
 * list is empty and the caller says so.
 */
export function reword(request: RewordRequest): { wording: Wording; passage: FoundPassage }[] {
  const { current, passage, way, account } = request
  const profile = network(account.network)
  const length = measure(current.text, profile.text)
  const all = [...request.passages, ...request.spare]
  const here = passage ? all.filter((p) => p.start < passage.end && p.end > passage.start) : all
  const elsewhere = all.filter((p) => !here.includes(p))
  const from = way === 'another passage' ? elsewhere : here.length ? here : all
  const stock = isEnglish(request.piece.language) ? stockOf(request.piece) : null
  const found = choose(request, stock, from, length)
  // An angle that this passage cannot carry another one may.
  return found.length === 0 && way === 'another angle' ? choose(request, stock, elsewhere, length) : found
}

function choose(
  request: RewordRequest,
  stock: Stock | null,
  from: readonly FoundPassage[],
  length: number,
): { wording: Wording; passage: FoundPassage }[] {
  const { current, way, account, to } = request
  const profile = network(account.network)
  const order = { ...request, house: houseFor(request, length) }
  const made = stock
    ? way === 'as a thread' || way === 'as a poll'
      ? formsOf(order, stock, account, from)
      : candidatesFor(order, stock, account, from, way === 'another angle' ? to : undefined)
    : from.flatMap((passage) => {
        const wording = plainWording(order, passage, account)
        return wording ? [{ wording, passage }] : []
      })
  const all = way === 'as a question' ? made.flatMap(askedToo) : made
  const measured = all.map((m) => ({ ...m, length: measure(m.wording.text, profile.text) }))
  const fitting = measured.filter(({ wording, length: its }) => {
    if (wording.text === current.text) return false
    const thread = wording.parts.length > 0
    const poll = wording.poll.length > 0
    if (way === 'as a thread') return thread
    if (way === 'as a poll') return poll
    if (thread || poll) return false
    if (way === 'shorter') return its < length * 0.9
    if (way === 'longer') return its > length * 1.1 && words(wording) > words(current)
    if (way === 'as a question') return /\?/.test(wording.text.split(/\n|(?<=[.!?]) /)[0] ?? '')
    if (way === 'another angle') return to ? wording.angle === to : wording.angle !== current.angle
    return true
  })
  const value = ({ wording, length: its }: (typeof measured)[number]): number => {
    const first = wording.text.split(/(?<=[.!?]) |\n/)[0] ?? ''
    const tokens = readSentences(first)[0]?.tokens ?? []
    switch (way) {
      // The nearest that is longer, or shorter, before the farthest.
      case 'shorter':
      case 'longer':
        return wording.score - Math.abs(its - length) / 2000
      case 'plainer':
        return wording.score + (readingEase(wording.text) ?? 60) / 200
      case 'bolder':
        return (
          wording.score +
          (isImperative(tokens) ? 0.15 : 0) +
          (/\b(?:never|nobody|always|every|not)\b/i.test(first) ? 0.1 : 0) -
          first.length / 1000
        )
      case 'warmer':
        return wording.score + (/\b(?:we|our|you|your)\b/i.test(wording.text) ? 0.1 : 0)
      default:
        return wording.score
    }
  }
  const ranked = [...fitting].sort((a, b) => value(b) - value(a))
  const kept: typeof ranked = []
  for (const one of ranked) {
    if (kept.length >= (request.wordings ?? 5)) break
    const near = way === 'plainer' || way === 'warmer' || way === 'shorter' || way === 'longer' ? 0.95 : 0.75
    if ([current, ...kept.map((k) => k.wording)].every((w) => likeness(w.text, one.wording.text) < near))
      kept.push(one)
  }
  return kept.map(({ wording, passage: of }) => ({ wording, passage: of }))
}

/** A wording and, where its first sentence tells the reader what to do and more follows, the same with that asked. */
function askedToo(made: { wording: Wording; passage: FoundPassage }): (typeof made)[] {
  const { text } = made.wording
  const [first, second] = readSentences(text.split('\n')[0] ?? '')
  const question = first && second ? asked(text.slice(first.start, first.end)) : null
  if (!first || !question) return [made]
  const wording: Wording = { ...made.wording, angle: 'question', text: question + text.slice(first.end) }
  return [made, { ...made, wording }]
}

/** How many characters of the piece a wording says. */
const words = ({ spans }: Pick<Wording, 'spans'>): number =>
  spans.reduce((sum, s) => sum + s.end - s.start, 0)

/** The house with its brief for the network bent the way that is asked for. */
function houseFor({ house, account, way }: RewordRequest, length: number): House {
  const profile = network(account.network)
  const brief = briefOf(profile, house)
  const own = house.briefs.find((b) => b.network === profile.id)
  const bent = {
    network: profile.id,
    reader: own?.reader ?? ('somebody who tries' as const),
    angles: [],
    hashtags: brief.hashtags,
    hashtagsIn: brief.hashtagsIn,
    emoji: own?.emoji ?? ('none' as const),
    link: own?.link ?? null,
    closing: own?.closing ?? null,
    length: brief.length,
    voice: brief.voice,
  }
  if (way === 'shorter')
    bent.length = { least: Math.min(40, brief.length.least), most: Math.max(60, length - 1) }
  if (way === 'longer')
    bent.length = {
      least: brief.length.least,
      most: Math.max(brief.length.most, Math.min(profile.text.limit ?? Infinity, length * 2)),
    }
  if (way === 'plainer') bent.voice = { ...brief.voice, vividness: -2 }
  if (way === 'warmer')
    bent.voice = { ...brief.voice, warmth: 2, formality: Math.min(brief.voice.formality, -1) }
  if (way === 'bolder') bent.voice = { ...brief.voice, vividness: 2 }
  return { ...house, briefs: [...house.briefs.filter((b) => b.network !== profile.id), bent] }
}

/**
 * Other ways of saying the words that a person selected in a caption, by grammar alone: shorter,
 * plainer, warmer, as a question, or turned round. Whole sentences only; none where nothing is certain.
 */
export function rewordSelection(selected: string, way: Way): string[] {
  const text = selected.trim()
  const sentences = readSentences(text).map((s) => text.slice(s.start, s.end))
  const [only] = sentences
  if (only === undefined) return []
  const each = (change: (sentence: string) => string | null): string =>
    sentences.map((s) => change(s) ?? s).join(' ')
  const voice = { formality: 0, vividness: 0, warmth: 0, speaker: 'nobody' as const }
  const found = ((): string[] => {
    switch (way) {
      case 'shorter':
        return sentences.length === 1
          ? [...shorterSentences(only)]
          : [shortenUntil(text, (t) => t.length < text.length * 0.85) ?? '', sentences.slice(0, -1).join(' ')]
      case 'plainer':
        return [inVoice(text, { ...voice, vividness: -2 }), each((s) => unjoined(s))]
      case 'warmer':
        return [contract(text)]
      case 'bolder':
        return [each((s) => unjoined(s)), inVoice(text, { ...voice, vividness: 2 })]
      case 'as a question':
        return sentences.length === 1 ? [asked(only) ?? ''] : []
      case 'another':
        return [each((s) => turned(s)), each((s) => unjoined(s))]
      default:
        return []
    }
  })()
  return [...new Set(found)].filter((f) => f !== '' && f !== text)
}
