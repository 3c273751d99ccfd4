import { nanoid } from 'nanoid'
import { decodeText, looksLikeOpml, readOpml, type ListedFeed } from '../../core/feeds'
import {
  guessPostColumns,
  guessReading,
  mergeRows,
  parseSheet,
  readPostSheet,
  shortTextsOf,
  type ShortTexts,
  readOccasionCalendar,
  readOccasionSheet,
  readQuietDays,
  type SheetOccasion,
  writeOccasionSheet,
  readSheet,
  adoptRows,
  readBundle,
  writeBundle,
  writePacket,
  type Bundle,
  type Packet,
  type PostField,
  type RowFault,
  type SheetMerge,
  type SheetTable,
  writeArchive,
} from '../../core/formats'
import { Fault, type PieceContent, type Rows, type SheetReading, type SheetRow } from '../../core/model'
import { type OccasionGiven } from '../../core/occasions'
import { read, readOwn, titleOf } from '../../core/reading'

/** What a dropped file is, with what is in it. */
type Opened =
  | { kind: 'writing' | 'transcript'; title: string; chapters: PieceContent[] }
  | { kind: 'sheet'; title: string; table: SheetTable; reading: SheetReading }
  | { kind: 'feeds'; title: string; feeds: ListedFeed[] }

/** What the page asks of the heavy worker about files that come in and go out. */
export const fileTasks = {
  /** Opens a file that was dropped or pasted, whatever it is. */
  openFile: async (name: string, bytes: Uint8Array): Promise<Opened> => {
    const title = titleOf(name)
    if (/\.(?:csv|tsv|tab)$/i.test(name)) {
      const table = parseSheet(bytes)
      return { kind: 'sheet', title, table, reading: guessReading(table) }
    }
    const text = decodeText(bytes.slice(0, 4000))
    if (looksLikeOpml(text)) return { kind: 'feeds', title, feeds: readOpml(decodeText(bytes)) }
    return readOwn(bytes, name)
  },

  /** A document as one piece, however many chapters it has. Throws (`bad-request`) where it is a feed. */
  readWhole: async (name: string, bytes: Uint8Array): Promise<PieceContent> => {
    const found = await read(bytes, { name })
    if (found.kind === 'piece') return found.piece
    throw new Fault('bad-request', 'This is a feed. Add it by its address, so that it is visited again.')
  },

  writeArchive: (out: Parameters<typeof writeArchive>[0]): string => writeArchive(out),

  mergeSheet: (
    table: SheetTable,
    reading: SheetReading,
    standing: SheetRow[],
  ): SheetMerge & { faults: RowFault[] } => {
    const { rows, faults } = readSheet(table, reading)
    return { ...mergeRows(standing, rows, { brand: 'brand', source: 'source', newId: nanoid }), faults }
  },

  shortTextsOf: (name: string, bytes: Uint8Array): ShortTexts => shortTextsOf(name, bytes),

  openPostSheet: (bytes: Uint8Array): { table: SheetTable; columns: Partial<Record<PostField, string>> } => {
    const table = parseSheet(bytes)
    return { table, columns: guessPostColumns(table) }
  },

  readPostSheet: (...asked: Parameters<typeof readPostSheet>): ReturnType<typeof readPostSheet> =>
    readPostSheet(...asked),

  writeBundle: (bundle: Bundle): Uint8Array<ArrayBuffer> => writeBundle(bundle),

  /** The rows of a bundle as a workspace takes them in, its own where `into` is null, and its pictures. */
  openBundle: (
    bytes: Uint8Array,
    into: string | null,
    now: string,
  ): { workspace: string; rows: Rows; media: Bundle['media'] } => {
    const bundle = readBundle(bytes)
    const workspace = into ?? bundle.workspace
    return { workspace, rows: adoptRows(bundle, workspace, now), media: bundle.media }
  },

  writePacket: (packet: Packet): string => writePacket(packet),

  /** Occasions out of a calendar or a sheet, by the file's name and what it holds; and what is left of it, with the reason. */
  readOccasions: (
    name: string,
    bytes: Uint8Array,
    of: { zone: string; today: string },
  ): { occasions: (OccasionGiven | SheetOccasion)[]; left: string[] } => {
    const text = decodeText(bytes)
    if (/\.ics$/i.test(name) || /^\s*BEGIN:VCALENDAR/i.test(text)) {
      const { occasions, left } = readOccasionCalendar(text, of.today)
      return { occasions, left: left.map((l) => `${l.name}: ${l.why}`) }
    }
    const { occasions, faults } = readOccasionSheet(bytes, of)
    return { occasions, left: faults.map((f) => `Line ${f.line}: ${f.reason}`) }
  },

  writeOccasionSheet: (...asked: Parameters<typeof writeOccasionSheet>): string =>
    writeOccasionSheet(...asked),

  readQuietDays: (text: string, today: string): ReturnType<typeof readQuietDays> =>
    readQuietDays(text, today),
}
