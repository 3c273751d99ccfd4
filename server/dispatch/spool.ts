import { z } from 'zod'
import {
  Attempt,
  Payload,
  Receipt,
  type HandOver,
  type HandOverAnswer,
  type RecallAnswer,
  type ReceiptPage,
} from '../../core/model'
import type { Database } from '../store/database'
import type { Outcome } from '../networks/connector'
import { isLinked, setState } from '../store/accounts'
import { hasMedia } from '../store/media'
import { finish, lockAccount, receiptOf, type Row } from './deliveries'

/** How late a post may be and still be sent: two hours. Later ones wait for a decision. */
export const LATEST = 2 * 3_600_000
/** How long a claimed delivery belongs to its server, in real milliseconds. */
export const LEASE = 20_000

const MINUTE = 60_000

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

/** What went wrong for good with a delivery, or with its account. */
export interface Setback {
  what: 'failed' | 'unlinked' | 'by hand'
  reason: string
}

const TRIES = 6

/** States in which nothing more is done with a delivery; a late one may be handed over anew. */
const FINISHED = new Set(['published', 'failed', 'unsure', 'gone'])

/**
 * The table of deliveries, which is the truth about what has been handed over. Invariants: one row
 * a post and generation; at most one delivery of an account is leased at a time, so their order
 * holds; a row once published never leaves that state except to "gone".
 * `now` is the shared clock's; leases alone count in real time.
 */
export class Spool {
  readonly #database: Database

  constructor(database: Database) {
    this.#database = database
  }

  /** Takes a post, or says why not. Idempotent; an older revision is refused. */
  async put(entry: HandOver, workspace: string): Promise<HandOverAnswer> {
    const answer = (
      result: HandOverAnswer['result'],
      message: string,
      receipt: Receipt | null = null,
      standing: HandOverAnswer['standing'] = null,
    ): HandOverAnswer => ({ id: entry.id, result, message, receipt, standing })
    return this.#database.transaction(async (tx) => {
      await lockAccount(tx, entry.account)
      const [link] = await tx.query(`select 1 from accounts where account = $1`, [entry.account])
      if (!link) return answer('not linked', 'The account is not linked on this server. Link it again.')
      for (const { hash } of entry.payload.media) {
        if (!(await hasMedia(tx, hash)))
          return answer('media missing', `The picture ${hash.slice(0, 8)}… has not been uploaded.`)
      }
      const rows = await tx.query<Row>(`select * from deliveries where post = $1 order by generation desc`, [
        entry.id,
      ])
      // The newest is the one that counts: what is known here of a later generation is true of an older one too.
      const [newest] = rows
      if (newest && newest.generation >= entry.generation) {
        if (newest.state === 'sending') return answer('already sending', 'The post is being sent right now.')
        if (newest.doubt && newest.state === 'waiting')
          return answer(
            'already sending',
            'An answer of the network was lost: it may have the post, and is asked first.',
          )
        if (FINISHED.has(newest.state))
          return answer('finished', `The post is ${newest.state}.`, receiptOf(newest))
        if (newest.generation > entry.generation || newest.revision > entry.revision)
          return answer('older revision', 'A later one of this post is here already.', null, {
            generation: newest.generation,
            revision: newest.revision,
          })
      }
      await tx.query(
        `insert into deliveries (post, generation, revision, account, due_at, gap_minutes, payload, state, next_try_at, workspace)
         values ($1, $2, $3, $4, $5, $6, $7, 'waiting', $5, $8)
         on conflict (post, generation) do update set revision = excluded.revision, account = excluded.account,
           due_at = excluded.due_at, gap_minutes = excluded.gap_minutes, payload = excluded.payload,
           workspace = excluded.workspace, state = 'waiting', tries = 0, doubt = false, next_try_at = excluded.due_at, lease_until = 0, lease_owner = ''`,
        [
          entry.id,
          entry.generation,
          entry.revision,
          entry.account,
          Date.parse(entry.dueAt),
          entry.gapMinutes,
          JSON.stringify(entry.payload),
          workspace,
        ],
      )
      return answer('taken', 'The server has it and will send it at its time.')
    })
  }

  /** Takes a post back before it is sent; `in doubt` where the network may have it and is to be asked first. */
  async recall(post: string): Promise<RecallAnswer | { id: string; result: 'in doubt'; receipt: null }> {
    return this.#database.transaction(async (tx) => {
      const [found] = await tx.query<Row>(
        `select * from deliveries where post = $1 order by generation desc limit 1`,
        [post],
      )
      if (!found) return { id: post, result: 'unknown', receipt: null }
      await lockAccount(tx, found.account)
      const [row] = await tx.query<Row>(`select * from deliveries where post = $1 and generation = $2`, [
        post,
        found.generation,
      ])
      if (!row) return { id: post, result: 'unknown', receipt: null }
      if (row.state === 'sending') return { id: post, result: 'already sending', receipt: null }
      if (FINISHED.has(row.state)) return { id: post, result: 'finished', receipt: receiptOf(row) }
      if (row.state === 'waiting' && row.doubt) return { id: post, result: 'in doubt', receipt: null }
      await tx.query(`update deliveries set state = 'recalled' where post = $1 and generation = $2`, [
        post,
        row.generation,
      ])
      return { id: post, result: 'recalled', receipt: null }
    })
  }

  /** Which of these posts the server still has to send. */
  async holds(posts: readonly string[]): Promise<string[]> {
    const rows = await this.#database.query<{ post: string }>(
      `select distinct post from deliveries where state in ('waiting', 'sending')`,
    )
    const open = new Set(rows.map((r) => r.post))
    return posts.filter((p) => open.has(p))
  }

  /**
   * Takes back what other workspaces handed over: their browser no longer sees what becomes of it. Gives the posts that
   * the network may have, which stay.
   */
  async recallOthers(workspace: string): Promise<string[]> {
    await this.#database.query(
      `update deliveries set state = 'recalled' where state = 'waiting' and not doubt and workspace <> $1`,
      [workspace],
    )
    const rows = await this.#database.query<{ post: string }>(
      `select distinct post from deliveries where state = 'waiting' and doubt and workspace <> $1`,
      [workspace],
    )
    return rows.map((r) => r.post)
  }

  /** Claims a delivery that is in doubt, to ask the network for it; null where it is in nobody's doubt any more, or busy. */
  async claimDoubt(post: string, owner: string, realNow: number): Promise<Claim | null> {
    return this.#database.transaction(async (tx) => {
      const [found] = await tx.query<Row>(`select * from deliveries where post = $1 and doubt`, [post])
      if (!found) return null
      await lockAccount(tx, found.account)
      const [row] = await tx.query<Row>(
        `update deliveries set state = 'sending', lease_until = $3, lease_owner = $4
         where post = $1 and generation = $2 and state = 'waiting' and doubt returning *`,
        [post, found.generation, realNow + LEASE, owner],
      )
      return row ? claimOf(row) : null
    })
  }

  /** Writes down that a claimed delivery in doubt did not reach the network: it waits as before, and may be recalled. */
  async clearDoubt(claim: Claim, owner: string): Promise<void> {
    await this.#database.query(
      `update deliveries set state = 'waiting', doubt = false, lease_until = 0, lease_owner = ''
       where post = $1 and generation = $2 and state = 'sending' and lease_owner = $3`,
      [claim.post, claim.generation, owner],
    )
  }

  /** Receipts after a cursor, oldest first. */
  async receipts(after: number, limit = 100): Promise<ReceiptPage> {
    const rows = await this.#database.query<{ cursor: string | number; body: string }>(
      `select cursor, body from receipts where cursor > $1 order by cursor limit $2`,
      [after, limit],
    )
    return {
      cursor: Number(rows[rows.length - 1]?.cursor ?? after),
      receipts: rows.map((r) => Receipt.parse(JSON.parse(r.body))),
    }
  }

  /** Forgets receipts up to a cursor: the app has them. */
  async acknowledge(cursor: number): Promise<void> {
    await this.#database.query(`delete from receipts where cursor <= $1`, [cursor])
  }

  /** The accounts that have work to do at a moment. */
  async accountsDue(now: number, realNow: number): Promise<string[]> {
    const rows = await this.#database.query<{ account: string }>(
      `select distinct d.account from deliveries d join accounts l on l.account = d.account
       where l.state = 'linked' and d.state in ('waiting', 'sending') and d.next_try_at <= $1 and d.lease_until <= $2
         and not exists (select 1 from deliveries o where o.account = d.account and o.lease_until > $2)`,
      [now, realNow],
    )
    return rows.map((r) => r.account)
  }

  /** Whether anything is being sent, or is due and not yet taken up. */
  async isSettled(now: number): Promise<boolean> {
    const [row] = await this.#database.query(
      `select 1 from deliveries d join accounts l on l.account = d.account
       where l.state = 'linked' and (d.state = 'sending' or (d.state = 'waiting' and d.next_try_at <= $1)) limit 1`,
      [now],
    )
    return row === undefined
  }

  /** The next moment after `now` at which a delivery wants to be sent, or null. */
  async nextAt(now: number): Promise<number | null> {
    const [row] = await this.#database.query<{ next: string | number | null }>(
      `select min(d.next_try_at) as next from deliveries d join accounts l on l.account = d.account
       where l.state = 'linked' and d.state in ('waiting', 'sending') and d.next_try_at > $1`,
      [now],
    )
    return row?.next == null ? null : Number(row.next)
  }

  /**
   * Claims the account's oldest due delivery for a server, or null where there is none, where
   * another server holds one of the account's, or where the account's gap is not over. Deliveries
   * more than two hours late are put aside with a receipt. A crashed server's delivery is claimed
   * again once its lease is over; its idempotency key makes that safe.
   */
  async claim(account: string, owner: string, now: number, realNow: number): Promise<Claim | null> {
    return this.#database.transaction(async (tx) => {
      await lockAccount(tx, account)
      const [busy] = await tx.query(
        `select 1 from deliveries where account = $1 and lease_until > $2 limit 1`,
        [account, realNow],
      )
      if (busy) return null
      // A job may have been sent before the account lost its permission.
      if (!(await isLinked(tx, account))) return null
      const due = await tx.query<Row>(
        `select * from deliveries where account = $1 and state in ('waiting', 'sending') and next_try_at <= $2 order by due_at, post`,
        [account, now],
      )
      const [last] = await tx.query<{ at: string | number | null }>(
        `select max(published_at) as at from deliveries where account = $1`,
        [account],
      )
      for (const row of due) {
        const dueAt = Number(row.due_at)
        if (row.tries === 0 && now - dueAt > LATEST) {
          await finish(
            tx,
            row,
            'late',
            now,
            `It was due more than two hours ago and was not sent, so that nothing comes out at a wrong time. Send it now, place it anew, or set it aside.`,
          )
          continue
        }
        const free = last?.at == null ? 0 : Number(last.at) + row.gap_minutes * MINUTE
        if (row.state === 'waiting' && row.tries === 0 && free > now) {
          await tx.query(`update deliveries set next_try_at = $3 where post = $1 and generation = $2`, [
            row.post,
            row.generation,
            free,
          ])
          continue
        }
        await tx.query(
          `update deliveries set state = 'sending', tries = tries + 1, lease_until = $3, lease_owner = $4 where post = $1 and generation = $2`,
          [row.post, row.generation, realNow + LEASE, owner],
        )
        return claimOf({ ...row, doubt: row.doubt || row.state === 'sending', tries: row.tries + 1 })
      }
      return null
    })
  }

  /** Lengthens the lease of a claim whose carrying out takes long. */
  async renew(claim: Claim, owner: string, realNow: number): Promise<void> {
    await this.#database.query(
      `update deliveries set lease_until = $4 where post = $1 and generation = $2 and state = 'sending' and lease_owner = $3`,
      [claim.post, claim.generation, owner, realNow + LEASE],
    )
  }

  /**
   * Writes down what came of a claim, and gives what a person should hear of it. Does nothing where the lease went to
   * another server meanwhile.
   */
  async settle(
    claim: Claim,
    owner: string,
    attempts: readonly Attempt[],
    outcome: Outcome,
    now: number,
  ): Promise<Setback | null> {
    return this.#database.transaction(async (tx) => {
      await lockAccount(tx, claim.account)
      const [row] = await tx.query<Row>(
        `select * from deliveries where post = $1 and generation = $2 and state = 'sending' and lease_owner = $3`,
        [claim.post, claim.generation, owner],
      )
      if (!row) return null
      row.attempts = JSON.stringify(attempts)
      // Only a try that was answered says for sure that it did not arrive; what was in doubt before stays so.
      const doubt =
        claim.doubt || (attempts.length > claim.attempts.length && attempts.at(-1)?.answer === null)
      if (outcome.kind === 'published') {
        await tx.query(
          `update deliveries set published_at = $3, remote_id = $4, public_url = $5 where post = $1 and generation = $2`,
          [row.post, row.generation, now, outcome.remoteId, outcome.publicUrl],
        )
        await finish(tx, row, 'published', now, 'The network took it.', outcome.publicUrl, outcome.visibility)
      } else if (outcome.kind === 'refused') {
        await finish(tx, row, 'failed', now, outcome.reason)
        return { what: 'failed', reason: outcome.reason }
      } else if (outcome.kind === 'unsure') {
        await finish(tx, row, 'unsure', now, outcome.reason)
        return { what: 'failed', reason: outcome.reason }
      } else if (outcome.kind === 'by hand') {
        await finish(tx, row, 'by hand', now, outcome.reason)
        return { what: 'by hand', reason: outcome.reason }
      } else if (outcome.kind === 'unlinked') {
        await setState(tx, claim.account, outcome.state, outcome.reason, now)
        await tx.query(
          `update deliveries set state = 'waiting', tries = 0, lease_until = 0, lease_owner = '', attempts = $3, doubt = $4 where post = $1 and generation = $2`,
          [row.post, row.generation, row.attempts, doubt],
        )
        return { what: 'unlinked', reason: outcome.reason }
      } else if (claim.tries >= TRIES) {
        const reason = `${outcome.reason} It was tried ${claim.tries} times.`
        await finish(tx, row, 'failed', now, reason)
        return { what: 'failed', reason }
      } else {
        await tx.query(
          `update deliveries set state = 'waiting', next_try_at = $3, lease_until = 0, lease_owner = '', attempts = $4, doubt = $5 where post = $1 and generation = $2`,
          [row.post, row.generation, now + outcome.afterMilliseconds, row.attempts, doubt],
        )
      }
      return null
    })
  }

  /** What is known of a published post, to take it down. */
  async published(
    post: string,
  ): Promise<{ generation: number; account: string; remoteId: string; payload: Payload } | null> {
    const [row] = await this.#database.query<Row>(
      `select * from deliveries where post = $1 and state = 'published' order by generation desc limit 1`,
      [post],
    )
    return row?.remote_id
      ? {
          generation: row.generation,
          account: row.account,
          remoteId: row.remote_id,
          payload: Payload.parse(JSON.parse(row.payload)),
        }
      : null
  }

  /** Writes down that a published post was taken down. */
  async takenDown(post: string, generation: number, attempt: Attempt, now: number): Promise<void> {
    await this.#database.transaction(async (tx) => {
      const [row] = await tx.query<Row>(
        `select * from deliveries where post = $1 and generation = $2 and state = 'published'`,
        [post, generation],
      )
      if (!row) return
      row.attempts = JSON.stringify([...(JSON.parse(row.attempts) as unknown[]), attempt])
      await finish(tx, row, 'gone', now, 'It was taken down.', row.public_url, 'gone')
    })
  }
}

function claimOf(row: Row): Claim {
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

/** The key under which a network knows a delivery: the same for every try of it. */
export function keyOf(claim: Pick<Claim, 'workspace' | 'post' | 'generation'>): string {
  return `${claim.workspace}:${claim.post}:${claim.generation}`
}
