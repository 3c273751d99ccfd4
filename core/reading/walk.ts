import { resolveAddress } from '../feeds'
import type { PieceImage } from '../model'
import { squeeze } from './pageWords'
import { cleanWords, isFigureLabel, isFootnote } from './clean'
import { furnitureByName } from './furniture'
import type { BlockDraft } from './piece'
import { countWords } from '../text'

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

/** Signs of a private use by which bold type is followed through a run of text. */
const BOLD = { on: '\uE000', off: '\uE001' }
const MARKS = /[\uE000\uE001]/g
const LEAD = /^\uE000([^\uE001]*)\uE001/

interface Context {
  kind: BlockDraft['kind']
  level?: number
  list?: NonNullable<BlockDraft['list']>
  speaker?: string
  furniture: string | null
}

/** Walks an article's elements and collects blocks and pictures in order. */
export class Walker {
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
    for (const part of parts) this.#titled(part, context)
  }

  /** A run of text whose first line is all bold: a heading over the rest, or the name of a list's item. */
  #titled(part: string, context: Context): void {
    const [all, name = '', rest = ''] =
      /^\s*\uE000([^\uE000\uE001\n]+)\uE001[ \t]*\n([\s\S]*)$/.exec(part) ?? []
    const bare = squeeze(name)
    if (!all || !rest.trim() || countWords(bare) > 10 || /[.!?:,;]$/.test(bare)) this.#block(part, context)
    else if (context.kind === 'paragraph') {
      this.#block(name, { ...context, kind: 'heading', level: 6 })
      this.#block(rest, context)
    } else this.#block(`${BOLD.on}${bare}:${BOLD.off} ${rest}`, context)
  }

  /** One block from a run of text, without the marks of bold type and what is no word of it. */
  #block(part: string, context: Context): void {
    const plain = part.replace(MARKS, '')
    const text = cleanWords(squeeze(plain))
    if (!/[\p{L}\p{N}]/u.test(text)) return
    const lead = LEAD.exec(part.trimStart())?.[1]
    const bold = squeeze((lead ?? '').replace(MARKS, ''))
    const draft: BlockDraft = { ...context, text, ...(bold ? { bold } : {}) }
    if (!draft.furniture && isFootnote(squeeze(plain))) draft.furniture = 'footnote'
    if (!draft.furniture && draft.kind === 'paragraph' && countWords(text) < 45 && isFigureLabel(text)) {
      draft.furniture = 'picture caption'
      const last = this.images[this.images.length - 1]
      if (last && !last.caption) last.caption = text
    }
    this.drafts.push(draft)
  }

  #element(element: Element, outer: Context): void {
    const tag = element.tagName.toLowerCase()
    if (SKIP.has(tag) || isHidden(element)) return
    if (tag === 'br') {
      this.#buffer += '\n'
      return
    }
    if (tag === 'img') {
      this.#image(element)
      return
    }
    if (tag === 'sup') {
      this.#buffer += raised(element, this.#buffer)
      return
    }
    if (tag === 'b' || tag === 'strong') {
      this.#buffer += BOLD.on
      this.walk(element, outer)
      this.#buffer += BOLD.off
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
    if (tag === 'table' && !isLayout(element)) {
      for (const row of element.querySelectorAll('tr')) {
        const cells = [...row.querySelectorAll('th, td')].map((c) => squeeze(c.textContent ?? ''))
        if (cells.some(Boolean))
          this.drafts.push({ kind: 'row', furniture: context.furniture, text: cells.join(' | ') })
      }
      return
    }
    const heading =
      /^h([1-6])$/.exec(tag) ??
      (tag === 'dt' && countWords(element.textContent ?? '') <= 14 ? ['', '5'] : null)
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
    const inside = [...element.querySelectorAll('footer, cite')].find(standsAfter) ?? null
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
      const tag = item.tagName.toLowerCase()
      // A list that stands in a list without an item around it, as old editors write them.
      if (tag === 'ul' || tag === 'ol') {
        this.#list(item, context, tag === 'ol')
        continue
      }
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
    const url = pictureAddress(element, this.#base)
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
    // A heading's id is made of its own words.
    const id = /^h[1-6]$/.test(tag) ? '' : element.id
    const names = `${element.getAttribute('class') ?? ''} ${id} ${element.getAttribute('role') ?? ''}`
    const reason = furnitureByName(tag, names)
    const share = countWords(element.textContent ?? '') / Math.max(1, this.#words)
    if (reason && share < (reason === 'comments' || reason === 'related links' ? 0.7 : 0.3)) return reason
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

function isHidden(element: Element): boolean {
  return (
    element.hasAttribute('hidden') ||
    element.getAttribute('aria-hidden') === 'true' ||
    /display:\s*none|visibility:\s*hidden/i.test(element.getAttribute('style') ?? '') ||
    /(?:^|\s)(?:sr-only|visually-hidden|screen-reader-text)(?:\s|$)/.test(element.getAttribute('class') ?? '')
  )
}

const RAISED: Readonly<Record<string, string>> = {
  0: '⁰',
  1: '¹',
  2: '²',
  3: '³',
  4: '⁴',
  5: '⁵',
  6: '⁶',
  7: '⁷',
  8: '⁸',
  9: '⁹',
}

/** Raised text: a footnote's mark is none of the words; a power keeps its height; "1st" and "™" are letters. */
function raised(element: Element, before: string): string {
  const text = squeeze(element.textContent ?? '')
  const names = `${element.getAttribute('class') ?? ''} ${element.id}`
  const linked = element.querySelector('a[href*="#"], [role="doc-noteref"]') !== null
  if (linked || /foot|note|cite|ref/i.test(names) || element.closest('a[href*="#"]')) return ''
  if (!/^[[(]?[\d,*†‡§–-]{1,7}[\])]?$/.test(text))
    return /^(?:st|nd|rd|th|tm|®|™|c|e|er|re)$/i.test(text) ? text : /^[a-z]$/.test(text) ? '' : text
  const power =
    /^\d$/.test(text) && /(?:\d|(?:^|[^\p{L}])(?:[ckmd]?m|km|in|ft|yd|s|x|n|r))[\uE000\uE001]*$/u.test(before)
  return power ? (RAISED[text] ?? text) : ''
}

/** Whether a table lays out a page rather than figures: running text or blocks stand in its cells. */
function isLayout(table: Element): boolean {
  if (table.getAttribute('role') === 'presentation') return true
  if (table.querySelector('table, h1, h2, h3, article, p + p, br + br')) return true
  for (const cell of table.querySelectorAll('td, th'))
    if (countWords(cell.textContent ?? '') > 60) return true
  return false
}

/** The address of a picture: what a page loads late stands beside a filler. The widest of a set is taken. */
function pictureAddress(element: Element, base: string | null): string | null {
  const set = (text: string | null): string | undefined =>
    (text ?? '')
      .split(/,\s+/)
      .map((part) => part.trim().split(/\s+/))
      .sort((a, b) => Number.parseFloat(b[1] ?? '0') - Number.parseFloat(a[1] ?? '0'))[0]?.[0]
  const candidates = [
    element.getAttribute('data-src'),
    element.getAttribute('data-lazy-src'),
    element.getAttribute('data-original'),
    element.getAttribute('src'),
    set(element.getAttribute('srcset') ?? element.getAttribute('data-srcset')),
    set(element.parentElement?.querySelector('source[srcset]')?.getAttribute('srcset') ?? null),
  ]
  return candidates.map((c) => (c ? resolveAddress(c, base) : null)).find((c) => c !== null) ?? null
}

/** Whether a footer or cite comes after what is quoted, and not within one of its sentences as a title does. */
function standsAfter(element: Element): boolean {
  const around = { before: '', after: '' }
  let side: 'before' | 'after' = 'before'
  for (const node of element.parentElement?.childNodes ?? []) {
    if ((node as unknown) === element) side = 'after'
    else around[side] += node.textContent ?? ''
  }
  if (element.parentElement?.tagName === 'BLOCKQUOTE') return true
  return around.after.trim() === '' && /(?:^|[—–.!?…:"”’»-])$/u.test(around.before.trim())
}
