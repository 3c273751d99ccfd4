import type { SheetRow } from '../model'

/** The row that is taken next: ready, not taken, without trouble, the oldest first. */
export function nextRow(rows: readonly SheetRow[]): SheetRow | null {
  return (
    rows
      .filter((r) => r.ready && r.piece === null && r.trouble === null)
      .sort((a, b) => a.place - b.place)[0] ?? null
  )
}
