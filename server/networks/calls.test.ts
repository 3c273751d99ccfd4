import { createServer, type Server } from 'node:http'
import { once } from 'node:events'
import type { AddressInfo } from 'node:net'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { caller } from './calls'

let server: Server
let got = ''
beforeAll(async () => {
  server = createServer((request, response) => {
    request.on('data', (bytes) => (got += String(bytes)))
    request.on('end', () => response.end('{}'))
  }).listen(0, '127.0.0.1')
  await once(server, 'listening')
})
afterAll(() => {
  server.close()
})

it('what proves something is sent, and never written down', async () => {
  const secrets = ['code', 'code_verifier', 'client_secret', 'access_token', 'refresh_token']
  const form = new URLSearchParams({
    grant_type: 'x',
    ...Object.fromEntries(secrets.map((s) => [s, `my ${s}`])),
  })
  const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}/`
  const { attempt } = await caller(() => 0)('POST', url, { token: 'bearer-1', body: { form } })
  for (const secret of secrets) expect(got).toContain(`my+${secret}`)
  expect(JSON.stringify(attempt)).not.toMatch(/my |bearer-1/)
  expect(attempt.request.body).toMatchObject({ grant_type: 'x', code: '(secret)' })
})
