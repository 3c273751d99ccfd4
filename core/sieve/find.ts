import type { Double, Piece } from '../model'
import { compare, type Told } from './doubles'

/** A new piece with what is told in it. */
type Fresh = Pick<Piece, 'id' | 'address' | 'publishedAt' | 'takenAt'> & Told

/**
 * Which new pieces are doubles, and of what: first by address, in whatever clothes it came, then
 * by what their texts hold. The older of two new ones stays the first. `near` are the pieces that
 * came up for each (Doubles.near), `told` gives the words of any of them.
 */
export function findDoubles(
  fresh: readonly Fresh[],
  standing: readonly Pick<Piece, 'id' | 'address'>[],
  near: ReadonlyMap<string, readonly string[]>,
  told: (id: string) => Told | undefined,
): Map<string, Double> {
  const found = new Map<string, Double>()
  const time = (p: Fresh): string => p.publishedAt ?? p.takenAt
  const known = [...standing]
  for (const piece of [...fresh].sort((a, b) => (time(a) < time(b) ? -1 : time(a) > time(b) ? 1 : 0))) {
    const same = known.find((p) => p.address !== null && p.address === piece.address)
    if (same) found.set(piece.id, { of: same.id, likeness: 1, why: 'the same address' })
    else {
      const ids = new Set(known.map((p) => p.id))
      const best = (near.get(piece.id) ?? [])
        .flatMap((id) => {
          const other = ids.has(id) ? told(id) : undefined
          const alike = other && compare(piece, other)
          return alike ? [{ of: id, likeness: alike.likeness, why: alike.why }] : []
        })
        .sort((a, b) => b.likeness - a.likeness)[0]
      if (best) found.set(piece.id, best)
    }
    known.push(piece)
  }
  return found
}
