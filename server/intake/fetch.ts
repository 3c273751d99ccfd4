import http from 'node:http'
import https from 'node:https'
import { createBrotliDecompress, createGunzip, createInflate } from 'node:zlib'
import type { Readable } from 'node:stream'
import { Fault } from '../../core/model'
import { waitOf } from '../outside'
import { destination, type Destination, type World } from './addresses'

export interface FetchOptions {
  world: World | null
  etag?: string | null
  lastModified?: string | null
  maxBytes?: number
  timeout?: number
  accept?: string
  /** Which bytes are asked for, as a Range header says it (RFC 9110, 14.2). */
  range?: string
  /** HEAD asks whether something is there, and brings nothing back. */
  method?: 'GET' | 'HEAD'
  /** Asked before every request, also after a redirect; throws to refuse it. */
  mayRead?: (address: string) => Promise<void>
}

/** What came back. `unchanged` means the site answered 304 to a conditional request. */
export interface Fetched {
  url: string
  status: number
  contentType: string
  etag: string | null
  lastModified: string | null
  /** The Link header as it came, or null. */
  link: string | null
  unchanged: boolean
  /** Where it ended, when every redirect on the way was for good (301, 308); else null. */
  movedTo: string | null
  /** Of a part, which bytes of how many these are, or null. */
  contentRange: string | null
  /** Seconds the site asks to wait before coming again, or null. */
  retryAfter: number | null
  bytes: Buffer
}

/** What we call ourselves. */
export const AGENT = 'Dripline'

export const MAX_BYTES = 10 * 1024 * 1024
const TIMEOUT = 15_000
const REDIRECTS = 5
const PAUSE = 150

/**
 * Fetches a document on behalf of a source: at most five redirects, each checked like the first
 * address, 10 MB after decompression, 15 s in all, one request at a time a host with a short
 * pause. Throws faults with sentences a person can act on.
 */
export async function safeFetch(address: string, options: FetchOptions): Promise<Fetched> {
  const until = Date.now() + (options.timeout ?? TIMEOUT)
  let current = address
  let forGood = true
  for (let hop = 0; hop <= REDIRECTS; hop++) {
    const target = await destination(current, options.world)
    await options.mayRead?.(current)
    const answer = await inTurn(target.url.host, () => request(target, options, until))
    if (answer.redirect === null)
      return { ...answer.fetched, movedTo: hop > 0 && forGood ? answer.fetched.url : null }
    forGood &&= answer.fetched.status === 301 || answer.fetched.status === 308
    current = answer.redirect
  }
  throw new Fault(
    'bad-answer',
    `The address redirects more than ${REDIRECTS} times. Give the address where it ends.`,
    address,
  )
}

const queues = new Map<string, Promise<unknown>>()
const pauses = new Map<string, number>()

/** Lengthens the pause between two requests to a host, in milliseconds, as its robots.txt asks. */
export function setPause(host: string, milliseconds: number): void {
  pauses.set(host, Math.max(PAUSE, milliseconds))
}

/** Runs requests to one host one after the other, with a pause between them. */
async function inTurn<T>(host: string, work: () => Promise<T>): Promise<T> {
  const before = queues.get(host) ?? Promise.resolve()
  const mine = before.catch(() => undefined).then(work)
  const tail = mine
    .catch(() => undefined)
    .then(() => new Promise((resolve) => setTimeout(resolve, pauses.get(host) ?? PAUSE)))
  queues.set(host, tail)
  void tail.then(() => {
    if (queues.get(host) === tail) queues.delete(host)
  })
  return mine
}

interface Hop {
  redirect: string | null
  fetched: Fetched
}

/** One request, which ends by `until` (milliseconds since 1970) whatever the site does. */
function request(target: Destination, options: FetchOptions, until: number): Promise<Hop> {
  const { url } = target
  return new Promise((resolve, reject) => {
    const left = until - Date.now()
    const tooSlow = new Fault('too-slow', `${url.host} did not answer in time. Try again later.`, url.href)
    if (left <= 0) {
      reject(tooSlow)
      return
    }
    let outgoing: http.ClientRequest | null = null
    const timer = setTimeout(() => fail(tooSlow), left)
    // Destroying a request whose answer is already in emits nothing, so the promise is settled here.
    const fail = (error: Error): void => {
      clearTimeout(timer)
      reject(error instanceof Fault ? error : unreachable(url, error))
      outgoing?.destroy()
    }
    const done = (hop: Hop): void => {
      clearTimeout(timer)
      resolve(hop)
      // The body of a redirect is not read to its end.
      if (hop.redirect !== null) outgoing?.destroy()
    }
    try {
      outgoing = (url.protocol === 'https:' ? https : http).request(asking(target, options), (response) =>
        receive(response, url, options.maxBytes ?? MAX_BYTES, done, fail),
      )
      outgoing.on('error', fail)
      outgoing.end()
    } catch (error) {
      fail(error instanceof Error ? error : new Error(String(error)))
    }
  })
}

/** What is asked of a site, and how. */
function asking({ url, address, family, port }: Destination, options: FetchOptions): https.RequestOptions {
  return {
    host: address,
    family,
    port,
    path: `${url.pathname}${url.search}`,
    servername: url.hostname,
    method: options.method ?? 'GET',
    agent: false,
    headers: {
      host: url.host,
      'user-agent': `${AGENT}/0.1 (feed reader)`,
      accept: options.accept ?? '*/*',
      // Bytes of a part can only be counted as they lie there.
      ...(options.range ? { range: options.range } : { 'accept-encoding': 'gzip, deflate, br' }),
      ...(sendable(options.etag) ? { 'if-none-match': options.etag } : {}),
      ...(sendable(options.lastModified) ? { 'if-modified-since': options.lastModified } : {}),
    },
  }
}

/** Reads an answer up to `maxBytes` after decompression, or says where it redirects. */
function receive(
  response: http.IncomingMessage,
  url: URL,
  maxBytes: number,
  done: (hop: Hop) => void,
  fail: (error: Error) => void,
): void {
  const status = response.statusCode ?? 0
  const header = (name: string): string | null => {
    const value = response.headers[name]
    return Array.isArray(value) ? (value[0] ?? null) : (value ?? null)
  }
  const fetched: Fetched = {
    url: url.href,
    status,
    contentType: header('content-type') ?? '',
    etag: header('etag'),
    lastModified: header('last-modified'),
    link: header('link'),
    unchanged: status === 304,
    movedTo: null,
    contentRange: header('content-range'),
    retryAfter: waitOf(header('retry-after'), header('date')),
    bytes: Buffer.alloc(0),
  }
  const location = header('location')
  if (status >= 300 && status < 400 && status !== 304 && location) {
    if (URL.canParse(location, url.href)) done({ redirect: new URL(location, url).href, fetched })
    else fail(new Fault('bad-answer', `${url.host} redirects to an address that is none.`, url.href))
    return
  }
  const tooLarge = new Fault(
    'too-large',
    `The document at ${url.host} is larger than ${Math.round(maxBytes / 1024 / 1024)} MB, which is more than a feed or page should be. Give a smaller one.`,
    url.href,
  )
  if (Number(header('content-length')) > maxBytes) {
    fail(tooLarge)
    return
  }
  const chunks: Buffer[] = []
  let size = 0
  const body = decompressed(response, header('content-encoding'))
  body.on('data', (chunk: Buffer) => {
    size += chunk.length
    if (size > maxBytes) {
      fail(tooLarge)
      body.destroy()
    } else chunks.push(chunk)
  })
  body.on('end', () => done({ redirect: null, fetched: { ...fetched, bytes: Buffer.concat(chunks) } }))
  body.on('error', fail)
  response.on('aborted', () => fail(new Error('aborted')))
}

/** What a header may hold: visible signs of one byte (RFC 9110, 5.5). A validator that is none is not sent back. */
const sendable = (value: string | null | undefined): value is string =>
  Boolean(value) && /^[\t\x20-\x7E\x80-\xFF]*$/.test(value as string)

function decompressed(response: http.IncomingMessage, named: string | null): Readable {
  // The names of codings are the same in capitals, and "x-gzip" is gzip (RFC 9110, 8.4.1).
  const encoding = (named ?? '').trim().toLowerCase().replace(/^x-/, '')
  const decoder =
    encoding === 'gzip'
      ? createGunzip()
      : encoding === 'br'
        ? createBrotliDecompress()
        : encoding === 'deflate'
          ? createInflate()
          : null
  if (!decoder) return response
  response.on('error', (error) => decoder.destroy(error))
  return response.pipe(decoder)
}

function unreachable(url: URL, error: Error): Fault {
  const code = (error as NodeJS.ErrnoException).code ?? ''
  const why =
    code === 'ECONNREFUSED'
      ? 'refuses connections'
      : /CERT|TLS|SSL/i.test(code)
        ? 'has a certificate that cannot be trusted'
        : 'broke the connection off'
  return new Fault('unreachable', `${url.host} ${why}. Check the address, or try again later.`, url.href)
}
