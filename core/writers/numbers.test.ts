import { describe, expect, it } from 'vitest'
import { readPage } from '../reading'
import { PLAIN_HOUSE } from '../house'
import { passageAt } from '../passages'
import type { Commission } from './connected'
import { answersOf, choiceOf, commissionChoice, commissionDrip, numberedText } from './numbers'

const piece = readPage(
  `<html><body><article><h1>Keels</h1>
  <p>A keel of oak lasts sixty years in salt water. Nobody oils it.</p>
  <h2>What rots</h2>
  <p>Rot begins where fresh water stands on the wood. Salt keeps it away.</p>
  <blockquote><p>I have never seen a salted keel rot.</p><footer>— Ada Fell, surveyor</footer></blockquote>
  <p>Sign up for our monthly letter.</p>
  <p>Two coats of tar cost less than one new plank of larch.</p></article></body></html>`,
)
const at = (words: string) => {
  const start = piece.text.indexOf(words)
  return passageAt(piece, start, start + words.length)
}
const request = (words: string, change: Partial<Commission> = {}): Commission => ({
  piece,
  passage: at(words),
  angle: 'lesson',
  account: { id: 'a', network: 'murmur' },
  beat: 0,
  drip: [],
  house: PLAIN_HOUSE,
  link: null,
  seed: 1,
  ...change,
})
const both = [
  request('A keel of oak lasts sixty years in salt water. Nobody oils it.'),
  request('Rot begins where fresh water stands on the wood.', { account: { id: 'b', network: 'guildhall' } }),
]

describe('a piece with its sentences numbered', () => {
  it('counts what is the brand’s own, and shows headings and guests without a number', () => {
    expect(numberedText(piece).text).toBe(
      [
        '[1] A keel of oak lasts sixty years in salt water. [2] Nobody oils it.',
        '## What rots',
        '[3] Rot begins where fresh water stands on the wood. [4] Salt keeps it away.',
        '> Ada Fell, surveyor: I have never seen a salted keel rot.',
        '[5] Two coats of tar cost less than one new plank of larch.',
      ].join('\n\n'),
    )
  })

  it('is sent once for all posts of a drip, each with its network, its lengths and its sentences', () => {
    const [rules, wanted] = commissionDrip(both) ?? []
    expect(rules?.content).toContain('{"posts": [')
    expect(wanted?.content.match(/A keel of oak/g)).toHaveLength(1)
    expect(wanted?.content).toMatch(
      /Post 1, from sentences 1–2:\nNetwork: Murmur.*between \d+ and \d+ characters/s,
    )
    expect(wanted?.content).toMatch(/Post 2, from sentence 3:\nNetwork: Guildhall/)
  })

  it('is not sent where it is too long for one question', () => {
    const long = { ...piece, text: `${piece.text} ${'word '.repeat(9000)}` }
    const whole = {
      ...long,
      blocks: [{ ...piece.blocks[0]!, start: 0, end: long.text.length }],
      sentences: [{ start: 0, end: long.text.length, block: 0 }],
    }
    expect(commissionDrip([request('Nobody oils it.', { piece: whole })])).toBeNull()
    expect(commissionChoice(whole)).toBeNull()
  })
})

describe('an answer for a whole drip', () => {
  it('is taken post by post, as words or as the author’s own sentences by their numbers', () => {
    const answer =
      'Here they are: {"posts":[{"post":2,"sentences":[4,3]},{"post":1,"text":"Oak lasts. #keel https://x.example/a","title":"Oak"}]}'
    const [first, second] = answersOf(answer, both)
    expect(first).toEqual({ text: 'Oak lasts.', title: 'Oak' })
    expect(second).toMatchObject({
      text: 'Rot begins where fresh water stands on the wood. Salt keeps it away.',
      title: null,
    })
    expect(second?.places?.map((p) => piece.text.slice(p.start, p.end))).toEqual([
      'Rot begins where fresh water stands on the wood.',
      'Salt keeps it away.',
    ])
  })

  it('keeps paragraphs apart where its numbers skip from one to another', () => {
    expect(answersOf('{"posts":[{"post":1,"sentences":[1,4]}]}', both)[0]?.text).toBe(
      'A keel of oak lasts sixty years in salt water.\n\nSalt keeps it away.',
    )
  })

  it.each([
    ['no JSON', 'I would rather not.'],
    ['another form', '{"text":"Oak lasts."}'],
    ['a number that no sentence has', '{"posts":[{"post":1,"sentences":[1,99]},{"post":2,"text":" "}]}'],
  ])('says nothing of a post in %s', (_, answer) => {
    expect(answersOf(answer, both)).toEqual([null, null])
  })
})

describe('passages chosen by a connected model', () => {
  const chosen = (answer: string): string[] => choiceOf(answer, piece).map((p) => p.text)

  it('are what its numbers name, in its order, each once', () => {
    expect(chosen('```json\n{"passages":[[5],[1,2],[2,2]]}\n```')).toEqual([
      'Two coats of tar cost less than one new plank of larch.',
      'A keel of oak lasts sixty years in salt water. Nobody oils it.',
    ])
    expect(choiceOf('{"passages":[[5]]}', piece)[0]?.reasons[0]).toBe('chosen by the connected writer')
  })

  it('never reach over a heading, a guest or an offer, nor past the end', () => {
    expect(chosen('{"passages":[[2,3],[4,5],[6],[0],[3]]}')).toEqual([
      'Rot begins where fresh water stands on the wood.',
    ])
    expect(chosen('They are all fine.')).toEqual([])
  })
})
