import type { Block, PieceContent, Place } from '../model'

/** The heading under which a place stands, the nearest above it; null where there is none. */
export function headingOver(piece: Pick<PieceContent, 'blocks'>, place: Pick<Place, 'start'>): Block | null {
  let over: Block | null = null
  for (const block of piece.blocks) {
    if (block.start > place.start) break
    if (block.kind === 'heading') over = block
  }
  return over
}
