import { strFromU8, strToU8, unzipSync, zipSync, type Zippable } from 'fflate'
import { z } from 'zod'
import { Fault, Id, Instant, TABLE_NAMES, TABLES, textId, type Rows, type TableName } from '../model'
import { SCHEMA, upgradeRows, type RawRows } from './upgrade'

const Header = z.object({
  format: z.literal('dripline-bundle'),
  schema: z.int().min(1),
  workspace: Id,
  madeAt: Instant,
})

/** A whole workspace: its rows, and the bytes of its media by their hash. No secrets are in it. */
export interface Bundle {
  workspace: string
  madeAt: string
  rows: Rows
  media: Map<string, Uint8Array>
}

/**
 * Writes a bundle: a zip of one JSON Lines file a table and the media, with a header. The same
 * workspace at the same moment gives the same bytes.
 */
export function writeBundle(bundle: Bundle): Uint8Array<ArrayBuffer> {
  const files: Zippable = {
    'dripline.json': strToU8(
      `${JSON.stringify({ format: 'dripline-bundle', schema: SCHEMA, workspace: bundle.workspace, madeAt: bundle.madeAt })}\n`,
    ),
  }
  for (const table of TABLE_NAMES) {
    const rows = [...bundle.rows[table]].sort((a, b) => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0))
    files[`${table}.jsonl`] = strToU8(rows.map((r) => `${JSON.stringify(r)}\n`).join(''))
  }
  for (const [hash, bytes] of [...bundle.media].sort()) files[`media/${hash}`] = [bytes, { level: 0 }]
  return new Uint8Array(zipSync(files, { mtime: Date.parse('2020-01-01T00:00:00Z') }))
}

/**
 * Reads and checks a bundle whole: header, every row of every table, the references between them,
 * and that no media is missing. Throws `bad-bundle` naming the first bad file and line and how
 * many more there are; nothing is returned unless everything is right.
 */
export function readBundle(bytes: Uint8Array): Bundle {
  let files: Record<string, Uint8Array>
  try {
    files = unzipSync(bytes)
  } catch {
    throw new Fault(
      'bad-bundle',
      'This is not a bundle, or it was cut off: it does not open as a zip file. Choose another file; nothing was changed.',
    )
  }
  const header = parseHeader(files['dripline.json'])
  if (header.schema > SCHEMA)
    throw new Fault(
      'bad-bundle',
      `This bundle was made by a newer Dripline (schema ${header.schema}; this one reads up to ${SCHEMA}). Update first; nothing was changed.`,
      'dripline.json',
    )
  const faults: { where: string; message: string }[] = []
  const raw: RawRows = {}
  for (const [name, file] of Object.entries(files)) {
    const table = /^(\w+)\.jsonl$/.exec(name)?.[1]
    if (table) raw[table] = readLines(table, file, faults)
  }
  const upgraded = upgradeRows(raw, header.schema)
  const rows = Object.fromEntries(
    TABLE_NAMES.map((t) => [t, checkTable(t, upgraded[t], faults)]),
  ) as unknown as Rows
  checkReferences(rows, faults)
  const media = new Map<string, Uint8Array>()
  for (const row of rows.media) {
    const content = files[`media/${row.id}`]
    if (content) media.set(row.id, content)
    else faults.push({ where: `media/${row.id.slice(0, 8)}…`, message: 'the picture is missing' })
  }
  const first = faults[0]
  if (first)
    throw new Fault(
      'bad-bundle',
      `The bundle is damaged in ${faults.length === 1 ? 'one place' : `${faults.length} places`}: ${first.message}. Take an older bundle; nothing was changed.`,
      first.where,
    )
  return { workspace: header.workspace, madeAt: header.madeAt, rows, media }
}

function parseHeader(file: Uint8Array | undefined): z.infer<typeof Header> {
  try {
    return Header.parse(JSON.parse(strFromU8(file ?? new Uint8Array())))
  } catch {
    throw new Fault(
      'bad-bundle',
      'This zip file is not a Dripline bundle: its header is missing or broken. Nothing was changed.',
      'dripline.json',
    )
  }
}

/** The lines of a table's file; a line's number travels with its row, for the fault that names it. */
function readLines(
  table: string,
  file: Uint8Array,
  faults: { where: string; message: string }[],
): RawRows[string] {
  const rows: RawRows[string] = []
  strFromU8(file)
    .split('\n')
    .forEach((line, index) => {
      if (!line) return
      try {
        const row = JSON.parse(line) as RawRows[string][number]
        lineOf.set(row, index + 1)
        rows.push(row)
      } catch {
        const where = `${table}.jsonl, line ${index + 1}`
        faults.push({ where, message: `${where} is not JSON` })
      }
    })
  return rows
}

const lineOf = new WeakMap<object, number>()

function checkTable(
  table: TableName,
  rows: RawRows[string] | undefined,
  faults: { where: string; message: string }[],
): unknown[] {
  if (!rows) {
    faults.push({ where: `${table}.jsonl`, message: `the file ${table}.jsonl is missing` })
    return []
  }
  return rows.flatMap((row, index) => {
    const result = TABLES[table].safeParse(row)
    if (result.success) return [result.data]
    const where = `${table}.jsonl, line ${lineOf.get(row) ?? index + 1}`
    faults.push({
      where,
      message: `${where}: ${result.error.issues[0]?.path.join('.')} ${result.error.issues[0]?.message}`,
    })
    return []
  })
}

function checkReferences(rows: Rows, faults: { where: string; message: string }[]): void {
  const ids = (table: TableName): Set<string> => new Set(rows[table].map((r) => r.id))
  const known = {
    brands: ids('brands'),
    accounts: ids('accounts'),
    pieces: ids('pieces'),
    drips: ids('drips'),
  }
  const want = (table: TableName, id: string, target: keyof typeof known, key: string): void => {
    if (!known[target].has(key))
      faults.push({
        where: `${table}.jsonl`,
        message: `${table} ${id} points at ${target} ${key}, which is not in it`,
      })
  }
  if (rows.workspace.length !== 1) faults.push({ where: 'workspace.jsonl', message: 'it holds no workspace' })
  for (const table of ['accounts', 'sources', 'pieces', 'pipelines', 'drips', 'posts'] as const) {
    const seen = new Set<string>()
    for (const row of rows[table]) {
      if (seen.has(row.id))
        faults.push({ where: `${table}.jsonl`, message: `${table} ${row.id} stands in it twice` })
      seen.add(row.id)
      want(table, row.id, 'brands', row.brand)
    }
  }
  for (const text of rows.texts) want('texts', text.id, 'pieces', text.piece)
  const words = ids('texts')
  for (const piece of rows.pieces)
    if (!words.has(textId(piece.id, piece.revision)))
      faults.push({ where: 'texts.jsonl', message: `the words of piece ${piece.id} are not in it` })
  for (const post of rows.posts) {
    want('posts', post.id, 'accounts', post.account)
    if (post.piece) want('posts', post.id, 'pieces', post.piece)
    if (post.drip) want('posts', post.id, 'drips', post.drip)
  }
}

/**
 * A bundle's rows as they come into a workspace. What was handed over is approved again: the
 * server, asked anew, says what went out since. In another workspace than the one it was made in,
 * posts that were handed over or approved come back held, so that nothing is published twice.
 */
export function adoptRows(bundle: Bundle, into: string, now: string): Rows {
  const foreign = bundle.workspace !== into
  const workspace = bundle.rows.workspace.map((w) => ({ ...w, id: into, receiptCursor: 0 }))
  if (!foreign)
    return {
      ...bundle.rows,
      workspace,
      posts: bundle.rows.posts.map((p) =>
        p.state === 'handed over' ? { ...p, state: 'approved' as const } : p,
      ),
    }
  const held = {
    reason:
      'It came with a bundle from another workspace. Lift the hold once you know it did not go out there.',
    since: now,
  }
  return {
    ...bundle.rows,
    workspace,
    // The other workspace goes on making their posts, and they are the same.
    recurrences: bundle.rows.recurrences.map((r) => ({ ...r, held })),
    posts: bundle.rows.posts.map((p) =>
      p.state === 'handed over' || p.state === 'approved' ? { ...p, state: 'approved' as const, held } : p,
    ),
  }
}
