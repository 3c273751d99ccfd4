import { z } from 'zod'
import { Card, hasCode } from '../card'
import type { PieceContent } from '../piece'
import { alikeAmong, Credit, creditLine, Cut, Print, type KnownPicture } from '../picture'

/** The address of a picture that lies in the workspace itself, by the SHA-256 of its bytes in hexadecimal. */
export function ownPicture(hash: string): string {
  return `picture:${hash}`
}

/** The address of a film that was chosen from a file and lies in this browser alone, by the SHA-256 of its bytes in hexadecimal. */
export function ownFilm(hash: string): string {
  return `film:${hash}`
}

/** Whether an address is that of a film which lies in this browser alone. */
export function isOwnFilm(url: string): boolean {
  return /^film:[0-9a-f]{64}$/.test(url)
}

/** The hash of a picture that lies in the workspace itself; null for any other address. */
export function ownPictureHash(url: string): string | null {
  return /^picture:([0-9a-f]{64})$/.exec(url)?.[1] ?? null
}

/** The most characters of the words that a clip opens with. */
export const HOOK_MOST = 120

/** What is said in a clip and when, in seconds of its film. */
export const Subtitle = z.object({ from: z.number().min(0), to: z.number().min(0), text: z.string() })
export type Subtitle = z.infer<typeof Subtitle>

/** From when to when, in seconds of a film. */
export const Stretch = z.object({ from: z.number().min(0), to: z.number().min(0) })
export type Stretch = z.infer<typeof Stretch>

/** A part of a film: from when to when, in seconds, and how it is shown. */
export const FilmPart = z.object({
  start: z.number().min(0),
  end: z.number().positive(),
  /** The words over it, for readers to stay; empty for none. */
  hook: z.string().max(HOOK_MOST),
  subtitles: z.array(Subtitle),
  /** Whether it fills the clip, with its sides cut off, or stands whole in the brand's frame. */
  filled: z.boolean(),
  /** Pauses and sounds of hesitation that are left out of it, one after the other; absent where nothing is. */
  leftOut: z.array(Stretch).optional(),
})
export type FilmPart = z.infer<typeof FilmPart>

/**
 * Where a picture or a clip of a post comes from: an address of the web or of the workspace itself, words that are drawn, a
 * clip that shows drawn words one after the other, or a film, of which all (null) or a part is shown. `hook` is what a
 * moving card opens with, for readers to stay; empty for none.
 */
export const MediaSource = z.discriminatedUnion('from', [
  z.object({ from: z.literal('address'), url: z.string() }),
  z.object({ from: z.literal('card'), card: Card }),
  z.object({ from: z.literal('moving'), card: Card, hook: z.string().max(HOOK_MOST) }),
  z.object({ from: z.literal('film'), url: z.string(), part: FilmPart.nullable() }),
])
export type MediaSource = z.infer<typeof MediaSource>

/** A picture or a clip of a post: where it comes from, the part of it that is used, and the bytes once made. */
export const PostMedia = z.object({
  source: MediaSource,
  alt: z.string(),
  /** Width to height of the shape the network takes, or null to leave it whole. */
  shape: z.object({ width: z.int().positive(), height: z.int().positive() }).nullable(),
  /** The part of it that a person chose for that shape; absent where what is proposed will do. */
  cut: Cut.optional(),
  /** Whose it is; absent where it comes from the piece or is drawn. */
  credit: Credit.optional(),
  /** What it is known by when it comes again scaled, painted anew or under another address; absent where nobody has looked. */
  print: Print.optional(),
  /** SHA-256 of the bytes, in hexadecimal, once they have been made. */
  hash: z.string().nullable(),
})
export type PostMedia = z.infer<typeof PostMedia>

/** Whether it is a clip, which networks count and take apart from pictures. */
export function isClip({ source }: Pick<PostMedia, 'source'>): boolean {
  return source.from === 'moving' || source.from === 'film'
}

/** Whether it is a film as it is, which networks with chapters take beside clips. */
export function isWholeFilm({ source }: Pick<PostMedia, 'source'>): boolean {
  return source.from === 'film' && source.part === null
}

/** How many pictures and how many clips a post has. */
export function mediaCount(media: readonly PostMedia[]): { pictures: number; clips: number } {
  const clips = media.filter(isClip).length
  return { pictures: media.length - clips, clips }
}

/** The card that is drawn, still or moving; null where nothing is. */
export function drawnCard(source: MediaSource): Card | null {
  return source.from === 'card' || source.from === 'moving' ? source.card : null
}

/** A piece whose film is shown in part only, and so without its chapters. */
export function inPart<P extends Pick<PieceContent, 'video'>>(piece: P): P {
  return piece.video ? { ...piece, video: { ...piece.video, chapters: [] } } : piece
}

/** A piece as captions are written of it beside what a post shows: with the chapters of its film, unless only a part of that is shown. */
export function besideMedia<P extends Pick<PieceContent, 'video'>>(
  piece: P,
  media: readonly Pick<PostMedia, 'source'>[],
): P {
  return media.some(({ source }) => source.from === 'film' && source.part) ? inPart(piece) : piece
}

/** Whether a card with a code on it is drawn. */
export function codedCard(source: MediaSource): boolean {
  const card = drawnCard(source)
  return card !== null && hasCode(card)
}

/** The card that stands for what is shown where it is not played; null of what is a picture itself. */
export function stillCard(source: MediaSource): Card | null {
  if (source.from !== 'film') return drawnCard(source)
  const text = source.part?.hook || 'The film'
  return { layout: 'title', head: '', text, items: [], speaker: '' }
}

/** What tells one picture from another: its address, or the words of a card, in whatever look they are drawn, still or moving. */
export function pictureKey(source: MediaSource): string {
  if (source.from === 'address') return source.url
  // A part of a film as media fragments name it (W3C, Media Fragments URI 1.0).
  if (source.from === 'film')
    return source.part ? `${source.url}#t=${source.part.start},${source.part.end}` : source.url
  const { layout, head, text, items, speaker } = source.card
  return `card:${layout}:${JSON.stringify([head, text, items, speaker])}`
}

/** The layout of a card by what it is known by; null for any other picture. */
export function layoutOf(key: string): string | null {
  return /^card:(\w+):/.exec(key)?.[1] ?? null
}

/**
 * By what the pictures of posts, and some more that are known, are known among them: like ones by one key; what has no print,
 * by its own (`alikeAmong`).
 */
export function alikeIn(
  media: Iterable<PostMedia>,
  more: readonly KnownPicture[] = [],
): (key: string) => string {
  const known = [...more]
  for (const { source, print } of media)
    if (print !== undefined) known.push({ key: pictureKey(source), print })
  return alikeAmong(known)
}

/** The lines by which the authors of pictures are named that may not be shown without. */
export function creditsOf(media: readonly PostMedia[]): string[] {
  const lines = media.flatMap(({ credit }) => (credit?.mustShow ? [creditLine(credit)] : []))
  return [...new Set(lines.filter((line) => line !== ''))]
}

/** A caption with the lines that its pictures ask for, in paragraphs at its end, and without those that others asked for before. */
export function withCredits(text: string, before: readonly PostMedia[], after: readonly PostMedia[]): string {
  const wanted = creditsOf(after)
  const paragraphs = text.split('\n\n')
  const gone = creditsOf(before).filter((line) => !wanted.includes(line))
  const kept = paragraphs.filter((p) => !gone.includes(p.trim()))
  return [...kept, ...wanted.filter((line) => !text.includes(line))].join('\n\n')
}

/** What the first picture of a post is known by; null where it has none. */
export function firstPicture(post: { media: readonly PostMedia[] }): string | null {
  const [first] = post.media
  return first ? pictureKey(first.source) : null
}
