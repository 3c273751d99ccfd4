import { inVoice, shortenUntil, STOP_WORDS } from '../language'
import type { PieceContent, Wording } from '../model'
import { graphemes, measure, type NetworkProfile } from '../networks'
import { firstSentence } from '../text'
import type { WholeBrief } from './brief'
import type { Draft } from './drafts'

/** Fewer characters than this say nothing particular, whatever the network. */
const LEAST_BODY = 40
/** The share of a brief's shortest length below which a caption is too slight for its network. */
const LEAST_OF_BAND = 0.5

/** A label before the body: the library's, or the piece's own where `frame` is null. */
export interface Opener {
  frame: string | null
  text: string
  /** Whether it says what the piece or its part is about. */
  names: boolean
}

/** What a wording's frame says where the opening is a question made of the piece's words. */
export const ASKED = 'asked'

/** What stands around the body of a caption. */
export interface Surroundings {
  piece: Pick<PieceContent, 'title' | 'author' | 'video'>
  link: string | null
  hashtags: readonly string[]
  /** Plain key phrases for a field of tags. */
  phrases: readonly string[]
  closing: string | null
  /** Words of our own before the body, a label. */
  opener: Opener | null
  title: string | null
  credit: boolean
  /** Whether no line of ours may stand under it that says where the link is. */
  wordless?: boolean
  /** A text in the house's own words and spelling. */
  house: (text: string) => string
}

/**
 * Sets a draft as one network's readers expect it, or null where it cannot be whole within the
 * limit and the brief's band, or its first sentence would be cut by the fold. Nothing is ever cut
 * inside a sentence. Hashtags go first, then the closing line, then what a sentence can lose by
 * grammar; else the draft does not fit.
 */
export function compose(
  draft: Draft,
  profile: NetworkProfile,
  brief: WholeBrief,
  around: Surroundings,
): Omit<Wording, 'score'> | null {
  const own = bodyOf(draft, brief, around)
  if (graphemes(own) < Math.max(LEAST_BODY, brief.length.least * LEAST_OF_BAND)) return null
  const opened = openerOf(draft, brief, around)
  const most = Math.min(profile.text.limit ?? Infinity, brief.length.most)
  const tags = chooseTags(around.hashtags, brief.hashtags, opened + own)
  const closings = around.closing ? [around.closing, null] : [null]
  const made = (said: string): Omit<Wording, 'score'> | null => {
    const text = opened + said
    if (!hooks(text, profile, around)) return null
    for (const closing of closings)
      for (let count = tags.length; count >= 0; count--) {
        const hashtags = tags.slice(0, count)
        const beside = brief.hashtagsIn === 'first comment'
        const whole = assemble(text, profile, brief, around, closing, beside ? [] : hashtags)
        if (measure(whole, profile.text) <= most)
          return {
            by: 'built-in',
            angle: draft.angle,
            format: profile.formats[0] ?? 'post',
            title: around.title,
            summary: profile.summary
              ? summaryOf(draft, profile.summary.limit, (t) => around.house(inVoice(t, brief.voice)))
              : null,
            text: whole,
            parts: [],
            tags: fieldTags(around, profile),
            poll: [],
            firstComment: firstComment(brief, around, beside ? hashtags : []),
            hashtags,
            spans: draft.spans,
            frame: around.opener?.frame ?? (draft.framed ? ASKED : null),
            closing,
          }
      }
    return null
  }
  return made(own) ?? shortened(own, most, made)
}

/** What stands under the post: the link, the hashtags, or nothing. */
function firstComment(brief: WholeBrief, around: Surroundings, hashtags: readonly string[]): string | null {
  const lines = [
    ...(around.link && brief.link === 'first comment' ? [around.piece.title, around.link] : []),
    ...(hashtags.length ? [hashtags.map((t) => `#${t}`).join(' ')] : []),
  ]
  return lines.length ? lines.join('\n') : null
}

/** Beyond this share of what fits, leaving out parts of sentences is of no use. */
const FAR_TOO_LONG = 1.35

/** The same with sentences shortened by grammar until it fits; lists are left as they are. */
function shortened(
  body: string,
  most: number,
  made: (text: string) => Omit<Wording, 'score'> | null,
): Omit<Wording, 'score'> | null {
  if (/^(?:–|\d+\.) /m.test(body) || graphemes(body) > most * FAR_TOO_LONG) return null
  const text = shortenUntil(body, (t) => graphemes(t) >= LEAST_BODY && made(t) !== null)
  return text === null ? null : made(text)
}

/** Whether the thought that hooks stands before the fold. Where there is a title, the title hooks. */
function hooks(body: string, profile: NetworkProfile, around: Surroundings): boolean {
  if (profile.text.fold === null || around.title !== null) return true
  return graphemes(firstSentence(body.split('\n')[0] ?? '')) <= profile.text.fold
}

/** The body in its shape, its voice and its house's words. */
function bodyOf(draft: Draft, brief: WholeBrief, around: Surroundings): string {
  const lists = draft.paragraphs.some((p) => p.includes('\n'))
  const compact = isCompact(brief)
  // A letter whose subject is the heading over it does not say it again.
  const [first] = draft.paragraphs
  const paragraphs = first === `## ${around.title ?? ''}` ? draft.paragraphs.slice(1) : draft.paragraphs
  const joined = paragraphs.join(compact ? (lists || brief.shape === 'news' ? '\n' : ' ') : '\n\n')
  const own = around.house(inVoice(joined, brief.voice))
  return brief.emoji ? withMarks(own, brief) : own
}

/** The opener as it stands before the body: on its line, or on one of its own. */
function openerOf(draft: Draft, brief: WholeBrief, around: Surroundings): string {
  if (!around.opener) return ''
  const opener = around.house(inVoice(around.opener.text, brief.voice))
  const lists = draft.paragraphs.some((p) => p.includes('\n'))
  return `${opener}${!isCompact(brief) ? '\n\n' : lists ? '\n' : ' '}`
}

/** Whether a network's readers expect one block of text rather than paragraphs. */
const isCompact = ({ shape }: WholeBrief): boolean =>
  shape !== 'considered' && shape !== 'neighbourly' && shape !== 'letter'

/** Marks that say something: a tick before each thing to do, a warning sign before a warning. */
function withMarks(text: string, brief: WholeBrief): string {
  if (brief.voice.formality >= 1) return text
  if (/^– /m.test(text)) return text.replace(/^– /gm, '✅ ')
  return /^(?:Never|Do not|Don[’']t|Beware)\b/.test(text) ? `⚠️ ${text}` : text
}

function assemble(
  body: string,
  profile: NetworkProfile,
  brief: WholeBrief,
  around: Surroundings,
  closing: string | null,
  hashtags: readonly string[],
): string {
  const tags = hashtags.map((t) => `#${t}`).join(' ')
  const closed = closing === null ? null : around.house(closing)
  const author = around.piece.author?.trim()
  const credit = around.credit && author && !body.includes(author) ? `By ${author}.` : null
  if (brief.link === 'text' && brief.shape === 'short') {
    const tail = [around.link, tags].filter(Boolean).join(' ')
    const end = [body, closed, credit].filter(Boolean).join('\n\n')
    return tail ? `${end}${end.includes('\n') ? '\n' : ' '}${tail}` : end
  }
  const link = around.link
    ? brief.link === 'text'
      ? brief.shape === 'letter'
        ? `[${around.piece.title}](${around.link})`
        : around.link
      : around.wordless
        ? null
        : brief.link === 'first comment'
          ? 'Link in the first comment.'
          : brief.link === 'profile'
            ? 'Link in the profile.'
            : null
    : null
  const chapters = profile.chapters ? chapterLines(around.piece.video, profile.chapters) : null
  return [body, chapters, closed, credit, link, tags].filter(Boolean).join('\n\n')
}

/** A video's chapters as lines that a player understands, or null where they are too few or too near. */
function chapterLines(
  video: PieceContent['video'],
  { least, gap }: NonNullable<NetworkProfile['chapters']>,
): string | null {
  const chapters = video?.chapters ?? []
  const apart = chapters.every((c, i) => i === 0 || c.at - (chapters[i - 1]?.at ?? 0) >= gap)
  if (chapters.length < least || chapters[0]?.at !== 0 || !apart) return null
  return chapters.map((c) => `${clock(c.at)} ${c.title}`).join('\n')
}

function clock(seconds: number): string {
  const whole = Math.floor(seconds)
  const minutes = String(Math.floor(whole / 60) % 60)
  const rest = String(whole % 60).padStart(2, '0')
  const hours = Math.floor(whole / 3600)
  return hours ? `${hours}:${minutes.padStart(2, '0')}:${rest}` : `${minutes}:${rest}`
}

/** The first sentences of a draft, as many as a summary takes. */
function summaryOf(draft: Draft, limit: number, house: (text: string) => string): string {
  const first = house(draft.paragraphs.find((p) => !/^(?:#|–|\d+\.)/.test(p)) ?? '')
  let summary = ''
  for (const sentence of first.match(/[^.!?]+[.!?]+["”’)]*\s*/g) ?? [first]) {
    if (graphemes(summary + sentence.trimEnd()) > limit) break
    summary += sentence
  }
  return summary.trim()
}

/** Key phrases for a field of tags, as many as it takes. */
function fieldTags(around: Surroundings, profile: NetworkProfile): string[] {
  if (!profile.tags) return []
  const kept: string[] = []
  let characters = 0
  for (const phrase of around.phrases) {
    if (kept.length >= Math.min(profile.tags.most, 8)) break
    characters += graphemes(phrase) + 1
    if (profile.tags.characters !== null && characters > profile.tags.characters) break
    kept.push(phrase)
  }
  return kept
}

/** So many places a tag is put back whose words the body does not say. */
const ELSEWHERE = 4

/** The first tags that do not repeat the body's last word; those whose words stand in the body come sooner. */
function chooseTags(hashtags: readonly string[], count: number, body: string): string[] {
  const lower = body.toLowerCase()
  const last = /([\p{L}\p{N}]+)[^\p{L}\p{N}]*$/u.exec(lower)?.[1] ?? ''
  const stem = (word: string): string => word.toLowerCase().replace(/(?:s|es)$/, '')
  const fitting = hashtags.filter((t) => stem(t) !== stem(last))
  const inBody = (tag: string): boolean =>
    tag
      .split(/(?=\p{Lu})/u)
      .map((w) => stem(w))
      .every((w) => w.length < 3 || STOP_WORDS.has(w) || lower.includes(w))
  const place = new Map(fitting.map((t, i) => [t, i + (inBody(t) ? 0 : ELSEWHERE)]))
  const ranked = [...fitting].sort((a, b) => (place.get(a) ?? 0) - (place.get(b) ?? 0))
  const within = (a: string, b: string): boolean => a !== b && b.toLowerCase().includes(stem(a))
  return ranked
    .filter((t, i) => !ranked.slice(0, count + 1).some((o, j) => j !== i && within(t, o)))
    .slice(0, count)
}
