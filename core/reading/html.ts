import { Readability } from '@mozilla/readability'
import { parseHTML } from 'linkedom'
import { parse, serialize } from 'parse5'
import { Fault, type PieceContent, type PieceImage } from '../model'
import { aboutFragment, aboutPage, type About, type Known } from './about'
import { markDrafts } from './marks'
import { assemblePiece } from './piece'
import { countWords } from '../text'
import { Walker } from './walk'

/**
 * A document as a browser would build it: end tags that were left out are put in and what is nested
 * wrongly is parted (parse5, after the HTML standard), then in the small DOM that the reading walks.
 */
function documentOf(html: string): ReturnType<typeof parseHTML>['document'] {
  return parseHTML(serialize(parse(html))).document
}

/**
 * Reads a whole page: finds the container of the article with Mozilla's Readability, then walks
 * that container itself and marks furniture within it (Readability deletes what it dislikes).
 * Throws `not-readable` where the page holds no running text.
 */
export function readPage(html: string, known: Known = {}): PieceContent {
  const document = documentOf(html)
  const { body } = document
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
  const document = documentOf(html)
  return readContainer(document.body as unknown as Element, aboutFragment(document, known), null)
}

/** The words that stand in an element itself, not in its blocks. */
function ownWords(element: Element): number {
  let n = 0
  for (const node of element.childNodes) if (node.nodeType === 3) n += countWords(node.textContent ?? '')
  return n
}

/**
 * The smallest element that holds what Readability kept, widened to its article element. What it kept
 * is known by the elements in which words stand: paragraphs, or cells and boxes with line breaks.
 */
function articleContainer(body: Element, kept: ReadonlySet<string>): Element {
  const whole = (): Element => body.querySelector('article') ?? body.querySelector('main') ?? body
  if (kept.size === 0) return whole()
  const isKept = (e: Element): boolean => kept.has(e.getAttribute('data-place') ?? '')
  let holders = [...body.querySelectorAll('p, li, h2, h3')].filter(isKept)
  if (holders.length < 3)
    holders = [...body.querySelectorAll('p, li, td, div, section, font, span, dd')].filter(
      (e) => isKept(e) && ownWords(e) > 5,
    )
  let container: Element | null = holders[0]?.parentElement ?? null
  if (holders.length === 1) container = holders[0] ?? null
  while (container && container !== body && !holders.every((p) => container?.contains(p)))
    container = container.parentElement
  const found = container?.closest('article') ?? container ?? body
  // Where Readability kept a small part of what the page says, the page's own container is taken.
  return countWords(found.textContent ?? '') * 3 < countWords(whole().textContent ?? '') && whole() !== body
    ? whole()
    : found
}

function readContainer(
  container: Element,
  { images: feedImages, base, ...about }: About,
  kept: ReadonlySet<string> | null,
): PieceContent {
  const walker = new Walker(base, kept, countWords(container.textContent ?? ''))
  walker.walk(container, { kind: 'paragraph', furniture: null })
  walker.flush({ kind: 'paragraph', furniture: null })
  const drafts = markDrafts(walker.drafts, about.title, about.author)
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
