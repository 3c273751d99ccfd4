import type { House, WholeBrief } from '../house'
import { inHouse } from '../house'
import { inVoice, shortenUntil } from '../language'
import type { PieceContent, Wording } from '../model'
import { graphemes, measure, type NetworkProfile } from '../networks'
import { firstSentence } from '../text'
import { chapterLines } from './chapters'
import { closingFor } from './closing'
import { plainly, type Draft } from './draft'
import { SHAPES } from './shapes'
import { fittingTags, type Tag } from './hashtags'

/** Fewer characters than this say nothing particular, whatever the network. */
const LEAST_BODY = 40

/** What stands around the body of a post. */
export interface Surroundings {
  piece: Pick<PieceContent, 'title' | 'author' | 'video'>
  house: House
  /** The post's address with its tags, or null. */
  link: string | null
  /** The tags that the piece may have, best first. */
  tags: readonly Tag[]
  /** Plain phrases for a field of tags. */
  phrases: readonly string[]
  title: string | null
  /** The house's closing lines that may not come again yet. */
  closed: ReadonlySet<string>
  /** Whether the words stay as they are: in another language no voice, no spelling, no line of ours. */
  untouched?: boolean
}

type Made = Omit<Wording, 'score'>

/**
 * Sets a draft as one network's readers expect it, or null where it cannot be whole within the limit and
 * the brief's length, or its first sentence would be cut by the fold. Nothing is ever cut inside a
 * sentence. Hashtags go first, then the closing line, then what a sentence can lose by grammar; else the
 * draft does not fit.
 */
export function setDraft(
  draft: Draft,
  profile: NetworkProfile,
  brief: WholeBrief,
  around: Surroundings,
): Made | null {
  const body = bodyOf(draft, profile, brief, around)
  if (graphemes(body) < LEAST_BODY) return null
  const most = Math.min(profile.text.limit ?? Infinity, brief.length.most)
  const made = (text: string): Made | null => withAround(text, most, { draft, profile, brief, around })
  return made(body) ?? (around.untouched ? null : shortened(draft, body, most, made))
}

interface Setting {
  draft: Draft
  profile: NetworkProfile
  brief: WholeBrief
  around: Surroundings
}

/** A body with as much around it as fits, or null. */
function withAround(body: string, most: number, setting: Setting): Made | null {
  const { draft, profile, brief, around } = setting
  if (!hooks(body, profile, around)) return null
  const tags = fittingTags(around.tags, body, brief.hashtags)
  const last = around.house.dated ?? around.house.last
  const turn = brief.closing === 'none' ? null : closingFor(around.house, body, around.closed)
  // What closes every post is a part of it; a line that takes its turn goes before anything of the piece does.
  const closings = last ? [last] : turn ? [turn, null] : [null]
  const beside = brief.hashtagsIn === 'first comment'
  for (const closed of closings)
    for (let count = tags.length; count >= 0; count--) {
      const hashtags = tags.slice(0, count)
      const text = assemble(body, closed, beside ? [] : hashtags, setting)
      if (measure(text, profile.text) > most) continue
      return {
        by: 'built-in',
        angle: draft.angle,
        format: profile.formats[0] ?? 'post',
        title: around.title,
        summary: profile.summary ? summaryOf(setting, profile.summary.limit) : null,
        text,
        parts: [],
        tags: fieldTags(around, profile),
        poll: [],
        firstComment: firstComment(brief, around, beside ? hashtags : []),
        hashtags,
        spans: [...draft.spans],
        closing: closed,
      }
    }
  return null
}

/** A text in the brand's voice and the house's own words. */
function said(
  text: string,
  profile: NetworkProfile,
  brief: WholeBrief,
  { house, untouched }: Surroundings,
): string {
  return untouched ? text : inHouse(inVoice(text, brief.voice), house.style, profile.id)
}

function bodyOf(draft: Draft, profile: NetworkProfile, brief: WholeBrief, around: Surroundings): string {
  // A letter whose subject is the heading over it does not say it again.
  const [first] = draft.paragraphs
  const named = first?.kind === 'heading' && first.text === around.title
  const paragraphs = named ? draft.paragraphs.slice(1) : draft.paragraphs
  const body = said(SHAPES[brief.shape].lays(paragraphs), profile, brief, around)
  return brief.emoji ? withMarks(body, brief) : body
}

/** Marks that say something: a tick before each thing to do, a warning sign before a warning. */
function withMarks(text: string, brief: WholeBrief): string {
  if (brief.voice.formality >= 1) return text
  if (/^– /m.test(text)) return text.replace(/^– /gm, '✅ ')
  return /^(?:Never|Do not|Don[’']t|Beware)\b/.test(text) ? `⚠️ ${text}` : text
}

/** Beyond this share of what fits, leaving out parts of sentences is of no use. */
const FAR_TOO_LONG = 1.35

/** The same with sentences shortened by grammar until it fits; lists and quotations are left as they are. */
function shortened(
  draft: Draft,
  body: string,
  most: number,
  made: (text: string) => Made | null,
): Made | null {
  const fixed = draft.angle === 'quotation' || draft.paragraphs.some((p) => p.kind !== 'prose')
  if (fixed || graphemes(body) > most * FAR_TOO_LONG) return null
  const text = shortenUntil(body, (t) => graphemes(t) >= LEAST_BODY && made(t) !== null)
  return text === null ? null : made(text)
}

/** Whether the thought that hooks stands before the fold. Where there is a title, the title hooks. */
function hooks(body: string, profile: NetworkProfile, around: Surroundings): boolean {
  if (profile.text.fold === null || around.title !== null) return true
  return graphemes(firstSentence(body.split('\n')[0] ?? '')) <= profile.text.fold
}

/** The body with its closing line, credit, link and tags, as the shape has them. */
function assemble(
  body: string,
  closing: string | null,
  hashtags: readonly string[],
  { profile, brief, around }: Setting,
): string {
  const tags = hashtags.map((t) => `#${t}`).join(' ')
  const asIs = closing === null || closing === around.house.dated
  const closed = asIs ? closing : said(closing, profile, brief, around)
  const author = around.piece.author?.trim()
  const credited = around.house.style.credit && !around.untouched && author && !body.includes(author)
  const credit = credited ? `By ${author}.` : null
  if (brief.link === 'text' && brief.shape === 'short') {
    const tail = [around.link, tags].filter(Boolean).join(' ')
    const end = [body, closed, credit].filter(Boolean).join('\n\n')
    return tail ? `${end}${end.includes('\n') ? '\n' : ' '}${tail}` : end
  }
  const chapters = profile.chapters ? chapterLines(around.piece.video, profile.chapters) : null
  return [body, chapters, closed, credit, linkLine(brief, around), tags].filter(Boolean).join('\n\n')
}

/** The line of the link: the address, or where it is to be found. */
function linkLine(brief: WholeBrief, { link, piece, untouched }: Surroundings): string | null {
  if (link === null) return null
  if (brief.link === 'text') return brief.shape === 'letter' ? `[${piece.title}](${link})` : link
  if (untouched) return null
  if (brief.link === 'first comment') return LINK_LINES[0]
  return brief.link === 'profile' ? LINK_LINES[1] : null
}

/** What stands under the post: the link, the hashtags, or nothing. */
function firstComment(brief: WholeBrief, around: Surroundings, hashtags: readonly string[]): string | null {
  const lines = [
    ...(around.link && brief.link === 'first comment' ? [around.piece.title, around.link] : []),
    ...(hashtags.length ? [hashtags.map((t) => `#${t}`).join(' ')] : []),
  ]
  return lines.length ? lines.join('\n') : null
}

/** The first sentences of a draft, as many as a summary takes. */
function summaryOf({ draft, profile, brief, around }: Setting, limit: number): string {
  const prose = draft.paragraphs.find((p) => p.kind === 'prose')
  const first = said(prose ? plainly(prose) : '', profile, brief, around)
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

/** Where a caption says that its link stands beside it. */
export const LINK_LINES = ['Link in the first comment.', 'Link in the profile.'] as const
