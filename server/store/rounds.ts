import type { Attempt } from '../../core/model'
import { network } from '../../core/networks'
import type { Outcome } from '../networks/connector'
import { setState } from './accounts'
import type { Queryable } from './database'
import {
  claimOf,
  finish,
  keepable,
  LATEST,
  LEASE,
  SKEW,
  written,
  type Claim,
  type Ending,
  type Row,
} from './deliveries'
import { take } from './rates'

const MINUTE = 60_000
/** A delivery is given up once it was tried so often and is later than a post may be: an outage of an hour fails nothing. */
const TRIES = 6

/** What went wrong for good with a delivery, or with its account. */
export interface Setback {
  what: 'failed' | 'unlinked' | 'by hand'
  reason: string
}

/** What came of a claim, with every request that was made for it. */
export interface Settlement {
  claim: Claim
  attempts: readonly Attempt[]
  outcome: Outcome
}

/** Who acts, and when: `now` by the shared clock, `realNow` for leases and rates. */
export interface At {
  owner: string
  now: number
  realNow: number
}

/** The open deliveries' heads: of each account the oldest. What stands behind one waits for it. */
export const HEAD = `cross join lateral (
    select * from deliveries d where d.account = l.account and d.state in ('waiting', 'sending')
    order by d.due_at, d.post limit 1) h`
/** Holds of an account `l` while a server carries out one of its deliveries, at the real time $2. */
export const BUSY = `exists (select 1 from deliveries o where o.account = l.account and o.state = 'sending'
  and o.lease_until > $2 and o.lease_until <= $2::bigint + ${SKEW})`

/**
 * Writes down what came of claims, all in a few statements; the accounts are locked. Gives what a person should hear of
 * each. A claim whose lease went to another server is passed over.
 */
export async function settleEach(
  tx: Queryable,
  settlements: readonly Settlement[],
  { owner, now }: At,
): Promise<(Setback | null)[]> {
  if (settlements.length === 0) return []
  const rows = await tx.query<Row>(
    `select d.* from json_to_recordset($1::json) as c(post text, generation int)
     join deliveries d on d.post = c.post and d.generation = c.generation
     where d.state = 'sending' and d.lease_owner = $2`,
    [written(settlements.map(({ claim: { post, generation } }) => ({ post, generation }))), owner],
  )
  const held = new Map(rows.map((row) => [`${row.post} ${row.generation}`, row]))
  const endings: Ending[] = []
  const waits: Row[] = []
  const setbacks: (Setback | null)[] = []
  for (const settlement of settlements) {
    const row = held.get(`${settlement.claim.post} ${settlement.claim.generation}`)
    const came = row && whatCame(row, settlement, now)
    setbacks.push(came?.setback ?? null)
    if (came?.ending) endings.push(came.ending)
    else if (came) waits.push(came.wait)
    if (settlement.outcome.kind === 'unlinked' && came)
      await setState(
        tx,
        settlement.claim.account,
        settlement.outcome.state,
        keepable(settlement.outcome.reason),
        now,
      )
  }
  await finish(tx, endings, now)
  if (waits.length > 0)
    await tx.query(
      `update deliveries d set state = 'waiting', tries = r.tries, next_try_at = r.next_try_at, lease_until = 0,
         lease_owner = '', attempts = r.attempts, doubt = r.doubt
       from json_to_recordset($1::json) as r(post text, generation int, tries int, next_try_at bigint, attempts text,
         doubt boolean)
       where d.post = r.post and d.generation = r.generation`,
      [written(waits.map(({ payload: _payload, ...row }) => row))],
    )
  return setbacks
}

/** Why a post was refused, with the part of it that broke the rule, where the sentence does not name that itself. */
function withField({ reason, field }: Extract<Outcome, { kind: 'refused' }>): string {
  return !field || reason.toLowerCase().includes(field.toLowerCase()) ? reason : `${reason} Field: ${field}.`
}

/** What becomes of a delivery: it ends, or it waits again; and what a person should hear. */
function whatCame(
  row: Row,
  { claim, attempts, outcome }: Settlement,
  now: number,
): { setback: Setback | null } & ({ ending: Ending } | { ending?: undefined; wait: Row }) {
  const tried: Row = { ...row, attempts: JSON.stringify(attempts) }
  const end = (state: Ending['state'], reason: string): Ending => ({ row: tried, state, reason })
  // Only a try that was answered says for sure that it did not arrive; what was in doubt before stays so.
  const doubt = claim.doubt || (attempts.length > claim.attempts.length && attempts.at(-1)?.answer === null)
  switch (outcome.kind) {
    case 'published': {
      const { remoteId, publicUrl, visibility } = outcome
      const ending = { ...end('published', 'The network took it.'), publicUrl, visibility }
      return { setback: null, ending: { ...ending, published: { at: now, remoteId } } }
    }
    case 'refused': {
      const reason = withField(outcome)
      return { setback: { what: 'failed', reason }, ending: end('failed', reason) }
    }
    case 'unsure':
      return { setback: { what: 'failed', reason: outcome.reason }, ending: end('unsure', outcome.reason) }
    case 'by hand':
      return { setback: { what: 'by hand', reason: outcome.reason }, ending: end('by hand', outcome.reason) }
    case 'unlinked':
      return { setback: { what: 'unlinked', reason: outcome.reason }, wait: { ...tried, tries: 0, doubt } }
    case 'later': {
      const next = now + outcome.afterMilliseconds
      if (claim.tries < TRIES || next <= claim.dueAt + LATEST)
        return { setback: null, wait: { ...tried, next_try_at: next, doubt } }
      const reason = `${outcome.reason} It was tried ${claim.tries} times.`
      // What may be public is not called failed.
      if (!doubt) return { setback: { what: 'failed', reason }, ending: end('failed', reason) }
      const unsure = `${reason} The network may have it all the same: look, and say whether it is out.`
      return { setback: { what: 'failed', reason: unsure }, ending: end('unsure', unsure) }
    }
  }
}

/**
 * Claims the oldest open delivery of each account for a server, where it is due, nobody holds one of the account's, the gap
 * is over and the rates allow it; the accounts are locked. One that waits for its next try is not overtaken. Those more than
 * two hours late are put aside with a receipt. A crashed server's delivery is claimed again once its lease is over; its
 * idempotency key makes that safe.
 */
export async function claimEach(
  tx: Queryable,
  accounts: readonly string[],
  { owner, now, realNow }: At,
): Promise<Claim[]> {
  if (accounts.length === 0) return []
  const late = await tx.query<Row>(
    `select d.* from json_array_elements_text($1::json) a(account) join accounts l on l.account = a.account
     join deliveries d on d.account = l.account
     where l.state = 'linked' and d.state in ('waiting', 'sending') and d.tries = 0 and d.due_at < $3 and not ${BUSY}
     order by d.due_at, d.post`,
    [written(accounts), realNow, now - LATEST],
  )
  await finish(
    tx,
    late.map((row) => ({ row, state: 'late', reason: TOO_LATE })),
    now,
  )
  const heads = await tx.query<Row & { last: string | number | null; network: string }>(
    `select h.*, l.network,
       (select p.published_at from deliveries p where p.account = l.account and p.published_at is not null
        order by p.published_at desc limit 1) as last
     from json_array_elements_text($1::json) a(account) join accounts l on l.account = a.account ${HEAD}
     where l.state = 'linked' and h.next_try_at <= $3 and not ${BUSY}
     order by h.due_at, h.post`,
    [written(accounts), realNow, now],
  )
  const free = (row: (typeof heads)[number]): number =>
    row.state === 'sending' || row.last === null ? 0 : Number(row.last) + row.gap_minutes * MINUTE
  const early = heads.filter((row) => free(row) > now)
  if (early.length > 0)
    await tx.query(
      `update deliveries d set next_try_at = r.at
       from json_to_recordset($1::json) as r(post text, generation int, at bigint)
       where d.post = r.post and d.generation = r.generation`,
      [written(early.map((row) => ({ post: row.post, generation: row.generation, at: free(row) })))],
    )
  const ready = heads.filter((row) => free(row) <= now)
  const allowed = await take(
    tx,
    ready.map((row) => ({ row, keys: ratesOf(row) })),
    realNow,
  )
  if (allowed.length === 0) return []
  await tx.query(
    `update deliveries d set state = 'sending', tries = d.tries + 1,
       lease_until = $2, lease_owner = $3
     from json_to_recordset($1::json) as r(post text, generation int)
     where d.post = r.post and d.generation = r.generation`,
    [written(allowed.map(({ post, generation }) => ({ post, generation }))), realNow + LEASE, owner],
  )
  return allowed.map((row) =>
    claimOf({ ...row, doubt: row.doubt || row.state === 'sending', tries: row.tries + 1 }),
  )
}

const TOO_LATE =
  'It was due more than two hours ago and was not sent, so that nothing comes out at a wrong time. Send it now, place it anew, or set it aside.'

/** The buckets that a delivery takes from: its account's and its network's. */
function ratesOf({ account, network: id }: { account: string; network: string }) {
  const { rates } = network(id)
  return [
    { key: `account ${account}`, ...rates.account },
    { key: `network ${id}`, ...rates.network },
  ]
}
