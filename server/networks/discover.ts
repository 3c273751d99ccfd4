import { parseHTML } from 'linkedom'
import { Fault } from '../../core/model'
import { decodeText } from '../../core/feeds'
import type { World } from '../intake/addresses'
import { safeFetch } from '../intake/fetch'

/** Where a site says that it takes posts, and where it lets a person allow that. */
export interface Endpoints {
  /** The site's address after its redirects. */
  me: string
  micropub: string
  authorization: string
  token: string
}

/**
 * Finds a site's endpoints (Micropub, W3C Recommendation 2017, 5.3; IndieAuth): in the Link header of its page, else in
 * link and a elements of it, each relative to the page. Throws `bad-request` with what the site lacks.
 */
export async function discover(site: string, world: World | null): Promise<Endpoints> {
  const page = await safeFetch(site, { world, accept: 'text/html' })
  if (page.status < 200 || page.status >= 300)
    throw new Fault('unreachable', `${site} answers ${page.status}, so nothing could be found there.`, 'site')
  const named = new Map<string, string>()
  const note = (rel: string, target: string): void => {
    for (const name of rel.toLowerCase().split(/\s+/))
      if (!named.has(name) && URL.canParse(target, page.url)) named.set(name, new URL(target, page.url).href)
  }
  for (const { target, rel } of linkHeader(page.link ?? '')) note(rel, target)
  const { document } = parseHTML(decodeText(page.bytes, page.contentType))
  for (const element of document.querySelectorAll('link[rel][href], a[rel][href]'))
    note(element.getAttribute('rel') ?? '', element.getAttribute('href') ?? '')
  const metadata = named.get('indieauth-metadata')
  if (metadata) await noteMetadata(metadata, world, named)
  const need = (rel: string, what: string): string => {
    const found = named.get(rel)
    if (!found)
      throw new Fault(
        'bad-request',
        `${page.url} does not say ${what} (rel="${rel}"). Switch Micropub on there, or add the link to the page’s head.`,
        'site',
      )
    return found
  }
  return {
    me: page.url,
    micropub: need('micropub', 'where it takes posts'),
    authorization: need('authorization_endpoint', 'where you allow that'),
    token: need('token_endpoint', 'where a permission is exchanged for a token'),
  }
}

/** The endpoints that a site's IndieAuth metadata names. */
async function noteMetadata(address: string, world: World | null, named: Map<string, string>): Promise<void> {
  const answer = await safeFetch(address, { world, accept: 'application/json' })
  try {
    const said = JSON.parse(decodeText(answer.bytes, answer.contentType)) as Record<string, unknown>
    for (const name of ['authorization_endpoint', 'token_endpoint'])
      if (typeof said[name] === 'string' && URL.canParse(said[name])) named.set(name, said[name])
  } catch {
    // The page's own links stand.
  }
}

/** The links of a Link header (RFC 8288): each target with its relations. */
export function linkHeader(value: string): { target: string; rel: string }[] {
  return [...value.matchAll(/<([^>]*)>((?:\s*;\s*[\w*-]+\s*(?:=\s*(?:"[^"]*"|[^",;\s]+))?)*)/g)].flatMap(
    ([, target = '', parameters = '']) => {
      const rel = /;\s*rel\s*=\s*(?:"([^"]*)"|([^",;\s]+))/i.exec(parameters)
      return rel ? [{ target, rel: rel[1] ?? rel[2] ?? '' }] : []
    },
  )
}
