import type { Recipe } from '../model'

/** What each field of a recipe is called where two recipes differ. */
const WORDS: Readonly<Record<string, string>> = {
  'takeIn.sources': 'sources',
  'takeIn.groups': 'sources',
  'takeIn.sieve': 'sieve',
  'takeIn.since': 'backlog',
  'takeIn.aRun': 'pieces a run',
  'takeIn.aWeek': 'pieces a week',
  'takeIn.changed': 'changed pieces',
  'make.passages': 'passages',
  'make.angles': 'angles',
  'make.briefs': 'briefs',
  'make.pictures': 'pictures',
  'make.after': 'closing line',
  'limits.from': 'first day',
  'limits.to': 'last day',
  'limits.aDay': 'posts a day',
  'limits.aWeek': 'posts a week',
  'limits.ahead': 'days ahead',
  'limits.pauseWhenDown': 'accounts that are down',
  gate: 'gate',
  priority: 'priority',
}

/**
 * In what two recipes differ, each thing once, in the order in which the bench has them; empty where they are the same.
 *
 * @example differs(before, { ...before, gate: 'nothing' }) // ['gate']
 */
export function differs(before: Recipe, after: Recipe): string[] {
  const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b)
  const parts = (['takeIn', 'make'] as const).flatMap((part) =>
    fieldsOf(part, before[part], after[part], same),
  )
  return [
    ...new Set([
      ...parts,
      ...rowsOf(before, after, same),
      ...(same(before.gate, after.gate) ? [] : ['gate']),
      ...fieldsOf('limits', before.limits, after.limits, same),
      ...(same(before.follows, after.follows) ? [] : ['what follows']),
      ...(same(before.priority, after.priority) ? [] : ['priority']),
    ]),
  ]
}

function fieldsOf(part: string, a: object, b: object, same: (a: unknown, b: unknown) => boolean): string[] {
  const [before, after] = [a as Record<string, unknown>, b as Record<string, unknown>]
  return Object.keys({ ...before, ...after })
    .filter((key) => !same(before[key], after[key]))
    .map((key) => WORDS[`${part}.${key}`] ?? key)
}

function rowsOf(before: Recipe, after: Recipe, same: (a: unknown, b: unknown) => boolean): string[] {
  const was = new Map(before.release.map((r) => [r.id, r]))
  const is = new Map(after.release.map((r) => [r.id, r]))
  const added = after.release.filter((r) => !was.has(r.id)).length
  const gone = before.release.filter((r) => !is.has(r.id)).length
  const changed = after.release.flatMap((r, i) => {
    const old = was.get(r.id)
    return old && !same(old, r) ? [`row ${i + 1}`] : []
  })
  const order = (rows: Recipe['release'], in_: ReadonlyMap<string, unknown>): string[] =>
    rows.filter((r) => in_.has(r.id)).map((r) => r.id)
  return [
    ...changed,
    ...(added ? [`${added} ${added === 1 ? 'row' : 'rows'} more`] : []),
    ...(gone ? [`${gone} ${gone === 1 ? 'row' : 'rows'} fewer`] : []),
    ...(same(order(before.release, is), order(after.release, was)) ? [] : ['the order of rows']),
  ]
}
