import { z } from 'zod'

/** The world's clock: the server's, read over HTTP. While the server is away it runs on by itself. */
export class WorldClock {
  readonly #url: string
  #offset = 0
  #readAt = 0

  constructor(serverUrl: string) {
    this.#url = `${serverUrl}/api/clock`
  }

  async now(): Promise<number> {
    if (Date.now() - this.#readAt > 1000) await this.refresh()
    return Date.now() + this.#offset
  }

  async refresh(): Promise<void> {
    this.#readAt = Date.now()
    try {
      const response = await fetch(this.#url, { signal: AbortSignal.timeout(1500) })
      const body = z.object({ offsetMilliseconds: z.number() }).parse(await response.json())
      this.#offset = body.offsetMilliseconds
    } catch {
      // the server is starting or was stopped: keep the last known offset
    }
  }
}
