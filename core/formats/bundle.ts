import { sha256 } from '@noble/hashes/sha2.js'
import { bytesToHex } from '@noble/hashes/utils.js'
import { strFromU8, strToU8, unzipSync, zipSync, type Zippable } from 'fflate'
import { z } from 'zod'
import { Fault, Id, Instant, next, TABLE_NAMES, TABLES, textId, type Rows, type TableName } from '../model'
import { SCHEMA, upgradeRows, type RawRows } from './upgrade'

/** What the manifest says of a file: its size in bytes, its SHA-256, and of a table how many rows it has. */
const Listed = z.object({ bytes: z.int().min(0), sha256: z.string(), rows: z.int().min(0).optional() })

const Header = z.object({
  format: z.literal('dripline-bundle'),
  schema: z.int().min(1),
  workspace: Id,
  madeAt: Instant,
  /** Every other file of the bundle; the first bundles had no such list. */
  files: z.record(z.string(), Listed).optional(),
  /** The SHA-256 of the header without this field. */
  seal: z.string().optional(),
})
type Header = z.infer<typeof Header>

const hashOf = (bytes: Uint8Array): string => bytesToHex(sha256(bytes))
const sealOf = ({ seal: _, ...header }: Header): string => hashOf(strToU8(JSON.stringify(header)))

/** What a bundle may come to unpacked, in bytes, and how much more than packed, above a size that harms nobody. */
const UNPACKED = { most: 4_000_000_000, ratio: 60, harmless: 30_000_000 }

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
  const contents: Record<string, { bytes: Uint8Array; rows?: number }> = {}
  for (const table of TABLE_NAMES) {
    const rows = [...bundle.rows[table]].sort((a, b) => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0))
    const lines = strToU8(rows.map((r) => `${JSON.stringify(r)}\n`).join(''))
    contents[`${table}.jsonl`] = { bytes: lines, rows: rows.length }
  }
  for (const [hash, bytes] of [...bundle.media].sort()) contents[`media/${hash}`] = { bytes }
  const header: Header = {
    format: 'dripline-bundle',
    schema: SCHEMA,
    workspace: bundle.workspace,
    madeAt: bundle.madeAt,
    files: Object.fromEntries(
      Object.entries(contents).map(([name, { bytes, rows }]) => [
        name,
        { bytes: bytes.length, sha256: hashOf(bytes), ...(rows === undefined ? {} : { rows }) },
      ]),
    ),
  }
  const sealed = strToU8(`${JSON.stringify({ ...header, seal: sealOf(header) })}\n`)
  return zipped({
    'dripline.json': sealed,
    ...Object.fromEntries(Object.entries(contents).map(([name, { bytes }]) => [name, bytes])),
  })
}

/** Files as one zip: pictures as they are, words packed. The same files give the same bytes. */
function zipped(files: Record<string, Uint8Array>): Uint8Array<ArrayBuffer> {
  const entries: Zippable = {}
  for (const [name, bytes] of Object.entries(files))
    entries[name] = name.startsWith('media/') ? [bytes, { level: 0 }] : bytes
  return new Uint8Array(zipSync(entries, { mtime: Date.parse('2020-01-01T00:00:00Z') }))
}

/**
 * Reads and checks a bundle whole: the manifest with sizes and hashes, every row of every table, the
 * references between them, and that each picture is the one it is named by. A copy of one of our own files in
 * which a single byte is another is refused as well. Throws `bad-bundle` naming the first bad file and line and
 * how many more there are; nothing is returned unless everything is right.
 */
export function readBundle(bytes: Uint8Array): Bundle {
  const files = unzipped(bytes)
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
    if (content && hashOf(content) === row.id) media.set(row.id, content)
    else if (content)
      faults.push({
        where: `media/${row.id.slice(0, 8)}…`,
        message: 'a picture is another than its name says',
      })
    else faults.push({ where: `media/${row.id.slice(0, 8)}…`, message: 'the picture is missing' })
  }
  // Last, since what it finds is also found above, by the line.
  checkManifest(header, files, bytes, faults)
  const first = faults[0]
  if (first)
    throw new Fault(
      'bad-bundle',
      `The bundle is damaged in ${faults.length === 1 ? 'one place' : `${faults.length} places`}: ${first.message}. Take an older bundle; nothing was changed.`,
      first.where,
    )
  return { workspace: header.workspace, madeAt: header.madeAt, rows, media }
}

/** The files of a zip, unless it would unpack to more than a bundle can be. */
function unzipped(bytes: Uint8Array): Record<string, Uint8Array> {
  let unpacked = 0
  let tooLarge = false
  try {
    return unzipSync(bytes, {
      filter: ({ originalSize }) => {
        unpacked += originalSize
        tooLarge ||=
          unpacked > UNPACKED.most ||
          (unpacked > UNPACKED.harmless && unpacked > bytes.length * UNPACKED.ratio)
        if (tooLarge) throw new Error('too large')
        return true
      },
    })
  } catch {
    throw new Fault(
      'bad-bundle',
      tooLarge
        ? 'This zip file would unpack to far more than a bundle can hold, so it was not opened. Choose another file; nothing was changed.'
        : 'This is not a bundle, or it was cut off: it does not open as a zip file. Choose another file; nothing was changed.',
    )
  }
}

/** Holds the files against the manifest, where there is one, and the container against how we write it. */
function checkManifest(
  header: Header,
  files: Record<string, Uint8Array>,
  bytes: Uint8Array,
  faults: { where: string; message: string }[],
): void {
  const say = (where: string, message: string): void => void faults.push({ where, message })
  if (!header.files && header.seal === undefined) return
  const whole = strFromU8(files['dripline.json'] ?? new Uint8Array()).endsWith('}\n')
  if (header.seal !== sealOf(header) || !whole) say('dripline.json', 'its header is not as it was written')
  const list = header.files ?? {}
  for (const [name, listed] of Object.entries(list)) {
    const file = files[name]
    const where = name.startsWith('media/') ? `${name.slice(0, 14)}…` : name
    if (!file) say(where, `the file ${where} is missing`)
    else if (file.length !== listed.bytes || hashOf(file) !== listed.sha256)
      say(where, `the file ${where} is not as it was written`)
    else if (listed.rows !== undefined && strFromU8(file).split('\n').length - 1 !== listed.rows)
      say(where, `${where} has not as many rows as the manifest says`)
  }
  for (const name of Object.keys(files))
    if (name !== 'dripline.json' && !list[name]) say(name, `the file ${name} is not in the manifest`)
  if (faults.length) return
  // Another program may have packed the same files anew; then the container has another length.
  const ours = zipped(files)
  if (ours.length === bytes.length && ours.some((byte, i) => byte !== bytes[i]))
    say('the zip file', 'its directory is not as it was written')
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
  for (const table of TABLE_NAMES) {
    const seen = new Set<string>()
    for (const { id } of rows[table]) {
      if (seen.has(id)) faults.push({ where: `${table}.jsonl`, message: `${table} ${id} stands in it twice` })
      seen.add(id)
    }
  }
  for (const table of ['accounts', 'sources', 'pieces', 'pipelines', 'drips', 'posts'] as const)
    for (const row of rows[table]) want(table, row.id, 'brands', row.brand)
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
  const workspace = bundle.rows.workspace.map((w) => ({
    ...w,
    id: into,
    receiptCursor: 0,
    readingCursor: 0,
    followingCursor: 0,
  }))
  if (!foreign)
    return {
      ...bundle.rows,
      workspace,
      posts: bundle.rows.posts.map((p) => next(p, 'recall')),
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
    posts: bundle.rows.posts.map((row) => {
      const post = next(row, 'recall')
      return post.state === 'approved' ? { ...post, held } : post
    }),
  }
}
