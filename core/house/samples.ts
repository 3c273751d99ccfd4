import type { Voice } from '../model'
import { graphemes } from '../networks'
import { tagsIn, withoutAddresses, withoutTags } from '../text'

/** What pasted posts say of how a brand writes. */
export interface MeasuredVoice {
  voice: Voice
  /** Characters of the middle four fifths of the posts, links and tags left out. */
  length: { least: number; most: number }
  /** Hashtags a post, rounded. */
  hashtags: number
  posts: number
}

/** Parts pasted posts: at blank lines between posts, or at lines of three marks. */
export function partPosts(text: string): string[] {
  return text
    .split(/\n\s*(?:\n|[-=*]{3,}\s*\n)/)
    .map((p) => p.trim())
    .filter((p) => /\p{L}/u.test(p))
}

/** Fewer posts than this say nothing. */
const LEAST = 3

/**
 * Voice and lengths of posts that a brand has written, or null where there are fewer than three.
 * Formality is told by contractions against the forms they stand for, vividness by dashes,
 * exclamation and question marks, warmth by words of address and thanks, the speaker by the
 * commonest pronoun (after the register features of Biber 1988, as far as they can be counted
 * without a parser). Every figure is rounded to the steps of its slider.
 */
export function measureVoice(samples: readonly string[]): MeasuredVoice | null {
  const posts = samples.map((s) => withoutAddresses(s, ' ').trim()).filter((s) => /\p{L}/u.test(s))
  if (posts.length < LEAST) return null
  const text = posts.join('\n').replace(/[‘’]/g, "'")
  const prose = withoutTags(text)
  const words = Math.max(1, prose.match(/[\p{L}']+/gu)?.length ?? 1)
  const count = (pattern: RegExp): number => prose.match(pattern)?.length ?? 0
  const rate = (pattern: RegExp): number => (count(pattern) * 100) / words
  const short = count(
    /\b\w+n't\b|\b(?:I'm|(?:you|we|they)'re|(?:it|that|there|he|she|what)'s|\w+'ll|\w+'ve)\b/gi,
  )
  const long = count(
    /\b(?:do|does|did|is|are|was|were|has|have|had|could|should|would|will) not\b|\bcannot\b|\b(?:it|that|there) is\b|\b(?:you|we|they) (?:are|will|have)\b/gi,
  )
  const formality = short + long === 0 ? 0 : step(2 - (4 * short) / (short + long))
  const vividness = step((rate(/ [–—] |!|\?/g) - 1.5) / 0.8)
  const warmth = step(
    (rate(
      /\b(?:you|your|thanks?|please|love|glad|welcome|friends?|together|hello|hi)\b|\p{Extended_Pictographic}/giu,
    ) -
      2) /
      1.2,
  )
  const we = rate(/\b(?:we|our|us|ours)\b/gi)
  const I = rate(/\b(?:I|my|me|mine)\b/g)
  const you = rate(/\b(?:you|your|yours)\b/gi)
  const most = Math.max(we, I, you)
  const speaker = most < 0.6 ? 'nobody' : most === we ? 'we' : most === I ? 'I' : 'you'
  const lengths = posts.map((p) => graphemes(withoutTags(p, '').trim())).sort((a, b) => a - b)
  const at = (share: number): number =>
    lengths[Math.min(lengths.length - 1, Math.floor(share * lengths.length))] ?? 0
  const least = Math.max(20, Math.round(at(0.1) / 10) * 10)
  return {
    voice: { formality, vividness, warmth, speaker },
    length: { least, most: Math.max(least + 40, Math.round(at(0.9) / 10) * 10) },
    hashtags: Math.round(tagsIn(text).length / posts.length),
    posts: posts.length,
  }
}

const step = (value: number): number => Math.max(-2, Math.min(2, Math.round(value))) || 0
