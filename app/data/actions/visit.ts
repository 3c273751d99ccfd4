import { nanoid } from 'nanoid'
import type { FeedItem } from '../../../core/feeds'
import type { Document, Owner, TakenPiece } from '../../../core/pipeline'
import {
  asFault,
  Fault,
  joinPiece,
  textId,
  type Counts,
  type FetchAnswer,
  type Piece,
  type PieceContent,
  type Source,
  type WholePiece,
} from '../../../core/model'
import { nextRow } from '../../../core/formats'
import { heavy } from '../../workers'
import { post } from '../api'
import { nowIso } from '../clock'
import { all, commit, must, one, patch, put, putPiece, wholePiece, type Actor } from '../store'
import { withItsFilm } from './films'
import { fetchText, later, readAddress } from './sources'
import { forgetSnapshots, onlyIn, whileClosed } from './whileClosed'

type Show = (done: number, all: number) => void

/** How many other pieces of a source what repeats is looked for in. */
const SIBLINGS = 12
/** Pieces so young that their counts still move. */
const COUNTED_DAYS = 45
const DAY = 86_400_000

/**
 * Visits a source: fetches it, takes in what is new with its passages, sees what changed, and
 * writes down how it went in plain words. A fault is kept as the source's health and makes later
 * visits slower; what was taken before stays. Gives the number of new pieces.
 */
export async function visitSource(id: string, show: Show = () => undefined): Promise<number> {
  // One visit at a time, whoever asks: a person, or the runner in another tab.
  return navigator.locks.request(`dripline-visit-${id}`, async () => {
    const source = await must('sources', id)
    try {
      if (source.kind === 'sheet') return await visitSheet(source)
      if (source.kind === 'feed') return await visitFeed(source, show)
      return 0
    } catch (error) {
      const fault = asFault(error)
      await finish(source, { ok: false, message: fault.message, wait: waitOf(error), gone: goneOf(error) })
      return 0
    }
  })
}

/** A refusal with what the site asks for. */
class Refused extends Fault {
  readonly trouble: NonNullable<FetchAnswer['trouble']>
  constructor(trouble: NonNullable<FetchAnswer['trouble']>, url: string) {
    super('bad-answer', trouble.message, url)
    this.trouble = trouble
  }
}
const waitOf = (error: unknown): number | null =>
  error instanceof Refused ? error.trouble.waitSeconds : null
const goneOf = (error: unknown): boolean => error instanceof Refused && error.trouble.gone

async function visitFeed(source: Source, show: Show): Promise<number> {
  const url = source.url ?? ''
  const fetched = await post<FetchAnswer>('/api/intake/fetch', {
    url,
    etag: source.etag,
    lastModified: source.lastModified,
  })
  if (fetched.trouble) throw new Refused(fetched.trouble, url)
  const pieces = await all('pieces', 'source', source.id)
  const snapshots = await whileClosed(source)
  if (fetched.unchanged && snapshots.length === 0) {
    await refreshCounts(pieces)
    await finish(source, { ok: true, message: 'Nothing has changed since the last visit.', fetched })
    return 0
  }
  const current = snapshots.at(-1)
  const { feed } = await readAddress(
    fetched.unchanged && current ? { ...fetched, text: current.text } : fetched,
  )
  if (!feed)
    throw new Fault('not-a-feed', 'There is a web page now where the feed was. Look for its new address.')
  const items = [...feed.items, ...(await onlyIn(snapshots, feed.items, fetched))]
  const known = new Map(pieces.map((p) => [p.itemId, p]))
  const unknown = items.filter((i) => !known.has(i.id) && !source.passedOver.includes(i.id))
  const first = source.lastVisit === null
  const wanted = first ? fromBacklog(unknown, source) : unknown
  const left = first ? unknown.filter((i) => !wanted.includes(i)).map((i) => i.id) : []
  const fresh = wanted.slice(0, source.mostNew)
  const notes: string[] = [...feed.notes]
  const read: WholePiece[] = []
  let again = wanted.length > fresh.length
  for (const item of fresh) {
    show(read.length, fresh.length)
    try {
      read.push(await readItem(item, owner(source)))
    } catch (error) {
      const fault = asFault(error)
      again ||= fault.code === 'unreachable' || fault.code === 'too-slow'
      notes.push(`“${item.title}” was left out: ${fault.message}`)
    }
  }
  await keepNew(source, read)
  const changed = await seeChanges(source, feed.items, known, notes)
  await refreshCounts(await all('pieces', 'source', source.id))
  const there = new Set(items.map((i) => i.id))
  await finish(source, {
    ok: true,
    message: [
      read.length === 0
        ? 'Nothing new.'
        : read.length === 1
          ? 'One new piece.'
          : `${read.length} new pieces.`,
      wanted.length > fresh.length ? `${wanted.length - fresh.length} more wait for the next visit.` : '',
      left.length ? `${left.length} older ones were left where they are.` : '',
      changed ? `${changed} changed at the source.` : '',
    ]
      .filter(Boolean)
      .join(' '),
    notes,
    taken: read.length,
    // What is still to be taken is asked for again, although the feed itself stays as it is.
    fetched: again ? { ...fetched, etag: null, lastModified: null } : fetched,
    siteUrl: feed.url,
    passedOver: [...source.passedOver.filter((i) => there.has(i)), ...left],
  })
  // What is still to be taken, or could not be, is read out of them again.
  if (!again) await forgetSnapshots(source, snapshots)
  return read.length
}

function fromBacklog(items: readonly FeedItem[], source: Source): FeedItem[] {
  const { backlog } = source
  const byDate = [...items].sort((a, b) => (b.publishedAt ?? '').localeCompare(a.publishedAt ?? ''))
  switch (backlog.kind) {
    case 'nothing':
      return []
    case 'last':
      return byDate.slice(0, backlog.count)
    case 'from':
      return byDate.filter((i) => (i.publishedAt ?? '') >= backlog.day)
    case 'everything':
      return byDate
  }
}

function owner(source: Source): Owner {
  return { id: nanoid(), brand: source.brand, source: source.id, now: nowIso() }
}

/** Reads an item with whatever it names: its page (where it is not at hand), its transcript, its chapters. */
export async function readItem(
  item: FeedItem,
  whose: Owner,
  atHand: Document | null = null,
): Promise<WholePiece> {
  const fetchDocument = async (
    url: string | null | undefined,
    as: 'page' | 'file',
  ): Promise<Document | null> => {
    if (!url) return null
    const { text, url: at } = await fetchText(url, as)
    return { text, url: at }
  }
  const { page, transcript, chapters } = await heavy().wants(item)
  return heavy().takePiece(
    item,
    {
      page: page && atHand ? atHand : await fetchDocument(page, 'page'),
      // A transcript that cannot be had leaves the video waiting for one by hand.
      transcript: await fetchDocument(transcript, 'file').catch(() => null),
      chapters: await fetchDocument(chapters, 'file').catch(() => null),
    },
    whose,
  )
}

/** Finishes pieces that were read and keeps them, as the machine or as a part of an action: furniture that repeats, passages, doubles, counts. */
export async function keepNew(
  source: Pick<Source, 'id' | 'brand'>,
  read: readonly WholePiece[],
  actor: Actor = 'machine',
): Promise<void> {
  if (read.length === 0) return
  const siblings = await siblingTexts(source.id)
  const taken = await heavy().finishPieces([...read], siblings, nowIso())
  const folded = await withDoubles(source.brand, taken)
  const counts = await sharesOf(folded.map((t) => t.piece))
  await commit(
    actor,
    folded.flatMap(({ piece, passages, sketch }, i) => [
      ...putPiece({ ...piece, counts: { ...piece.counts, ...counts[i] } }),
      put('sketches', sketch),
      ...passages.map((p) => put('passages', p)),
    ]),
  )
}

async function siblingTexts(source: string) {
  const pieces = (await all('pieces', 'source', source))
    .sort((a, b) => (a.takenAt < b.takenAt ? 1 : -1))
    .slice(0, SIBLINGS)
  const texts = await Promise.all(pieces.map((p) => one('texts', textId(p.id, p.revision))))
  return texts.flatMap((t) => (t ? [{ piece: t.piece, text: t.text, blocks: t.blocks }] : []))
}

/** Looks each new piece up among all of its brand: by address, then by what its text holds. */
async function withDoubles(brand: string, taken: readonly TakenPiece[]): Promise<TakenPiece[]> {
  const [pieces, sketches] = await Promise.all([
    all('pieces', 'brand', brand),
    all('sketches', 'brand', brand),
  ])
  const near = await heavy().nearDoubles(
    sketches,
    taken.map((t) => t.sketch),
  )
  const heads = new Map(pieces.map((p) => [p.id, p]))
  const wanted = [...new Set([...near.values()].flat())].flatMap((id) => heads.get(id) ?? [])
  const others = await Promise.all(
    wanted.map(async (p) => {
      const text = await one('texts', textId(p.id, p.revision))
      return text ? [joinPiece(p, text)] : []
    }),
  )
  const doubles = await heavy().findDoubles(
    taken.map((t) => t.piece),
    pieces.map(({ id, address }) => ({ id, address })),
    near,
    others.flat(),
  )
  return taken.map((t) => ({ ...t, piece: { ...t.piece, double: doubles.get(t.piece.id) ?? null } }))
}

const time = (p: Pick<Piece, 'publishedAt' | 'takenAt'>): string => p.publishedAt ?? p.takenAt

/** Reads anew the items of which the feed says something else than it did, and keeps what changed. */
async function seeChanges(
  source: Source,
  items: readonly FeedItem[],
  known: ReadonlyMap<string, Piece>,
  notes: string[],
): Promise<number> {
  let changed = 0
  const siblings = await siblingTexts(source.id)
  for (const item of items) {
    const piece = known.get(item.id)
    if (!piece || piece.video?.transcript === 'dropped') continue
    const print = await heavy().itemPrint(item)
    if (print === piece.itemPrint) continue
    try {
      if (piece.itemPrint !== '') {
        const content = await readItem(item, { ...owner(source), id: piece.id })
        if (content.fingerprint !== piece.fingerprint) {
          await revise(await wholePiece(piece.id), content, siblings)
          changed++
        }
      }
      await commit('machine', [patch('pieces', piece.id, (p) => ({ ...p, itemPrint: print }))])
    } catch (error) {
      notes.push(
        `“${piece.title}” changed at its source but could not be read again: ${asFault(error).message}`,
      )
    }
  }
  return changed
}

/** Keeps a piece's changed words as its next revision, its passages found again in them. */
export async function revise(
  before: WholePiece,
  content: PieceContent,
  siblings: Awaited<ReturnType<typeof siblingTexts>> = [],
  actor: Actor = 'machine',
): Promise<void> {
  const passages = await all('passages', 'piece', before.id)
  const revised = await heavy().revisePiece(
    before,
    passages,
    withItsFilm(before, content),
    siblings,
    nowIso(),
  )
  await commit(actor, [
    ...putPiece(revised.piece),
    put('sketches', revised.sketch),
    ...revised.passages.map((p) => put('passages', p)),
  ])
}

/** Asks the share-count service for the pieces whose counts still move. */
async function refreshCounts(pieces: readonly Piece[]): Promise<void> {
  const since = new Date(Date.parse(nowIso()) - COUNTED_DAYS * DAY).toISOString()
  const young = pieces.filter((p) => time(p) >= since && p.url !== null)
  const counts = await sharesOf(young)
  await commit(
    'machine',
    young.flatMap((p, i) => {
      const fresh = counts[i]
      const same = !fresh || Object.entries(fresh).every(([k, v]) => p.counts[k as keyof Counts] === v)
      return same ? [] : [patch('pieces', p.id, (row) => ({ ...row, counts: { ...row.counts, ...fresh } }))]
    }),
  )
}

async function sharesOf(pieces: readonly Pick<Piece, 'url'>[]): Promise<(Counts | null)[]> {
  const counts: (Counts | null)[] = []
  for (let from = 0; from < pieces.length; from += 100) {
    const urls = pieces.slice(from, from + 100).map((p) => p.url ?? '')
    try {
      counts.push(...(await post<{ counts: (Counts | null)[] }>('/api/intake/counts', { urls })).counts)
    } catch {
      // The service is an extra: without it the counts of the feed stand.
      counts.push(...urls.map(() => null))
    }
  }
  return counts
}

/** Takes the next ready row of a content sheet: one a visit, the oldest first. */
async function visitSheet(source: Source): Promise<number> {
  const row = nextRow(await all('sheetRows', 'source', source.id))
  if (!row) {
    await finish(source, { ok: true, message: 'No row is ready that was not taken already.' })
    return 0
  }
  try {
    const page = await fetchText(row.address, 'page')
    const read = await heavy().takeRow(row, { text: page.text, url: page.url }, owner(source))
    await keepNew(source, [read])
    await commit('machine', [patch('sheetRows', row.id, (r) => ({ ...r, piece: read.id }))])
    await finish(source, { ok: true, message: `Took in “${read.title}”.`, taken: 1 })
    return 1
  } catch (error) {
    const fault = asFault(error)
    if (fault.code === 'unreachable' || fault.code === 'too-slow') throw fault
    await commit('machine', [patch('sheetRows', row.id, (r) => ({ ...r, trouble: fault.message }))])
    await finish(source, {
      ok: true,
      message: `The row “${row.title || row.address}” could not be taken in; the next one follows.`,
      notes: [fault.message],
    })
    return 0
  }
}

interface Outcome {
  ok: boolean
  message: string
  notes?: string[]
  taken?: number
  fetched?: FetchAnswer
  siteUrl?: string | null
  passedOver?: string[]
  wait?: number | null
  gone?: boolean
}

/** Writes down how a visit went and when the next one is: later after failures, and when the site asks. */
async function finish(source: Source, outcome: Outcome): Promise<void> {
  const at = nowIso()
  const { fetched } = outcome
  const moved = fetched?.movedTo && fetched.movedTo !== source.url ? fetched.movedTo : null
  await commit('machine', [
    patch('sources', source.id, (s) => {
      const failures = outcome.ok ? 0 : s.failures + 1
      const slower = (s.visitEveryMinutes ?? 0) * Math.min(8, 2 ** Math.max(0, failures - 1))
      const asked = (outcome.wait ?? fetched?.retryAfter ?? 0) / 60
      return {
        ...s,
        ...(moved ? { url: moved, movedFrom: s.url } : {}),
        ...(outcome.siteUrl ? { siteUrl: outcome.siteUrl } : {}),
        ...(outcome.passedOver ? { passedOver: outcome.passedOver } : {}),
        failures,
        lastVisit: {
          at,
          ok: outcome.ok,
          message: outcome.message,
          newPieces: outcome.taken ?? 0,
          notes: outcome.notes ?? [],
        },
        nextVisitAt:
          s.visitEveryMinutes === null || outcome.gone ? null : later(at, Math.max(slower, Math.ceil(asked))),
        held: outcome.gone
          ? { reason: 'Its site says that it is gone for good, so it is not visited any more.', since: at }
          : s.held,
        etag: outcome.ok && fetched ? fetched.etag : s.etag,
        lastModified: outcome.ok && fetched ? fetched.lastModified : s.lastModified,
      }
    }),
  ])
}
