import http from 'node:http'
import type { AddressInfo } from 'node:net'
import { afterEach, expect, it } from 'vitest'
import { filmPart } from './film'

const servers: http.Server[] = []
afterEach(() => servers.splice(0).forEach((s) => s.close()))

/** A site that answers every request so; gives the address of its film. */
async function site(answer: http.RequestListener): Promise<string> {
  const server = http.createServer(answer)
  servers.push(server)
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  return `http://localhost:${(server.address() as AddressInfo).port}/film.mp4`
}
const world = (url: string) => ({ host: 'localhost', port: Number(new URL(url).port) })

it('asks for the bytes that are wanted, four megabytes at most, and gives them with their place', async () => {
  const asked: unknown[] = []
  const url = await site((request, reply) => {
    asked.push(request.headers.range)
    reply.writeHead(206, { 'content-type': 'video/mp4', 'content-range': 'bytes 5-7/9000' }).end('abc')
  })
  const part = await filmPart(url, 5, null, world(url))
  expect(asked).toEqual([`bytes=5-${5 + 4 * 1024 * 1024 - 1}`])
  expect({ ...part, bytes: part.bytes.toString() }).toEqual({
    type: 'video/mp4',
    from: 5,
    to: 7,
    size: 9000,
    bytes: 'abc',
  })
  await filmPart(url, 5, 6, world(url))
  expect(asked[1]).toBe('bytes=5-6')
})

it('takes its part out of a film that a site gives only whole', async () => {
  const url = await site(
    (_, reply) => void reply.writeHead(200, { 'content-type': 'video/webm' }).end('0123456789'),
  )
  const part = await filmPart(url, 2, 4, world(url))
  expect([part.bytes.toString(), part.from, part.to, part.size]).toEqual(['234', 2, 4, 10])
})

it.each([
  ['a page', 200, { 'content-type': 'text/html' }, 'is no film'],
  ['nothing', 404, { 'content-type': 'video/mp4' }, 'no film at'],
  [
    '501 MB',
    206,
    { 'content-type': 'video/mp4', 'content-range': `bytes 0-0/${501 * 1024 * 1024}` },
    '501 MB; 500 MB is the most',
  ],
  [
    'a whole film that is too large',
    200,
    { 'content-type': 'video/mp4', 'content-length': String(9 * 1024 * 1024) },
    'only whole',
  ],
])('says what is wrong with %s', async (_, status, headers, words) => {
  const url = await site((__, reply) => void reply.writeHead(status, headers).end('x'))
  await expect(filmPart(url, 0, 0, world(url))).rejects.toThrow(words)
})
