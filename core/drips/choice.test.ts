import { describe, expect, it } from 'vitest'
import { PLAIN_HOUSE } from '../house'
import { aWording } from '../model/samples'
import { weighPassages } from '../passages'
import { stockOf, type Assignment } from '../writers'
import { writeDrip } from '.'
import { firstSound, ranked, unlike } from './rank'
import { turnsOf } from './rotation'
import { closedLately, isFresh, saidBefore, saying } from './said'
import { KITES } from './testing/kites'

describe('the turns of passages', () => {
  it('are a Latin square: at beat k account j begins with passage (k + j) mod n', () => {
    const turns = turnsOf(['a', 'b', 'c', 'd', 'e'], 3, 4)
    expect([0, 1, 2, 3].map((beat) => [0, 1, 2].map((column) => turns(beat, column)[0]).join(''))).toEqual([
      'abc',
      'bcd',
      'cda',
      'dab',
    ])
    // What is beyond the beats comes last, in its order.
    expect(turns(1, 0)).toEqual(['b', 'c', 'd', 'a', 'e'])
  })

  it('leave a gap rather than give two accounts the same at one beat', () => {
    const turns = turnsOf(['a'], 3, 3)
    expect([0, 1, 2].map((column) => turns(0, column))).toEqual([['a'], ['a'], ['a']])
    expect(turnsOf([], 2, 2)(0, 0)).toEqual([])
  })
})

describe('what has been said', () => {
  const one = { id: 'one', network: 'murmur' }
  const text = 'A kite flies on the difference between two winds and nothing else at all.'
  const span = [{ start: 0, end: 40 }]
  const made = (change: object) => ({ text, title: null, spans: span, ...change })
  const said = saying(saidBefore(), aWording({ text, spans: span, title: null }), one)

  it('opens nothing alike on any network, under another title it may', () => {
    expect(isFresh(said, made({ text: `${text} More.` }), 'guildhall')).toBe(false)
    expect(
      isFresh(said, made({ text: 'Silk lifts in a wind that moves no leaf.', spans: [] }), 'guildhall'),
    ).toBe(true)
    expect(isFresh(said, made({ title: 'Two winds', spans: [{ start: 0, end: 90 }] }), 'rackwell')).toBe(true)
    const titled = saying(saidBefore(), aWording({ text, spans: span, title: 'Two winds' }), one)
    expect(isFresh(titled, made({ title: 'Two winds', text: 'Silk lifts.', spans: [] }), 'rackwell')).toBe(
      false,
    )
  })

  it('says the same places of a piece once', () => {
    expect(isFresh(said, made({ title: 'Two winds' }), 'rackwell')).toBe(false)
  })

  it('stays unlike what its network has, before the drip and in it; elsewhere it may be like it', () => {
    const like = `Remember: ${text.toLowerCase()}`
    expect(isFresh(said, made({ text: like, spans: [] }), 'murmur')).toBe(false)
    expect(isFresh(said, made({ text: like, spans: [] }), 'guildhall')).toBe(true)
    const earlier = saidBefore([{ account: 'two', network: 'murmur', text }])
    expect(isFresh(earlier, made({ text: like, spans: [] }), 'murmur')).toBe(false)
  })

  it('rests a closing line for thirty captions of its network, and through the drip', () => {
    const line = (i: number) => ({ account: 'a', network: 'murmur', text: `${i}`, closing: `line ${i}` })
    const before = saidBefore(Array.from({ length: 40 }, (_, i) => line(i)))
    expect(closedLately(before, 'murmur').has('line 9')).toBe(false)
    expect(closedLately(before, 'murmur').has('line 10')).toBe(true)
    expect(closedLately(before, 'guildhall').size).toBe(0)
    const after = saying(before, aWording({ closing: 'here' }), { id: 'g', network: 'guildhall' })
    expect(closedLately(after, 'murmur').has('here')).toBe(true)
  })

  it('is a value: what was said before stays as it was', () => {
    const before = saidBefore()
    saying(before, aWording({ text }), one)
    expect([before.openings.size, before.captions.length, before.drip.length]).toEqual([0, 0, 0])
  })
})

describe('the choice', () => {
  const stock = stockOf(KITES)
  const passage = weighPassages(KITES)
    .map((w) => w.passage)
    .find((p) => p.text.startsWith('A kite flies'))
  const assignment: Assignment = {
    order: { piece: KITES, house: PLAIN_HOUSE, link: null, seed: 1 },
    stock,
    account: { id: 'a', network: 'guildhall' },
    passage: passage ?? null,
    beat: 0,
  }

  it('has the best first', () => {
    const scores = ranked(assignment, saidBefore()).map((w) => w.score)
    expect(scores.length).toBeGreaterThan(2)
    expect(scores).toEqual([...scores].sort((a, b) => b - a))
    expect(scores[0]).toBeGreaterThan(scores.at(-1) ?? 1)
  })

  it('thinks less of what opens as the account did long ago, and not of what another account said', () => {
    const scoreAfter = (account: string) => {
      const text = 'A kite flies on nothing that anybody here has ever seen.'
      const long = { account, network: 'guildhall', text, samePiece: true, longAgo: true }
      return (
        ranked(assignment, saidBefore([long])).find((w) => w.text.startsWith('A kite flies on'))?.score ?? 0
      )
    }
    // Fifteen in a hundred less, and what the seed leaves to chance is the same.
    expect(scoreAfter('a') / scoreAfter('b')).toBeCloseTo(0.85, 2)
  })

  it('sends out nothing of which a person would be asked', () => {
    const sound = aWording({ text: 'A kite flies on the difference between two winds.' })
    const doubtful = aWording({ text: 'A kite of 900 metres flies on the difference between two winds.' })
    expect(firstSound(assignment, saidBefore(), [doubtful, sound])?.text).toBe(sound.text)
    expect(firstSound(assignment, saidBefore(), [doubtful])).toBeNull()
  })

  it('writes what a person chose all the same, and says what is doubtful of it', () => {
    const words = 'and a child who runs with a kite is adding speed where there is none.'
    const start = KITES.text.indexOf(words)
    const passage = { start, end: start + words.length, text: words, kind: 'statement' as const, score: 0.1 }
    const drip = (reasons: string[]) =>
      writeDrip({
        piece: KITES,
        passages: [{ ...passage, reasons }],
        accounts: [{ id: 'm', network: 'murmur' }],
        days: [0],
        house: PLAIN_HOUSE,
        link: null,
        seed: 1,
      })[0]
    expect(drip(['chosen by hand'])?.wording?.text).toContain(words)
    expect(drip(['chosen by hand'])?.checks).toContainEqual(
      expect.objectContaining({ code: 'points-nowhere', severity: 'flag' }),
    )
    expect(drip([])?.wording).toBeNull()
  })

  it('keeps others that are unlike it and each other', () => {
    const [best, other] = ['A kite flies on two winds.', 'A kite flies on two winds and a friend.'].map(
      (text) => aWording({ text }),
    )
    const far = aWording({ text: 'Silk lifts in a wind that hardly moves a leaf.' })
    const near = aWording({ text: 'Silk lifts in a wind that hardly moves a leaf. #Silk' })
    expect(unlike(best!, [other!, far, near], 6).map((w) => w.text)).toEqual([other!.text, far.text])
    expect(unlike(best!, [other!, far, near], 1)).toHaveLength(1)
  })
})
