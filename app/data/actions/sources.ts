import { nanoid } from 'nanoid'
import type { FeedItem, Feed } from '../../../core/feeds'
import { Fault, asFault, type Passage, type Piece, type Source } from '../../../core/model'
import { heavy, unwrap } from '../../workers'
import { post } from '../api'
import { nowIso } from '../clock'
import { all, commit, must, patch, put, type Write } from '../store'

interface FetchAnswer {
  url: string
  etag: string | null
  lastModified: string | null
  unchanged: boolean
  text: string
}

const MOST_A_VISIT = 40
const EVERY = 180
const MINUTE = 60_000

/** A feed found at an address, to be added as a source. */
export interface FoundFeed {
  url: string
  title: string
  items: number
  newest: string | null
}

/** The feeds at an address: the feed itself, or those that the page names. */
export async function findFeeds(address: string): Promise<FoundFeed[]> {
  const url = /^https?:\/\//i.test(address.trim()) ? address.trim() : `https://${address.trim()}`
  const fetched = await post<FetchAnswer>('/api/intake/fetch', { url })
  const read = await readAddress(fetched)
  if (read.feed) return [describe(read.feed, fetched.url)]
  const found: FoundFeed[] = []
  for (const named of read.named) {
    const answer = await post<FetchAnswer>('/api/intake/fetch', { url: named.url })
    const inner = await readAddress(answer)
    if (inner.feed) found.push(describe(inner.feed, answer.url))
  }
  if (found.length === 0)
    throw new Fault(
      'not-a-feed',
      'This page names a feed, but there is none at that address. Give the feed’s own address.',
    )
  return found
}

function readAddress(
  fetched: FetchAnswer,
): Promise<{ feed: Feed | null; named: { url: string; title: string }[] }> {
  return unwrap(heavy().readAddress(fetched.text, fetched.url) as never)
}

function describe(feed: Feed, url: string): FoundFeed {
  const dates = feed.items.flatMap((i) => i.publishedAt ?? []).sort()
  return { url, title: feed.title, items: feed.items.length, newest: dates[dates.length - 1] ?? null }
}

/** Adds a source and gives its id; it is visited right after. */
export async function addSource(brand: string, found: FoundFeed): Promise<string> {
  const same = (await all('sources', 'brand', brand)).find((s) => s.url === found.url)
  if (same) throw new Fault('bad-request', `${same.title} is among your sources already.`)
  const now = nowIso()
  const source: Source = {
    id: nanoid(),
    brand,
    kind: 'feed',
    title: found.title,
    url: found.url,
    siteUrl: null,
    visitEveryMinutes: EVERY,
    // The first visit is made by whoever adds it.
    nextVisitAt: new Date(Date.parse(now) + EVERY * MINUTE).toISOString(),
    lastVisit: null,
    failures: 0,
    etag: null,
    lastModified: null,
    held: null,
    createdAt: now,
  }
  await commit({ brand, label: `Add the source ${found.title}` }, [put('sources', source) as Write])
  return source.id
}

/** Changes how a source is visited. */
export async function editSource(id: string, label: string, edit: (source: Source) => Source): Promise<void> {
  const source = await must('sources', id)
  await commit({ brand: source.brand, label }, [patch('sources', id, edit) as Write])
}

/** Removes a source; its pieces stay. */
export async function removeSource(id: string): Promise<void> {
  const source = await must('sources', id)
  await commit({ brand: source.brand, label: `Remove the source ${source.title}` }, [
    { table: 'sources', id, change: (row) => (row ? null : undefined) } as Write,
  ])
}

/**
 * Visits a source: fetches its feed, takes in what is new with its passages, and writes down how
 * it went in plain words. A fault is kept as the source's health and makes later visits slower;
 * what was taken before stays.
 */
export async function visitSource(
  id: string,
  onProgress: (done: number, all: number) => void = () => undefined,
): Promise<number> {
  // One visit at a time, whoever asks: a person, or the runner in another tab.
  return navigator.locks.request(`dripline-visit-${id}`, () => visit(id, onProgress))
}

async function visit(id: string, onProgress: (done: number, all: number) => void): Promise<number> {
  const source = await must('sources', id)
  const known = new Set((await all('pieces', 'source', id)).map((p) => p.itemId))
  try {
    const fetched = await post<FetchAnswer>('/api/intake/fetch', {
      url: source.url,
      etag: source.etag,
      lastModified: source.lastModified,
    })
    if (fetched.unchanged) {
      await finishVisit(source, true, 'Nothing has changed since the last visit.', 0, fetched)
      return 0
    }
    const { feed } = await readAddress(fetched)
    if (!feed)
      throw new Fault('not-a-feed', 'There is a web page now where the feed was. Look for its new address.')
    const fresh = feed.items.filter((i) => !known.has(i.id)).slice(0, MOST_A_VISIT)
    const taken: { piece: Piece; passages: Passage[] }[] = []
    const trouble: string[] = [...feed.notes]
    for (const item of fresh) {
      try {
        taken.push(await takeItem(item, source))
      } catch (error) {
        trouble.push(`“${item.title}” was left out: ${asFault(error).message}`)
      }
      onProgress(taken.length, fresh.length)
    }
    await commit(
      'machine',
      taken.flatMap(({ piece, passages }) => [
        put('pieces', piece) as Write,
        ...passages.map((p) => put('passages', p) as Write),
      ]),
    )
    const count =
      taken.length === 0
        ? 'Nothing new.'
        : taken.length === 1
          ? 'One new piece.'
          : `${taken.length} new pieces.`
    await finishVisit(source, true, [count, ...trouble].join(' '), taken.length, fetched)
    return taken.length
  } catch (error) {
    await finishVisit(source, false, asFault(error).message, 0, null)
    return 0
  }
}

async function takeItem(item: FeedItem, source: Source): Promise<{ piece: Piece; passages: Passage[] }> {
  const page =
    (await heavy().wantsPage(item)) && item.url
      ? await post<FetchAnswer>('/api/intake/fetch', { url: item.url })
      : null
  return unwrap(
    heavy().takePiece(item, page ? { html: page.text, url: page.url } : null, {
      brand: source.brand,
      source: source.id,
      now: nowIso(),
    }) as never,
  )
}

async function finishVisit(
  source: Source,
  ok: boolean,
  message: string,
  newPieces: number,
  fetched: FetchAnswer | null,
): Promise<void> {
  const at = nowIso()
  await commit('machine', [
    patch('sources', source.id, (s) => {
      const failures = ok ? 0 : s.failures + 1
      const wait = s.visitEveryMinutes * Math.min(8, 2 ** Math.max(0, failures - 1))
      return {
        ...s,
        failures,
        lastVisit: { at, ok, message, newPieces },
        nextVisitAt: new Date(Date.parse(at) + wait * MINUTE).toISOString(),
        etag: ok && fetched ? fetched.etag : s.etag,
        lastModified: ok && fetched ? fetched.lastModified : s.lastModified,
      }
    }) as Write,
  ])
}
