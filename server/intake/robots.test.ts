import { createServer, type Server } from 'node:http'
import { once } from 'node:events'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { freePort } from '../../e2e/ports'
import { safeFetch } from './fetch'
import { mindRobots } from './robots'

/** What the sites say in their robots.txt, by host; a number is a status. */
const SITES: Record<string, string | number> = {
  open: 404,
  shut: 'User-agent: *\nDisallow: /',
  some: 'User-agent: *\nDisallow: /private/\nAllow: /private/but-this',
  us: 'User-agent: dripline\nDisallow: /\n\nUser-agent: *\nAllow: /',
  ill: 503,
  page: '<!doctype html><p>User-agent: * Disallow: /</p>',
  slow: 'User-agent: *\nCrawl-delay: 1\nAllow: /',
}
const asked: string[] = []
let server: Server
let port: number

beforeAll(async () => {
  port = await freePort()
  server = createServer((request, response) => {
    const name = (request.headers.host ?? '').split('.')[0] ?? ''
    asked.push(`${name} ${request.url}`)
    const rules = SITES[name]
    if (request.url !== '/robots.txt') response.end('A page.')
    else if (typeof rules === 'string') response.end(rules)
    else response.writeHead(rules ?? 404).end()
  }).listen(port, '127.0.0.1')
  await once(server, 'listening')
})
afterAll(() => {
  server.closeAllConnections()
  server.close()
})

const world = () => ({ host: 'localhost', port })
const url = (site: string, path = '/seam'): string => `http://${site}.localhost:${port}${path}`
const may = (site: string, path?: string) =>
  mindRobots(url(site, path), world()).then(
    () => true,
    (error: { code: string; message: string }) => `${error.code}: ${error.message}`,
  )

it('a page is read where its site’s robots.txt lets programs, or where there is none', async () => {
  expect(await may('open')).toBe(true)
  expect(await may('some')).toBe(true)
  expect(await may('some', '/private/but-this')).toBe(true)
  expect(await may('page')).toBe(true)
})

it('and not where it forbids all programs, this one, or a part of the site', async () => {
  for (const [site, path] of [['shut'], ['us'], ['some', '/private/log']] as const)
    expect(await may(site, path)).toMatch(/^robots: .*asks programs not to read this page.*paste its text/)
})

it('is left alone for now where the rules cannot be had, and asked again next time', async () => {
  expect(await may('ill')).toMatch(/^robots: .*robots\.txt does not answer\. Try again later/)
  SITES['ill'] = 'User-agent: *\nAllow: /'
  expect(await may('ill')).toBe(true)
})

it('the rules are read once for many pages', async () => {
  asked.length = 0
  await may('open', '/a')
  await may('open', '/b')
  expect(asked).toEqual([])
})

it('a crawl delay is the pause between two requests', async () => {
  await may('slow')
  const options = { world: world() }
  await safeFetch(url('slow', '/a'), options)
  const at = Date.now()
  await safeFetch(url('slow', '/b'), options)
  expect(Date.now() - at).toBeGreaterThanOrEqual(900)
})
