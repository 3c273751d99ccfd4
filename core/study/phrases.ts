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
  const opening = words.slice(0, 3).map((t) => t.lower)
  opening.forEach((_, i) => found.add(`o ${opening.slice(0, i + 1).join(' ')}`))
  const parts = tokens.slice(0, 4).map((t) => t.pos)
  found.add(`f ${parts.slice(0, 3).join(' ')}`)
  found.add(`f ${parts.join(' ')}`)
  found.add(
    `e ${words
      .slice(-2)
      .map((t) => t.pos)
      .join(' ')}`,
  )
  found.add(`l ${words[words.length - 1]?.lower ?? ''}`)
  return found
}
