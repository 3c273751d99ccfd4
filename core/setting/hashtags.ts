import { isNoun, rarity, stem, STOP_WORDS, type Token } from '../language'
import type { PieceContent, TagFigures } from '../model'
import type { Study } from '../study'

/** A hashtag that a piece may have. */
export interface Tag {
  /** Without the number sign, in CamelCase so that screen readers can part the words. */
  text: string
  /** Whose it is: the house's standing one, one that the author gave, or a term that the piece uses. */
  from: 'the house' | 'the author' | 'the piece'
  /** Its words, by their stems. */
  stems: readonly string[]
  /** Whether the piece says all of its words somewhere. */
  inPiece: boolean
}

/** "winter lay-up" as "WinterLayUp". */
export function camelCase(phrase: string): string {
  return (phrase.match(/[\p{L}\p{N}]+/gu) ?? []).map((w) => w.charAt(0).toUpperCase() + w.slice(1)).join('')
}

const stemsOf = (text: string): string[] => (text.match(/[\p{L}\p{N}]+/gu) ?? []).map(stem)

const tagOf = (phrase: string, from: Tag['from'], inPiece = true): Tag => ({
  text: camelCase(phrase),
  from,
  stems: stemsOf(phrase),
  inPiece,
})

/** The tags that an author gave, as hashtags; long ones are none. */
export function authorTags(piece: Pick<PieceContent, 'categories' | 'title' | 'text'>): Tag[] {
  const said = new Set(stemsOf(`${piece.title} ${piece.text}`))
  return piece.categories
    .filter((c) => c.split(/\s+/).length <= 3)
    .map((c) =>
      tagOf(
        c,
        'the author',
        stemsOf(c).every((s) => said.has(s)),
      ),
    )
}

/**
 * The hashtags of a piece, best first: the house's standing ones, the author's own, then the terms of its
 * field (`termsOf`). Where a network tells how often tags are posted with, those of the piece are ranked by
 * both: what it is about, and whether anybody is there to find it (`worthOf`).
 */
export function tagsOf(
  { piece }: Pick<Study, 'piece'>,
  terms: readonly string[],
  standing: readonly string[],
  figures: TagFigures = {},
): Tag[] {
  const found = [...authorTags(piece), ...terms.map((t) => tagOf(t, 'the piece'))]
  const ranked = found
    .map((tag, rank) => ({ tag, worth: worthOf(rank, figures[tag.text]) }))
    .sort((a, b) => b.worth - a.worth)
    .map(({ tag }) => tag)
  const seen = new Set<string>()
  return [...standing.map((s) => tagOf(s, 'the house')), ...ranked].filter(({ text }) => {
    const key = stem(text)
    if (text.length < 3 || text.length > 24 || !/\p{L}/u.test(text) || seen.has(key)) return false
    seen.add(key)
    return true
  })
}

/** Posts a week up to which a tag is the better the more there are; beyond, a post is soon out of sight. */
const CROWDED = 10_000

/**
 * What a tag is worth: its place among those of the piece, and how often it is posted with in a
 * week. One that nobody uses is worth a tenth of one that is well used and not crowded; one without
 * a figure stands between them.
 */
function worthOf(rank: number, weekly: number | undefined): number {
  const full = Math.log10(1 + CROWDED)
  const used = weekly === undefined ? full / 2 : Math.log10(1 + weekly)
  const reach = used <= full ? used / full : Math.max(0.4, 1 - (used - full) / 4)
  return (0.1 + 0.9 * reach) / (1 + 0.25 * rank)
}

/**
 * Of a piece's tags those that one post may have, the best first, `most` of them: the house's, the author's
 * where the post says one of their words, then terms all of whose words it says, then the author's others.
 * None that only repeats its last word, none inside another. There may be none.
 */
export function fittingTags(tags: readonly Tag[], body: string, most: number): string[] {
  const words = (body.match(/[\p{L}\p{N}]+/gu) ?? []).map(stem)
  const said = new Set(words)
  const last = words[words.length - 1]
  const rank = ({ from, stems, inPiece }: Tag): number => {
    if (from === 'the house') return 0
    if (from === 'the author') return stems.some((s) => said.has(s)) ? 1 : inPiece ? 3 : Infinity
    return stems.every((s) => said.has(s)) ? 2 : Infinity
  }
  const ranked = tags
    .filter(
      (t) => rank(t) < Infinity && !(t.from === 'the piece' && t.stems.length === 1 && t.stems[0] === last),
    )
    .map((tag, i) => ({ tag, place: rank(tag) * 100 + i }))
    .sort((a, b) => a.place - b.place)
    .map(({ tag }) => tag)
  const chosen: Tag[] = []
  for (const tag of ranked) {
    if (chosen.length >= most) break
    const own = tag.stems.join(' ')
    const alike = chosen.some((c) => c.stems.join(' ').includes(own) || own.includes(c.stems.join(' ')))
    if (!alike || tag.from === 'the house') chosen.push(tag)
  }
  return chosen.map((t) => t.text)
}

/** A term of the piece: a phrase with how often it comes. */
interface Counted {
  lemmas: string
  words: Token[]
  count: number
  blocks: Set<number>
}

/** From this rarity on (the logarithm to base two of a word's rank) a word of its own may be a term. */
const RARE = 11.6
/** The least rarity of each word of a phrase of two, the least mean, and that of the rarer word: no "good planes". */
const NOT_COMMON = 8
const FAIRLY_RARE = 8.5
const ONE_RARE = 10

/**
 * The terms of a piece's field, at most `most`, best first: phrases of one or two nouns and adjectives that
 * come again and again in it and seldom in everyday English. A phrase's weight is its frequency less that
 * inside longer phrases (the C-value of Frantzi, Ananiadou and Mima 2000) times its rarity against general
 * English (after SUBTLEX, Brysbaert and New 2009). A single word must be rare and stand in the title or in
 * two headings; so "ways", "days" or "job" can never be one.
 */
export function termsOf(study: Study, most = 8): string[] {
  const counted = phrasesIn(study)
  const headings = study.sentences.filter((s) => s.kind === 'heading').map((s) => new Set(s.lemmas))
  const headed = (c: Counted): boolean => headings.filter((h) => h.has(c.lemmas)).length >= 2
  const often = Math.min(4, Math.max(2, Math.round(study.piece.words / 300)))
  const scored = [...counted.values()].flatMap((c) => {
    const rarities = c.words.map((w) => rarity(w.lower))
    const mean = rarities.reduce((a, b) => a + b, 0) / rarities.length
    const titled = c.words.every((w) => study.titleLemmas.has(w.lemma))
    const least = titled ? 2 : c.words.length > 1 ? often : often + 1
    if (c.count < least || (!titled && c.blocks.size < 2)) return []
    const rare =
      c.words.length === 1
        ? mean >= RARE && (titled || headed(c))
        : Math.min(...rarities) >= NOT_COMMON && mean >= FAIRLY_RARE && Math.max(...rarities) >= ONE_RARE
    if (!rare) return []
    const inside = [...counted.values()].filter((o) => o !== c && ` ${o.lemmas} `.includes(` ${c.lemmas} `))
    const nested = inside.length ? inside.reduce((sum, o) => sum + o.count, 0) / inside.length : 0
    const weight = Math.log2(1 + c.words.length) * (c.count - nested) * mean * (titled ? 2 : 1)
    return weight > 0 ? [{ phrase: c.words.map((w) => w.lower).join(' '), weight }] : []
  })
  return scored
    .sort((a, b) => b.weight - a.weight || (a.phrase < b.phrase ? -1 : 1))
    .slice(0, most)
    .map((s) => s.phrase)
}

/** Runs of nouns and adjectives of one and two words, that end in a noun, with their counts. */
function phrasesIn({ sentences }: Study): Map<string, Counted> {
  const found = new Map<string, Counted>()
  const add = (words: Token[], block: number): void => {
    const lemmas = words.map((w) => w.lemma).join(' ')
    const known = found.get(lemmas)
    if (known) {
      known.count++
      known.blocks.add(block)
    } else found.set(lemmas, { lemmas, words, count: 1, blocks: new Set([block]) })
  }
  for (const s of sentences) {
    if (s.furniture) continue
    s.tokens.forEach((token, i) => {
      if (!isTerm(token) || !isNoun(token)) return
      add([token], s.block)
      const before = s.tokens[i - 1]
      if (before && isTerm(before)) add([before, token], s.block)
    })
  }
  return found
}

/** Whether a word may stand in a term: a noun or adjective in lower case that is no word of every text. */
const isTerm = (t: Token): boolean =>
  (t.pos === 'NOUN' || t.pos === 'ADJ') &&
  /^[\p{Ll}-]{3,}$/u.test(t.text) &&
  !STOP_WORDS.has(t.lower) &&
  !/(?:ing|est|er)$/.test(t.pos === 'ADJ' ? t.lower : '')
