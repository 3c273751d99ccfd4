import { z } from 'zod'
import { Id, Snapshot, Watched } from '../../core/model'
import type { App, Context } from '../context'
import { typed } from './typed'
import { mustOwn } from './workspace'

/** The feeds that the server visits while the app is closed, and what they said meanwhile. */
export function watchRoutes(app: App, context: Context): void {
  const watcher = () => context.parts().watcher
  const Params = z.object({ source: Id })

  typed(app).put(
    '/api/watch',
    {
      schema: {
        summary: 'Watch these feeds, and no others, while the app is closed',
        body: z.object({ feeds: z.array(Watched).max(2000) }),
        response: { 200: z.object({ feeds: z.int() }) },
      },
    },
    async (request) => {
      await mustOwn(request, context)
      await watcher().feeds.replace(request.body.feeds)
      return { feeds: request.body.feeds.length }
    },
  )

  typed(app).get(
    '/api/watch/:source/snapshots',
    {
      schema: {
        summary: 'What a watched feed said while the app was closed, the oldest first',
        params: Params,
        response: { 200: z.object({ snapshots: z.array(Snapshot) }) },
      },
    },
    async (request) => {
      await mustOwn(request, context)
      return { snapshots: await watcher().feeds.snapshots(request.params.source) }
    },
  )

  typed(app).delete(
    '/api/watch/:source/snapshots',
    {
      schema: {
        summary: 'Forget snapshots that were read',
        params: Params,
        querystring: z.object({ upTo: z.coerce.number().int() }),
        response: { 200: Params },
      },
    },
    async (request) => {
      await mustOwn(request, context)
      await watcher().feeds.forget(request.params.source, request.query.upTo)
      return { source: request.params.source }
    },
  )
}
