import { Fault, rebased, type Brand, type Look, type Post, type PostMedia } from '../../../core/model'
import { cards } from '../../workers'
import { all, commit, patch } from '../store'

/** The colours of a logo or another picture, as a look could have them. Refuses what cannot be read as a picture. */
export async function coloursOfFile(file: Blob): Promise<Pick<Look, 'ground' | 'ink' | 'accent'>> {
  try {
    return await cards().colours(new Blob([await file.arrayBuffer()], { type: file.type }))
  } catch {
    throw new Fault('bad-request', 'This file cannot be read as a picture. Choose a PNG, JPEG, WebP or GIF.')
  }
}

/**
 * Keeps how the cards and clips of a brand look, as a screen had it. What else was changed meanwhile stays (`rebased`). Those
 * of posts that are still to go out are made anew when they are needed.
 */
export async function saveLook({ id, look: seen }: Pick<Brand, 'id' | 'look'>, look: Look): Promise<void> {
  const posts = (await all('posts', 'brand', id)).filter((p) => p.media.some(isDrawn))
  await commit({ brand: id, label: 'Change the look of cards' }, [
    patch('brands', id, (b) => ({ ...b, look: rebased(seen, look, b.look) })),
    ...posts.map(({ id }) =>
      patch('posts', id, (p) =>
        OPEN.has(p.state)
          ? { ...p, media: p.media.map((m) => (isDrawn(m) ? { ...m, hash: null } : m)) }
          : undefined,
      ),
    ),
  ])
}

const OPEN: ReadonlySet<Post['state']> = new Set(['draft', 'for review', 'approved'])
const isDrawn = (media: PostMedia): boolean => media.source.from !== 'address' && media.hash !== null
