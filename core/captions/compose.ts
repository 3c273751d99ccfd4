import type { Wording } from '../model'
import { graphemes, measure, type NetworkProfile } from '../networks'
import { STOP_WORDS } from '../passages'
import type { Brief } from './brief'
import type { Draft } from './drafts'

/** Fewer characters than this say nothing particular, whatever the network. */
const LEAST_BODY = 40

/** What stands around the body of a caption. */
export interface Surroundings {
  link: string | null
  title: string
  hashtags: readonly string[]
  closing: string | null
}

/**
 * Sets a draft as one network's readers expect it, or null where it cannot be whole within the
 * limit or its first sentence would be cut by the fold. Nothing is ever cut inside a sentence:
 * hashtags go first, then the closing line; else the draft does not fit.
 */
export function compose(
  draft: Draft,
  profile: NetworkProfile,
  brief: Brief,
  around: Surroundings,
): Omit<Wording, 'score'> | null {
  const body = bodyOf(draft, brief)
  if (graphemes(body) < LEAST_BODY) return null
  const hook = body.split('\n')[0] ?? ''
  if (profile.text.fold !== null && graphemes(firstSentence(hook)) > profile.text.fold) return null
  const tags = chooseTags(around.hashtags, brief.hashtags, body)
  const closings = around.closing ? [around.closing, null] : [null]
  for (const closing of closings)
    for (let count = tags.length; count >= 0; count--) {
      const hashtags = tags.slice(0, count)
      const text = assemble(body, profile, { ...around, closing, hashtags })
      if (measure(text, profile.text) > Math.min(profile.text.limit, brief.length.most)) continue
      return {
        angle: draft.angle,
        text,
        firstComment:
          around.link && profile.link.place === 'first comment' ? `${around.title}\n${around.link}` : null,
        hashtags,
        spans: draft.spans,
      }
    }
  return null
}

function bodyOf(draft: Draft, brief: Brief): string {
  const lists = draft.paragraphs.some((p) => p.includes('\n'))
  if (brief.shape === 'short') return draft.paragraphs.join(lists ? '\n' : ' ')
  return draft.paragraphs.join('\n\n')
}

function assemble(body: string, profile: NetworkProfile, around: Surroundings): string {
  const tags = around.hashtags.map((t) => `#${t}`).join(' ')
  if (profile.link.place === 'text') {
    const tail = [around.link, tags].filter(Boolean).join(' ')
    const end = around.closing ? `${body}\n\n${around.closing}` : body
    return tail ? `${end}${body.includes('\n') || around.closing ? '\n' : ' '}${tail}` : end
  }
  const where = around.link
    ? profile.link.place === 'first comment'
      ? 'Link in the first comment.'
      : 'Link in the profile.'
    : null
  return [body, around.closing, where, tags].filter(Boolean).join('\n\n')
}

/** The first tags that do not repeat the body's last word; those whose words stand in the body come first. */
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
  const ranked = [...fitting.filter(inBody), ...fitting.filter((t) => !inBody(t))]
  const within = (a: string, b: string): boolean => a !== b && b.toLowerCase().includes(stem(a))
  return ranked
    .filter((t, i) => !ranked.slice(0, count + 1).some((o, j) => j !== i && within(t, o)))
    .slice(0, count)
}

/** The first sentence of a paragraph, good enough for measuring: up to the first end mark before a space. */
export function firstSentence(text: string): string {
  return /^.*?[.!?…]["”’)]*(?=\s|$)/u.exec(text)?.[0] ?? text
}
