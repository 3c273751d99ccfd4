import { z } from 'zod'
import { ClockAnswer, Fault, FaultBody, Instant } from '../../core/model'
import type { App, Context } from '../context'
import { clockAnswer } from '../routes/clock'
import { typed } from '../routes/typed'
import type { MovableClock } from './movableClock'

/** Moving the demo's clock. A jump is a chain of advances, each to the next event, each settled. */
export function jumpRoutes(app: App, context: Context, world: string, clock: MovableClock): void {
  typed(app).get(
    '/api/clock/next',
    {
      schema: {
        summary: 'The next delivery, look at an account or event of the world until a moment, or null',
        querystring: z.object({ until: Instant }),
        response: { 200: z.object({ at: Instant.nullable() }) },
      },
    },
    async (request) => {
      const until = Date.parse(request.query.until)
      const now = clock.now()
      const { spool, readings, health } = context.parts()
      const moments = [
        await spool.nextAt(now),
        await readings.lastChance(now),
        await health.nextAt(now),
        await worldNext(world, now),
      ]
      const next = Math.min(...moments.filter((m) => m !== null && m > now).map(Number))
      return { at: next <= until ? new Date(next).toISOString() : null }
    },
  )

  typed(app).post(
    '/api/clock/advance',
    {
      schema: {
        summary: 'Move the clock forward to a moment and wait until everything due then is settled',
        body: z.object({ to: Instant }),
        response: { 200: ClockAnswer, 404: FaultBody },
      },
    },
    async (request) => {
      // What is due already goes out before time passes it by.
      await context.parts().worker.settle()
      await clock.moveTo(Date.parse(request.body.to))
      await tellWorld(world)
      await context.parts().health.look()
      await context.parts().worker.settle()
      await context.parts().measuring.look()
      return clockAnswer(context)
    },
  )
}

async function worldNext(world: string, now: number): Promise<number | null> {
  try {
    const response = await fetch(
      `${world}/control/next?after=${encodeURIComponent(new Date(now).toISOString())}`,
      { signal: AbortSignal.timeout(3000) },
    )
    const body = z.object({ at: Instant.nullable() }).parse(await response.json())
    return body.at === null ? null : Date.parse(body.at)
  } catch {
    return null
  }
}

/** The world reads the clock again before it answers anything else. */
async function tellWorld(world: string): Promise<void> {
  try {
    await fetch(`${world}/control/clock`, { method: 'POST', signal: AbortSignal.timeout(3000) })
  } catch {
    throw new Fault('unreachable', 'The stand-in world does not answer. Start the demo again with npm start.')
  }
}
