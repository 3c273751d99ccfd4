import type { Watched } from '../../../core/model'
import { call } from '../api'
import { all } from '../store'

/** What was sent last; null before anything was. */
let sent: string | null = null

/** Lets the server know which feeds it visits while the app is closed, and when the app means to visit them itself. */
export async function sendWatched(): Promise<void> {
  const ended = new Set((await all('brands')).flatMap((b) => (b.endedAt ? [b.id] : [])))
  const feeds = (await all('sources')).flatMap((s): Watched[] =>
    s.kind === 'feed' &&
    s.url !== null &&
    s.visitEveryMinutes !== null &&
    s.nextVisitAt !== null &&
    // Before its first visit there is nothing to go on from: what of its backlog is wanted is chosen then.
    s.lastVisit !== null &&
    s.held === null &&
    !ended.has(s.brand)
      ? [
          {
            source: s.id,
            url: s.url,
            everyMinutes: s.visitEveryMinutes,
            nextAt: s.nextVisitAt,
            etag: s.etag,
            lastModified: s.lastModified,
          },
        ]
      : [],
  )
  const content = JSON.stringify(feeds)
  if (sent === content) return
  await call('PUT', '/api/watch', { feeds })
  sent = content
}
