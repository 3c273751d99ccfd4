import { Receipt } from '../../core/model'
import type { Queryable } from '../store/database'

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

/** Keeps an account's deliveries in order across servers, until the transaction ends. */
export async function lockAccount(tx: Queryable, account: string): Promise<void> {
  await tx.query(`select pg_advisory_xact_lock(hashtext($1))`, [account])
}

/** Ends a delivery: its state, and a receipt for the app to collect. */
export async function finish(
  tx: Queryable,
  row: Row,
  state: Receipt['outcome'],
  now: number,
  reason: string,
  publicUrl: string | null = null,
  visibility: Receipt['visibility'] = null,
): Promise<void> {
  await tx.query(
    `update deliveries set state = $3, lease_until = 0, lease_owner = '', attempts = $4, finished_at = $5, reason = $6,
       public_url = $7, visibility = $8 where post = $1 and generation = $2`,
    [row.post, row.generation, state, row.attempts, now, reason, publicUrl, visibility],
  )
  const receipt = receiptOf({ ...row, state, finished_at: now, reason, public_url: publicUrl, visibility })
  await tx.query(`insert into receipts (post, body) values ($1, $2)`, [row.post, JSON.stringify(receipt)])
}

/** The receipt of a finished delivery, from its row; the row outlives the receipt's collection. */
export function receiptOf(row: Row): Receipt {
  return Receipt.parse({
    id: `${row.post}:${row.generation}:${row.state}`,
    post: row.post,
    generation: row.generation,
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
