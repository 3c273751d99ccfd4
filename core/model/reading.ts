import { z } from 'zod'
import { Id, Instant } from './primitives'

/** What readers do with a post, as networks count it. Which of them a network counts its profile says. */
export const NETWORK_MEASURES = ['impressions', 'reactions', 'comments', 'shares', 'saves', 'clicks'] as const
export const NetworkMeasure = z.enum(NETWORK_MEASURES)
export type NetworkMeasure = z.infer<typeof NetworkMeasure>

/** All that is counted of a post: what its network counts, and how often the shortener saw its own short link followed. */
export const MEASURES = [...NETWORK_MEASURES, 'link clicks'] as const
export const Measure = z.enum(MEASURES)
export type Measure = z.infer<typeof Measure>

/** How often each was counted; what nobody said is left out, which is not nought. */
export const Measures = z.partialRecord(Measure, z.int().min(0))
export type Measures = z.infer<typeof Measures>

const HOUR = 3_600_000
const DAY = 24 * HOUR

/** How old posts are when their measures are read, in milliseconds; the youngest first. */
export const AGES = {
  '1 h': HOUR,
  '6 h': 6 * HOUR,
  '1 d': DAY,
  '3 d': 3 * DAY,
  '7 d': 7 * DAY,
  '30 d': 30 * DAY,
  '90 d': 90 * DAY,
} as const
export const Age = z.enum(Object.keys(AGES) as (keyof typeof AGES)[])
export type Age = z.infer<typeof Age>

const ORDER = Object.keys(AGES) as Age[]

/** A reading to come. */
export interface NextReading {
  age: Age
  /** From when on, and until when it stands for its age, in milliseconds since 1970. */
  at: number
  until: number
}

/**
 * When a post's measures are read at an age, and until when: after the middle between two ages a reading stands for the
 * later one. The last one has as long as the one before it.
 */
export function whenRead(publishedAt: number, age: Age): NextReading {
  const i = ORDER.indexOf(age)
  const [here, after] = [AGES[age], ORDER[i + 1]]
  const reach = after === undefined ? (here - AGES[ORDER[i - 1] as Age]) / 2 : (AGES[after] - here) / 2
  return { age, at: publishedAt + here, until: publishedAt + here + reach }
}

/** The age after one; null after the last. */
export function ageAfter(age: Age): Age | null {
  return ORDER[ORDER.indexOf(age) + 1] ?? null
}

/** The first of all readings of a post. */
export function firstReading(publishedAt: number): NextReading {
  return whenRead(publishedAt, '1 h')
}

/** The measures of a published post at one of the ages. */
export const Reading = z.object({
  /** Post, generation and age, parted by colons. */
  id: Id,
  post: Id,
  generation: z.int().min(1),
  account: Id,
  age: Age,
  /** When the network was asked, or it was known that nothing would come. */
  takenAt: Instant,
  /** Null where they are missing. */
  measures: Measures.nullable(),
  /** Why they are missing; empty where they are there. */
  reason: z.string(),
})
export type Reading = z.infer<typeof Reading>

/** Readings after a cursor, oldest first. */
export const ReadingPage = z.object({ cursor: z.int().min(0), readings: z.array(Reading) })
export type ReadingPage = z.infer<typeof ReadingPage>
