import { expect, it } from 'vitest'
import type { EarlierCaption } from './request'
import { isFresh, saidBefore } from './said'

const WORDS = 'An old lathe wants a drop of oil every month. Put a cover over it when you leave the shed.'
/** Eight words of seventeen, which is less than half of all runs of three words. */
const BEGINNING = 'An old lathe wants a drop of oil every month, and so does the vice that stands beside it.'
const said = (change: Partial<EarlierCaption> = {}) =>
  saidBefore([{ account: 'a', network: 'murmur', text: WORDS, samePiece: true, ...change }])
const may = (text: string, change: Partial<EarlierCaption> = {}): boolean =>
  isFresh(said(change), { text, title: null, spans: [] }, 'murmur')

it('lets nothing open like what the piece said lately, nor be like it', () => {
  expect([may(WORDS), may(BEGINNING)]).toEqual([false, false])
  expect(may(BEGINNING, { network: 'guildhall' })).toBe(false)
  expect(may('Clean the ways of a lathe with a rag, and never with the air line.')).toBe(true)
})

it('knows by account how the piece was opened long ago, and not what is lately or of another piece', () => {
  const openedBy = (change: Partial<EarlierCaption>) => [...said(change).openedLongAgo]
  expect(openedBy({ longAgo: true })).toEqual([['a', new Set(['an old lathe wants'])]])
  expect(openedBy({})).toEqual([])
  expect(openedBy({ longAgo: true, samePiece: false })).toEqual([])
})

it('lets a caption open like one of long ago, but not be the same', () => {
  expect(may(BEGINNING, { longAgo: true })).toBe(true)
  expect(may(WORDS, { longAgo: true })).toBe(false)
  expect(may(`${WORDS} Lathes last.`, { longAgo: true })).toBe(false)
})
