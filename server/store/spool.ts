import {
  Payload,
  Receipt,
  type Attempt,
  type HandOver,
  type HandOverAnswer,
  type RecallAnswer,
  type ReceiptPage,
} from '../../core/model'
import type { Outcome } from '../networks/connector'
import type { Database, Queryable } from './database'
import { claimOf, finish, LEASE, lockAccounts, receiptOf, written, type Claim, type Row } from './deliveries'
import { hasMedia } from './media'
import { Outbox } from './outbox'
import { BUSY, claimEach, HEAD, settleEach, type At, type Setback, type Settlement } from './rounds'

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
  readonly #outbox: Outbox<typeof Receipt>

  constructor(database: Database) {
    this.#database = database
    this.#outbox = new Outbox(database, 'receipts', Receipt)
  }

  /** Takes posts, or says of each why not. Idempotent; an older revision is refused. */
  async put(entries: readonly HandOver[], workspace: string): Promise<HandOverAnswer[]> {
    return this.#database.transaction(async (tx) => {
      await lockAccounts(
        tx,
        entries.map((entry) => entry.account),
      )
      const answers: HandOverAnswer[] = []
      for (const entry of entries) answers.push(await putOne(tx, entry, workspace))
      return answers
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
      await lockAccounts(tx, [found.account])
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
      await lockAccounts(tx, [found.account])
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
    const { cursor, items: receipts } = await this.#outbox.after(after, limit)
    return { cursor, receipts }
  }

  /** Forgets receipts up to a cursor: the app has them. */
  acknowledge(cursor: number): Promise<void> {
    return this.#outbox.acknowledge(cursor)
  }

  /** The accounts that have work to do at a moment: those whose oldest open delivery may be claimed. */
  async accountsDue(now: number, realNow: number): Promise<string[]> {
    const rows = await this.#database.query<{ account: string }>(
      `select l.account
       from (select distinct account from deliveries where state in ('waiting', 'sending') and next_try_at <= $1) a
       join accounts l on l.account = a.account ${HEAD}
       where l.state = 'linked' and h.next_try_at <= $1 and not ${BUSY}
       order by h.due_at`,
      [now, realNow],
    )
    return rows.map((r) => r.account)
  }

  /** Whether nothing is being sent, nor due and not yet taken up. */
  async isSettled(now: number): Promise<boolean> {
    const [sending] = await this.#database.query(
      `select 1 from deliveries d join accounts l on l.account = d.account
       where l.state = 'linked' and d.state = 'sending' limit 1`,
    )
    return sending === undefined && (await this.accountsDue(now, 0)).length === 0
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
   * Settles and claims, in one transaction for all of them (group commit: DeWitt and others, "Implementation techniques for
   * main memory database systems", 1984): what a commit costs is paid once, however many accounts take part.
   */
  async round(settlements: readonly Settlement[], accounts: readonly string[], at: At) {
    return this.#database.transaction(async (tx) => {
      await lockAccounts(tx, [...accounts, ...settlements.map((s) => s.claim.account)])
      const setbacks = await settleEach(tx, settlements, at)
      const claims = await claimEach(tx, accounts, at)
      return { setbacks, claims: new Map(claims.map((claim) => [claim.account, claim])) }
    })
  }

  /** A round of one account. */
  async claim(account: string, owner: string, now: number, realNow: number): Promise<Claim | null> {
    const { claims } = await this.round([], [account], { owner, now, realNow })
    return claims.get(account) ?? null
  }

  /** Lengthens the lease of a claim whose carrying out takes long. */
  async renew(claim: Claim, owner: string, realNow: number): Promise<void> {
    await this.#database.query(
      `update deliveries set lease_until = $4 where post = $1 and generation = $2 and state = 'sending' and lease_owner = $3`,
      [claim.post, claim.generation, owner, realNow + LEASE],
    )
  }

  /** A round of one settlement: writes down what came of a claim, and gives what a person should hear of it. */
  async settle(
    claim: Claim,
    owner: string,
    attempts: readonly Attempt[],
    outcome: Outcome,
    now: number,
  ): Promise<Setback | null> {
    const { setbacks } = await this.round([{ claim, attempts, outcome }], [], { owner, now, realNow: 0 })
    return setbacks[0] ?? null
  }

  /** When and where those of these posts that are out went out. */
  async out(posts: readonly string[]): Promise<Map<string, { at: string; publicUrl: string | null }>> {
    if (posts.length === 0) return new Map()
    const rows = await this.#database.query<Pick<Row, 'post' | 'published_at' | 'public_url'>>(
      `select post, published_at, public_url from deliveries
       where state = 'published' and published_at is not null
         and post in (select json_array_elements_text($1::json))`,
      [written(posts)],
    )
    return new Map(
      rows.map((r) => [
        r.post,
        { at: new Date(Number(r.published_at)).toISOString(), publicUrl: r.public_url },
      ]),
    )
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
      await finish(
        tx,
        [{ row, state: 'gone', reason: 'It was taken down.', publicUrl: row.public_url, visibility: 'gone' }],
        now,
      )
    })
  }
}

async function putOne(tx: Queryable, entry: HandOver, workspace: string): Promise<HandOverAnswer> {
  const answer = (
    result: HandOverAnswer['result'],
    message: string,
    receipt: Receipt | null = null,
    standing: HandOverAnswer['standing'] = null,
  ): HandOverAnswer => ({ id: entry.id, result, message, receipt, standing })
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
    `insert into deliveries (post, generation, revision, account, due_at, gap_minutes, payload, state, next_try_at, workspace,
           short_link)
         values ($1, $2, $3, $4, $5, $6, $7, 'waiting', $5, $8, $9)
         on conflict (post, generation) do update set revision = excluded.revision, account = excluded.account,
           due_at = excluded.due_at, gap_minutes = excluded.gap_minutes, payload = excluded.payload, short_link = excluded.short_link,
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
      entry.shortLink,
    ],
  )
  return answer('taken', 'The server has it and will send it at its time.')
}
