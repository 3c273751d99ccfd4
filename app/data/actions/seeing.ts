import { asFault, type Piece, type PieceImage, type Post, type PostMedia } from '../../../core/model'
import { shownIn, chooseShape, network } from '../../../core/networks'
import type { SeenPicture } from '../../workers/blobs'
import { pictures } from '../../workers'
import { database } from '../database'
import { all, commit, one, patch, type Write } from '../store'
import { sourceBytes } from './pictures'

/** How many pictures are fetched at a time, and how long whoever waits for them waits at most, in milliseconds. */
const TOGETHER = 4
const PATIENCE = 8_000
/** What could not be fetched is tried again after so long, in milliseconds. */
const REST = 3_600_000

/** When a picture was last tried in vain, by its address. */
const tried = new Map<string, number>()

type Seen = NonNullable<PieceImage['seen']>

/** What is found of a picture; null where nobody could look just now. */
interface Found {
  seen: Seen
  size: { width: number; height: number } | null
}

/** By what the small copy of a picture lies among the bytes of the workspace. */
export const smallOf = (url: string): string => `small ${url}`

/** Keeps a small copy of a picture, for lists. */
export async function keepSmall(url: string, picture: Blob): Promise<void> {
  const blob = await pictures().small(picture)
  await (await database()).put('blobs', { id: smallOf(url), blob })
}

/** Drops the small copies of pictures that no piece brings any more and no library has. */
export async function dropSmall(): Promise<void> {
  const [pieces, own] = await Promise.all([all('pieces'), all('pictures')])
  const wanted = new Set([...pieces.flatMap((p) => p.images), ...own].map(({ url }) => smallOf(url)))
  const tx = (await database()).transaction('blobs', 'readwrite')
  for (const key of await tx.store.getAllKeys())
    if (key.startsWith(smallOf('')) && !wanted.has(key)) await tx.store.delete(key)
  await tx.done
}

/** The small copy of a picture; null where none was made yet. */
export async function smallPicture(url: string): Promise<Blob | null> {
  return (await (await database()).get('blobs', smallOf(url)))?.blob ?? null
}

async function look(url: string): Promise<Found | null> {
  if (Date.now() - (tried.get(url) ?? -REST) < REST) return null
  try {
    const blob = await sourceBytes(url)
    let picture: SeenPicture
    try {
      picture = await pictures().look(blob)
      await keepSmall(url, blob)
    } catch {
      return { seen: { print: null, trouble: 'It cannot be read as a picture.' }, size: null }
    }
    const { width, height, print = null, moves, type } = picture
    return { seen: { print, trouble: null, ...(moves ? { moves: type } : {}) }, size: { width, height } }
  } catch (error) {
    const fault = asFault(error)
    if (fault.code === 'bad-answer' || fault.code === 'bad-request' || fault.code === 'not-found')
      return { seen: { print: null, trouble: fault.message }, size: null }
    tried.set(url, Date.now())
    return null
  }
}

/**
 * Looks at the pictures of pieces that nobody has looked at yet, at most `most` of them: fetches each, keeps its print, its size
 * and a small copy, or why it cannot be shown. Posts that show it and are still to go out are told its print. Gives how
 * many it could look at.
 */
export async function seePictures(
  pieces: readonly Pick<Piece, 'id' | 'brand' | 'images'>[],
  most = Infinity,
): Promise<number> {
  const urls = [...new Set(pieces.flatMap((p) => p.images.flatMap((i) => (i.seen ? [] : i.url))))]
  const wanted = urls.filter((url) => Date.now() - (tried.get(url) ?? -REST) >= REST).slice(0, most)
  const found = new Map<string, Found>()
  const next = async (): Promise<void> => {
    for (let url = wanted.shift(); url !== undefined; url = wanted.shift()) {
      const what = await look(url)
      if (what) found.set(url, what)
    }
  }
  await Promise.all(Array.from({ length: TOGETHER }, next))
  if (found.size === 0) return 0
  const posts = await Promise.all(
    [...new Set(pieces.map((p) => p.brand))].map((b) => all('posts', 'brand', b)),
  )
  await commit('machine', [
    ...pieces.flatMap(({ id, images }) => (images.some((i) => found.has(i.url)) ? [seenIn(id, found)] : [])),
    ...posts
      .flat()
      .flatMap((post) => (post.media.some((m) => printFor(m, found)) ? [toldOf(post, found)] : [])),
  ])
  return found.size
}

function seenIn(piece: string, found: ReadonlyMap<string, Found>): Write {
  return patch('pieces', piece, (p) => ({
    ...p,
    images: p.images.map((image) => {
      const what = found.get(image.url)
      return what ? { ...image, ...(what.size ?? {}), seen: what.seen } : image
    }),
  }))
}

/** The print that a picture of a post does not have yet, as it was found. */
function printFor({ source, print }: PostMedia, found: ReadonlyMap<string, Found>): string | null {
  return print === undefined && source.from === 'address' ? (found.get(source.url)?.seen.print ?? null) : null
}

function toldOf(post: Post, found: ReadonlyMap<string, Found>): Write {
  return patch('posts', post.id, (p) => ({
    ...p,
    media: shownIn(
      p,
      p.media.map((m) => {
        const print = printFor(m, found)
        if (!print) return m
        // Its shape was chosen without knowing its size.
        const size = m.source.from === 'address' ? (found.get(m.source.url)?.size ?? null) : null
        const shape = m.cut || m.hash ? m.shape : chooseShape(size, network(p.network).media.shapes)
        return { ...m, shape, print }
      }),
    ),
  }))
}

/**
 * Makes sure that the pictures of a piece were looked at before posts choose among them, as far as that takes no longer than a
 * person waits; what is left is looked at later.
 */
export async function seenPiece(id: string): Promise<void> {
  const piece = await one('pieces', id)
  if (!piece?.images.some((i) => !i.seen)) return
  const late = new Promise<void>((resolve) => setTimeout(resolve, PATIENCE))
  await Promise.race([seePictures([piece]).catch(() => undefined), late])
}
