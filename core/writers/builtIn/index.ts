import type { WholeBrief } from '../../house'
import type { FoundPassage } from '../../model'
import type { Draft } from '../../setting'
import type { Stock } from '../stock'
import { headedDrafts } from './answers'
import { letterDraft } from './letters'
import { listDrafts } from './lists'
import { saidBy } from './quoted'
import { runDrafts } from './runs'

/**
 * What the built-in writer proposes for a passage: the author's own sentences in all the extents that make
 * a whole thought, with the heading where that is their hook, or the list it is; for a letter the part of
 * the piece around it. What somebody else says is quoted with the name, or not proposed.
 */
export function propose(stock: Stock, passage: FoundPassage, shape: WholeBrief['shape']): Draft[] {
  const drafts =
    passage.kind === 'steps'
      ? listDrafts(stock, passage)
      : [...runDrafts(stock, passage), ...headedDrafts(stock, passage)]
  const own = drafts.flatMap((d) => saidBy(stock, d) ?? [])
  const letter = shape === 'letter' ? letterDraft(stock, passage, own[0]?.angle ?? 'lesson') : null
  // A letter in which somebody else speaks would be in the brand's name.
  return letter && saidBy(stock, letter) === letter ? [letter, ...own] : own
}

export { skeletonDraft } from './skeleton'
