import { canonicalAddress, type FeedItem } from '../feeds'
import type { Passage, Piece, PieceContent } from '../model'
import { findPassages } from '../passages'
import { hash32 } from '../planning'
import { readFragment, readPage } from '../reading'

/** The words below which a feed's own text counts as a summary and the page is wanted. */
const FULL_TEXT_WORDS = 150

/** How many passages are kept at first, for the longest built-in rhythm; the others are spare. */
const KEPT_AT_FIRST = 8

/** Whether an item carries its whole text, so that its page need not be fetched. */
export function carriesFullText(item: FeedItem): boolean {
  return item.html.replace(/<[^>]*>/g, ' ').split(/\s+/).length >= FULL_TEXT_WORDS
}

/**
 * A piece from a feed item, read from the item's own HTML or from its page where that was
 * fetched. Throws `not-readable` where neither holds running text.
 */
export function takePiece(
  item: FeedItem,
  page: { html: string; url: string } | null,
  owner: { id: string; brand: string; source: string; now: string },
): Piece {
  const known = {
    url: item.url ? canonicalAddress(item.url) : null,
    title: item.title,
    author: item.author,
    publishedAt: item.publishedAt,
    categories: item.categories,
    summary: item.summary,
    images: item.images,
  }
  const content: PieceContent = page
    ? readPage(page.html, { ...known, url: page.url })
    : readFragment(item.html || `<p>${item.summary}</p>`, known)
  return {
    ...content,
    url: known.url ?? content.url,
    id: owner.id,
    brand: owner.brand,
    source: owner.source,
    itemId: item.id,
    revision: 1,
    fingerprint: fingerprint(content),
    takenAt: owner.now,
    dealt: null,
    trouble: null,
    seenBy: [],
  }
}

/** Changes when the words of a piece change; two 32-bit hashes in hexadecimal. */
function fingerprint(content: PieceContent): string {
  const words = `${content.title}\n${content.text}`.toLowerCase().replace(/\s+/g, ' ')
  const hex = (n: number): string => n.toString(16).padStart(8, '0')
  return hex(hash32(words)) + hex(hash32(`${words.length} ${[...words].reverse().join('')}`))
}

const CONTEXT = 40

/** The passages found in a piece as records: the best few kept, the others spare. */
export function toPassages(piece: Piece, newId: () => string): Passage[] {
  return findPassages(piece).map((found, index) => ({
    ...found,
    id: newId(),
    brand: piece.brand,
    piece: piece.id,
    revision: piece.revision,
    before: piece.text.slice(Math.max(0, found.start - CONTEXT), found.start),
    after: piece.text.slice(found.end, found.end + CONTEXT),
    choice: index < KEPT_AT_FIRST && !found.reasons.some((r) => r.startsWith('ages')) ? 'kept' : 'spare',
    by: 'machine',
    lostPlace: false,
  }))
}
