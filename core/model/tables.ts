import { z } from 'zod'
import { Account } from './account'
import { Brand } from './brand'
import { Change } from './change'
import { Drip } from './drip'
import { Following } from './following'
import { Passage } from './passage'
import { Piece, PieceText } from './piece'
import { LibraryPicture } from './picture'
import { Pipeline } from './pipeline'
import { Post } from './post'
import { Id } from './primitives'
import { Reading } from './reading'
import { Receipt } from './receipt'
import { Occasion } from './occasion'
import { Recurrence } from './recurrence'
import { Run } from './run'
import { SheetRow, Source } from './source'
import { WordList } from './sieve'
import { Workspace } from './workspace'

/** What is known of a picture's bytes; the bytes themselves lie beside it under the same hash. */
export const MediaInfo = z.object({
  /** SHA-256 of the bytes, in hexadecimal: its id. */
  id: z.string().regex(/^[0-9a-f]{64}$/),
  type: z.string(),
  /** In pixels; 0 of what is no picture. */
  width: z.int().min(0),
  height: z.int().min(0),
  bytes: z.int().positive(),
})
export type MediaInfo = z.infer<typeof MediaInfo>

/**
 * What doubles of a piece are found by: its MinHash signature and its sampled shingles, as
 * unsigned 32-bit numbers (core/sieve/doubles.ts).
 */
export const Sketch = z.object({
  id: Id,
  brand: Id,
  signature: z.array(z.number()),
  sample: z.array(z.number()),
})
export type Sketch = z.infer<typeof Sketch>

/** Every table of the workspace with its schema: one object store, one file of a bundle each. */
export const TABLES = {
  workspace: Workspace,
  brands: Brand,
  accounts: Account,
  sources: Source,
  sheetRows: SheetRow,
  wordLists: WordList,
  pieces: Piece,
  texts: PieceText,
  sketches: Sketch,
  passages: Passage,
  pipelines: Pipeline,
  runs: Run,
  drips: Drip,
  recurrences: Recurrence,
  occasions: Occasion,
  posts: Post,
  receipts: Receipt.extend({ brand: Id }),
  readings: Reading.extend({ brand: Id }),
  followings: Following.extend({ brand: Id }),
  changes: Change,
  media: MediaInfo,
  pictures: LibraryPicture,
} as const
export type TableName = keyof typeof TABLES
export type Row<T extends TableName> = z.infer<(typeof TABLES)[T]>
export const TABLE_NAMES = Object.keys(TABLES) as TableName[]

/** The rows of a whole workspace. */
export type Rows = { [T in TableName]: Row<T>[] }
