import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import {
  asFault,
  Account,
  Fault,
  FaultBody,
  FAULTS,
  HouseStyle,
  Instant,
  isZone,
  openFlagsOf,
  QuietDay,
  Rhythm,
  Slot,
  standsInTheWay,
  TABLE_NAMES,
  TABLES,
} from '.'
import { aBrand, aDrip, aPassage, aPiece, aPipeline, aPost, aSource, aWorkspace, anAccount } from './samples'

describe('faults', () => {
  it('travel over HTTP and back with code, sentence and place', () => {
    const fault = new Fault('bad-file', 'The file is empty.', 'a.md')
    const body = FaultBody.parse(JSON.parse(JSON.stringify(fault)))
    expect(body).toEqual({ code: 'bad-file', message: 'The file is empty.', where: 'a.md' })
    expect(fault.status).toBe(422)
  })

  it('are a closed list, each with an HTTP status', () => {
    for (const status of Object.values(FAULTS)) expect(status).toBeGreaterThanOrEqual(400)
    expect(FaultBody.safeParse({ code: 'made-up', message: '', where: null }).success).toBe(false)
  })

  it('are made of anything thrown, and kept where they are one already', () => {
    const fault = new Fault('not-found', 'It is gone.')
    expect(asFault(fault)).toBe(fault)
    expect(asFault(new Error('Boom.'))).toMatchObject({ code: 'internal', message: 'Boom.' })
    expect(asFault('words')).toMatchObject({ message: 'words' })
    const shape = z.object({ a: z.object({ b: z.number() }) }).safeParse({ a: { b: 'x' } })
    expect(asFault(shape.error)).toMatchObject({ code: 'bad-request', where: 'a.b' })
  })
})

describe('records', () => {
  it('of every kind are taken whole by their schemas', () => {
    const samples = {
      workspace: aWorkspace(),
      brands: aBrand(),
      accounts: anAccount(),
      sources: aSource(),
      pieces: aPiece(),
      passages: aPassage(),
      pipelines: aPipeline(),
      drips: aDrip(),
      posts: aPost(),
    }
    for (const [table, row] of Object.entries(samples))
      expect(TABLES[table as keyof typeof samples].parse(row)).toEqual(row)
    expect(TABLE_NAMES).toEqual(expect.arrayContaining(Object.keys(samples)))
  })

  it('keep moments in UTC with milliseconds, so that text order is time order', () => {
    expect(Instant.safeParse('2026-11-24T10:00:00.000Z').success).toBe(true)
    for (const wrong of ['2026-11-24T10:00:00Z', '2026-11-24T10:00:00.000+01:00', '2026-11-24', 'now'])
      expect(Instant.safeParse(wrong).success).toBe(false)
  })

  it('know time zones by their names, and say so of one that is none', () => {
    expect([isZone('Europe/Lisbon'), isZone('UTC'), isZone('Europe/Atlantis')]).toEqual([true, true, false])
    const wrong = Account.safeParse({ ...anAccount(), zone: 'Here' })
    expect(wrong.error?.issues[0]?.message).toMatch(/Here is not a time zone.*Europe\/Lisbon/)
  })

  it('take a slot at a time or in a window that does not end before it begins', () => {
    expect(Slot.safeParse({ weekday: 1, at: '09:00' }).success).toBe(true)
    expect(Slot.safeParse({ weekday: 1, from: '09:00', to: '09:00' }).success).toBe(true)
    for (const wrong of [
      { weekday: 0, at: '09:00' },
      { weekday: 8, at: '09:00' },
      { weekday: 1, at: '9:00' },
      { weekday: 1, at: '24:00' },
      { weekday: 1, from: '10:00', to: '09:00' },
      { weekday: 1, at: '09:00', from: '08:00', to: '10:00' },
    ])
      expect([wrong, Slot.safeParse(wrong).success]).toEqual([wrong, false])
  })

  it('take quiet days by weekday, once, yearly and as a range', () => {
    for (const right of [
      { weekday: 7 },
      { date: '2026-12-24' },
      { yearly: '02-29' },
      { from: '2026-12-24', to: '2026-12-24' },
    ])
      expect(QuietDay.safeParse(right).success).toBe(true)
    for (const wrong of [
      {},
      { yearly: '13-01' },
      { date: '2026-02-30' },
      { from: '2026-12-25', to: '2026-12-24' },
    ])
      expect([wrong, QuietDay.safeParse(wrong).success]).toEqual([wrong, false])
  })

  it('take rhythms by their shape or day by day, within bounds', () => {
    expect(Rhythm.safeParse({ name: 'a', days: 280, beats: 8, thinning: 1.6 }).success).toBe(true)
    expect(Rhythm.safeParse({ name: 'a', list: [0, 3] }).success).toBe(true)
    for (const wrong of [
      { name: 'a', days: 280, beats: 0, thinning: 1 },
      { name: 'a', days: 280, beats: 8, thinning: 0.9 },
      { name: 'a', list: [] },
      { name: 'a', list: [-1] },
    ])
      expect([wrong, Rhythm.safeParse(wrong).success]).toEqual([wrong, false])
  })

  it('want hashtags as one word without the sign', () => {
    expect(HouseStyle.parse({})).toEqual({
      hashtags: [],
      neverSay: [],
      closingLines: [],
      swaps: [],
      credit: false,
      linkTags: [],
      shortLinks: false,
      writer: 'built-in',
      spelling: 'as written',
      voice: { formality: 0, vividness: 0, warmth: 0, speaker: 'nobody' },
    })
    expect(HouseStyle.safeParse({ hashtags: ['SlowBread', 'Pão'] }).success).toBe(true)
    expect(HouseStyle.safeParse({ hashtags: ['#Slow'] }).error?.issues[0]?.message).toBe(
      'a hashtag is one word',
    )
  })
})

describe('what stands in a post’s way', () => {
  const flag = (words: string) => ({ code: 'not-grounded', severity: 'flag' as const, message: words, words })
  const block = { code: 'over-limit', severity: 'block' as const, message: 'Too long.' }
  const note = { code: 'shouting', severity: 'note' as const, message: 'It shouts.' }
  const at = '2026-11-24T10:00:00.000Z'

  it('is a block before a flag, and never a note', () => {
    expect(standsInTheWay(aPost({ checks: [note, flag('a'), block] }))).toEqual(block)
    expect(standsInTheWay(aPost({ checks: [note] }))).toBeNull()
  })

  it('is gone for a flag that was accepted, and for that very flag alone', () => {
    const post = aPost({
      checks: [flag('eleven'), flag('twelve')],
      accepted: [{ code: 'not-grounded', words: 'eleven', at }],
    })
    expect(openFlagsOf(post).map((c) => c.words)).toEqual(['twelve'])
  })

  it('cannot be accepted away where it is a block', () => {
    const post = aPost({ checks: [block], accepted: [{ code: 'over-limit', words: '', at }] })
    expect(standsInTheWay(post)).toEqual(block)
  })
})
