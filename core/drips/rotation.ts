/**
 * In which order passages are offered to an account at a beat. They rotate as in a Latin square: at beat k
 * account j takes passage (k + j) mod n first, so that no beat carries a passage twice and each account gets
 * each passage once; the others follow in turn, the best of those beyond the beats last.
 */
export function turnsOf<T>(
  passages: readonly T[],
  accounts: number,
  beats: number,
): (beat: number, column: number) => T[] {
  const used = passages.slice(0, beats)
  const spare = passages.slice(beats)
  const modulus = Math.max(used.length, Math.min(accounts, beats), 1)
  return (beat, column) => [
    ...Array.from({ length: modulus }, (_, i) => used[(beat + column + i) % modulus]).filter(
      (p): p is T => p !== undefined,
    ),
    ...spare,
  ]
}
