import type { FastifyRequest } from 'fastify'
import { z } from 'zod'
import { Fault, FaultBody, Id } from '../../core/model'
import type { App, Context } from '../context'
import { typed } from './typed'

/** The workspace that owns the spool; refuses a request that comes from another. */
export async function mustOwn(request: FastifyRequest, context: Context): Promise<string> {
  const owner = await context.parts().settings.read('workspace')
  if (owner === null || request.headers['x-dripline-workspace'] !== owner)
    throw new Fault(
      'wrong-workspace',
      'Another browser owns this server’s spool. Take it over here, or go on there.',
      'workspace',
    )
  return owner
}

/** Health, and which workspace owns the spool. */
export function workspaceRoutes(app: App, context: Context): void {
  typed(app).get(
    '/api/health',
    {
      schema: {
        summary: 'Whether the server is up and its spool ready',
        response: { 200: z.object({ status: z.literal('ok'), ready: z.boolean(), demo: z.boolean() }) },
      },
    },
    () => ({ status: 'ok' as const, ready: context.isReady(), demo: context.clock.demo }),
  )
  typed(app).post(
    '/api/workspace/claim',
    {
      schema: {
        summary:
          'Take the spool for a workspace; a second one is told, and may take it over, which recalls what the first had waiting',
        body: z.object({ id: Id, takeOver: z.boolean().default(false) }),
        response: { 200: z.object({ owner: Id }), 409: FaultBody },
      },
    },
    async (request) => {
      const { id, takeOver } = request.body
      const owner = await context.parts().settings.claim('workspace', id, takeOver)
      if (takeOver) await context.parts().doubts.recallOthers(id)
      if (owner !== id)
        throw new Fault(
          'wrong-workspace',
          'Another browser owns this server’s spool. Take it over here, or go on there.',
          'workspace',
        )
      return { owner }
    },
  )
}
