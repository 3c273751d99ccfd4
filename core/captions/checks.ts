import type { Check, Wording } from '../model'
import { graphemes, measure, sliceGraphemes, type NetworkProfile } from '../networks'
import { danglingWords, isBalanced, isEnglish, languageName, readingEase, readSentences } from '../language'
import { addressesIn, bareWords, firstSentence, tagsIn, withoutAddresses, withoutTags } from '../text'
import { ageingWords } from '../reading'
import { briefOf, type House } from './brief'
import { ungrounded, type Ungrounded } from './grounding'
import { neverSaid } from './house'
import { frameWords } from './library'
import { likeness, LIKENESS_BOUND } from './likeness'

/** Everything a caption is held against. */
export interface CheckContext {
  profile: NetworkProfile
  house: House
  /** The piece's text with its title, author and categories. */
  source: string | null
  /** The piece's language, two letters; null for English. */
  language?: string | null
  /** When the piece was written, which decides which dates in a caption age; null where unknown. */
  writtenAt?: string | null
  pictures: number
  clips?: number
  /** Alternative texts of the pictures. */
  alts?: readonly string[]
  /** The address the post leads to. */
  link?: string | null
  /** The last day for which the piece keeps, and the day on which the post goes out (local dates). */
  keepsUntil?: string | null
  goesOut?: string | null
  /** What was wrong with the page it leads to when it was last looked at. */
  linkTrouble?: string | null
  /** Other captions of the same account or of siblings on the network. */
  others: readonly { text: string; sibling: boolean }[]
  /** What stands beside the text, where the post has it. */
  beside?: Partial<Pick<Wording, 'title' | 'parts' | 'format' | 'poll' | 'summary'>>
}

const EMOJI = /\p{Extended_Pictographic}(?:\uFE0F|\u200D\p{Extended_Pictographic})*/gu
const LEFTOVER =
  /\{\{?\w*\}?\}|\[\w+\](?!\()|<\/?[a-z][^>]*>|&[a-z]+;|\bundefined\b|\bNaN\b|\*\*|```|^\s*#{1,6} |\bLorem ipsum\b|\bAs an AI\b/im
/** Markup that a letter is written in. */
const MARKDOWN = /\*\*|^\s*#{1,6} /gm
const DOUBLED = /[,;:][.,;:]|(?<!\.)\.\.(?!\.)|[?!.]{2,}(?<!\.\.\.)(?<!\?!)|\s[,.;:!?](?=\s|$)/u
const SHOUT = /\b\p{Lu}{5,}(?: \p{Lu}{3,})+\b|!{2,}/u

/**
 * Holds a caption against the rules of its network and brand and against its piece. Blocks come
 * first, then flags, then notes; each names the words it concerns and, where it can be mended by
 * itself, what a click would do (`remedyFor`). Runs in about a millisecond a caption apart from the
 * likeness to `others`, so it can run as one types.
 */
export function checkCaption(text: string, context: CheckContext): Check[] {
  const checks: Check[] = []
  const say: Say = (severity, code, message, words, remedy) => {
    const check: Check = { code, severity, message }
    if (words !== undefined) check.words = words
    if (remedy !== undefined) check.remedy = remedy
    checks.push(check)
  }
  const bare = withoutAddresses(text, ' ')
  const caption = { text, prose: withoutTags(bare).replace(/\s+$/gm, ''), tags: tagsIn(bare) }
  networkRules(caption, context, say)
  houseRules(caption, context, say)
  if (isEnglish(context.language ?? null)) {
    truth(caption, context, say)
    form(caption, context, say)
    manners(caption, context, say)
  } else
    say(
      'flag',
      'other-language',
      `It is in ${languageName(context.language ?? '')}, whose rules Dripline does not know: the words are the piece’s own, and nothing in them was checked. Read it before it goes out.`,
    )
  time(context, say)
  unlikeOthers(text, context, say)
  return checks
}

/** The blocks of a caption alone, for choosing among drafts. */
export function isBlocked(text: string, context: CheckContext): boolean {
  let blocked = false
  const say: Say = (severity) => {
    blocked ||= severity === 'block'
  }
  const bare = withoutAddresses(text, ' ')
  const caption = { text, prose: withoutTags(bare), tags: tagsIn(bare) }
  networkRules(caption, context, say)
  houseRules(caption, context, say)
  return blocked
}

type Say = (
  severity: Check['severity'],
  code: string,
  message: string,
  words?: string,
  remedy?: string,
) => void
interface Caption {
  text: string
  /** Without links and tags. */
  prose: string
  tags: readonly string[]
}

function networkRules({ text, prose, tags }: Caption, context: CheckContext, say: Say): void {
  const { profile, beside = {} } = context
  const limit = profile.text.limit ?? Infinity
  if (!prose.trim()) say('block', 'empty', 'There are no words. Write some, or set the post aside.')
  for (const [index, part] of [text, ...(beside.parts ?? [])].entries()) {
    const over = measure(part, profile.text) - limit
    if (over > 0)
      say(
        'block',
        'over-limit',
        `${over} characters too long for ${profile.name}, which takes ${limit}${index ? ` a part; it is part ${index + 1}` : ''}. Shorten it.`,
        undefined,
        index ? undefined : 'Shorten it',
      )
  }
  const { title } = beside
  if (profile.title && title !== undefined) {
    if (!title?.trim()) say('block', 'no-title', `${profile.name} wants a title. Write one.`)
    else if (graphemes(title) > profile.title.limit)
      say(
        'block',
        'title-too-long',
        `The title has ${graphemes(title)} characters; ${profile.name} takes ${profile.title.limit}. Shorten it.`,
        title,
      )
  }
  if (profile.summary && (beside.summary ? graphemes(beside.summary) : 0) > profile.summary.limit)
    say(
      'block',
      'summary-too-long',
      `The summary is longer than the ${profile.summary.limit} characters that ${profile.name} takes. Shorten it.`,
    )
  if (beside.format !== undefined && !profile.formats.includes(beside.format))
    say(
      'block',
      'no-such-format',
      `${profile.name} knows no ${beside.format}; it takes ${profile.formats.join(', ')}. Take another wording.`,
    )
  if (beside.poll?.length && profile.poll) {
    const { options, limit: longest } = profile.poll
    if (
      beside.poll.length < options.least ||
      beside.poll.length > options.most ||
      beside.poll.some((o) => graphemes(o) > longest)
    )
      say(
        'block',
        'poll',
        `A poll on ${profile.name} has ${options.least} to ${options.most} answers of at most ${longest} characters.`,
      )
  }
  if (context.pictures < profile.media.pictures.least)
    say(
      'block',
      'no-media',
      `${profile.name} wants a picture and this ${context.source === null ? 'post has none' : 'piece has none to give'}. Add one, or set the post aside.`,
    )
  if ((context.clips ?? 0) < profile.media.clips.least)
    say(
      'block',
      'no-media',
      `${profile.name} wants a clip and this post has none yet. Add one, or set the post aside.`,
    )
  if (context.alts?.some((alt) => !alt.trim()))
    say(
      'note',
      'no-alt',
      'A picture has no alternative text. Say in a sentence what it shows, for those who cannot see it.',
    )
  if (profile.link.required && context.link === null)
    say(
      'block',
      'no-link',
      `${profile.name} wants a link and the ${context.source === null ? 'post has none' : 'piece has no address'}. Give it one, or set the post aside.`,
    )
  if (context.linkTrouble)
    say('flag', 'link-broken', `The link leads nowhere: ${context.linkTrouble}`, context.link ?? undefined)
  if (tags.length > profile.hashtags.most)
    say(
      'block',
      'too-many-hashtags',
      `${tags.length} hashtags; ${profile.name} takes at most ${profile.hashtags.most}. Take some out.`,
      undefined,
      'Take the last ones out',
    )
}

function houseRules({ text, prose }: Caption, context: CheckContext, say: Say): void {
  const all = [prose, context.beside?.title ?? '', ...(context.beside?.parts ?? [])].join('\n')
  for (const phrase of context.house.style.neverSay) {
    const found = neverSaid(all, phrase)
    if (found)
      say('block', 'never-say', `“${found}” is on the brand’s never-say list. Say it another way.`, found)
  }
  const mine = bareWords(text)
  if (context.others.some((o) => isRepeated(mine, o)))
    say(
      'block',
      'same-words',
      'The same words go out on another account of this network. Take another wording.',
    )
}

/** Whether another account says the very same bare words, which is but for links and tags. */
function isRepeated(mine: string, other: CheckContext['others'][number]): boolean {
  return mine !== '' && other.sibling && bareWords(other.text) === mine
}

const NOT_THERE: Readonly<Record<Exclude<Ungrounded['kind'], 'word'>, (words: string) => string>> = {
  number: (w) => `The number “${w}” is`,
  name: (w) => `The name “${w}” is`,
  superlative: (w) => `The superlative “${w}” is`,
  quotation: () => 'These quoted words are',
}
/** So many words of substance that the piece does not hold are another text. */
const FOREIGN = 4

function truth({ prose }: Caption, context: CheckContext, say: Say): void {
  const { house, source } = context
  const allowed = [
    house.brand,
    ...house.style.closingLines,
    ...house.style.swaps.map((s) => s.to),
    frameWords(),
  ]
  const said = [prose, context.beside?.title ?? '', ...(context.beside?.parts ?? [])].join('\n')
  // What a person wrote by itself answers to no piece.
  const found = source === null ? [] : ungrounded(said, source, allowed)
  for (const { kind, words } of found)
    if (kind !== 'word')
      say(
        'flag',
        'not-grounded',
        `${NOT_THERE[kind](words)} not in the piece. Take it out, or accept it if it is true.`,
        words,
      )
  const foreign = found.filter((f) => f.kind === 'word').map((f) => f.words)
  if (foreign.length)
    say(
      foreign.length >= FOREIGN ? 'flag' : 'note',
      'other-words',
      `${foreign.length === 1 ? 'A word' : 'Words'} that the piece does not use: ${foreign.slice(0, 6).join(', ')}. See that it says no more than the piece does.`,
      foreign.slice(0, 6).join(', '),
    )
  const ages = ageingWords(prose, context.writtenAt)
  if (ages)
    say(
      'flag',
      'ages',
      `“${ages}” will not be true for long. Reword it, or accept it for a short drip.`,
      ages,
    )
}

function form({ text, prose }: Caption, { profile, house, beside, source }: CheckContext, say: Say): void {
  const first = readSentences(prose.trim().split('\n')[0] ?? '')[0]
  if (first) {
    const hook = firstSentence(prose.trim().split('\n')[0] ?? '')
    if (profile.text.fold !== null && !beside?.title && graphemes(hook) > profile.text.fold)
      say(
        'flag',
        'hook-after-fold',
        `The first sentence runs past the ${profile.text.fold} characters a reader sees. Open with a shorter one.`,
        sliceGraphemes(hook, 40),
      )
    const opening = prose.trim().slice(first.start, first.end)
    const dangling = pointsOut(opening)
    if (dangling)
      say(
        'flag',
        'points-nowhere',
        `It opens with “${dangling}”, which points at something ${source === null ? 'that is not there' : 'left behind in the piece'}.`,
        dangling,
      )
  }
  if (!isBalanced(prose))
    say('flag', 'unbalanced', 'A quotation mark or bracket opens and does not close, or the other way round.')
  const markdown = briefOf(profile, house).shape === 'letter'
  const leftover = LEFTOVER.exec(markdown ? prose.replace(MARKDOWN, '') : prose)
  if (leftover)
    say(
      'flag',
      'leftover',
      `“${leftover[0].trim()}” looks like a leftover of a template or of markup.`,
      leftover[0].trim(),
      'Take it out',
    )
  const doubled = DOUBLED.exec(prose.replace(/\n+/g, '\n').trim())
  if (doubled && !SHOUT.test(doubled[0]))
    say(
      'flag',
      'doubled-marks',
      `“${doubled[0].trim()}”: two marks meet, or one stands alone.`,
      doubled[0].trim(),
      'Keep one mark',
    )
  const [address] = addressesIn(text)
  if (profile.link.live === false && address)
    say(
      'flag',
      'link-not-live',
      `A link in the text does nothing on ${profile.name}. Put it in the profile.`,
      address.text,
      'Take the link out',
    )
}

/** What in an opening points out of it; a label before it is not asked. */
function pointsOut(opening: string): string | null {
  const said = opening.replace(/^[^:.!?\n]{3,70}: (?=\p{Lu})/u, '')
  const [read] = readSentences(said)
  return read ? danglingWords(read.tokens, said) : null
}

function manners({ prose, tags }: Caption, { profile, house }: CheckContext, say: Say): void {
  if (tags.length > profile.hashtags.sensible && tags.length <= profile.hashtags.most)
    say(
      'note',
      'many-hashtags',
      `${tags.length} hashtags; on ${profile.name} ${profile.hashtags.sensible} are sensible.`,
      undefined,
      'Take the last ones out',
    )
  const shout = SHOUT.exec(prose)
  if (shout) say('note', 'shouting', `“${shout[0]}” shouts.`, shout[0], 'Say it calmly')
  else if ((prose.match(/!/g)?.length ?? 0) > 1)
    say('note', 'exclamations', 'More than one exclamation mark. One is plenty.', '!', 'Say it calmly')
  const emoji = (prose.match(EMOJI) ?? []).filter((e) => !/^[©®™✅\d#*]/u.test(e))
  if (emoji.length > 2)
    say(
      'note',
      'many-emoji',
      `${emoji.length} emoji. What does each of them say?`,
      emoji.join(''),
      'Take them out',
    )
  const ease = readingEase(prose)
  const wanted = briefOf(profile, house).reading
  if (ease !== null && ease < wanted - 25)
    say(
      'note',
      'hard-to-read',
      `Hard to read for its reader (reading ease ${Math.round(ease)}, about ${Math.round(wanted)} is usual). Shorter sentences help.`,
    )
}

/**
 * The caption as a check's remedy leaves it, or null where the check has none or nothing would
 * change. Pure; the caller checks again.
 */
export function remedyFor(
  check: Pick<Check, 'code' | 'words'>,
  text: string,
  profile: NetworkProfile,
): string | null {
  const mended = mend(check, text, profile)
  return mended === null || mended === text || !mended.trim() ? null : mended
}

function mend(check: Pick<Check, 'code' | 'words'>, text: string, profile: NetworkProfile): string | null {
  switch (check.code) {
    case 'over-limit':
      return withoutLastSentences(text, profile)
    case 'too-many-hashtags':
      return firstTags(text, profile.hashtags.most)
    case 'many-hashtags':
      return firstTags(text, profile.hashtags.sensible)
    case 'shouting':
    case 'exclamations':
      return calm(text)
    case 'many-emoji':
      return text
        .replace(EMOJI, '')
        .replace(/ {2,}/g, ' ')
        .replace(/^ +| +$/gm, '')
    case 'leftover':
      return text
        .replace(check.words ?? '', '')
        .replace(/ {2,}/g, ' ')
        .trim()
    case 'doubled-marks':
      return text
        .replace(/([,;:])[.,;:]+/g, '$1')
        .replace(/(?<!\.)\.\.(?!\.)/g, '.')
        .replace(/\s+([,.;:!?])(?=\s|$)/g, '$1')
        .replace(/([?!.])\1+(?!\.)/g, '$1')
    case 'link-not-live':
      return withoutAddresses(text)
        .replace(/[ \t]{2,}/g, ' ')
        .replace(/\n{3,}/g, '\n\n')
        .trim()
    default:
      return null
  }
}

/** Whole sentences taken from the end of the words until the text fits, links and tags kept. */
function withoutLastSentences(text: string, profile: NetworkProfile): string | null {
  const limit = profile.text.limit ?? Infinity
  const [, body = text, tail = ''] =
    /^([\s\S]*?)((?:\s*(?:https?:\/\/\S+|#[\p{L}\p{N}_]+))*\s*)$/u.exec(text) ?? []
  const sentences = readSentences(body)
  for (let kept = sentences.length - 1; kept >= 1; kept--) {
    const shorter = body.slice(0, sentences[kept - 1]?.end) + tail
    if (measure(shorter, profile.text) <= limit) return shorter
  }
  return null
}

function firstTags(text: string, most: number): string {
  let count = 0
  return withoutTags(text, (tag) => (++count > most ? '' : tag))
    .replace(/ {2,}/g, ' ')
    .replace(/ +$/gm, '')
}

function calm(text: string): string {
  let marks = 0
  return text
    .replace(/!+/g, () => (++marks > 1 ? '.' : '!'))
    .replace(/\b\p{Lu}{5,}(?: \p{Lu}{3,})+\b/gu, (shout) => shout.charAt(0) + shout.slice(1).toLowerCase())
}

/** Whether it goes out while its piece still keeps. */
function time(context: CheckContext, say: Say): void {
  const outlives = outlivesCheck(context.keepsUntil ?? null, context.goesOut ?? null)
  if (outlives) say(outlives.severity, outlives.code, outlives.message)
}

/** Whether it is too like what else goes out on its account or a sibling. */
function unlikeOthers(text: string, context: CheckContext, say: Say): void {
  // The very same on a sibling is blocked, and need not be said twice.
  const mine = bareWords(text)
  const near = context.others.reduce((top, o) => {
    const alike = likeness(text, o.text)
    return alike > top && !isRepeated(mine, o) ? alike : top
  }, 0)
  if (near > LIKENESS_BOUND)
    say(
      'flag',
      'too-alike',
      `${Math.round(near * 100)} % like another caption of this account or a sibling. Take another wording.`,
    )
}

/** The flag on a post that goes out after the last day for which its piece keeps, or null; local dates. */
export function outlivesCheck(keepsUntil: string | null, goesOut: string | null): Check | null {
  if (!keepsUntil || !goesOut || goesOut <= keepsUntil) return null
  return {
    code: 'outlives-piece',
    severity: 'flag',
    message: `The piece keeps until ${keepsUntil}, and this post goes out after that. Move it to an earlier day, accept it, or say in the Reader that the piece keeps.`,
  }
}
