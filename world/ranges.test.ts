import Fastify from 'fastify'
import { expect, it } from 'vitest'
import { sendRanged } from './ranges'

const app = Fastify()
app.get('/', (request, reply) => sendRanged(request, reply, Buffer.from('0123456789'), 'video/webm'))
const ask = (range?: string) => app.inject({ url: '/', headers: range === undefined ? {} : { range } })

// The cases of RFC 9110, 14.1.2 and 15.3.7, for ten bytes.
it.each([
  ['bytes=0-4', 206, '01234', 'bytes 0-4/10'],
  ['bytes=5-', 206, '56789', 'bytes 5-9/10'],
  ['bytes=-3', 206, '789', 'bytes 7-9/10'],
  ['bytes=-99', 206, '0123456789', 'bytes 0-9/10'],
  ['bytes=8-99', 206, '89', 'bytes 8-9/10'],
  ['bytes=9-9', 206, '9', 'bytes 9-9/10'],
  ['bytes=10-', 416, '', 'bytes */10'],
  ['bytes=4-2', 416, '', 'bytes */10'],
])('%s: %i %s', async (range, status, body, place) => {
  const answer = await ask(range)
  expect([answer.statusCode, answer.body, answer.headers['content-range']]).toEqual([status, body, place])
})

it('sends all where no range, several or no bytes are asked for, and says that it could', async () => {
  for (const range of [undefined, 'bytes=0-1,4-5', 'lines=1-2', 'bytes=-']) {
    const answer = await ask(range)
    expect([answer.statusCode, answer.body, answer.headers['accept-ranges']]).toEqual([
      200,
      '0123456789',
      'bytes',
    ])
  }
})
