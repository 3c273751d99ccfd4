import { languageName } from '../language'
import type { FoundPassage, PieceContent } from '../model'
import { studyOf } from '../study'

/** Lengths in characters of a paragraph that is offered whole, and of a sentence. */
const PARAGRAPH = { least: 80, most: 420 }
const SENTENCE = { least: 60, most: 260 }
/** How many are kept at most. */
const MOST = 6

/**
 * The passages of a piece in a language whose rules Dripline does not know: whole paragraphs, or of long
 * ones the sentence that is most central (LexRank), as they stand. Nothing is known of what points out
 * of them, so every post of them waits for a person. Best first.
 */
export function plainPassages(piece: PieceContent): { passage: FoundPassage; kept: boolean }[] {
  const study = studyOf(piece)
  const reason = `in ${languageName(piece.language ?? '')}: chosen by its place and length alone`
  const found: FoundPassage[] = []
  piece.blocks.forEach((block, index) => {
    if (block.furniture !== null || block.kind !== 'paragraph') return
    const inside = study.sentences.filter((s) => s.block === index)
    const central = [...inside].sort(
      (a, b) => (study.centrality[b.index] ?? 0) - (study.centrality[a.index] ?? 0),
    )
    const length = block.end - block.start
    const whole = length >= PARAGRAPH.least && length <= PARAGRAPH.most
    const one = central.find((s) => s.end - s.start >= SENTENCE.least && s.end - s.start <= SENTENCE.most)
    const place = whole ? block : length > PARAGRAPH.most ? one : undefined
    const text = place ? piece.text.slice(place.start, place.end) : ''
    if (!place || !/[.!?…。！？][”’"»“)\]]*$/u.test(text)) return
    const mean =
      inside.reduce((sum, s) => sum + (study.centrality[s.index] ?? 0), 0) / Math.max(1, inside.length)
    found.push({
      start: place.start,
      end: place.end,
      text,
      kind: 'statement',
      score: Math.round(Math.min(0.5, 0.2 + 0.3 * mean) * 1000) / 1000,
      reasons: [whole ? 'a whole paragraph' : 'the sentence most like the rest', reason],
    })
  })
  found.sort((a, b) => b.score - a.score || a.start - b.start)
  return found.map((passage, rank) => ({ passage, kept: rank < MOST }))
}
