import { z } from 'zod'
import { Attempt, firstReading, Payload, Receipt } from '../../core/model'
import type { Queryable } from './database'

/** How late a post may be and still be sent: two hours. Later ones wait for a decision. */
export const LATEST = 2 * 3_600_000
/** How long a claimed delivery belongs to its server, in real milliseconds. */
export const LEASE = 20_000
/** A lease that ends later than this from now was given before the machine's clock was set back, and counts no more. */
export const SKEW = 600_000

/** A row of the table of deliveries. */
export interface Row {
  post: string
  generation: number
  revision: number
  workspace: string
  account: string
  due_at: string | number
  gap_minutes: number
  payload: string
  state: string
  tries: number
  next_try_at: string | number
  lease_until: string | number
  lease_owner: string
  attempts: string
  /** An answer was lost: the network may have it. */
  doubt: boolean
  published_at: string | number | null
  remote_id: string | null
  public_url: string | null
  finished_at: string | number | null
  reason: string
  visibility: Receipt['visibility']
}

/** A delivery that a server has claimed and must now carry out. */
export interface Claim {
  post: string
  generation: number
  /** The workspace that handed it over: part of its idempotency key, whoever owns the spool later. */
  workspace: string
  account: string
  dueAt: number
  payload: Payload
  tries: number
  attempts: Attempt[]
  /** Whether the network may have it already, from an earlier try. */
  doubt: boolean
}

/** The key under which a network knows a delivery: the same for every try of it. */
export function keyOf(claim: Pick<Claim, 'workspace' | 'post' | 'generation'>): string {
  return `${claim.workspace}:${claim.post}:${claim.generation}`
}

export function claimOf(row: Row): Claim {
  return {
    post: row.post,
    generation: row.generation,
    workspace: row.workspace,
    account: row.account,
    dueAt: Number(row.due_at),
    payload: Payload.parse(JSON.parse(row.payload)),
    tries: row.tries,
    attempts: z.array(Attempt).parse(JSON.parse(row.attempts)),
    doubt: row.doubt,
  }
}

/**
 * Keeps the deliveries of some accounts in order across servers, until the transaction ends. It is a statement of its own:
 * what is read after it is as the last holder left it.
 */
export async function lockAccounts(tx: Queryable, accounts: Iterable<string>): Promise<void> {
  // Always in the same order, so that two servers never wait for one another.
  await tx.query(
    `select pg_advisory_xact_lock(key)
     from (select distinct hashtext(a) as key from json_array_elements_text($1::json) a order by key) keys`,
    [written([...accounts])],
  )
}

/** A text as a database takes it: signs that no text of it may hold are replaced. */
export function keepable(text: string): string {
  return text.replaceAll('\0', '\ufffd').replace(/\p{Surrogate}/gu, '\ufffd')
}

/** A value as JSON that a database takes. */
export function written(value: unknown): string {
  return JSON.stringify(value, (_key, part: unknown) => (typeof part === 'string' ? keepable(part) : part))
}

/** What a delivery ends with. */
export interface Ending {
  row: Row
  state: Receipt['outcome']
  reason: string
  publicUrl?: string | null
  visibility?: Receipt['visibility']
  /** Where the network took it now, under which id. */
  published?: { at: number; remoteId: string }
}

/** Ends deliveries: their states, and a receipt of each for the app to collect. */
export async function finish(tx: Queryable, endings: readonly Ending[], now: number): Promise<void> {
  if (endings.length === 0) return
  const rows = endings.map(({ row, state, reason, publicUrl = null, visibility = null, published }) => ({
    ...row,
    state,
    finished_at: now,
    reason,
    public_url: publicUrl,
    visibility,
    published_at: published?.at ?? row.published_at,
    remote_id: published?.remoteId ?? row.remote_id,
    // Measures are read of what stands in public, and of nothing else.
    reading: published ? firstReading(published.at) : null,
  }))
  await tx.query(
    `update deliveries d set state = r.state, lease_until = 0, lease_owner = '', attempts = r.attempts,
       finished_at = r.finished_at, reason = r.reason, public_url = r.public_url, visibility = r.visibility,
       published_at = r.published_at, remote_id = r.remote_id, reading_at = (r.reading ->> 'at')::bigint,
       reading_until = (r.reading ->> 'until')::bigint, reading_age = r.reading ->> 'age'
     from json_to_recordset($1::json) as r(post text, generation int, state text, attempts text, finished_at bigint,
       reason text, public_url text, visibility text, published_at bigint, remote_id text, reading json)
     where d.post = r.post and d.generation = r.generation`,
    [written(rows.map(({ payload: _payload, ...row }) => row))],
  )
  await tx.query(
    `insert into receipts (post, body)
     select r.post, r.body from json_to_recordset($1::json) as r(post text, body text)`,
    [written(rows.map((row) => ({ post: row.post, body: written(receiptOf(row)) })))],
  )
}

/** The receipt of a finished delivery, from its row; the row outlives the receipt's collection. */
export function receiptOf(row: Row): Receipt {
  return Receipt.parse({
    id: `${row.post}:${row.generation}:${row.state}`,
    post: row.post,
    generation: row.generation,
    revision: row.revision,
    account: row.account,
    outcome: row.state,
    reason: row.reason,
    dueAt: new Date(Number(row.due_at)).toISOString(),
    finishedAt: new Date(Number(row.finished_at)).toISOString(),
    publicUrl: row.public_url,
    visibility: row.visibility,
    attempts: JSON.parse(row.attempts) as unknown,
  })
}
