import { readSentences, STOP_WORDS, type Token } from '../language'
import type { PieceContent, TagFigures } from '../model'
import { analyse } from '../reading'

/**
 * Hashtags for a piece, best first, without the number sign and in CamelCase so that screen
 * readers can part the words: the house's standing ones, the piece's categories, then its key
 * phrases (runs of adjectives and nouns, ranked by how often they occur and whether the title
 * holds them; after Rose and others 2010). Tags that differ only in case are given once. Where a
 * network tells how often tags are posted with, those found in the piece are ranked by both: what
 * the piece is about, and whether anybody is there to find it (`worthOf`).
 */
export function hashtagsFor(
  piece: PieceContent,
  standing: readonly string[],
  figures: TagFigures = {},
): string[] {
  const found = [
    ...piece.categories.filter((c) => c.split(/\s+/).length <= 3).map(camelCase),
    ...keyPhrases(piece).map(camelCase),
  ]
  const worth = new Map(found.map((tag, rank) => [tag, worthOf(rank, figures[tag])]))
  const ranked = [...standing, ...[...worth].sort((a, b) => b[1] - a[1]).map(([tag]) => tag)]
  const seen = new Set<string>()
  return ranked.filter((tag) => {
    const key = tag.toLowerCase().replace(/e?s?$/, '')
    if (tag.length < 3 || tag.length > 24 || !/\p{L}/u.test(tag) || seen.has(key)) return false
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

/** "winter lay-up" as "WinterLayUp". */
export function camelCase(phrase: string): string {
  return (phrase.match(/[\p{L}\p{N}]+/gu) ?? []).map((w) => w.charAt(0).toUpperCase() + w.slice(1)).join('')
}

/** Nouns that name no subject of their own. */
const GENERAL = new Set(
  'want good great small large new old long short first last next time day hour minute year week weekend month end thing way piece place part side people man woman person lot bit kind sort number half third quarter morning night question answer reason course fact case point line row winter summer spring season hand money use help work life world rest other one set pair box floor word name list shop'.split(
    ' ',
  ),
)

/** Whether a noun names no subject of its own: "day", "people", "way". */
export const isGeneral = (lemma: string): boolean => GENERAL.has(lemma)

/** Up to eight phrases of one to three words that name what the piece is about. */
export function keyPhrases(piece: PieceContent): string[] {
  const found = countedPhrases(piece)
  // A short text repeats little; then its title says what it is about.
  const said = found.join(' ').toLowerCase()
  const named = readSentences(piece.title)
    .flatMap((s) => s.tokens)
    .filter((t) => /^(?:NOUN|PROPN)$/.test(t.pos) && t.lower.length > 2 && !GENERAL.has(t.lemma))
    .map((t) => t.lower)
    .filter((w) => !said.includes(w) && piece.text.toLowerCase().includes(w.replace(/s$/, '')))
  return [...found, ...new Set(named)].slice(0, 8)
}

function countedPhrases(piece: PieceContent): string[] {
  const counts = new Map<string, { count: number; words: number; forms: Map<string, number> }>()
  const title = piece.title.toLowerCase()
  for (const sentence of analyse(piece)) {
    if (piece.blocks[sentence.block]?.furniture !== null) continue
    let run: Token[] = []
    const close = (): void => {
      if (run[run.length - 1]?.pos === 'ADJ') run = []
      for (let from = 0; from < run.length; from++)
        for (let to = from + 1; to <= Math.min(run.length, from + 2); to++) {
          if (to - from === 1 && run[from]?.pos === 'ADJ') continue
          const phrase = run
            .slice(from, to)
            .map((t) => t.lemma)
            .join(' ')
          const form = run
            .slice(from, to)
            .map((t) => t.lower)
            .join(' ')
          const entry = counts.get(phrase) ?? { count: 0, words: to - from, forms: new Map() }
          entry.count++
          entry.forms.set(form, (entry.forms.get(form) ?? 0) + 1)
          counts.set(phrase, entry)
        }
      run = []
    }
    for (const token of sentence.tokens) {
      const described = token.pos === 'ADJ' && run.length === 0
      const noun =
        (token.pos === 'NOUN' || described) &&
        /^[\p{L}-]{3,}$/u.test(token.text) &&
        !STOP_WORDS.has(token.lower) &&
        !GENERAL.has(token.lemma)
      if (noun) run.push(token)
      else close()
    }
    close()
  }
  // In a long text a word has to come more often to be what it is about.
  const often = Math.min(5, Math.max(2, Math.round(piece.words / 140)))
  const inTitle = (phrase: string): boolean => phrase.split(' ').some((w) => title.includes(w))
  return [...counts]
    .filter(([phrase, { count, words }]) =>
      words > 1
        ? count >= (inTitle(phrase) ? 2 : Math.min(3, often))
        : phrase.length >= (inTitle(phrase) ? 3 : 5) && count >= (inTitle(phrase) ? 2 : often),
    )
    .map(([phrase, { count, words, forms }]) => ({
      phrase: [...forms].sort((a, b) => b[1] - a[1] || b[0].length - a[0].length)[0]?.[0] ?? phrase,
      weight: count * words * (title.includes(phrase) ? 3 : 1),
    }))
    .sort((a, b) => b.weight - a.weight || (a.phrase < b.phrase ? -1 : 1))
    .slice(0, 8)
    .map((p) => p.phrase)
}
