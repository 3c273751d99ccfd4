import type { FastifyInstance } from 'fastify'
import { z } from 'zod'
import type { WorldClock } from './clock'
import { hash } from './hash'

const DAY = 86_400_000
/** Days in which about two thirds of the shares of a page have come. */
const SETTLES = 9

/**
 * The share-count service of the stand-in world: how often pages were shared and commented on.
 * Every page that is out has its own final number, which it nears as it grows old.
 */
export function countRoutes(
  app: FastifyInstance,
  parts: { clock: WorldClock; publishedAt: (url: string) => number | null },
): void {
  app.post('/counts', async (request) => {
    const { urls } = z.object({ urls: z.array(z.string()).max(200) }).parse(request.body)
    const now = await parts.clock.now()
    return {
      counts: urls.map((url) => {
        const at = parts.publishedAt(url)
        return at === null || at > now ? null : sharesOf(url, at, now)
      }),
    }
  })
}

/** The counts of a page published at a moment, as they stand at another. */
export function sharesOf(url: string, at: number, now: number): { shares: number; comments: number } {
  const share = 1 - Math.exp(-(now - at) / DAY / SETTLES)
  const final = finalShares(new URL(url).pathname)
  return { shares: Math.round(final * share), comments: Math.round((final / 9) * share) }
}

/** Between 6 and about 400, most pages few: the same for the same path. */
function finalShares(path: string): number {
  const unit = ((hash(path) >>> 8) & 0xffff) / 0xffff
  return Math.round(6 + 400 * unit ** 3)
}
