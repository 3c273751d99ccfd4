import { expect, it } from 'vitest'
import { readWriting } from '../reading'
import { phrasesOf, studyOf, Vocabulary } from '.'

const study = studyOf(
  readWriting(
    '# Walls\n\nA wall stands because every stone in it rests on two. “Never,” he said, “pick up a stone twice.” Two. Is it 5 °C? It is.\n\n- One, two and three.',
    'walls',
  ),
)

it('finds the very phrases of a sentence, by their numbers', () => {
  const all = [...new Set(study.sentences.flatMap((s) => [...phrasesOf(s)]))]
  // Every second one has no number.
  const known = all.filter((_, i) => i % 2 === 0)
  const vocabulary = new Vocabulary(known)
  for (const s of study.sentences)
    expect(new Set(vocabulary.numbersOf(s).map((id) => known[id]))).toEqual(
      new Set([...phrasesOf(s)].filter((p) => known.includes(p))),
    )
})

it('tells words, pairs, shapes, openings and ends apart', () => {
  const [first] = study.sentences
  const phrases = phrasesOf(first!)
  for (const phrase of ['w wall', 'p a wall', 'o a', 'o a wall stands', 'l two'])
    expect(phrases).toContain(phrase)
})
