import { describe, expect, it } from 'vitest'
import { aPost } from '../samples'
import type { Receipt } from '../receipt'
import { afterReceipt, isToCome, may, next, PostState, refusal, waitsForReview, type PostEvent } from '..'

/**
 * The life of a post as it was written down before it was built: a row an event, a column a state, in the order
 * of `PostState`. A dot is an event that may not happen; a letter is the state that comes of it.
 */
const LETTERS = {
  d: 'draft',
  r: 'for review',
  a: 'approved',
  h: 'handed over',
  p: 'published',
  f: 'failed',
  s: 'set aside',
}
const PAPER: Record<PostEvent, string> = {
  //              draft, for review, approved, handed over, published, failed, set aside
  approve: 'aa.....',
  edit: 'draa.f.',
  reword: 'drrr...',
  doubt: 'drrr...',
  accept: 'drah.f.',
  move: 'draa...',
  'send now': 'draa...',
  hold: 'drah...',
  'hand over': '..h....',
  recall: '...a...',
  'set aside': 'ssss.s.',
  'bring back': '......r',
  'try again': '.....a.',
  'take down': '....p..',
  remove: 'draa...',
  // Of an approved one only while it is held: see below.
  'say it is out': '.....p.',
  publish: 'ppppppp',
  fail: 'ffff...',
  'come late': 'draa...',
  vanish: 'sssssss',
}

const receipt = (outcome: Receipt['outcome'], generation = 1): Receipt => ({
  id: 'x',
  post: 'post',
  generation,
  revision: 1,
  account: 'account',
  outcome,
  reason: 'So it was.',
  dueAt: '2026-11-25T09:00:00.000Z',
  finishedAt: '2026-11-25T09:00:02.000Z',
  publicUrl: null,
  visibility: outcome === 'published' ? 'visible' : null,
  attempts: [],
})

describe('the life of a post', () => {
  for (const [event, row] of Object.entries(PAPER) as [PostEvent, string][])
    it(`takes “${event}” as it was written down`, () => {
      for (const [i, state] of PostState.options.entries()) {
        const letter = row[i] ?? '.'
        const post = aPost({ state })
        expect([state, may(post, event)]).toEqual([state, letter !== '.'])
        expect([state, next(post, event).state]).toEqual([
          state,
          letter === '.' ? state : LETTERS[letter as keyof typeof LETTERS],
        ])
        expect(refusal(post, event) === null).toBe(letter !== '.')
      }
    })

  it('calls to come what may still move, and waiting what may be approved', () => {
    for (const state of PostState.options) {
      expect([state, isToCome({ state })]).toEqual([
        state,
        !['published', 'failed', 'set aside'].includes(state),
      ])
      expect([state, waitsForReview({ state })]).toEqual([state, state === 'draft' || state === 'for review'])
    }
  })

  it('approves nothing past a block or an open flag, and hands nothing over that is held or has no place', () => {
    const check = { code: 'dated', message: 'It speaks of today.', words: 'today' }
    const flagged = aPost({ state: 'for review', checks: [{ ...check, severity: 'flag' }] })
    expect(refusal(flagged, 'approve')).toBe('It speaks of today.')
    const accepted = [{ code: 'dated', words: 'today', at: '2026-11-25T09:00:00.000Z' }]
    expect(may({ ...flagged, accepted }, 'approve')).toBe(true)
    const blocked = aPost({ state: 'for review', checks: [{ ...check, severity: 'block' }], accepted })
    expect(next(blocked, 'approve')).toBe(blocked)
    expect(may(aPost({ at: null }), 'hand over')).toBe(false)
    const held = { reason: 'The yard is flooded.', since: '2026-11-25T09:00:00.000Z' }
    expect(refusal(aPost({ held }), 'hand over')).toBe('The yard is flooded.')
  })

  it('is out by a person’s word where it waits for them, and nowhere else', () => {
    const held = { reason: 'Its time has come.', since: '2026-11-25T09:00:00.000Z' }
    expect(next(aPost({ state: 'approved', held }), 'say it is out').state).toBe('published')
    expect(refusal(aPost({ state: 'approved' }), 'say it is out')).toMatch(/by itself/)
    expect(may(aPost({ state: 'for review', held }), 'say it is out')).toBe(false)
    const hand = afterReceipt(aPost({ state: 'handed over' }), receipt('by hand'))
    expect(hand).toMatchObject({ state: 'approved', held: { reason: 'So it was.' } })
    expect(afterReceipt(aPost({ state: 'handed over' }), receipt('unsure'))).toMatchObject({
      state: 'failed',
      failure: 'So it was.',
    })
  })

  it('asks the network anew, under another generation, for what it refused', () => {
    const failed = afterReceipt(aPost({ state: 'handed over' }), receipt('failed'))
    expect(failed).toMatchObject({ state: 'failed', failure: 'So it was.', generation: 1 })
    const again = { state: 'approved', generation: 2, failure: null, at: null, pinned: false }
    expect(next(failed, 'try again')).toMatchObject(again)
    expect(next(next(failed, 'set aside'), 'bring back')).toMatchObject({ ...again, state: 'for review' })
    expect(next(next(aPost(), 'set aside'), 'bring back').generation).toBe(1)
    const reasons = [{ code: 'wished', message: 'It stands on its wished day.' }]
    expect(next(aPost({ reasons }), 'set aside')).toMatchObject({ at: null, pinned: false, reasons: [] })
  })

  it('brings a post that was taken down back as one that never went out', () => {
    const out = afterReceipt(aPost({ state: 'handed over' }), receipt('published'))
    expect(out).toMatchObject({ state: 'published', publishedAt: '2026-11-25T09:00:02.000Z' })
    const gone = afterReceipt(out, receipt('gone'))
    expect(gone).toMatchObject({ state: 'set aside', visibility: 'gone', generation: 2, at: null })
    expect(may({ ...out, visibility: 'gone' }, 'take down')).toBe(false)
    expect(next(gone, 'bring back')).toMatchObject({
      state: 'for review',
      publishedAt: null,
      visibility: null,
      generation: 2,
    })
    // Said once more, it changes nothing.
    expect(afterReceipt(gone, receipt('gone'))).toBe(gone)
  })

  it('hears nothing of an older generation, and learns of a newer one from its receipt', () => {
    const second = aPost({ state: 'handed over', generation: 2 })
    expect(afterReceipt(second, receipt('failed', 1))).toBe(second)
    expect(afterReceipt(aPost(), receipt('published', 3))).toMatchObject({
      state: 'published',
      generation: 3,
    })
    const late = afterReceipt(aPost({ state: 'handed over' }), receipt('late'))
    expect(late).toMatchObject({ state: 'approved', held: { reason: 'So it was.' } })
    expect(afterReceipt(aPost({ state: 'set aside' }), receipt('late'))).toMatchObject({ held: null })
    // A receipt that was lost on its way says nothing of a later moment for which the post was handed over since.
    const anew = aPost({ state: 'handed over', at: '2026-12-01T09:00:00.000Z' })
    expect(afterReceipt(anew, receipt('late'))).toEqual(anew)
    // Nor of the same moment, where it was taken back and handed over again since.
    const again = aPost({ state: 'handed over', revision: 2 })
    for (const outcome of ['late', 'by hand'] as const)
      expect(afterReceipt(again, receipt(outcome))).toBe(again)
    expect(afterReceipt(again, receipt('published'))).toMatchObject({ state: 'published' })
    expect(afterReceipt({ ...again, revision: 1 }, receipt('late'))).toMatchObject({ state: 'approved' })
  })
})
