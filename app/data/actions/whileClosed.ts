import type { FeedItem } from '../../../core/feeds'
import type { FetchAnswer, Snapshot, Source } from '../../../core/model'
import { call, get } from '../api'
import { readAddress } from './sources'

/* What the server kept of a feed while the app was closed. */

const pathOf = (source: Pick<Source, 'id'>): string => `/api/watch/${encodeURIComponent(source.id)}/snapshots`

/** What a feed said while the app was closed; nothing where the server does not tell. */
export async function whileClosed(source: Source): Promise<Snapshot[]> {
  if (source.lastVisit === null) return []
  const { snapshots } = await get<{ snapshots: Snapshot[] }>(pathOf(source)).catch(() => ({ snapshots: [] }))
  return snapshots
}

/** The items of snapshots that a feed shows no more, each as it was said last; the newest first. */
export async function onlyIn(
  snapshots: readonly Snapshot[],
  shown: readonly FeedItem[],
  fetched: FetchAnswer,
): Promise<FeedItem[]> {
  const seen = new Set(shown.map((i) => i.id))
  const gone: FeedItem[] = []
  for (const { text } of [...snapshots].reverse()) {
    const { feed } = await readAddress({ ...fetched, text }).catch(() => ({ feed: null }))
    for (const item of feed?.items ?? []) {
      if (seen.has(item.id)) continue
      seen.add(item.id)
      gone.push(item)
    }
  }
  return gone
}

/** Lets the server forget snapshots, once they were read. */
export async function forgetSnapshots(source: Source, snapshots: readonly Snapshot[]): Promise<void> {
  const last = snapshots.at(-1)
  if (last) await call('DELETE', `${pathOf(source)}?upTo=${last.id}`)
}
