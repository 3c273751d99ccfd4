import type { Token } from '../language'
import type { StudiedSentence } from './study'

/**
 * The words, pairs of words and runs of three parts of speech of a sentence, and how it opens and ends:
 * what a linear model weighs beside the features. Each stands once; the first letter tells its kind.
 */
export function phrasesOf({ words, tokens }: StudiedSentence): Set<string> {
  const found = new Set<string>()
  words.forEach((t, i) => {
    const next = words[i + 1]
    found.add(`w ${t.lower}`)
    if (t.lemma !== t.lower) found.add(`w ${t.lemma}`)
    if (next) found.add(`p ${t.lower} ${next.lower}`)
  })
  for (let i = 0; i + 2 < tokens.length; i++)
    found.add(`s ${tokens[i]?.pos} ${tokens[i + 1]?.pos} ${tokens[i + 2]?.pos}`)
  for (const phrase of edgesOf(words, tokens)) found.add(phrase)
  return found
}

/** How a sentence opens, by its words and their parts of speech, and how it ends. */
function edgesOf(words: readonly Token[], tokens: readonly Token[]): string[] {
  const opening = words.slice(0, 3).map((t) => t.lower)
  const parts = tokens.slice(0, 4).map((t) => t.pos)
  return [
    ...opening.map((_, i) => `o ${opening.slice(0, i + 1).join(' ')}`),
    `f ${parts.slice(0, 3).join(' ')}`,
    `f ${parts.join(' ')}`,
    `e ${words
      .slice(-2)
      .map((t) => t.pos)
      .join(' ')}`,
    `l ${words[words.length - 1]?.lower ?? ''}`,
  ]
}

/** A set of phrases with their numbers, laid out so that a sentence's are found without joining its words. */
export class Vocabulary {
  readonly #words = new Map<string, number>()
  readonly #pairs = new Map<string, Map<string, number>>()
  readonly #shapes = new Map<string, Map<string, Map<string, number>>>()
  readonly #rest = new Map<string, number>()

  constructor(phrases: readonly string[]) {
    phrases.forEach((phrase, id) => {
      const [kind, a = '', b = '', c = ''] = phrase.split(' ')
      if (kind === 'w') this.#words.set(a, id)
      else if (kind === 'p') within(this.#pairs, a).set(b, id)
      else if (kind === 's') within(within(this.#shapes, a), b).set(c, id)
      else this.#rest.set(phrase, id)
    })
  }

  /** The numbers of the phrases of a sentence that have one, each once: those of `phrasesOf`. */
  numbersOf({ words, tokens }: Pick<StudiedSentence, 'words' | 'tokens'>): number[] {
    const found = new Set<number>()
    const add = (id: number | undefined): void => {
      if (id !== undefined) found.add(id)
    }
    for (let i = 0; i < words.length; i++) {
      const t = words[i] as Token
      add(this.#words.get(t.lower))
      if (t.lemma !== t.lower) add(this.#words.get(t.lemma))
      const next = words[i + 1]
      if (next) add(this.#pairs.get(t.lower)?.get(next.lower))
    }
    for (let i = 0; i + 2 < tokens.length; i++)
      add(
        this.#shapes
          .get((tokens[i] as Token).pos)
          ?.get((tokens[i + 1] as Token).pos)
          ?.get((tokens[i + 2] as Token).pos),
      )
    for (const phrase of edgesOf(words, tokens)) add(this.#rest.get(phrase))
    return [...found]
  }
}

function within<K, V>(map: Map<string, Map<K, V>>, key: string): Map<K, V> {
  let found = map.get(key)
  if (!found) map.set(key, (found = new Map()))
  return found
}
