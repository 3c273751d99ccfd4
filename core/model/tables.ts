import { z } from 'zod'
import { Account } from './account'
import { Brand } from './brand'
import { Change } from './change'
import { Drip } from './drip'
import { Passage } from './passage'
import { Piece } from './piece'
import { Pipeline } from './pipeline'
import { Post } from './post'
import { Id } from './primitives'
import { Receipt } from './receipt'
import { Source } from './source'
import { Workspace } from './workspace'

/** What is known of a picture's bytes; the bytes themselves lie beside it under the same hash. */
export const MediaInfo = z.object({
  /** SHA-256 of the bytes, in hexadecimal: its id. */
  id: z.string().regex(/^[0-9a-f]{64}$/),
  type: z.string(),
  width: z.int().positive(),
  height: z.int().positive(),
  bytes: z.int().positive(),
})
export type MediaInfo = z.infer<typeof MediaInfo>

/** Every table of the workspace with its schema: one object store, one file of a bundle each. */
export const TABLES = {
  workspace: Workspace,
  brands: Brand,
  accounts: Account,
  sources: Source,
  pieces: Piece,
  passages: Passage,
  pipelines: Pipeline,
  drips: Drip,
  posts: Post,
  receipts: Receipt.extend({ brand: Id }),
  changes: Change,
  media: MediaInfo,
} as const
export type TableName = keyof typeof TABLES
export type Row<T extends TableName> = z.infer<(typeof TABLES)[T]>
export const TABLE_NAMES = Object.keys(TABLES) as TableName[]

/** The rows of a whole workspace. */
export type Rows = { [T in TableName]: Row<T>[] }
