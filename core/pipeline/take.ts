import { canonicalAddress, parseChapters, sameAddress, type FeedItem } from '../feeds'
import {
  around,
  quotable,
  type Passage,
  type Piece,
  type PieceContent,
  type SheetRow,
  type Sketch,
  type WholePiece,
} from '../model'
import { weighPassages } from '../passages'
import { hash32 } from '../text'
import {
  findChapters,
  howLongItKeeps,
  markRepeats,
  overruleKeeps,
  readFragment,
  readPage,
  readTranscript,
  type Known,
} from '../reading'
import { languageOf } from '../language'
import { sketchOf } from '../sieve'

/** The words below which a feed's own text counts as a summary and the page is wanted. */
const FULL_TEXT_WORDS = 150

/** How many passages are kept at first at most, for the longest built-in rhythm. */
const KEPT_AT_FIRST = 8

/** Whether an item carries its whole text, so that its page need not be fetched. */
export function carriesFullText(item: FeedItem): boolean {
  return item.video !== null || item.html.replace(/<[^>]*>/g, ' ').split(/\s+/).length >= FULL_TEXT_WORDS
}

/** A document that was fetched for an item. */
export interface Document {
  text: string
  url: string
}

/** What an item names beside itself and the visit has fetched. */
export interface Fetched {
  page: Document | null
  transcript: Document | null
  chapters: Document | null
}

/** Whose piece it becomes. */
export interface Owner {
  id: string
  brand: string
  source: string
  now: string
}

const NO_TRANSCRIPT =
  'It has no transcript yet, so there is nothing to quote. Drop a WebVTT, SRT or timed text file on it in the Reader.'

/**
 * A piece from a feed item: an article read from the item's own HTML or from its page, a video
 * from its transcript. Throws `not-readable` where there is no running text.
 */
export function takePiece(item: FeedItem, fetched: Fetched, owner: Owner): WholePiece {
  const known: Known = {
    url: item.url ? canonicalAddress(item.url) : null,
    base: item.base,
    language: item.language,
    title: item.title,
    author: item.author,
    publishedAt: item.publishedAt,
    categories: item.categories,
    summary: item.summary,
    images: item.images,
  }
  const content = item.video ? readVideo(item, known, fetched) : readArticle(item, known, fetched.page)
  const url = known.url ?? content.url
  return owned({ ...content, url }, item.video ? 'video' : 'article', owner, {
    itemId: item.id,
    itemPrint: itemPrint(item),
    counts: item.counts,
    place: item.place,
    fields: item.fields,
    trouble: item.video && content.video?.transcript === null ? NO_TRANSCRIPT : null,
  })
}

function readArticle(item: FeedItem, known: Known, page: Document | null): PieceContent {
  return page
    ? readPage(page.text, { ...known, url: page.url })
    : readFragment(item.html || `<p>${item.summary}</p>`, known)
}

function readVideo(item: FeedItem, known: Known, fetched: Fetched): PieceContent {
  const { video } = item
  const chapters =
    video?.chapters.length || !fetched.chapters
      ? (video?.chapters ?? [])
      : parseChapters(fetched.chapters.text)
  const about = {
    title: known.title ?? '',
    url: known.url ?? null,
    author: known.author ?? null,
    publishedAt: known.publishedAt ?? null,
    language: known.language ?? null,
    categories: known.categories ?? [],
    summary: known.summary ?? '',
    images: (known.images ?? []).map((i) => ({ ...i, caption: '', block: -1 })),
    video: {
      url: video?.url ?? null,
      seconds: video?.seconds ?? null,
      ...(video && /^audio\//.test(video.type) ? { sound: true as const } : {}),
      chapters,
      chaptersFound: false,
      transcript: fetched.transcript?.url ?? null,
    },
  }
  if (fetched.transcript) return spoken(readTranscript(fetched.transcript.text, about, chapters))
  // Without its words the description stands in: shown in the Reader, never quoted.
  const described = readFragment(item.html || `<p>${item.summary || item.title}</p>`, known)
  return {
    ...described,
    video: about.video,
    blocks: described.blocks.map((b) => ({ ...b, furniture: 'description of the video' })),
    words: 0,
  }
}

/** A talk with chapters: its own, else those found where the topic changes. */
function spoken(piece: PieceContent): PieceContent {
  if (!piece.video || piece.video.chapters.length) return piece
  const chapters = findChapters(piece)
  return { ...piece, video: { ...piece.video, chapters, chaptersFound: chapters.length > 0 } }
}

/** The words of a video from a transcript that a person gave it. Throws `bad-file` where it has no times. */
export function withTranscript(piece: WholePiece, transcript: string): PieceContent {
  return spoken(
    readTranscript(
      transcript,
      {
        title: piece.title,
        url: piece.url,
        author: piece.author,
        publishedAt: piece.publishedAt,
        language: piece.language,
        categories: piece.categories,
        summary: piece.summary,
        images: piece.images.map((i) => ({ ...i, block: -1 })),
        video: piece.video && { ...piece.video, transcript: 'dropped' },
      },
      piece.video?.chaptersFound ? [] : (piece.video?.chapters ?? []),
    ),
  )
}

/** A piece from a chapter of a manuscript, or a page that a row of a content sheet names. */
export function takeWriting(
  content: PieceContent,
  owner: Owner,
  change: Pick<Piece, 'itemId' | 'kind'> & Partial<Piece>,
): WholePiece {
  return owned(content, change.kind, owner, {
    itemPrint: '',
    counts: {},
    place: null,
    fields: {},
    trouble: null,
    ...change,
  })
}

/** A piece from the page that a row of a content sheet names; what the row says comes before the page. */
export function takeRow(row: SheetRow, page: Document, owner: Owner): WholePiece {
  const content = readPage(page.text, {
    url: page.url,
    ...(row.title ? { title: row.title } : {}),
    categories: row.categories,
  })
  return takeWriting({ ...content, url: row.address }, owner, {
    kind: 'article',
    itemId: row.address,
    fields: row.fields,
    notes: row.notes,
  })
}

function owned(
  content: PieceContent,
  kind: Piece['kind'],
  owner: Owner,
  change: Pick<Piece, 'itemId' | 'itemPrint' | 'counts' | 'place' | 'fields' | 'trouble'> & Partial<Piece>,
): WholePiece {
  return {
    ...content,
    linkCheck: null,
    language: languageOf(content.text, content.language),
    id: owner.id,
    brand: owner.brand,
    source: owner.source,
    kind,
    address: content.url ? sameAddress(content.url) : null,
    revision: 1,
    fingerprint: fingerprint(content),
    takenAt: owner.now,
    changedAt: null,
    keeps: { span: 'evergreen', until: null, phrases: [] },
    notes: '',
    double: null,
    unfolded: false,
    verdicts: [],
    letThrough: false,
    dealt: null,
    seenBy: [],
    handedTo: [],
    through: [],
    ...change,
  }
}

/** Changes when a feed says something else of an item than it did. */
export function itemPrint(item: FeedItem): string {
  return print(`${item.title}\n${item.html}\n${item.summary}`)
}

/** Changes when the words of a piece change. */
function fingerprint(content: PieceContent): string {
  return print(`${content.title}\n${content.text}`)
}

/** Two 32-bit hashes of a text without case and spacing, in hexadecimal. */
function print(text: string): string {
  const words = text.toLowerCase().replace(/\s+/g, ' ')
  const hex = (n: number): string => n.toString(16).padStart(8, '0')
  return hex(hash32(words)) + hex(hash32(`${words.length} ${[...words].reverse().join('')}`))
}

/** A piece read to the end: furniture marked, how long it keeps, its passages, what doubles are found by. */
export interface TakenPiece {
  piece: WholePiece
  passages: Passage[]
  sketch: Sketch
}

/**
 * Finishes what was read: marks what repeats on other pages of its source (`others`, the block
 * prints of each), examines how long it keeps, finds its passages and its sketch.
 */
export function finishPiece(
  whole: WholePiece,
  others: readonly ReadonlySet<string>[],
  now: string,
  newId: () => string,
): TakenPiece {
  const marked = markRepeats(whole, others)
  // What a person said of it holds for its next revision too.
  const keeps = howLongItKeeps(marked, now)
  const piece = { ...marked, keeps: whole.keeps.overruled ? overruleKeeps(keeps, true) : keeps }
  return {
    piece,
    passages: toPassages(piece, newId),
    sketch: { id: piece.id, brand: piece.brand, ...sketchOf(quotable(piece)) },
  }
}

/**
 * The passages found in a piece as records: those that are good enough kept, the others spare. What ages is
 * kept only of a piece that ends before it has aged, such as a notice of an event.
 */
export function toPassages(piece: WholePiece, newId: () => string): Passage[] {
  const ends = piece.keeps.span === 'weeks' || piece.keeps.span === 'months'
  return weighPassages(piece, ends ? piece.keeps.phrases : null).map(({ passage: found, kept }, index) => {
    const ageing = piece.keeps.phrases.find((p) => p.start < found.end && p.end > found.start)
    const said = found.reasons.some((r) => r.startsWith('ages'))
    const reasons =
      ageing && !said
        ? [...found.reasons, `ages: “${piece.text.slice(ageing.start, ageing.end)}”`]
        : found.reasons
    return {
      ...found,
      reasons,
      id: newId(),
      brand: piece.brand,
      piece: piece.id,
      revision: piece.revision,
      ...around(piece.text, found.start, found.end),
      choice: kept && index < KEPT_AT_FIRST && (ends || (!said && !ageing)) ? 'kept' : 'spare',
      by: 'machine',
      lostPlace: false,
    }
  })
}

/**
 * A piece whose words changed, as its next revision: what a person decided stays, every passage is
 * found again by its quotation (or marked as having lost its place), and new ones are added spare.
 */
export function revisePiece(
  before: WholePiece,
  passages: readonly Passage[],
  content: PieceContent,
  around_: { others: readonly ReadonlySet<string>[]; now: string; newId: () => string },
): TakenPiece {
  const revised: WholePiece = {
    ...before,
    ...content,
    url: before.url,
    language: languageOf(content.text, content.language),
    revision: before.revision + 1,
    fingerprint: fingerprint(content),
    changedAt: around_.now,
    trouble: null,
  }
  const { piece, passages: fresh, sketch } = finishPiece(revised, around_.others, around_.now, around_.newId)
  const moved = passages.map((p) => relocate(p, piece))
  const added = fresh
    .filter((f) => !moved.some((m) => !m.lostPlace && m.start < f.end && m.end > f.start))
    .map((f): Passage => (passages.length ? { ...f, choice: 'spare' } : f))
  return { piece, passages: [...moved, ...added], sketch }
}

/** A passage in changed words: where its quotation stands with most of what stood around it. */
export function relocate(passage: Passage, piece: Pick<WholePiece, 'text' | 'revision'>): Passage {
  let best = -1
  let most = -1
  for (let at = piece.text.indexOf(passage.text); at >= 0; at = piece.text.indexOf(passage.text, at + 1)) {
    const { before, after } = around(piece.text, at, at + passage.text.length)
    const score =
      common([...before].reverse(), [...passage.before].reverse()) + common([...after], [...passage.after])
    if (score > most) {
      most = score
      best = at
    }
  }
  if (best < 0) return { ...passage, lostPlace: true }
  const end = best + passage.text.length
  return {
    ...passage,
    start: best,
    end,
    revision: piece.revision,
    ...around(piece.text, best, end),
    lostPlace: false,
  }
}

function common(a: readonly string[], b: readonly string[]): number {
  let n = 0
  while (n < a.length && a[n] === b[n]) n++
  return n
}
