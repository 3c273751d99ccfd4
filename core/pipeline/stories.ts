import { asStories, writeDrip, type WriteRequest, type WrittenPost } from '../drips'
import type { Brand, Make } from '../model'
import { layoutsFor } from './blank'

/** Writes posts for accounts whose networks have stories (`tellsStories`), each with a card on which its words stand. */
export function writeStories(
  order: WriteRequest,
  brand: Pick<Brand, 'look'>,
  make: Make,
  onProgress?: (done: number, all: number) => void,
): WrittenPost[] {
  // No caption stands below a story: neither a picture without words nor a title alone tells anything.
  const layouts = layoutsFor(brand, { ...make, pictures: 'cards' }).filter((l) => l !== 'title')
  return asStories(writeDrip({ ...order, layouts, onCards: true }, onProgress))
}
