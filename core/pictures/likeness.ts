import { isEnglish, stem } from '../language'
import type { PieceContent, PieceImage, Place } from '../model'
import { wordsIn } from '../text'

/** A post's own words and those of its passage, and where the passage stands in the piece; null for the whole piece. */
export interface Speech {
  words: string
  place: Place | null
}

/** So many blocks away from a passage, a picture's place says a third of what it says right beside it. */
const NEAR = 3
/** What the words of a picture count for beside where it stands. */
const WORDS = 0.6
/** Words this short say little of what a picture shows. */
const SHORT = 3

type Weights = ReadonlyMap<string, number>

/**
 * How much a picture of a piece belongs to what a post says, from 0 to 1: by the cosine of their words, each weighed by how
 * rare it is in the piece (tf-idf; Salton and Buckley, “Term-weighting approaches in automatic text retrieval”, 1988), and by how near
 * the picture stands to the passage. A picture's words are its alternative text and caption, and with half the weight the
 * blocks around it.
 */
export function likenessIn(
  piece: Pick<PieceContent, 'text' | 'blocks' | 'language'>,
): (speech: Speech, image: PieceImage) => number {
  const { text, blocks } = piece
  const wordOf = isEnglish(piece.language) ? stem : (word: string): string => word
  const terms = (of: string): string[] =>
    wordsIn(of)
      .filter((w) => w.length > SHORT)
      .map(wordOf)
  const blockTerms = blocks.map((b) => (b.furniture === null ? terms(text.slice(b.start, b.end)) : []))
  const holding = new Map<string, number>()
  for (const words of blockTerms)
    for (const word of new Set(words)) holding.set(word, (holding.get(word) ?? 0) + 1)
  const rarity = (word: string): number => Math.log((blocks.length + 1) / ((holding.get(word) ?? 0) + 0.5))

  const weigh = (parts: readonly (readonly [readonly string[], number])[]): Weights => {
    const sum = new Map<string, number>()
    for (const [words, weight] of parts)
      for (const word of words) sum.set(word, (sum.get(word) ?? 0) + weight * rarity(word))
    return sum
  }
  const around = new Map<PieceImage, Weights>()
  const weightsOf = (image: PieceImage): Weights => {
    let weights = around.get(image)
    if (!weights) {
      const beside = [image.block, image.block + 1].flatMap((b) =>
        image.block < 0 ? [] : (blockTerms[b] ?? []),
      )
      around.set(
        image,
        (weights = weigh([
          [terms(`${image.alt} ${image.caption}`), 1],
          [beside, 0.5],
        ])),
      )
    }
    return weights
  }
  return ({ words, place }, image) => {
    const near =
      place === null || image.block < 0
        ? 0
        : Math.exp(-Math.abs(blockAt(blocks, place.start) - image.block) / NEAR)
    return WORDS * cosine(weigh([[terms(words), 1]]), weightsOf(image)) + (1 - WORDS) * near
  }
}

function cosine(a: Weights, b: Weights): number {
  const length = (of: Weights): number => Math.sqrt([...of.values()].reduce((sum, w) => sum + w * w, 0))
  const both = length(a) * length(b)
  if (both === 0) return 0
  let dot = 0
  for (const [word, weight] of a) dot += weight * (b.get(word) ?? 0)
  return Math.max(0, dot / both)
}

/** The index of the block in which a place of the text lies; the last one before it where it lies between two. */
function blockAt(blocks: readonly Place[], at: number): number {
  return blocks.findLastIndex((b) => b.start <= at)
}
