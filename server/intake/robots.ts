import robotsParser from 'robots-parser'
import { Fault } from '../../core/model'
import type { World } from './addresses'
import { AGENT, safeFetch, setPause } from './fetch'

type Rules = ReturnType<typeof robotsParser>

/** How long a site's rules are kept before they are read again (RFC 9309 allows a day), in milliseconds. */
const KEPT = 60 * 60_000
const LONGEST_PAUSE = 10

const known = new Map<string, { at: number; rules: Promise<Rules | null> }>()

/**
 * Throws `robots` where a site's robots.txt (RFC 9309) does not let us read an address. A missing
 * file allows everything; one that cannot be read because the server is in trouble forbids for
 * now. Its crawl delay becomes the pause between two requests, at most ten seconds.
 */
export async function mindRobots(address: string, world: World | null): Promise<void> {
  const url = new URL(address)
  const standing = known.get(url.origin)
  const fresh = standing && Date.now() - standing.at < KEPT ? standing : null
  const rules = fresh?.rules ?? readRules(url, world)
  if (!fresh) known.set(url.origin, { at: Date.now(), rules })
  const read = await rules
  if (read === null) {
    known.delete(url.origin)
    throw new Fault(
      'robots',
      `${url.host} could not say what may be read there: its robots.txt does not answer. Try again later.`,
      address,
    )
  }
  const delay = read.getCrawlDelay(AGENT)
  if (delay) setPause(url.host, Math.min(LONGEST_PAUSE, delay) * 1000)
  if (read.isAllowed(address, AGENT) === false)
    throw new Fault(
      'robots',
      `${url.host} asks programs not to read this page (its robots.txt). Open it yourself and paste its text, or ask the site.`,
      address,
    )
}

async function readRules(url: URL, world: World | null): Promise<Rules | null> {
  const address = `${url.origin}/robots.txt`
  try {
    const answer = await safeFetch(address, {
      world,
      maxBytes: 512 * 1024,
      timeout: 8000,
      accept: 'text/plain',
    })
    if (answer.status >= 500) return null
    const text = answer.status >= 200 && answer.status < 300 ? answer.bytes.toString('utf8') : ''
    return robotsParser(address, /^\s*</.test(text) ? '' : text)
  } catch (error) {
    // What the fetch itself will refuse is said by the fetch.
    if (error instanceof Fault && error.code === 'private-address') return robotsParser(address, '')
    return null
  }
}
