import { z } from 'zod'
import type { App, Context } from '../context'
import { figures } from '../store/figures'
import { typed } from './typed'

const DAY = 86_400_000

/** What is watched of the server, in the text form that Prometheus reads (version 0.0.4). */
export function metricRoutes(app: App, context: Context): void {
  typed(app).get(
    '/api/metrics',
    {
      schema: {
        summary: 'Figures for monitoring, in the Prometheus text form',
        response: { 200: z.string() },
      },
    },
    async (_request, reply) => {
      const now = context.clock.now()
      const rows = await figures(context.parts().database, now, now - DAY)
      const lines: string[] = []
      const gauge = (name: string, help: string, values: readonly (readonly [string, number])[]): void => {
        lines.push(`# HELP dripline_${name} ${help}`, `# TYPE dripline_${name} gauge`)
        for (const [network, value] of values) lines.push(`dripline_${name}{network="${network}"} ${value}`)
      }
      gauge(
        'posts_handed_over',
        'Posts that wait for their time.',
        rows.map((r) => [r.network, r.waiting]),
      )
      gauge(
        'posts_due',
        'Posts whose time has come and that are not out.',
        rows.map((r) => [r.network, r.due]),
      )
      gauge(
        'posts_held',
        'Posts that wait for their account to be linked again.',
        rows.map((r) => [r.network, r.held]),
      )
      for (const [state, words] of [
        ['sent', 'were published'],
        ['failed', 'were refused or given up'],
        ['late', 'came too late and wait for a decision'],
      ] as const)
        gauge(
          `posts_${state}_day`,
          `Posts that ${words} in the last 24 hours.`,
          rows.map((r) => [r.network, r[state]]),
        )
      gauge(
        'accounts_broken',
        'Accounts that lost their permission.',
        rows.map((r) => [r.network, r.broken]),
      )
      lines.push(
        '# HELP dripline_memory_bytes Resident memory of the server.',
        '# TYPE dripline_memory_bytes gauge',
        `dripline_memory_bytes ${process.memoryUsage.rss()}`,
      )
      return reply.type('text/plain; version=0.0.4; charset=utf-8').send(`${lines.join('\n')}\n`)
    },
  )
}
