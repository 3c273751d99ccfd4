import { decodeText, looksLikeFeed, looksLikeOpml, parseFeed, type Feed } from '../feeds'
import { Fault, type PieceContent } from '../model'
import type { Known } from './about'
import { frontMatter } from './frontMatter'
import { readFragment, readPage } from './html'
import { chaptersOf, docxToHtml, writingToHtml } from './manuscript'
import { readTranscript } from './transcript'

export const KINDS = ['feed', 'article', 'transcript', 'writing'] as const
/** What a file is read as. */
export type ReadKind = (typeof KINDS)[number]

/** What reading makes of a file: a feed with its items, or one piece. */
export type ReadResult = { kind: 'feed'; feed: Feed } | { kind: 'piece'; piece: PieceContent }

interface ReadOptions {
  as?: ReadKind | undefined
  url?: string | null | undefined
  /** The file's name, used for a title where the text has none. */
  name?: string
}

/** Reads a document of any kind there is a reader for; the kind is recognised when not given. */
export async function read(bytes: Uint8Array, options: ReadOptions = {}): Promise<ReadResult> {
  const opened = await open(bytes, options)
  const url = options.url ?? null
  if (opened.as === 'feed') return { kind: 'feed', feed: parseFeed(opened.text, url) }
  if (opened.as === 'article') return { kind: 'piece', piece: readPage(opened.text, { url }) }
  if (opened.as === 'transcript')
    return { kind: 'piece', piece: readTranscript(opened.text, { title: opened.title, url }) }
  return { kind: 'piece', piece: readWhole(opened.text, opened.title, { url, ...opened.known }) }
}

/** Reads Markdown or plain text as one piece. Its first heading is the title. */
export function readWriting(text: string, title: string, known: Known = {}): PieceContent {
  const { known: own, body } = frontMatter(text)
  return readWhole(writingToHtml(body), title, { ...own, ...known })
}

function readWhole(html: string, title: string, known: Known): PieceContent {
  const [whole] = chaptersOf(html, title, false)
  return readFragment(html, { ...known, title: known.title ?? whole?.title ?? title })
}

/** What a person's own file holds: a talk with times, or writing, chapter by chapter. */
export async function readOwn(
  bytes: Uint8Array,
  name: string,
): Promise<{ kind: 'transcript' | 'writing'; title: string; chapters: PieceContent[] }> {
  const { as, text, title, known } = await open(bytes, { name })
  if (as === 'feed')
    throw new Fault('bad-file', 'This file is a feed. Add it by its address, so that it is visited again.')
  if (as === 'transcript') return { kind: as, title, chapters: [readTranscript(text, { title })] }
  // A saved page has furniture around its text; a manuscript has none.
  if (as === 'article' && /<body[\s>]/i.test(text))
    return { kind: 'writing', title, chapters: [readPage(text)] }
  const parts = chaptersOf(text, known.title ?? title)
  return {
    kind: 'writing',
    title: known.title ?? (parts.length === 1 ? (parts[0]?.title ?? title) : title),
    chapters: parts.map((c) =>
      readFragment(c.html, { ...known, title: parts.length === 1 ? (known.title ?? c.title) : c.title }),
    ),
  }
}

const ZIP = [0x50, 0x4b, 0x03, 0x04]

/** A document's kind and text; writing comes as HTML. */
async function open(
  bytes: Uint8Array,
  options: ReadOptions,
): Promise<{ as: ReadKind; text: string; title: string; known: Known }> {
  const name = (options.name ?? '').replace(/^.*[\\/]/, '')
  const title = titleOf(name)
  if (ZIP.every((b, i) => bytes[i] === b))
    return { as: 'writing', text: await docxToHtml(bytes), title, known: {} }
  const text = decodeText(bytes).replace(/^\uFEFF/, '')
  if (!text.trim()) throw new Fault('bad-file', 'The file is empty.')
  if (text.slice(0, 2000).includes('\0'))
    throw new Fault('bad-file', 'This is not a text file: it holds binary data.')
  if (looksLikeOpml(text))
    throw new Fault('bad-file', 'This is a list of feeds. Import it under Sources; there is no piece in it.')
  const as = options.as ?? recognise(text, name)
  if (as !== 'writing') return { as, text, title, known: {} }
  const { known, body } = frontMatter(text)
  return { as, text: writingToHtml(body), title, known }
}

/** A title from a file's name: without its ending, its joints as spaces. */
export function titleOf(name: string): string {
  return (
    name
      .replace(/\.\w+$/, '')
      .replace(/[-_]+/g, ' ')
      .trim() || 'Untitled'
  )
}

/** The kind of a document by its content, and by its name where the content leaves it open. */
export function recognise(text: string, name = ''): ReadKind {
  if (looksLikeFeed(text)) return 'feed'
  const head = text.slice(0, 3000)
  if (/^\s*WEBVTT\b/.test(text) || /\d\d?:\d\d[,.]\d{1,3}\s*-->\s*\d/.test(head)) return 'transcript'
  if (/^(?:\s*[[(]?(?:\d+:)?\d{1,2}:\d\d[\])]?[^\n]*\n){3}/.test(`${head}\n`)) return 'transcript'
  if (/^\s*\{/.test(head) && /"segments"\s*:\s*\[/.test(head) && head.includes('"startTime"'))
    return 'transcript'
  if (/\.(md|markdown|txt)$/i.test(name)) return 'writing'
  return /<(!doctype html|html|body|article|p|div|h[1-6])[\s>]/i.test(text.slice(0, 5000))
    ? 'article'
    : 'writing'
}
