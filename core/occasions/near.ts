import { stem, STOP_WORDS } from '../language'
import type { Occasion, Passage, Piece } from '../model'
import { wordsIn } from '../text'

/** A text that may be near a theme: its own words, and those of the title over it, which count less. */
export interface ThemeText {
  id: string
  text: string
  title: string
}

/** Whether a passage was kept, by the machine or by a person who put it on the shelf, and still stands in its piece. */
export function isKept({
  choice,
  shelf,
  lostPlace,
}: Pick<Passage, 'choice' | 'shelf' | 'lostPlace'>): boolean {
  return (choice === 'kept' || shelf === 'on') && !lostPlace
}

/** The kept passages of some pieces as texts that may be near a theme, each under the title of its piece. */
export function themeTexts(
  passages: readonly Passage[],
  pieces: ReadonlyMap<string, Pick<Piece, 'title'>>,
): ThemeText[] {
  return passages
    .filter(isKept)
    .map(({ id, text, piece }) => ({ id, text, title: pieces.get(piece)?.title ?? '' }))
}

/** How near a text is to a theme, and which of the theme's words it says. */
export interface Nearness {
  id: string
  /** Above 0, without a unit; it compares texts of one theme only. */
  score: number
  says: string[]
}

/** Words of the names of days that say nothing of what these are about. */
const OF_NAMES = new Set(
  'day days eve week month year years annual international national world global happy first second third last anniversary season'
    .split(' ')
    .map(stem),
)

/** What a theme is looked for by: its words and phrases, or where it has none, the words of the occasion's name. */
export function themeOf({ name, theme }: Pick<Occasion, 'name' | 'theme'>): string[] {
  if (theme.length) return [...theme]
  return wordsIn(name).filter((w) => !STOP_WORDS.has(w) && !OF_NAMES.has(stem(w)) && w.length > 2)
}

/** How soon more of the same word counts for little, and how much long texts are held back (the usual values). */
const K1 = 1.2
const B = 0.75
/** What a word in the title counts beside one in the text. */
const TITLE = 0.5

interface Counted {
  id: string
  stems: string[]
  title: string[]
}

/**
 * Texts that can be asked which of them are near a theme: BM25 over stems and phrases of them (Robertson and Zaragoza,
 * The Probabilistic Relevance Framework, 2009), with the title as a second field that counts half (BM25F).
 */
export class ThemeIndex {
  readonly #texts: Counted[]
  readonly #mean: number
  /** Which texts have a stem, by their place in the list. */
  readonly #having = new Map<string, number[]>()

  constructor(texts: readonly ThemeText[]) {
    // The same words come again and again, and so do titles.
    const known = new Map<string, string>()
    const titles = new Map<string, string[]>()
    const titled = (title: string): string[] => {
      let stems = titles.get(title)
      if (!stems) titles.set(title, (stems = stemsOf(title, known)))
      return stems
    }
    this.#texts = texts.map(({ id, text, title }) => ({
      id,
      stems: stemsOf(text, known),
      title: titled(title),
    }))
    const words = this.#texts.reduce((sum, t) => sum + t.stems.length, 0)
    this.#mean = words / Math.max(1, texts.length)
    const note = (stem: string, i: number): void => {
      const having = this.#having.get(stem)
      if (!having) this.#having.set(stem, [i])
      else if (having[having.length - 1] !== i) having.push(i)
    }
    this.#texts.forEach(({ stems, title }, i) => {
      for (const s of stems) note(s, i)
      for (const s of title) note(s, i)
    })
  }

  /** The texts that say a word or phrase of a theme in any of its forms, nearest first. */
  near(theme: readonly string[]): Nearness[] {
    const found = new Map<number, Nearness>()
    for (const entry of theme) {
      const phrase = stemsOf(entry)
      const counts = this.#countsOf(phrase)
      if (counts.size === 0) continue
      const rare = Math.log(1 + (this.#texts.length - counts.size + 0.5) / (counts.size + 0.5))
      for (const [i, count] of counts) {
        const text = this.#texts[i] as Counted
        const held = 1 - B + (B * text.stems.length) / this.#mean
        const known = found.get(i) ?? { id: text.id, score: 0, says: [] }
        known.score += (rare * count * (K1 + 1)) / (count + K1 * held)
        known.says.push(entry)
        found.set(i, known)
      }
    }
    return [...found.values()].sort((a, b) => b.score - a.score || (a.id < b.id ? -1 : 1))
  }

  /** How often each text says a phrase, by its place in the list; those that do not say it are left away. */
  #countsOf(phrase: readonly string[]): Map<number, number> {
    const counts = new Map<number, number>()
    if (phrase.length === 0) return counts
    const lists = phrase.map((s) => this.#having.get(s) ?? [])
    const rarest = lists.reduce((least, list) => (list.length < least.length ? list : least))
    for (const i of rarest) {
      const { stems, title } = this.#texts[i] as Counted
      const count = timesIn(stems, phrase) + TITLE * timesIn(title, phrase)
      if (count > 0) counts.set(i, count)
    }
    return counts
  }
}

/** The stems of a text in order; `known` keeps those that were worked out. */
function stemsOf(text: string, known = new Map<string, string>()): string[] {
  const stems: string[] = []
  for (const word of wordsIn(text))
    for (const part of word.split('-')) {
      if (part === '') continue
      let found = known.get(part)
      if (found === undefined) known.set(part, (found = stem(part)))
      stems.push(found)
    }
  return stems
}

function timesIn(stems: readonly string[], phrase: readonly string[]): number {
  let times = 0
  for (let i = 0; i + phrase.length <= stems.length; i++)
    if (phrase.every((s, k) => stems[i + k] === s)) times++
  return times
}
