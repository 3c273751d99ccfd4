/** Whatever is kept as JSON. */
type Json = unknown

const isRecord = (x: Json): x is Record<string, Json> =>
  typeof x === 'object' && x !== null && !Array.isArray(x)

/** Whether two values hold the same, in whatever order their fields stand; an absent field is as `undefined`. */
export function sameContent(a: Json, b: Json): boolean {
  if (a === b) return true
  if (Array.isArray(a) && Array.isArray(b))
    return a.length === b.length && a.every((x, i) => sameContent(x, b[i]))
  if (!isRecord(a) || !isRecord(b)) return false
  return [...new Set([...Object.keys(a), ...Object.keys(b)])].every((key) => sameContent(a[key], b[key]))
}

/**
 * Puts what somebody made of what they saw into what is kept by now: what they changed is as they want it, and what was
 * changed meanwhile and not by them stays. So two changes made from one view of a record are both kept. It is a merge of
 * two versions with the one they come from (three-way merge; Khanna, Kunal and Pierce 2007), field by field; where both
 * changed the same value, it is as wanted.
 *
 * Items of a list are known by their `id`, `network` or `name`, else by what they are, records without a name by their place
 * while nothing was added or taken out. What was taken out is out; what was added, or moved, stands where it is wanted if
 * only items changed meanwhile, else behind. A record of another `kind` is another record, and is taken whole.
 */
export function rebased<T>(seen: T, wanted: T, kept: T): T {
  return merged(seen, wanted, kept) as T
}

function merged(seen: Json, wanted: Json, kept: Json): Json {
  if (sameContent(seen, wanted)) return kept
  if (Array.isArray(seen) && Array.isArray(wanted) && Array.isArray(kept))
    return mergedList(seen, wanted, kept)
  if (!isRecord(seen) || !isRecord(wanted) || !isRecord(kept)) return wanted
  if (!sameContent(seen['kind'], wanted['kind']) || !sameContent(seen['kind'], kept['kind'])) return wanted
  const fields = [...new Set([...Object.keys(kept), ...Object.keys(wanted)])].map((key) => [
    key,
    merged(seen[key], wanted[key], kept[key]),
  ])
  return Object.fromEntries(fields.filter(([, value]) => value !== undefined))
}

function mergedList(seen: readonly Json[], wanted: readonly Json[], kept: readonly Json[]): Json {
  const items = [...seen, ...wanted, ...kept]
  // Numbers stand for what they are by their places, such as the days of a rhythm.
  if (items.some((x) => typeof x === 'number')) return wanted
  const named = items.every((x) => nameOf(x) !== undefined)
  if (!named && seen.length === wanted.length && seen.length === kept.length && items.every(isRecord))
    return wanted.map((x, i) => merged(seen[i], x, kept[i]))
  const alike = named ? (a: Json, b: Json) => nameOf(a) === nameOf(b) : sameContent
  const has = (list: readonly Json[], x: Json): boolean => list.some((y) => alike(x, y))
  const its = (list: readonly Json[], x: Json): Json => list.find((y) => alike(x, y))
  const inPlace = kept.length === seen.length && kept.every((x, i) => alike(x, seen[i]))
  if (inPlace) return wanted.map((x) => (has(seen, x) ? merged(its(seen, x), x, its(kept, x)) : x))
  const stay = kept.filter((x) => !has(seen, x) || has(wanted, x))
  return [
    ...stay.map((x) => (has(seen, x) ? merged(its(seen, x), its(wanted, x), x) : x)),
    ...wanted.filter((x) => !has(seen, x) && !has(kept, x)),
  ]
}

/** What an item of a list is known by. */
function nameOf(x: Json): Json {
  return isRecord(x) ? (x['id'] ?? x['network'] ?? x['name']) : undefined
}
