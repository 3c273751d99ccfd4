import { TABLE_NAMES, type Rows, type TableName } from '../model'

/** The rows of one brand of a workspace; the workspace's own record and the pictures that the brand uses come along. */
export function rowsOfBrand(rows: Rows, brand: string): Rows {
  const own = Object.fromEntries(
    TABLE_NAMES.map((table) => [table, rows[table].filter((row) => belongsTo(table, row, brand))]),
  ) as unknown as Rows
  const used = filesIn(own)
  return { ...own, workspace: rows.workspace, media: rows.media.filter((m) => used.has(m.id)) }
}

/** Whether a row is of a brand; the workspace's record and pictures are of none. */
export function belongsTo(table: TableName, row: object, brand: string): boolean {
  if (table === 'workspace' || table === 'media') return false
  return (row as Record<string, unknown>)[table === 'brands' ? 'id' : 'brand'] === brand
}

/** The hashes of what posts, recurring posts, pieces, the library and brands' looks name. */
export function filesIn(
  rows: Pick<Rows, 'posts' | 'recurrences' | 'pieces' | 'pictures' | 'brands'>,
): Set<string> {
  const text = JSON.stringify([
    rows.brands.map((b) => b.look),
    rows.posts.map((p) => p.media),
    rows.pictures.map((p) => p.url),
    rows.recurrences,
    rows.pieces.map((p) => p.images),
  ])
  return new Set(text.match(/\b[0-9a-f]{64}\b/g) ?? [])
}
