import { z } from 'zod'
import { ClockAnswer, Fault, FaultBody, Instant } from '../../core/model'
import type { App, Context } from '../server'
import { typed } from './typed'

/** The shared clock. A jump is a chain of advances, each to the next event, each settled. */
export function clockRoutes(app: App, context: Context): void {
  const { clock, options } = context
  const answer = (): ClockAnswer => ({
    now: new Date(clock.now()).toISOString(),
    offsetMilliseconds: clock.offset,
    demo: clock.demo,
    worldUrl: options.worldUrl,
  })
  typed(app).get(
    '/api/clock',
    { schema: { summary: 'The shared clock', response: { 200: ClockAnswer } } },
    answer,
  )

  typed(app).get(
    '/api/clock/next',
    {
      schema: {
        summary: 'The next delivery or event of the world until a moment, or null',
        querystring: z.object({ until: Instant }),
        response: { 200: z.object({ at: Instant.nullable() }) },
      },
    },
    async (request) => {
      const until = Date.parse(request.query.until)
      const now = clock.now()
      const moments = [await context.house().spool.nextAt(now), await worldNext(options.worldUrl, now)]
      const next = Math.min(...moments.filter((m) => m !== null && m > now).map(Number))
      return { at: next <= until ? new Date(next).toISOString() : null }
    },
  )

  typed(app).post(
    '/api/clock/advance',
    {
      schema: {
        summary:
          'Demo only: move the clock forward to a moment and wait until everything due then is settled',
        body: z.object({ to: Instant }),
        response: { 200: ClockAnswer, 404: FaultBody },
      },
    },
    async (request) => {
      // What is due already goes out before time passes it by.
      await context.house().worker.settle()
      await clock.moveTo(Date.parse(request.body.to))
      await tellWorld(options.worldUrl)
      await context.house().worker.settle()
      return answer()
    },
  )
}

async function worldNext(worldUrl: string | null, now: number): Promise<number | null> {
  if (!worldUrl) return null
  try {
    const response = await fetch(
      `${worldUrl}/control/next?after=${encodeURIComponent(new Date(now).toISOString())}`,
      { signal: AbortSignal.timeout(3000) },
    )
    const body = z.object({ at: Instant.nullable() }).parse(await response.json())
    return body.at === null ? null : Date.parse(body.at)
  } catch {
    return null
  }
}

/** The world reads the clock again before it answers anything else. */
async function tellWorld(worldUrl: string | null): Promise<void> {
  if (!worldUrl) return
  try {
    await fetch(`${worldUrl}/control/clock`, { method: 'POST', signal: AbortSignal.timeout(3000) })
  } catch {
    throw new Fault('unreachable', 'The stand-in world does not answer. Start the demo again with npm start.')
  }
}
