/**
 * Names as a sentence has them: the last one after a word, and of more than so many the first ones with the number of
 * the others. Empty for none.
 *
 * @example inWords(['bowl', 'plate', 'jug'], 'or') // "bowl, plate or jug"
 * @example inWords(['bowl', 'plate', 'jug'], 'and', 2) // "bowl, plate and 1 more"
 */
export function inWords(names: readonly string[], by: 'and' | 'or' = 'and', most = Infinity): string {
  if (names.length > most) return `${names.slice(0, most).join(', ')} ${by} ${names.length - most} more`
  const last = names[names.length - 1] ?? ''
  return names.length < 2 ? last : `${names.slice(0, -1).join(', ')} ${by} ${last}`
}
