import type { Queryable } from './database'
import { written } from './deliveries'

/** A bucket that holds so many tokens and gets so many a minute. */
export interface Bucket {
  key: string
  burst: number
  perMinute: number
}

/**
 * Lets through what its buckets have a token for, in order, and takes the tokens; the rest waits. The buckets lie in the
 * database, so all servers keep one rate together. (The token bucket of RFC 2697's family: tokens come evenly up to the
 * burst.) Times are real milliseconds.
 */
export async function take<T>(
  tx: Queryable,
  asks: readonly { row: T; keys: readonly Bucket[] }[],
  realNow: number,
): Promise<T[]> {
  if (asks.length === 0) return []
  const buckets = new Map(asks.flatMap((ask) => ask.keys.map((bucket) => [bucket.key, bucket])))
  const kept = await tx.query<{ key: string; tokens: number; at: string | number }>(
    `select r.* from json_array_elements_text($1::json) k(key) join rates r on r.key = k.key order by r.key for update of r`,
    [written([...buckets.keys()])],
  )
  const before = new Map(kept.map((row) => [row.key, row]))
  const tokens = new Map(
    [...buckets].map(([key, bucket]) => {
      const row = before.get(key)
      const since = row ? Math.max(0, realNow - Number(row.at)) : Infinity
      return [key, Math.min(bucket.burst, (row?.tokens ?? 0) + (since * bucket.perMinute) / 60_000)] as const
    }),
  )
  const through: T[] = []
  for (const { row, keys } of asks) {
    if (keys.some(({ key }) => (tokens.get(key) ?? 0) < 1)) continue
    for (const { key } of keys) tokens.set(key, (tokens.get(key) ?? 0) - 1)
    through.push(row)
  }
  await tx.query(
    `insert into rates (key, tokens, at)
     select r.key, r.tokens, $2 from json_to_recordset($1::json) as r(key text, tokens double precision)
     on conflict (key) do update set tokens = excluded.tokens, at = excluded.at`,
    [written([...tokens].map(([key, left]) => ({ key, tokens: left }))), realNow],
  )
  return through
}
