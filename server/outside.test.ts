import { createServer, type RequestListener } from 'node:http'
import type { AddressInfo } from 'node:net'
import { afterEach, describe, expect, it } from 'vitest'
import { callOutside, waitOf } from './outside'

const open: { close: () => void }[] = []
afterEach(() => open.splice(0).forEach((s) => s.close()))

/** A service that answers as told; gives its address. */
async function service(answer: RequestListener): Promise<string> {
  const server = createServer(answer)
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready))
  open.push({ close: () => (server.closeAllConnections(), server.close()) })
  return `http://127.0.0.1:${(server.address() as AddressInfo).port}`
}

describe('a call to an outside service', () => {
  it('gives what it answers', async () => {
    const url = await service((_, response) => response.writeHead(201, { 'retry-after': '3' }).end('“ja”'))
    const { status, ok, text, headers } = await callOutside(url, {}, { milliseconds: 2000 })
    expect([status, ok, text, headers.get('retry-after')]).toEqual([201, true, '“ja”', '3'])
  })

  it('ends in its time where headers come and the body stalls, whatever garbage is collected meanwhile', async () => {
    const url = await service((_, response) => {
      response.writeHead(200).write('{')
    })
    const started = performance.now()
    const calls = Array.from({ length: 20 }, () => callOutside(url, {}, { milliseconds: 400 }))
    const pressure = setInterval(() => Array.from({ length: 50 }, () => new Uint8Array(1e6)), 20)
    const results = await Promise.allSettled(calls)
    clearInterval(pressure)
    expect(results.map((r) => r.status === 'rejected' && r.reason.trouble)).toEqual(
      Array(20).fill('too slow'),
    )
    expect(performance.now() - started).toBeLessThan(4000)
  })

  it.each([true, false])('stops at its bound, whether the length is told (%s) or not', async (told) => {
    let sent = 0
    const url = await service((_, response) => {
      response.writeHead(200, told ? { 'content-length': 5_000_000 } : {})
      const more = (): void => {
        if (response.destroyed || sent >= 5_000_000) return
        sent += 50_000
        response.write(Buffer.alloc(50_000, 'a'), () => setImmediate(more))
      }
      more()
    })
    await expect(callOutside(url, {}, { milliseconds: 5000, bytes: 200_000 })).rejects.toMatchObject({
      trouble: 'too large',
    })
    await new Promise((resolve) => setTimeout(resolve, 100))
    expect(sent).toBeLessThan(5_000_000)
  })

  it('follows no redirect, and says so where nobody answers', async () => {
    const url = await service((_, response) =>
      response.writeHead(302, { location: 'http://127.0.0.1:1/' }).end(),
    )
    for (const address of [url, 'http://127.0.0.1:1/'])
      await expect(callOutside(address, {}, { milliseconds: 2000 })).rejects.toMatchObject({
        trouble: 'broken off',
      })
  })
})

it.each([
  [null, null],
  ['120', 120],
  ['99999999999999999999', 2_592_000],
  ['Wed, 25 Nov 2026 10:00:30 GMT', 30],
  ['Wed, 25 Nov 9026 10:00:30 GMT', 2_592_000],
  ['-5', 0],
  ['soon', null],
])('Retry-After %j asks to wait %j seconds', (value, seconds) => {
  expect(waitOf(value, 'Wed, 25 Nov 2026 10:00:00 GMT')).toBe(seconds)
})
