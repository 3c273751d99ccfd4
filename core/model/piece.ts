import { z } from 'zod'
import { Print } from './picture'
import { Id, Instant, LinkCheck, LocalDate, Place } from './primitives'

/**
 * A run of the piece's text. Blocks are in order, do not overlap, and the piece's text is the
 * blocks joined by a blank line. Furniture is a mark with its reason, never a deletion.
 */
export const Block = Place.extend({
  kind: z.enum(['heading', 'paragraph', 'item', 'quotation', 'code', 'row']),
  level: z.int().min(1).max(6).optional(),
  /** Items of one list share a number; ordered lists have steps. */
  list: z.object({ id: z.int(), ordered: z.boolean(), index: z.int().min(0) }).optional(),
  /** Who says it: the source of a quotation, or a voice of a transcript. */
  speaker: z.string().optional(),
  furniture: z.string().nullable(),
})
export type Block = z.infer<typeof Block>

/** A sentence, with the index of the block it stands in. Sentences never cross blocks. */
export const Sentence = Place.extend({
  block: z.int().min(0),
  /** Seconds from the beginning, for what was spoken. */
  from: z.number().optional(),
  to: z.number().optional(),
})
export type Sentence = z.infer<typeof Sentence>

/** A picture of the piece; `block` is the index of the block it follows, −1 at the top. */
export const PieceImage = z.object({
  url: z.string(),
  alt: z.string(),
  caption: z.string(),
  width: z.int().positive().nullable(),
  height: z.int().positive().nullable(),
  block: z.int().min(-1),
  /** What was found when it was looked at: its print, or why it cannot be shown; absent where nobody has looked yet. */
  seen: z
    .object({
      print: Print.nullable(),
      trouble: z.string().nullable(),
      /** The type of its file, where it moves. */
      moves: z.string().optional(),
    })
    .optional(),
})
export type PieceImage = z.infer<typeof PieceImage>

/** A part of a video, from `at` seconds to the next one. */
export const Chapter = z.object({ at: z.number().min(0), title: z.string() })
export type Chapter = z.infer<typeof Chapter>

/** What is known of a piece that is watched. */
export const Video = z.object({
  url: z.string().nullable(),
  seconds: z.number().positive().nullable(),
  chapters: z.array(Chapter),
  /** Whether the chapters were found by a change of topic, since the video names none. */
  chaptersFound: z.boolean(),
  /** Where its words come from: the address of the transcript, `dropped` for a file, null while there is none. */
  transcript: z.string().nullable(),
  /** That it is a recording without pictures; absent where it has some, or nobody knows. */
  sound: z.literal(true).optional(),
})
export type Video = z.infer<typeof Video>

/** How long a piece stays true, shortest last. */
export const SPANS = ['evergreen', 'about a year', 'months', 'weeks', 'past'] as const
export const Span = z.enum(SPANS)
export type Span = z.infer<typeof Span>

/** How long a piece keeps, with the phrases that led to it. */
export const Keeps = z.object({
  span: Span,
  /** The last day on which a post of it should go out; null for what does not age. */
  until: LocalDate.nullable(),
  phrases: z.array(Place.extend({ why: z.string(), span: Span })),
  /** Why the piece as a whole ends, in one sentence; where it does. */
  because: z.string().optional(),
  /** What was found before a person said that the piece keeps for good; taken up again when they undo that. */
  overruled: z.object({ span: Span, until: LocalDate.nullable() }).optional(),
})
export type Keeps = z.infer<typeof Keeps>

/** How often a piece was answered, as far as its feed or a share-count service says. */
export const Counts = z.object({
  shares: z.number().min(0).optional(),
  comments: z.number().min(0).optional(),
  views: z.number().min(0).optional(),
  likes: z.number().min(0).optional(),
})
export type Counts = z.infer<typeof Counts>

export const PIECE_KINDS = ['article', 'video', 'manuscript'] as const
export const PieceKind = z.enum(PIECE_KINDS)
export type PieceKind = z.infer<typeof PieceKind>

const PieceAbout = z.object({
  title: z.string(),
  url: z.string().nullable(),
  author: z.string().nullable(),
  publishedAt: Instant.nullable(),
  language: z.string().nullable(),
  categories: z.array(z.string()),
  summary: z.string(),
  words: z.int().min(0),
  images: z.array(PieceImage),
  video: Video.nullable(),
})

const PieceWords = z.object({
  text: z.string(),
  blocks: z.array(Block),
  sentences: z.array(Sentence),
})

/** What reading makes of a file or a page, before it has an owner. */
export const PieceContent = PieceAbout.extend(PieceWords.shape)
export type PieceContent = z.infer<typeof PieceContent>

/** That a piece tells what another one tells; `likeness` runs from 0 to 1. */
export const Double = z.object({
  of: Id,
  likeness: z.number().min(0).max(1),
  why: z.enum(['the same address', 'the same story', 'an excerpt']),
})
export type Double = z.infer<typeof Double>

/** What a pipeline's sieve said of a piece, and by which version of the sieve. */
export const Verdict = z.object({
  pipeline: Id,
  version: z.int(),
  passed: z.boolean(),
  reason: z.string(),
})
export type Verdict = z.infer<typeof Verdict>

/**
 * One long-form item of a source. Its words lie apart from it, one record a revision, so that
 * lists of many thousands of pieces stay light.
 */
export const Piece = PieceAbout.extend({
  id: Id,
  brand: Id,
  source: Id,
  kind: PieceKind,
  /** The feed's own id of the item, or its address. */
  itemId: z.string(),
  /** The item's address in plain clothes, by which doubles are known. */
  address: z.string().nullable(),
  revision: z.int().min(1),
  fingerprint: z.string(),
  /** What the feed said of it when it was last read, so that a change is noticed. */
  itemPrint: z.string(),
  takenAt: Instant,
  /** Set when its words changed at the source after it was taken, until a person has dealt with it. */
  changedAt: Instant.nullable(),
  keeps: Keeps,
  counts: Counts,
  place: z.object({ latitude: z.number(), longitude: z.number() }).nullable(),
  /** Named fields of the item that are none of the others: a price, a distance. */
  fields: z.record(z.string(), z.string()),
  notes: z.string(),
  /** The piece it is folded under; null again once a person has unfolded it for good. */
  double: Double.nullable(),
  unfolded: z.boolean(),
  verdicts: z.array(Verdict),
  /** A person let it through, whatever a sieve says. */
  letThrough: z.boolean(),
  /** Who dealt with it: a drip was started, or it was set aside. Null while it waits in Intake. */
  dealt: z.object({ by: z.string(), at: Instant }).nullable(),
  /** When the page its links lead to was last looked at, and what was wrong with it. */
  linkCheck: LinkCheck.nullable(),
  /** Why no pipeline could make a drip of it, in words a person can act on. */
  trouble: z.string().nullable(),
  /** Pipelines that have looked at it, so that none takes it twice. */
  seenBy: z.array(Id),
  /** Pipelines that other pipelines handed it on to, whatever source it has. */
  handedTo: z.array(Id),
  /** Whether it is a collection of short texts, each a passage of its own that has nothing to do with the others. */
  collection: z.boolean().optional(),
  /** The pipelines whose posts it is made of, the nearest last; empty for a piece of a source. */
  through: z.array(Id),
})
export type Piece = z.infer<typeof Piece>

/** The words of one revision of a piece, kept as long as the piece is. */
export const PieceText = PieceWords.extend({
  id: Id,
  brand: Id,
  piece: Id,
  revision: z.int().min(1),
})
export type PieceText = z.infer<typeof PieceText>

/** A piece with the words of one of its revisions. */
export type WholePiece = Piece & z.infer<typeof PieceWords>

/** The id of the record that holds a revision's words. */
export function textId(piece: string, revision: number): string {
  return `${piece}.${revision}`
}

/** A piece with its words. */
export function joinPiece(piece: Piece, { text, blocks, sentences, revision }: PieceText): WholePiece {
  return { ...piece, text, blocks, sentences, revision }
}

/** The words of a piece that are the piece: its blocks without furniture. */
export function quotable(piece: Pick<PieceText, 'text' | 'blocks'>): string {
  return piece.blocks
    .filter((b) => b.furniture === null)
    .map((b) => piece.text.slice(b.start, b.end))
    .join('\n\n')
}

/** A whole piece as the two records it is kept in. */
export function partPiece(whole: WholePiece): { piece: Piece; text: PieceText } {
  const { text, blocks, sentences, ...piece } = whole
  const { id, brand, revision } = whole
  return { piece, text: { id: textId(id, revision), brand, piece: id, revision, text, blocks, sentences } }
}
