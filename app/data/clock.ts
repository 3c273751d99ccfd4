import useSWR from 'swr'
import { asFault, type ClockAnswer } from '../../core/model'
import { get } from './api'

const KEPT = 'dripline-clock-offset'

/** As last read; kept, so that the first screen after a reload does not show another time. */
let offset = Number(globalThis.localStorage?.getItem(KEPT) ?? 0) || 0

/** Milliseconds since 1970 by the shared clock, as last read from the server. */
export function clockNow(): number {
  return Date.now() + offset
}

/** The present moment as ISO 8601. */
export function nowIso(): string {
  return new Date(clockNow()).toISOString()
}

/** Reads the shared clock from the server. */
export async function readClock(): Promise<ClockAnswer> {
  const answer = await get<ClockAnswer>('/api/clock')
  if (answer.offsetMilliseconds !== offset) {
    offset = answer.offsetMilliseconds
    globalThis.localStorage?.setItem(KEPT, String(offset))
  }
  return answer
}

/** The shared clock, read every few seconds; `now` is the moment of the last reading. `away` says why the server does not tell it. */
export function useClock(): { now: number; demo: boolean; worldUrl: string | null; away: string | null } {
  const { data, error } = useSWR<ClockAnswer, unknown>('clock', readClock, {
    refreshInterval: 5000,
    dedupingInterval: 500,
    // While the server is away it is asked just as often, so that one sees at once that it is back.
    onErrorRetry: (_error, _key, _config, revalidate, { retryCount }) => {
      setTimeout(() => void revalidate({ retryCount }), 3000)
    },
  })
  return {
    now: clockNow(),
    demo: data?.demo ?? false,
    worldUrl: data?.worldUrl ?? null,
    away: error === undefined ? null : awayWords(error),
  }
}

function awayWords(error: unknown): string {
  const { code, message } = asFault(error)
  return code === 'unreachable'
    ? 'The server does not answer. What was handed over waits there; what you do here is kept.'
    : message
}
