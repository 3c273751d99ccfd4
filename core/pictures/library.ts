import {
  momentOf,
  alikeAmong,
  cardAlt,
  drawnCard,
  pictureKey,
  type Credit,
  type LibraryPicture,
  type Piece,
  type MediaSource,
  type Post,
} from '../model'
import { wordsIn } from '../text'

/** Where a picture of the library comes from: with a piece, drawn from words, or one of a brand's own. */
export const ORIGINS = ['piece', 'card', 'file', 'stock', 'order'] as const
export type Origin = (typeof ORIGINS)[number]

/** A picture of a brand's library with what is known of it and where it is used. */
export interface LibraryEntry {
  /** `pictureKey` of its source. */
  key: string
  source: MediaSource
  origin: Origin
  /** What it is called: its caption, its piece's title, the name of its file, the words of a card. */
  title: string
  alt: string
  credit: Credit | null
  /** In pixels; null where nobody has looked yet, and of cards. */
  size: { width: number; height: number } | null
  /** Null where nobody has looked yet, and of cards and what is flat. */
  print: string | null
  /** Why it cannot be shown; null where it can, as far as is known. */
  trouble: string | null
  /** When it came into the library. */
  addedAt: string
  /** The pieces that bring it. */
  pieces: { id: string; title: string }[]
  /** The posts that show it, first to last, without those that are set aside. */
  uses: { post: string; at: string; out: boolean }[]
  /** When readers saw it last, and will see it next; null for never. */
  lastSeen: string | null
  nextSeen: string | null
  /** One key for all pictures that are alike, and how many others of the library are like it. */
  like: string
  others: number
}

export interface LibraryOf {
  pieces: readonly Pick<Piece, 'id' | 'title' | 'images' | 'takenAt'>[]
  pictures: readonly LibraryPicture[]
  posts: readonly Post[]
}

/**
 * All pictures of a brand: those its pieces bring, its own, and the cards that its posts show; each once, with what shows it.
 * The newest first.
 */
export function libraryOf({ pieces, pictures, posts }: LibraryOf): LibraryEntry[] {
  const entries = new Map<string, LibraryEntry>()
  for (const { id, title, images, takenAt } of pieces)
    for (const image of images) {
      const entry = entries.get(image.url) ?? blank({ from: 'address', url: image.url }, 'piece', takenAt)
      entry.title ||= image.caption || image.alt || title
      entry.alt ||= image.alt
      if (image.width && image.height) entry.size ??= { width: image.width, height: image.height }
      entry.print ??= image.seen?.print ?? null
      entry.trouble ??= image.seen?.trouble ?? null
      if (!entry.pieces.some((p) => p.id === id)) entry.pieces.push({ id, title })
      entries.set(image.url, entry)
    }
  for (const { url, origin, title, alt, credit, width, height, print, addedAt } of pictures) {
    const own = blank({ from: 'address', url }, origin, addedAt)
    entries.set(url, { ...own, title, alt, credit, print, size: { width, height } })
  }
  for (const post of posts) if (post.state !== 'set aside') noteUses(entries, post)
  for (const entry of entries.values()) {
    entry.uses.sort((a, b) => a.at.localeCompare(b.at))
    entry.lastSeen = entry.uses.findLast((u) => u.out)?.at ?? null
    entry.nextSeen = entry.uses.find((u) => !u.out)?.at ?? null
  }
  return withLikes([...entries.values()]).sort((a, b) => b.addedAt.localeCompare(a.addedAt))
}

function blank(source: MediaSource, origin: Origin, addedAt: string): LibraryEntry {
  const key = pictureKey(source)
  return {
    key,
    source,
    origin,
    title: '',
    alt: '',
    credit: null,
    size: null,
    print: null,
    trouble: null,
    addedAt,
    pieces: [],
    uses: [],
    lastSeen: null,
    nextSeen: null,
    like: key,
    others: 0,
  }
}

/** Notes where a post shows a picture; a card comes into the library with the first post that shows it. */
function noteUses(entries: Map<string, LibraryEntry>, post: Post): void {
  const at = momentOf(post) ?? post.wished
  const keys = new Set<string>()
  for (const { source, alt, credit } of post.media) {
    const key = pictureKey(source)
    if (keys.has(key)) continue
    keys.add(key)
    let entry = entries.get(key)
    if (!entry) {
      const card = drawnCard(source)
      entry = blank(card ? { from: 'card', card } : source, card ? 'card' : 'piece', at)
      entry.title = card ? cardAlt(card) : alt
      entry.credit = credit ?? null
      entries.set(key, entry)
    }
    entry.alt ||= alt
    entry.uses.push({ post: post.id, at, out: post.publishedAt !== null })
  }
}

/** Entries with how many of the others look like each. */
function withLikes(entries: LibraryEntry[]): LibraryEntry[] {
  const alike = alikeAmong(entries.flatMap(({ key, print }) => (print ? [{ key, print }] : [])))
  const counts = new Map<string, number>()
  for (const { key } of entries) counts.set(alike(key), (counts.get(alike(key)) ?? 0) + 1)
  return entries.map((e) => ({ ...e, like: alike(e.key), others: (counts.get(alike(e.key)) ?? 1) - 1 }))
}

/** What is looked for in a library. */
export interface LibraryQuery {
  /** Words that must all be there, each at least by its beginning. */
  words: string
  /** Null for all but cards, which say what their posts say anyway. */
  origin: Origin | null
  /** Only what posts show, or only what none shows; null for both. */
  used: boolean | null
  /** Only what looks like one picture, by its `like`. */
  like: string | null
  order: (typeof ORDERS)[number]
}

/** The orders in which a library can be read. */
export const ORDERS = ['newest', 'longest not seen', 'most used'] as const

/** The entries that a query asks for, in its order. */
export function findIn(entries: readonly LibraryEntry[], query: LibraryQuery): LibraryEntry[] {
  const asked = wordsIn(query.words)
  const found = entries.filter(
    (e) =>
      (query.origin === null ? e.origin !== 'card' : e.origin === query.origin) &&
      (query.used === null || e.uses.length > 0 === query.used) &&
      (query.like === null || e.like === query.like) &&
      (asked.length === 0 || says(e, asked)),
  )
  if (query.order === 'most used') return found.sort((a, b) => b.uses.length - a.uses.length)
  // What was never seen rests the longest.
  if (query.order === 'longest not seen')
    return found.sort((a, b) => (a.lastSeen ?? '').localeCompare(b.lastSeen ?? ''))
  return found
}

function says(entry: LibraryEntry, asked: readonly string[]): boolean {
  const { title, alt, credit, pieces } = entry
  const told = [title, alt, credit?.author ?? '', credit?.from ?? '', ...pieces.map((p) => p.title)].join(' ')
  const words = wordsIn(told)
  return asked.every((word) => words.some((w) => w.startsWith(word)))
}
