import { strToU8, zipSync } from 'fflate'
import type { RawRows } from '..'
import {
  aBrand,
  aDrip,
  aPipeline,
  aPost,
  aSource,
  aWholePiece,
  anAccount,
  aWorkspace,
} from '../../model/samples'

/*
 * A workspace as the first schema wrote it: pieces with their words, feeds alone, no sieve. Only
 * tests of what brings it up to today read this.
 */

function without(row: object, ...names: string[]): RawRows[string][number] {
  return Object.fromEntries(Object.entries(row).filter(([name]) => !names.includes(name))) as never
}

export function schema1(): RawRows {
  const piece = aWholePiece({ revision: 3, url: 'https://www.journal.example/seam/' })
  return {
    workspace: [aWorkspace()],
    brands: [aBrand()],
    accounts: [anAccount()],
    sources: [
      {
        ...without(aSource(), 'group', 'mostNew', 'backlog', 'passedOver', 'movedFrom', 'sheet'),
        lastVisit: { at: piece.takenAt, ok: true, message: 'All well.', newPieces: 0 },
      },
    ],
    pieces: [
      without(
        piece,
        ...['kind', 'address', 'itemPrint', 'changedAt', 'keeps', 'counts', 'place', 'fields', 'notes'],
        ...['double', 'unfolded', 'verdicts', 'letThrough', 'video', 'handedTo', 'through'],
      ),
    ],
    passages: [],
    pipelines: [
      {
        ...without(
          aPipeline(),
          'takeIn',
          'make',
          'release',
          'limits',
          'follows',
          'priority',
          'endedAt',
          'draft',
          'versions',
        ),
        sources: ['source'],
        since: '2026-11-24T10:00:00.000Z',
        accounts: ['account'],
        rhythm: { name: 'Echo', list: [0, 3] },
      },
    ],
    drips: [without(aDrip({ revision: 2 }), 'row', 'time')],
    posts: [{ ...without(aPost(), 'pieceRevision'), media: null }],
    receipts: [],
    changes: [],
    media: [],
  }
}

/** The same as a bundle. */
export function bundleOfSchema1(): Uint8Array {
  const lines = (rows: readonly object[]): Uint8Array =>
    strToU8(rows.map((r) => `${JSON.stringify(r)}\n`).join(''))
  const header = { format: 'dripline-bundle', schema: 1, workspace: 'ws', madeAt: '2026-11-24T10:00:00.000Z' }
  return zipSync({
    'dripline.json': strToU8(JSON.stringify(header)),
    ...Object.fromEntries(Object.entries(schema1()).map(([table, rows]) => [`${table}.jsonl`, lines(rows)])),
  })
}
