import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, it } from 'vitest'
import { PLAIN_HOUSE } from '../house'
import type { Angle } from '../model'
import { passageAt } from '../passages'
import { read } from '../reading'
import { weighAnswer } from './connected'

/*
 * Answers as a capable language model gives them, with the verdict of a strict reader who did not know
 * the rules they are held against.
 */

interface Answer {
  n: number
  article: string
  network: string
  angle: Angle
  passage: string
  answer: string
  verdict: 'take' | 'refuse' | 'either'
}

const here = import.meta.dirname
const answers = JSON.parse(readFileSync(join(here, 'testing/answers.json'), 'utf8')) as Answer[]

async function isTaken({ article, network, angle, passage, answer }: Answer): Promise<boolean> {
  const file = join(here, '../../train/quotable', article.endsWith('.md') ? article : `${article}.md`)
  const result = await read(readFileSync(file), { name: 'article.md', url: 'https://a.example/x' })
  if (result.kind !== 'piece') throw new Error(article)
  const { piece } = result
  const start = piece.text.indexOf(passage)
  expect(start).toBeGreaterThanOrEqual(0)
  const weighed = weighAnswer(answer, {
    piece,
    house: PLAIN_HOUSE,
    link: 'https://a.example/x',
    seed: 1,
    account: { id: 'account', network },
    passage: passageAt(piece, start, start + passage.length),
    angle,
    beat: 0,
    drip: [],
  })
  return 'wording' in weighed
}

it('takes what a strict reader would sign, and refuses what must not go out', async () => {
  const taken = new Map<number, boolean>()
  for (const answer of answers) taken.set(answer.n, await isTaken(answer))
  const of = (verdict: Answer['verdict']): boolean[] =>
    answers.filter((a) => a.verdict === verdict).map((a) => taken.get(a.n) ?? false)
  expect(of('take')).toHaveLength(28)
  expect(of('take').filter(Boolean).length).toBeGreaterThanOrEqual(26)
  expect(of('refuse')).toEqual(of('refuse').map(() => false))
})
