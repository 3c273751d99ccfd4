import { expect, it } from 'vitest'
import { aPost } from '../model/samples'
import type { Receipt } from '../model'
import { isAbout, ledgerLines, ledgerSheet, type LedgerLine } from '.'

const receipt: Receipt = {
  id: 'post:1:failed',
  post: 'post',
  generation: 1,
  revision: 1,
  account: 'account',
  outcome: 'failed',
  reason: 'Murmur: the text has 310 characters.',
  dueAt: '2026-11-25T09:00:00.000Z',
  finishedAt: '2026-11-25T09:00:02.000Z',
  publicUrl: null,
  visibility: null,
  attempts: [
    {
      at: '2026-11-25T09:00:01.000Z',
      request: { method: 'POST', url: 'http://n.example/posts', body: { text: 'Oak' } },
      answer: { status: 422, body: { error: 'invalid' } },
      error: null,
      milliseconds: 12,
    },
  ],
}
const post = aPost()
const line: LedgerLine = {
  post: {
    ...post,
    state: 'failed',
    failure: receipt.reason,
    at: '2026-11-25T09:00:00.000Z',
    wording: { ...post.wording, text: '=cmd|"; a, b"\nGreen oak' },
  },
  network: 'Murmur',
  handle: 'the.yard',
  receipts: [receipt],
}

it('writes a sheet that holds the words and runs nothing', () => {
  const [head, ...rest] = ledgerSheet([line]).split('\r\n')
  expect(head).toBe('post,network,account,state,due,finished,outcome,reason,requests,address,text')
  // By hand, after RFC 4180: quoted for its comma, line break and quotation marks, which are doubled.
  expect(rest.join('\r\n')).toBe(
    `${post.id},Murmur,the.yard,failed,2026-11-25T09:00:00.000Z,2026-11-25T09:00:02.000Z,failed,Murmur: the text has 310 characters.,1,,"'=cmd|""; a, b""\nGreen oak"\r\n`,
  )
})

it('writes JSON lines with every request and answer', () => {
  const lines = ledgerLines([line, line]).split('\n')
  expect(lines).toHaveLength(3)
  expect(JSON.parse(lines[1] ?? '')).toMatchObject({
    account: 'the.yard',
    receipts: [{ attempts: [{ answer: { status: 422 } }] }],
  })
})

it('finds a delivery by all words that it speaks of, wherever they stand', () => {
  for (const words of ['', 'green OAK', 'the.yard 310', '422', 'n.example invalid', 'failed murmur'])
    expect([words, isAbout(line, words)]).toEqual([words, true])
  for (const words of ['larch', 'green larch', '423'])
    expect([words, isAbout(line, words)]).toEqual([words, false])
})
