import Papa from 'papaparse'
import type { Asked, Followed, Group } from '../results'
import { guarded } from './planSheet'

/**
 * Groups of posts as a sheet (RFC 4180), a line a group, in the order in which they are given; `names` are what they are called.
 * Ratios have a bound below and above that hold 95 times in 100; what is not known is left empty.
 */
export function resultsSheet(
  groups: readonly Group[],
  names: readonly string[],
  { by, counted, age }: Pick<Asked, 'by' | 'counted' | 'age'>,
): string {
  const head = [
    by,
    'posts',
    `${counted} a post after ${age}`,
    'before',
    'posts before',
    'times',
    'low',
    'high',
  ]
  const rows = groups.map(({ posts, mean, before, times }, i) => [
    guarded(names[i] ?? ''),
    posts,
    rounded(mean),
    before ? rounded(before.mean) : '',
    before?.posts ?? '',
    ...(times ? [times.at, times.low, times.high].map(rounded) : ['', '', '']),
  ])
  return `${Papa.unparse([head, ...rows], { newline: '\r\n' })}\r\n`
}

/** A figure with six digits that count. */
const rounded = (value: number): number => Number(value.toPrecision(6))

/**
 * How many follow each account as a sheet (RFC 4180), a line an account and day of a span; `names` are what the accounts are called.
 * A day on which nobody said is left empty.
 */
export function followersSheet(followed: readonly Followed[], names: ReadonlyMap<string, string>): string {
  const rows = followed.flatMap(({ account, days }) =>
    days.map(({ day, followers }) => [guarded(names.get(account) ?? account), day, followers ?? '']),
  )
  return `${Papa.unparse([['account', 'day', 'followers'], ...rows], { newline: '\r\n' })}\r\n`
}
