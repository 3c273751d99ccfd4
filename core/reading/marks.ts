import { numbered } from './clean'
import { furnitureByHeading, furnitureByWords } from './furniture'
import type { BlockDraft } from './piece'
import { countWords, printOf } from '../text'
import { markSpeakers } from './speakers'

/**
 * What the markup of a page did not say of its blocks: which paragraphs are headings, which numbers only
 * count sections, who speaks, what is furniture by its words, and what only repeats the text. The title
 * is dropped where the page repeats it.
 */
export function markDrafts(
  drafts: readonly BlockDraft[],
  title: string,
  author: string | null,
): BlockDraft[] {
  const body = drafts.filter((d, i) => !(isHeadingLike(d) && i < 8 && sameTitle(d.text, title)))
  const told = markSpeakers(withoutNumbers(boldHeadings(body)), author)
  return markRepeated(markContents(markFurniture(told, author)))
}

const isHeadingLike = (d: BlockDraft): boolean => d.kind === 'heading' || d.bold === d.text

function sameTitle(a: string, b: string): boolean {
  return printOf(a) === printOf(b) && printOf(a) !== ''
}

/** A short paragraph that is all bold, with no end and text after it, is a heading. */
function boldHeadings(drafts: readonly BlockDraft[]): BlockDraft[] {
  return drafts.map((draft, i) => {
    const next = drafts[i + 1]
    const heading =
      draft.kind === 'paragraph' &&
      draft.bold === draft.text &&
      countWords(draft.text) <= 14 &&
      !/[.:,;]$/.test(draft.text) &&
      next !== undefined &&
      next.kind !== 'heading' &&
      next.bold !== next.text
    return heading ? { ...draft, kind: 'heading' as const, level: 3 } : draft
  })
}

/**
 * Takes off the numbers that count sections, steps and points of a text: those that run on from one to
 * the next, and those that can be nothing else ("2.1", "§ 3"). A heading that is a number alone goes.
 */
function withoutNumbers(drafts: readonly BlockDraft[]): BlockDraft[] {
  const counts = (d: BlockDraft): boolean =>
    d.furniture === null && (d.kind === 'heading' || d.kind === 'paragraph')
  const found = drafts.map((d) => (counts(d) ? numbered(d.text) : null))
  const order = found.flatMap((f, i) =>
    f && /^\d+[.):]?$/.test(f.number) ? [{ i, value: Number.parseInt(f.number, 10) }] : [],
  )
  const running = new Set<number>()
  for (const { i, value } of order)
    if (
      order.some((o) => o.value === value + 1 && o.i > i) ||
      order.some((o) => o.value === value - 1 && o.i < i)
    )
      running.add(i)
  return drafts.flatMap((draft, i) => {
    if (counts(draft) && /^(?:§\s*)?\d{1,2}[.):]?$/.test(draft.text)) return []
    const number = found[i]
    if (!number) return [draft]
    const certain = number.certain && (draft.kind === 'heading' || running.has(i))
    if (!certain && !running.has(i)) return [draft]
    return [{ ...draft, text: number.rest }]
  })
}

function markFurniture(drafts: readonly BlockDraft[], author: string | null): BlockDraft[] {
  let under: { reason: string; level: number } | null = null
  return drafts.map((draft, index) => {
    if (draft.furniture) return draft
    if (draft.kind === 'heading') {
      const level = draft.level ?? 2
      const reason = furnitureByHeading(draft.text, index / Math.max(1, drafts.length - 1))
      if (reason) under = { reason, level }
      else if (under && level <= under.level) under = null
    }
    const reason: string | null =
      under?.reason ??
      (draft.kind === 'heading' || draft.kind === 'code' || draft.kind === 'row'
        ? null
        : furnitureByWords(draft.text, author, index / Math.max(1, drafts.length - 1)))
    return reason ? { ...draft, furniture: reason } : draft
  })
}

/** How many items of a list must be headings of the text below it for the list to be its contents, as a share. */
const CONTENTS = 0.7

/** A list that only names the headings that follow it is furniture: a table of contents. */
function markContents(drafts: readonly BlockDraft[]): BlockDraft[] {
  const contents = new Set<number>()
  for (const id of new Set(drafts.flatMap((d) => (d.list ? [d.list.id] : [])))) {
    const items = drafts.filter((d) => d.list?.id === id)
    const after = drafts.slice(drafts.lastIndexOf(items.at(-1) as BlockDraft))
    const headings = new Set(after.flatMap((d) => (d.kind === 'heading' ? [printOf(d.text)] : [])))
    const named = items.filter((item) => headings.has(printOf(item.text))).length
    if (items.length > 2 && named >= items.length * CONTENTS) contents.add(id)
  }
  return contents.size === 0
    ? [...drafts]
    : drafts.map((d) =>
        d.list && contents.has(d.list.id) && !d.furniture ? { ...d, furniture: 'contents' } : d,
      )
}

/** A quotation, a bold line or a short paragraph that says again what another block holds is furniture. */
function markRepeated(drafts: readonly BlockDraft[]): BlockDraft[] {
  const prints = drafts.map((d) => (d.furniture === null ? printOf(d.text) : ''))
  return drafts.map((draft, i) => {
    const print = prints[i] ?? ''
    const may = draft.kind === 'quotation' || draft.kind === 'paragraph' || draft.kind === 'heading'
    if (draft.furniture || !may || print.length < 24 || countWords(draft.text) > 45) return draft
    const repeated = prints.some(
      (other, k) =>
        k !== i &&
        other.length > print.length &&
        ` ${other} `.includes(` ${print} `) &&
        drafts[k]?.kind !== 'heading',
    )
    const again = prints.some((other, k) => k < i && other === print)
    return repeated || again ? { ...draft, furniture: 'pull quote' } : draft
  })
}
