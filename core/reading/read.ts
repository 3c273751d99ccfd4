import { marked } from 'marked'
import { decodeText, looksLikeFeed, parseFeed, type Feed } from '../feeds'
import { Fault, type PieceContent } from '../model'
import { readFragment, readPage, type Known } from './html'
import { readTranscript } from './transcript'

export const KINDS = ['feed', 'article', 'transcript', 'writing'] as const
/** What a file is read as. */
export type ReadKind = (typeof KINDS)[number]

/** What reading makes of a file: a feed with its items, or one piece. */
export type ReadResult = { kind: 'feed'; feed: Feed } | { kind: 'piece'; piece: PieceContent }

/**
 * Reads a document of any kind there is a reader for; the kind is recognised when not given.
 * `name` is the file's name, used for a title where the text has none.
 */
export function read(
  bytes: Uint8Array,
  options: { as?: ReadKind | undefined; url?: string | null | undefined; name?: string } = {},
): ReadResult {
  const text = decodeText(bytes).replace(/^\uFEFF/, '')
  if (!text.trim()) throw new Fault('bad-file', 'The file is empty.')
  if (text.slice(0, 2000).includes('\0'))
    throw new Fault('bad-file', 'This is not a text file: it holds binary data.')
  const name = (options.name ?? '').replace(/^.*[\\/]/, '')
  const as = options.as ?? recognise(text, name)
  const url = options.url ?? null
  if (as === 'feed') return { kind: 'feed', feed: parseFeed(text, url) }
  if (as === 'article') return { kind: 'piece', piece: readPage(text, { url }) }
  const title =
    name
      .replace(/\.\w+$/, '')
      .replace(/[-_]+/g, ' ')
      .trim() || 'Untitled'
  if (as === 'transcript') return { kind: 'piece', piece: readTranscript(text, title, url) }
  return { kind: 'piece', piece: readWriting(text, title, { url }) }
}

/** The kind of a document by its content, and by its name where the content leaves it open. */
export function recognise(text: string, name = ''): ReadKind {
  if (looksLikeFeed(text)) return 'feed'
  if (/^\s*WEBVTT\b/.test(text) || /^\s*\d+\s*\n\d\d:\d\d:\d\d[,.]\d{3}\s*-->/.test(text)) return 'transcript'
  if (/\.(md|markdown|txt)$/i.test(name)) return 'writing'
  return /<(!doctype html|html|body|article|p|div|h[1-6])[\s>]/i.test(text.slice(0, 5000))
    ? 'article'
    : 'writing'
}

/** Reads Markdown or plain text. The first heading of level 1 is the title. */
export function readWriting(text: string, title: string, known: Known = {}): PieceContent {
  const body = text.replace(/^---\n[\s\S]*?\n---\n/, '')
  const first = /^\s*#\s+(.+?)\s*#*\s*$/m.exec(body)?.[1]
  const html = marked.parse(body, { async: false, gfm: true })
  return readFragment(html, { ...known, title: known.title ?? first?.replace(/[*_`]/g, '') ?? title })
}
