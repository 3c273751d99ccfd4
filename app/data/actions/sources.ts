import { nanoid } from 'nanoid'
import type { Feed, ListedFeed } from '../../../core/feeds'
import { Fault, freshSource, type Backlog, type FetchAnswer, type Source } from '../../../core/model'
import { heavy } from '../../workers'
import { post } from '../api'
import { nowIso } from '../clock'
import { all, commit, must, patch, put, remove } from '../store'

const MINUTE = 60_000

/** A feed found at an address, to be added as a source. */
export interface FoundFeed {
  url: string
  title: string
  items: number
  newest: string | null
}

/** Fetches on behalf of a source; what the site refuses is thrown with its sentence. */
export async function fetchText(url: string, as: 'feed' | 'page' | 'file'): Promise<FetchAnswer> {
  const answer = await post<FetchAnswer>('/api/intake/fetch', { url, as })
  if (answer.trouble) throw new Fault('bad-answer', answer.trouble.message, url)
  return answer
}

/** What is at an address: its feeds, and the page that may be taken in alone (null where it is a feed itself). */
export interface Looked {
  feeds: FoundFeed[]
  page: string | null
}

/** Looks at an address as `findFeeds` does, and is content with a page that has no feed. */
export async function lookAt(
  address: string,
  show: (done: number, all: number) => void = () => undefined,
): Promise<Looked> {
  const url = addressOf(address)
  const fetched = await fetchText(url, 'feed')
  const read = await readAddress(fetched)
  if (read.feed) return { feeds: [describe(read.feed, fetched.url)], page: null }
  return { feeds: await feedsOf(read, show), page: fetched.url }
}

/**
 * The feeds at an address: the feed itself, those that the page names, else those that lie in
 * common places. Each was read, so that it can be offered with what is in it.
 */
export async function findFeeds(
  address: string,
  show: (done: number, all: number) => void = () => undefined,
): Promise<FoundFeed[]> {
  const { feeds } = await lookAt(address, show)
  if (feeds.length === 0)
    throw new Fault(
      'not-a-feed',
      'No feed was found on this page nor in the usual places. Give the feed’s own address.',
    )
  return feeds
}

export const addressOf = (typed: string): string =>
  /^https?:\/\//i.test(typed.trim()) ? typed.trim() : `https://${typed.trim()}`

/** The feeds that a page names, else the first that lies in a common place; the newest first. */
async function feedsOf(
  { named, common }: { named: readonly { url: string }[]; common: readonly string[] },
  show: (done: number, all: number) => void,
): Promise<FoundFeed[]> {
  const tryAll = async (urls: readonly string[], enough: number): Promise<FoundFeed[]> => {
    const found = new Map<string, FoundFeed>()
    for (const [index, candidate] of urls.entries()) {
      if (found.size >= enough) break
      show(index, urls.length)
      try {
        const answer = await fetchText(candidate, 'feed')
        const inner = await readAddress(answer)
        if (inner.feed) found.set(answer.url, describe(inner.feed, answer.url))
      } catch {
        // No feed there; the next place may have one.
      }
    }
    return [...found.values()]
  }
  const urls = named.map((n) => n.url)
  const found = await tryAll(urls, Infinity)
  const offered = found.length ? found : await tryAll(common, 1)
  return offered.sort((a, b) => (b.newest ?? '').localeCompare(a.newest ?? '') || b.items - a.items)
}

export function readAddress(
  fetched: FetchAnswer,
): Promise<{ feed: Feed | null; named: { url: string; title: string }[]; common: string[] }> {
  return heavy().readAddress(fetched.text, fetched.url)
}

function describe(feed: Feed, url: string): FoundFeed {
  const dates = feed.items.flatMap((i) => i.publishedAt ?? []).sort()
  return { url, title: feed.title, items: feed.items.length, newest: dates[dates.length - 1] ?? null }
}

/** What every new source begins with; whoever adds it makes the first visit. */
export function newSource(brand: string, change: Pick<Source, 'kind' | 'title'> & Partial<Source>): Source {
  return freshSource({ id: nanoid(), brand, createdAt: nowIso(), ...change })
}

export function later(from: string, minutes: number): string {
  return new Date(Date.parse(from) + minutes * MINUTE).toISOString()
}

/** Adds a feed as a source and gives its id; it is visited right after. */
export async function addSource(
  brand: string,
  found: Pick<FoundFeed, 'url' | 'title'>,
  backlog: Backlog = { kind: 'everything' },
): Promise<string> {
  const same = (await all('sources', 'brand', brand)).find((s) => s.url === found.url)
  if (same) throw new Fault('bad-request', `${same.title} is among your sources already.`)
  const source = newSource(brand, { kind: 'feed', title: found.title, url: found.url, backlog })
  await commit({ brand, label: `Add the source ${found.title}` }, [put('sources', source)])
  return source.id
}

/** Adds the feeds of a list that are not among the sources yet, in their groups. Gives their ids. */
export async function addListedFeeds(
  brand: string,
  feeds: readonly ListedFeed[],
  backlog: Backlog,
): Promise<string[]> {
  const known = new Set((await all('sources', 'brand', brand)).map((s) => s.url))
  const now = nowIso()
  const sources = feeds
    .filter((f) => !known.has(f.url))
    .map((f) =>
      newSource(brand, {
        kind: 'feed',
        title: f.title,
        url: f.url,
        group: f.group,
        backlog,
        nextVisitAt: now,
      }),
    )
  await commit(
    { brand, label: `Add ${sources.length} feeds of a list` },
    sources.map((s) => put('sources', s)),
  )
  return sources.map((s) => s.id)
}

/** Changes how a source is visited. */
export async function editSource(id: string, label: string, edit: (source: Source) => Source): Promise<void> {
  const source = await must('sources', id)
  await commit({ brand: source.brand, label }, [patch('sources', id, edit)])
}

/** How often a source is visited, in minutes; null is by hand. */
export async function visitEvery(id: string, minutes: number | null): Promise<void> {
  const now = nowIso()
  await editSource(id, 'Change how often a source is visited', (s) => ({
    ...s,
    visitEveryMinutes: minutes,
    nextVisitAt: minutes === null ? null : later(s.lastVisit?.at ?? now, minutes),
  }))
}

/** Gives a source another address and visits it anew from there. */
export async function changeAddress(id: string, address: string): Promise<void> {
  const [found] = await findFeeds(address)
  if (!found) return
  const now = nowIso()
  await editSource(id, 'Change the address of a source', (s) => ({
    ...s,
    url: found.url,
    movedFrom: null,
    etag: null,
    lastModified: null,
    failures: 0,
    held: null,
    nextVisitAt: s.visitEveryMinutes === null ? null : now,
  }))
}

/** Removes a source and the rows of its sheet; its pieces stay. */
export async function removeSource(id: string): Promise<void> {
  const source = await must('sources', id)
  const rows = await all('sheetRows', 'source', id)
  await commit({ brand: source.brand, label: `Remove the source ${source.title}` }, [
    remove('sources', id),
    ...rows.map((r) => remove('sheetRows', r.id)),
  ])
}
