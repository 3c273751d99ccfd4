import { createHash } from 'node:crypto'
import { z } from 'zod'
import {
  FollowingPage,
  Fault,
  HandOver,
  HandOverAnswer,
  Id,
  Payload,
  RecallAnswer,
  ReadingPage,
  ReceiptPage,
  Standing,
  Trial,
} from '../../core/model'
import type { App, Context } from '../context'
import { typed, type TypedApp } from './typed'
import { mustOwn } from './workspace'

const Hash = z.string().regex(/^[0-9a-f]{64}$/)

/** Hand-over, recall, receipts and media of the workspace that owns the spool. */
export function spoolRoutes(app: App, context: Context): void {
  const spool = () => context.parts().spool

  void app.register(async (scope) => {
    scope.addHook('preHandler', async (request) => void (await mustOwn(request, context)))
    const routes = typed(scope)

    routes.put(
      '/api/spool/posts/:id',
      {
        schema: {
          summary: 'Hand one post over',
          params: z.object({ id: Id }),
          body: HandOver,
          response: { 200: HandOverAnswer },
        },
      },
      async (request) => {
        if (request.body.id !== request.params.id)
          throw new Fault('bad-request', 'The post’s id differs from its address.', 'id')
        const [answer] = await spool().put([request.body], await mustOwn(request, context))
        return answer as HandOverAnswer
      },
    )
    routes.post(
      '/api/spool/posts',
      {
        schema: {
          summary: 'Hand a batch of posts over',
          body: z.object({ posts: z.array(HandOver).max(100) }),
          response: { 200: z.object({ answers: z.array(HandOverAnswer) }) },
        },
      },
      async (request) => {
        const workspace = await mustOwn(request, context)
        await context.parts().health.freshen(request.body.posts.map((p) => p.account))
        return { answers: await spool().put(request.body.posts, workspace) }
      },
    )
    routes.post(
      '/api/spool/held',
      {
        schema: {
          summary: 'Which of these posts the server still has to send',
          body: z.object({ posts: z.array(Id).max(20_000) }),
          response: { 200: z.object({ held: z.array(Id) }) },
        },
      },
      async (request) => ({ held: await spool().holds(request.body.posts) }),
    )
    routes.delete(
      '/api/spool/posts/:id',
      { schema: { summary: 'Recall a post', params: z.object({ id: Id }), response: { 200: RecallAnswer } } },
      (request) => context.parts().doubts.recall(request.params.id),
    )
    routes.post(
      '/api/spool/trials',
      {
        schema: {
          summary: 'A test delivery: send a post, read it back as it arrived, and take it down again',
          body: z.object({ id: Id, account: Id, payload: Payload }),
          response: { 200: Trial },
        },
      },
      ({ body }) => context.parts().trials.run(body.id, body.account, body.payload),
    )
    routes.post(
      '/api/spool/posts/:id/takedown',
      {
        schema: {
          summary: 'Take a published post down',
          params: z.object({ id: Id }),
          response: { 200: z.object({ id: Id }) },
        },
      },
      async (request) => {
        const { id } = request.params
        const published = await spool().published(id)
        if (!published)
          throw new Fault(
            'not-found',
            'This post is not published by this server, so there is nothing to take down.',
            id,
          )
        const login = await context.parts().accounts.login(published.account)
        const attempt = await context.registry.of(login.connector).takeDown(login, published.remoteId)
        await spool().takenDown(id, published.generation, attempt, context.clock.now())
        return { id }
      },
    )
    routes.get(
      '/api/spool/posts/:id/standing',
      {
        schema: {
          summary: 'Ask the network whether a published post is still there, and still the same',
          params: z.object({ id: Id }),
          response: { 200: Standing },
        },
      },
      async (request): Promise<Standing> => {
        const { id } = request.params
        const published = await spool().published(id)
        if (!published)
          throw new Fault(
            'not-found',
            'This post was not published by this server, so it cannot be asked for.',
            id,
          )
        const login = await context.parts().accounts.login(published.account)
        const connector = context.registry.of(login.connector)
        if (!connector.capabilities.reads)
          throw new Fault('bad-request', 'This account cannot be asked. Look at its public page.', id)
        const { shown, attempt } = await connector.read(login, published.remoteId)
        const status = attempt.answer?.status
        if (shown === null && status !== 404 && status !== 410 && status !== 400)
          throw new Fault(
            'unreachable',
            attempt.error ?? 'The network gave no answer that says so. Try again later.',
          )
        const { text, title, parts } = published.payload
        const same =
          shown &&
          shown.text === text &&
          (shown.title ?? null) === title &&
          shown.parts.join('\n') === parts.join('\n')
        return {
          there: shown !== null,
          same,
          message:
            shown === null
              ? 'It is no longer there.'
              : same
                ? 'It is there, word for word.'
                : `It is there with other words: “${shown.text.slice(0, 200)}”`,
        }
      },
    )
    collected(routes, 'receipts', 'Receipts', ReceiptPage, {
      page: (after) => spool().receipts(after),
      acknowledge: (cursor) => spool().acknowledge(cursor),
    })
    collected(routes, 'readings', 'What was read of published posts', ReadingPage, {
      page: (after) => context.parts().readings.page(after),
      acknowledge: (cursor) => context.parts().readings.acknowledge(cursor),
    })
    collected(routes, 'followings', 'How many follow the accounts, day by day', FollowingPage, {
      page: (after) => context.parts().followings.page(after),
      acknowledge: (cursor) => context.parts().followings.acknowledge(cursor),
    })
    routes.put(
      '/api/spool/media/:hash',
      {
        schema: {
          summary: 'Upload a picture or a clip under the SHA-256 of its bytes',
          params: z.object({ hash: Hash }),
          response: { 200: z.object({ hash: Hash }) },
        },
        bodyLimit: 9 * 1024 * 1024,
      },
      async (request) => {
        const bytes = request.body
        if (!Buffer.isBuffer(bytes))
          throw new Fault(
            'wrong-type',
            'Send the bytes of a picture as PNG, JPEG, WebP or GIF, of a clip as MP4 or WebM, or of a document as PDF.',
            'content-type',
          )
        const { hash } = request.params
        if (createHash('sha256').update(bytes).digest('hex') !== hash)
          throw new Fault(
            'bad-request',
            'The bytes do not match their hash; upload the picture again.',
            'hash',
          )
        await context.parts().media.keep(hash, request.headers['content-type'] ?? 'image/png', bytes)
        return { hash }
      },
    )
  })
}

/** What the app collects page by page: it is given after a cursor, and kept until the app says up to where it has it. */
function collected<T>(
  routes: TypedApp,
  name: 'receipts' | 'readings' | 'followings',
  title: string,
  page: z.ZodType<T>,
  from: { page: (after: number) => Promise<T>; acknowledge: (cursor: number) => Promise<void> },
): void {
  routes.get(
    `/api/spool/${name}`,
    {
      schema: {
        summary: `${title} after a cursor, kept until acknowledged`,
        querystring: z.object({ after: z.coerce.number().int().min(0).default(0) }),
        // What the compiler cannot see of a schema that is handed in: it is that of the page.
        response: { 200: page as z.ZodType },
      },
    },
    (request) => from.page(request.query.after),
  )
  routes.post(
    `/api/spool/${name}/acknowledge`,
    {
      schema: {
        summary: `Forget ${name} up to a cursor`,
        body: z.object({ cursor: z.int().min(0) }),
        response: { 200: z.object({ cursor: z.int() }) },
      },
    },
    async (request) => {
      await from.acknowledge(request.body.cursor)
      return { cursor: request.body.cursor }
    },
  )
}
