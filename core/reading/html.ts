import { Readability } from '@mozilla/readability'
import { parseHTML } from 'linkedom'
import { resolveAddress } from '../feeds'
import {
  Fault,
  type Block,
  type PieceContent,
  type PieceImage,
  type PieceText,
  type WholePiece,
} from '../model'
import { furnitureByHeading, furnitureByName, furnitureByWords } from './furniture'
import { assemblePiece, countWords, shareAnalysis, type BlockDraft } from './piece'

/** What is known of a piece before its page is read, for instance from its feed. */
export interface Known {
  url?: string | null
  /** What addresses in its text are relative to, where that is not its own address. */
  base?: string | null
  language?: string | null
  title?: string
  author?: string | null
  publishedAt?: string | null
  categories?: string[]
  summary?: string
  images?: readonly { url: string; alt: string; width: number | null; height: number | null }[]
}

/**
 * Reads a whole page: finds the container of the article with Mozilla's Readability, then walks
 * that container itself and marks furniture within it (Readability deletes what it dislikes).
 * Throws `not-readable` where the page holds no running text.
 */
export function readPage(html: string, known: Known = {}): PieceContent {
  const { document } = parseHTML(
    /<html[\s>]/i.test(html) ? html : `<!doctype html><html><head></head><body>${html}</body></html>`,
  )
  const body = document.body
  if (!body) throw new Fault('not-readable', 'This page has no body to read.')
  const about = aboutPage(document, known)
  let mark = 0
  for (const element of body.querySelectorAll('*')) element.setAttribute('data-place', String(mark++))
  const kept = new Set<string>()
  const article = new Readability(document.cloneNode(true) as unknown as globalThis.Document, {
    charThreshold: 200,
    keepClasses: true,
  }).parse()
  if (article?.content)
    for (const match of article.content.matchAll(/data-place="(\d+)"/g)) kept.add(match[1] ?? '')
  const container = articleContainer(body as unknown as Element, kept)
  return readContainer(container, about, kept.size ? kept : null)
}

/** Reads a fragment of HTML that is all piece: a feed item's body, or rendered Markdown. */
export function readFragment(html: string, known: Known = {}): PieceContent {
  const { document } = parseHTML(`<!doctype html><html><head></head><body>${html}</body></html>`)
  return readContainer(document.body as unknown as Element, aboutPage(document, known), null)
}

type About = Parameters<typeof assemblePiece>[0] & {
  images: NonNullable<Known['images']>
  base: string | null
}

interface Queryable {
  querySelector(
    selector: string,
  ): { getAttribute(name: string): string | null; textContent: string | null } | null
  querySelectorAll(
    selector: string,
  ): Iterable<{ getAttribute(name: string): string | null; textContent: string | null }>
}

function aboutPage(page: Queryable, known: Known): About {
  const meta = (...names: string[]): string | null => {
    for (const name of names) {
      const found = page
        .querySelector(`meta[property="${name}"], meta[name="${name}"]`)
        ?.getAttribute('content')
        ?.trim()
      if (found) return found
    }
    return null
  }
  const heading = page.querySelector('article h1, main h1, h1')?.textContent?.trim()
  const url =
    resolveAddress(page.querySelector('link[rel="canonical"]')?.getAttribute('href'), known.url) ??
    known.url ??
    null
  const date =
    meta('article:published_time', 'date', 'dc.date') ??
    page.querySelector('time[datetime]')?.getAttribute('datetime')
  const time = date
    ? Date.parse(/T.*(Z|[+-]\d\d:?\d\d)$/.test(date) || date.length === 10 ? date : `${date}Z`)
    : NaN
  const tags = [...page.querySelectorAll('meta[property="article:tag"]')].map(
    (m) => m.getAttribute('content')?.trim() ?? '',
  )
  const links = [...page.querySelectorAll('a[rel~="tag"]')].map((a) => a.textContent?.trim() ?? '')
  return {
    title: squeeze(
      known.title ?? heading ?? meta('og:title') ?? page.querySelector('title')?.textContent ?? '',
    ),
    url,
    author:
      known.author ??
      meta('author', 'article:author') ??
      squeeze(page.querySelector('[rel="author"]')?.textContent ?? '') ??
      null,
    publishedAt: known.publishedAt ?? (Number.isNaN(time) ? null : new Date(time).toISOString()),
    language: page.querySelector('html')?.getAttribute('lang') ?? known.language ?? null,
    categories: [...new Set([...(known.categories ?? []), ...tags, ...links].filter(Boolean))],
    summary: known.summary || (meta('description', 'og:description') ?? ''),
    images: known.images ?? [],
    video: null,
    base:
      resolveAddress(page.querySelector('base[href]')?.getAttribute('href'), url) ??
      known.base ??
      known.url ??
      null,
  }
}

/** The smallest element that holds what Readability kept, widened to its article element. */
function articleContainer(body: Element, kept: ReadonlySet<string>): Element {
  if (kept.size === 0) return body.querySelector('article') ?? body.querySelector('main') ?? body
  const paragraphs = [...body.querySelectorAll('p, li, h2, h3')].filter((p) =>
    kept.has(p.getAttribute('data-place') ?? ''),
  )
  let container: Element | null = paragraphs[0]?.parentElement ?? null
  while (container && container !== body && !paragraphs.every((p) => container?.contains(p)))
    container = container.parentElement
  return container?.closest('article') ?? container ?? body
}

const SKIP = new Set([
  'script',
  'style',
  'noscript',
  'template',
  'svg',
  'iframe',
  'button',
  'select',
  'input',
  'object',
  'video',
  'audio',
  'canvas',
  'label',
])
const BLOCKS = new Set([
  'p',
  'div',
  'section',
  'article',
  'main',
  'header',
  'footer',
  'aside',
  'nav',
  'form',
  'ul',
  'ol',
  'li',
  'dl',
  'dt',
  'dd',
  'blockquote',
  'pre',
  'table',
  'thead',
  'tbody',
  'tr',
  'figure',
  'figcaption',
  'address',
  'hr',
  'h1',
  'h2',
  'h3',
  'h4',
  'h5',
  'h6',
  'details',
  'summary',
  'fieldset',
])

interface Context {
  kind: BlockDraft['kind']
  level?: number
  list?: NonNullable<BlockDraft['list']>
  speaker?: string
  furniture: string | null
}

function readContainer(
  container: Element,
  { images: feedImages, base, ...about }: About,
  kept: ReadonlySet<string> | null,
): PieceContent {
  const walker = new Walker(base, kept, countWords(container.textContent ?? ''))
  walker.walk(container, { kind: 'paragraph', furniture: null })
  walker.flush({ kind: 'paragraph', furniture: null })
  const drafts = markFurniture(walker.drafts, about.title, about.author)
  const shown = new Set(walker.images.map((i) => i.url))
  const lead: PieceImage[] = feedImages
    .filter((i) => !shown.has(i.url))
    .map((i) => ({ ...i, caption: '', block: -1 }))
  const piece = assemblePiece({ ...about, author: about.author || null }, drafts, [...lead, ...walker.images])
  if (piece.words === 0)
    throw new Fault(
      'not-readable',
      'There is no running text on this page. If it is made by scripts, give its feed or paste the text.',
    )
  return piece
}

/** Walks an article's elements and collects blocks and pictures in order. */
class Walker {
  readonly drafts: BlockDraft[] = []
  readonly images: PieceImage[] = []
  readonly #base: string | null
  readonly #kept: ReadonlySet<string> | null
  readonly #words: number
  #buffer = ''
  #lists = 0

  constructor(base: string | null, kept: ReadonlySet<string> | null, words: number) {
    this.#base = base
    this.#kept = kept
    this.#words = words
  }

  walk(element: Element, context: Context): void {
    for (const node of element.childNodes) {
      if (node.nodeType === 3) this.#buffer += (node.textContent ?? '').replace(/\s+/g, ' ')
      else if (node.nodeType === 1) this.#element(node as Element, context)
    }
  }

  /** Ends the running block. A doubled line break parts it into paragraphs. */
  flush(context: Context): void {
    const parts = this.#buffer.split(/\n[ \t]*\n/)
    this.#buffer = ''
    for (const part of parts) {
      const text = squeeze(part)
      if (text) this.drafts.push({ ...context, text })
    }
  }

  #element(element: Element, outer: Context): void {
    const tag = element.tagName.toLowerCase()
    if (SKIP.has(tag) || element.hasAttribute('hidden') || element.getAttribute('aria-hidden') === 'true')
      return
    if (tag === 'br') {
      this.#buffer += '\n'
      return
    }
    if (tag === 'img') {
      this.#image(element)
      return
    }
    if (!BLOCKS.has(tag)) {
      this.walk(element, outer)
      return
    }
    this.flush(outer)
    const context: Context = { ...outer, furniture: outer.furniture ?? this.#furniture(element, tag) }
    if (tag === 'pre') {
      const text = (element.textContent ?? '').replace(/^\n+|\s+$/g, '')
      if (text) this.drafts.push({ kind: 'code', furniture: context.furniture, text })
      return
    }
    if (tag === 'figcaption' && element.parentElement?.querySelector('blockquote')) return
    if (tag === 'figcaption') {
      const last = this.images[this.images.length - 1]
      if (last) last.caption = squeeze(element.textContent ?? '')
      return
    }
    if (tag === 'table') {
      for (const row of element.querySelectorAll('tr')) {
        const cells = [...row.querySelectorAll('th, td')].map((c) => squeeze(c.textContent ?? ''))
        if (cells.some(Boolean))
          this.drafts.push({ kind: 'row', furniture: context.furniture, text: cells.join(' | ') })
      }
      return
    }
    const heading = /^h([1-6])$/.exec(tag)
    if (heading) {
      this.walk(element, context)
      this.flush({ kind: 'heading', level: Number(heading[1]), furniture: context.furniture })
      return
    }
    if (tag === 'ul' || tag === 'ol') {
      this.#list(element, context, tag === 'ol')
      return
    }
    if (tag === 'blockquote') {
      this.#quotation(element, context)
      return
    }
    this.walk(element, context)
    this.flush(context)
  }

  /** A quotation with who says it: a cite or footer within it, the caption of its figure, or a last line after a dash. */
  #quotation(element: Element, context: Context): void {
    const inside = element.querySelector('footer, cite')
    const figure = element.parentElement?.tagName === 'FIGURE' ? element.parentElement : null
    const named = squeeze((inside ?? figure?.querySelector('figcaption'))?.textContent ?? '')
    inside?.remove()
    const from = this.drafts.length
    const inner: Context = { kind: 'quotation', furniture: context.furniture }
    this.walk(element, inner)
    this.flush(inner)
    const last = this.drafts[this.drafts.length - 1]
    const dashed =
      this.drafts.length - from > 1 ? /^[—–-]{1,2}\s*(.{2,60})$/.exec(last?.text ?? '')?.[1] : undefined
    if (dashed) this.drafts.pop()
    const speaker = (named || dashed || '').replace(/^[—–-]+\s*/, '')
    if (speaker) for (const draft of this.drafts.slice(from)) draft.speaker = speaker
  }

  #list(element: Element, context: Context, ordered: boolean): void {
    const id = this.#lists++
    let index = 0
    for (const item of element.children) {
      if (item.tagName.toLowerCase() !== 'li') continue
      const inner: Context = {
        kind: 'item',
        furniture: context.furniture,
        list: { id, ordered, index: index++ },
      }
      this.walk(item, inner)
      this.flush(inner)
    }
  }

  #image(element: Element): void {
    const url = resolveAddress(element.getAttribute('src') ?? element.getAttribute('data-src'), this.#base)
    if (!url) return
    const size = (name: string): number | null => {
      const value = Number.parseInt(element.getAttribute(name) ?? '', 10)
      return value > 0 ? value : null
    }
    const width = size('width')
    const height = size('height')
    if (width !== null && width < 80) return
    this.images.push({
      url,
      alt: squeeze(element.getAttribute('alt') ?? ''),
      caption: '',
      width,
      height,
      block: this.drafts.length - 1,
    })
  }

  #furniture(element: Element, tag: string): string | null {
    const names = `${element.getAttribute('class') ?? ''} ${element.id} ${element.getAttribute('role') ?? ''}`
    const reason = furnitureByName(tag, names)
    const share = countWords(element.textContent ?? '') / Math.max(1, this.#words)
    if (reason && share < 0.3) return reason
    const place = element.getAttribute('data-place')
    const dropped = this.#kept !== null && place !== null && !this.#kept.has(place)
    return dropped && (tag === 'div' || tag === 'section') && share < 0.1 && linkShare(element) > 0.5
      ? 'links'
      : null
  }
}

/** The share of an element's letters that stand in links. */
function linkShare(element: Element): number {
  const all = (element.textContent ?? '').length
  let linked = 0
  for (const a of element.querySelectorAll('a')) linked += (a.textContent ?? '').length
  return all === 0 ? 0 : linked / all
}

/** Marks by words and headings what the markup did not name, and drops the repeated title. */
function markFurniture(drafts: readonly BlockDraft[], title: string, author: string | null): BlockDraft[] {
  const body = drafts.filter((d, i) => !(d.kind === 'heading' && i < 6 && sameTitle(d.text, title)))
  let under: { reason: string; level: number } | null = null
  return body.map((draft, index) => {
    if (draft.furniture) return draft
    if (draft.kind === 'heading') {
      const level = draft.level ?? 2
      const reason = furnitureByHeading(draft.text)
      if (reason) under = { reason, level }
      else if (under && level <= under.level) under = null
    }
    const reason: string | null =
      under?.reason ??
      (draft.kind === 'heading'
        ? null
        : furnitureByWords(draft.text, author, index / Math.max(1, body.length - 1)))
    return reason ? { ...draft, furniture: reason } : draft
  })
}

function sameTitle(a: string, b: string): boolean {
  const bare = (s: string): string => s.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '')
  return bare(a) === bare(b)
}

function squeeze(text: string): string {
  return text.replace(/[\s\u00AD\u200B]+/g, (run) => (/^[\u00AD\u200B]+$/.test(run) ? '' : ' ')).trim()
}

/** What the blocks of pieces are compared by: a short print of each one's words, furniture or not. */
export function blockPrints(text: Pick<PieceText, 'text' | 'blocks'>): string[] {
  return text.blocks.map((b) => printOf(text.text.slice(b.start, b.end)))
}

function printOf(words: string): string {
  return words
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()
}

/** On how many other pages a block must stand, word for word, to be furniture. */
const REPEATED = 2

/**
 * Marks as furniture what stands word for word on other pages of the same source: a house line,
 * a standing invitation, a disclaimer. `others` are the prints of the blocks of each other page.
 * Headings of one or two words may come back ("Tools", "What you need") and are left.
 */
export function markRepeats<T extends WholePiece>(piece: T, others: readonly ReadonlySet<string>[]): T {
  let marked = false
  const blocks = piece.blocks.map((block): Block => {
    if (block.furniture !== null) return block
    const print = printOf(piece.text.slice(block.start, block.end))
    if (block.kind === 'heading' ? print.split(' ').length < 3 : print.length < 12) return block
    if (others.filter((o) => o.has(print)).length < REPEATED) return block
    marked = true
    return { ...block, furniture: 'repeats on other pages' }
  })
  if (!marked) return piece
  shareAnalysis(piece.blocks, blocks)
  const words = blocks.reduce(
    (sum, b) => (b.furniture === null ? sum + countWords(piece.text.slice(b.start, b.end)) : sum),
    0,
  )
  return { ...piece, blocks, words }
}
