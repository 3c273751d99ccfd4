import { z } from 'zod'
import { Hold, Id, Instant, LocalDate } from './primitives'

/** What came of the last visit to a source, in words a person can act on. */
export const Visit = z.object({
  at: Instant,
  ok: z.boolean(),
  message: z.string(),
  newPieces: z.int().min(0),
  /** What had to be mended or was left out, one sentence each. */
  notes: z.array(z.string()),
})
export type Visit = z.infer<typeof Visit>

/** What the first visit does with the items that are there already. */
export const Backlog = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('nothing') }),
  z.object({ kind: z.literal('from'), day: LocalDate }),
  z.object({ kind: z.literal('last'), count: z.int().min(1).max(1000) }),
  z.object({ kind: z.literal('everything') }),
])
export type Backlog = z.infer<typeof Backlog>

/** The fields of a content sheet; a column that is none of them is kept under its own name. */
export const SHEET_FIELDS = ['address', 'title', 'status', 'categories', 'notes'] as const
export const SheetField = z.enum(SHEET_FIELDS)
export type SheetField = z.infer<typeof SheetField>

/** How a content sheet is read: which column is which field, and which words of its status mean ready. */
export const SheetReading = z.object({
  columns: z.partialRecord(SheetField, z.string()),
  ready: z.array(z.string()),
})
export type SheetReading = z.infer<typeof SheetReading>

/**
 * Where long-form work comes from: a feed (of articles or videos), a content sheet whose rows name
 * pages, or writing that is dropped in by hand.
 */
export const Source = z.object({
  id: Id,
  brand: Id,
  kind: z.enum(['feed', 'sheet', 'writing']),
  title: z.string(),
  /** Where it is visited; null for what comes in as files only. */
  url: z.string().nullable(),
  siteUrl: z.string().nullable(),
  /** Sources of one group can be used as one source. */
  group: z.string().nullable(),
  /** Minutes between visits; null is by hand. */
  visitEveryMinutes: z.int().min(15).max(1440).nullable(),
  /** At most so many new pieces a visit. */
  mostNew: z.int().min(1).max(200),
  backlog: Backlog,
  /** Ids of items the first visit left where they were. */
  passedOver: z.array(z.string()),
  nextVisitAt: Instant.nullable(),
  lastVisit: Visit.nullable(),
  failures: z.int().min(0),
  etag: z.string().nullable(),
  lastModified: z.string().nullable(),
  /** Where it was before its site said that it had moved for good. */
  movedFrom: z.string().nullable(),
  sheet: SheetReading.nullable(),
  held: Hold.nullable(),
  createdAt: Instant,
})
export type Source = z.infer<typeof Source>

/** A row of a content sheet. Rows are taken one at a time, oldest first, once their status says ready. */
export const SheetRow = z.object({
  id: Id,
  brand: Id,
  source: Id,
  /** Its address in plain clothes: what rows are merged by. */
  address: z.string(),
  title: z.string(),
  status: z.string(),
  ready: z.boolean(),
  categories: z.array(z.string()),
  notes: z.string(),
  /** Every other column, by its name. */
  fields: z.record(z.string(), z.string()),
  /** Its place in the order in which rows came in. */
  place: z.int().min(0),
  piece: Id.nullable(),
  /** Why it could not be taken, in words a person can act on. */
  trouble: z.string().nullable(),
})
export type SheetRow = z.infer<typeof SheetRow>

/** A source is visited every so many minutes, unless somebody says otherwise. */
const VISIT_EVERY = 180

/** A source as it begins at a moment: one with an address is visited every three hours, the first time after that. */
export function freshSource(
  of: Pick<Source, 'id' | 'brand' | 'kind' | 'title' | 'createdAt'> & Partial<Source>,
): Source {
  const { visitEveryMinutes: every = typeof of.url === 'string' ? VISIT_EVERY : null } = of
  const next = every === null ? null : new Date(Date.parse(of.createdAt) + every * 60_000).toISOString()
  return {
    url: null,
    siteUrl: null,
    group: null,
    visitEveryMinutes: every,
    mostNew: 40,
    backlog: { kind: 'everything' },
    passedOver: [],
    nextVisitAt: next,
    lastVisit: null,
    failures: 0,
    etag: null,
    lastModified: null,
    movedFrom: null,
    sheet: null,
    held: null,
    ...of,
  }
}
