import { nanoid } from 'nanoid'
import type { RowFault, SheetMerge, SheetTable } from '../../../core/formats'
import {
  Fault,
  type Passage,
  type Piece,
  type PieceContent,
  type SheetReading,
  type Source,
  type WholePiece,
} from '../../../core/model'
import { heavy } from '../../workers'
import { nowIso } from '../clock'
import { all, commit, must, patch, put, wholePiece, type Actor } from '../store'
import { fetchText, newSource } from './sources'
import { keepNew, readItem, revise } from './visit'

/** What a dropped file turned out to be, before anything is kept. */
export type OpenedFile =
  | { kind: 'writing'; title: string; chapters: PieceContent[] }
  | { kind: 'transcript'; title: string; chapters: PieceContent[] }
  | { kind: 'sheet'; title: string; table: SheetTable; reading: SheetReading }
  | { kind: 'feeds'; title: string; feeds: { url: string; title: string; group: string | null }[] }

/** Opens a file of any kind that intake knows; throws with a sentence where it is none. */
export async function openFile(name: string, bytes: Uint8Array): Promise<OpenedFile> {
  if (bytes.length > 25 * 1024 * 1024)
    throw new Fault('too-large', `${name} is larger than 25 MB. Split it, or save it without its pictures.`)
  return heavy().openFile(name, bytes)
}

/**
 * Takes chapters of a manuscript (or a talk's transcript) in as pieces of a source under its
 * title, as the machine or as a part of an action. Taken in again, chapters of the same name are revised, not doubled. Gives the
 * pieces' ids.
 */
export async function takeWriting(
  brand: string,
  title: string,
  chapters: readonly PieceContent[],
  kind: 'manuscript' | 'video',
  actor: Actor = 'machine',
): Promise<string[]> {
  if (chapters.length === 0) throw new Fault('bad-request', 'Choose at least one chapter to take in.')
  const source = await writingSource(brand, title, actor)
  const standing = new Map((await all('pieces', 'source', source.id)).map((p) => [p.itemId, p]))
  const ids: string[] = []
  const fresh: WholePiece[] = []
  for (const chapter of chapters) {
    const itemId = `${title} › ${chapter.title}`
    const before = standing.get(itemId)
    const whole = await heavy().takeWriting(
      chapter,
      { id: before?.id ?? nanoid(), brand, source: source.id, now: nowIso() },
      itemId,
      kind,
    )
    ids.push(whole.id)
    if (before) await reviseWhereChanged(before, whole, actor)
    else fresh.push(whole)
  }
  await keepNew(source, fresh, actor)
  return ids
}

/** The source of writing under a title; added where there is none yet, as an action of its own or as a part of one. */
async function writingSource(brand: string, title: string, actor: Actor = 'machine'): Promise<Source> {
  const known = (await all('sources', 'brand', brand)).find((s) => s.kind === 'writing' && s.title === title)
  if (known) return known
  const source = newSource(brand, { kind: 'writing', title })
  await commit(actor === 'machine' ? { brand, label: `Add the writing ${title}` } : actor, [
    put('sources', source),
  ])
  return source
}

async function reviseWhereChanged(before: Piece, read: WholePiece, actor?: Actor): Promise<void> {
  if (before.fingerprint !== read.fingerprint) await revise(await wholePiece(before.id), read, [], actor)
}

/** The source under which pages stand that were taken in alone. */
const SINGLE = 'Single pages'

/**
 * Takes one page in alone: an article, or a film with its transcript where the page names one.
 * Taken in again, the piece is revised where its words changed. Gives the piece's id.
 */
export async function takePage(brand: string, url: string): Promise<string> {
  const fetched = await fetchText(url, 'page')
  const page = { text: fetched.text, url: fetched.url }
  const item = await heavy().itemOfPage(page)
  const source = await writingSource(brand, SINGLE)
  const before = (await all('pieces', 'source', source.id)).find((p) => p.itemId === item.id)
  const whose = { id: before?.id ?? nanoid(), brand, source: source.id, now: nowIso() }
  const read = await readItem(item, whose, page)
  if (!before) await keepNew(source, [read])
  // Words that a person gave a film are not taken from it by its page.
  else if (before.video?.transcript !== 'dropped') await reviseWhereChanged(before, read)
  return read.id
}

/** A piece with its passages that is looked at and kept nowhere. */
export interface Borrowed {
  piece: WholePiece
  passages: Passage[]
}

/**
 * Reads what was pasted, the address of a page or the writing itself (plain, Markdown or HTML), as a piece of a brand;
 * nothing is kept. Refuses with a sentence where there are no words in it.
 */
export async function readPasted(brand: string, pasted: string): Promise<Borrowed> {
  const whose = { id: nanoid(), brand, source: 'pasted', now: nowIso() }
  const text = pasted.trim()
  if (text === '') throw new Fault('bad-request', 'Paste the address of a page, or the writing itself.')
  let read: WholePiece
  if (/^https?:\/\/\S+$/i.test(text)) {
    const fetched = await fetchText(text, 'page')
    const page = { text: fetched.text, url: fetched.url }
    read = await readItem(await heavy().itemOfPage(page), whose, page)
  } else {
    const html = /^<(?:!doctype|html|body|article|div|p|h\d)\b/i.test(text)
    const content = await heavy().readWhole(
      html ? 'Pasted writing.html' : 'Pasted writing.md',
      new TextEncoder().encode(text),
    )
    read = await heavy().takeWriting(content, whose, 'pasted', content.video ? 'video' : 'manuscript')
  }
  const [taken] = await heavy().finishPieces([read], [], nowIso())
  if (!taken || taken.piece.words === 0)
    throw new Fault('bad-request', 'No words were found in it, so there is nothing to make posts of.')
  return { piece: taken.piece, passages: taken.passages }
}

/** Gives a video its words from a file; passages are found anew. Throws where the file has no times. */
export async function giveTranscript(id: string, text: string): Promise<void> {
  const before = await wholePiece(id)
  await revise(before, await heavy().withTranscript(before, text))
  // Where there were no words before, nothing quotes them that could be made again.
  if (before.video?.transcript === null)
    await commit('machine', [patch('pieces', id, (p) => ({ ...p, changedAt: null }))])
}

/** What an import of a sheet would do, by a reading of its columns; nothing is kept. */
export async function trySheet(
  source: string | null,
  table: SheetTable,
  reading: SheetReading,
): Promise<SheetMerge & { faults: RowFault[] }> {
  const standing = source ? await all('sheetRows', 'source', source) : []
  return heavy().mergeSheet(table, reading, standing)
}

/** Imports a sheet: into a new source, or merged by address into one that is there. Gives the source's id. */
export async function importSheet(
  brand: string,
  source: string | null,
  title: string,
  table: SheetTable,
  reading: SheetReading,
): Promise<string> {
  const merge = await trySheet(source, table, reading)
  const rows = [...merge.added, ...merge.changed]
  if (rows.length === 0 && source === null)
    throw new Fault(
      'bad-file',
      'No row of this sheet has an address that can be followed. Choose the column of addresses.',
    )
  const into = source
    ? { ...(await must('sources', source)), sheet: reading }
    : newSource(brand, {
        kind: 'sheet',
        title,
        sheet: reading,
        // A row a day, unless it is set otherwise.
        visitEveryMinutes: 1440,
        nextVisitAt: nowIso(),
      })
  await commit({ brand, label: source ? `Import ${title} again` : `Import the sheet ${title}` }, [
    put('sources', into),
    ...rows.map((r) => put('sheetRows', { ...r, brand, source: into.id })),
  ])
  return into.id
}
