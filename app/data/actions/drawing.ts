import { ownFiles, type Look } from '../../../core/model'
import { cards } from '../../workers'
import { database } from '../database'

const known = new Set<string>()

/**
 * The card worker, once it has what of a look is the brand's own: typefaces, its mark. A typeface that is lost gives way to a
 * shipped one, a lost mark to nothing.
 */
export async function cardsFor(look: Look): Promise<ReturnType<typeof cards>> {
  for (const hash of ownFiles(look).filter((h) => !known.has(h))) {
    const stored = await (await database()).get('blobs', hash)
    if (!stored) continue
    await cards().know(hash, stored.blob)
    known.add(hash)
  }
  return cards()
}
