import {
  Fault,
  may,
  ownPicture,
  ownPictureHash,
  pictureId,
  withCredits,
  type Credit,
  type LibraryPicture,
  type MediaInfo,
  type Post,
  type PostMedia,
} from '../../../core/model'
import { filesIn } from '../../../core/formats'
import { database } from '../database'
import { nowIso } from '../clock'
import { all, announceRows, commit, must, one, patch, put, remove } from '../store'
import { checksOf, doubted } from './posts'
import { dropFilms } from './films'
import { dropSmall, keepSmall } from './seeing'

/** What is known of a picture as it comes into the library. */
export interface Brought {
  origin: LibraryPicture['origin']
  title: string
  alt?: string
  credit?: Credit | null
}

/**
 * Takes a picture into the library of a brand, once however often it comes; what was said of it before stays. Refuses with
 * a sentence what is no picture, or is too large (`keepPicture`).
 */
export async function takePicture(
  brand: string,
  file: Blob,
  { origin, title, alt = '', credit = null }: Brought,
): Promise<LibraryPicture> {
  const { keepPicture } = await import('./keepPicture')
  const { blob, hash, width, height, print, moves } = await keepPicture(file)
  const url = ownPicture(hash)
  const before = await one('pictures', pictureId(brand, url))
  if (before) {
    // Whose it is may be known only now.
    if (before.credit === null && credit !== null) await tellPicture(before.id, { ...before, credit })
    return must('pictures', before.id)
  }
  await keepSmall(url, blob)
  const picture: LibraryPicture = {
    id: pictureId(brand, url),
    brand,
    url,
    origin,
    title: title.trim() || 'A picture',
    alt,
    credit,
    width,
    height,
    bytes: blob.size,
    print: print ?? null,
    ...(moves ? { moves } : {}),
    addedAt: nowIso(),
  }
  await commit({ brand, label: 'Take a picture in' }, [put('pictures', picture)])
  return picture
}

/** The name of a file as a title: without what tells its type. */
export const titleOfFile = (file: Blob): string =>
  file instanceof File ? file.name.replace(/\.\w{1,5}$/, '').replace(/[_]+/g, ' ') : ''

/** A picture of the library as a post shows it, whole until it has a shape. */
export function libraryMedia({
  url,
  alt,
  credit,
  print,
}: Pick<LibraryPicture, 'url' | 'alt' | 'credit' | 'print'>): PostMedia {
  return {
    source: { from: 'address', url },
    alt,
    shape: null,
    ...(credit ? { credit } : {}),
    ...(print ? { print } : {}),
    hash: null,
  }
}

/** What a person may say of a picture of the library. */
export type Told = Pick<LibraryPicture, 'title' | 'alt' | 'credit'>

/**
 * Says of a picture what it is called, what it shows and whose it is. Posts that are still to go out get its credit, with the
 * line in their caption where that has to be named, and its alternative text where they had the one before or none. An
 * approval falls where a rule is broken by that.
 */
export async function tellPicture(id: string, { title, alt, credit }: Told): Promise<void> {
  const told = { title, alt, credit }
  const picture = await must('pictures', id)
  const posts = await all('posts', 'brand', picture.brand)
  const shown = posts.filter((p) => may(p, 'edit') && p.media.some((m) => isOf(m, picture.url)))
  const retelling = await Promise.all(
    shown.map(async (post) => {
      const media = post.media.map((m) => (isOf(m, picture.url) ? retold(m, picture.alt, told) : m))
      const wording = { ...post.wording, text: withCredits(post.wording.text, post.media, media) }
      const checks = await checksOf({ ...post, media, wording })
      return patch('posts', post.id, (p) => doubted({ ...p, media, wording, checks }))
    }),
  )
  await commit({ brand: picture.brand, label: 'Say what a picture is' }, [
    patch('pictures', id, (p) => ({ ...p, ...told })),
    ...retelling,
  ])
}

const isOf = ({ source }: PostMedia, url: string): boolean => source.from === 'address' && source.url === url

function retold({ credit: _, ...media }: PostMedia, before: string, { alt, credit }: Told): PostMedia {
  const mine = media.alt !== '' && media.alt !== before
  return { ...media, alt: mine ? media.alt : alt, ...(credit ? { credit } : {}) }
}

/** Takes a picture out of the library; its bytes stay until they are cleared. Refuses (`bad-request`) where a post shows it. */
export async function removePicture(id: string): Promise<void> {
  const picture = await must('pictures', id)
  const users = (await usersOf(picture.brand)).filter(shows(picture.url))
  if (users.length > 0)
    throw new Fault(
      'bad-request',
      `${users.length === 1 ? 'A post shows' : `${users.length} posts show`} this picture. Give ${users.length === 1 ? 'it' : 'them'} another one first.`,
    )
  await commit({ brand: picture.brand, label: 'Take a picture out of the library' }, [remove('pictures', id)])
}

const usersOf = async (brand: string): Promise<Post[]> =>
  (await all('posts', 'brand', brand)).filter((p) => p.state !== 'set aside')
const shows =
  (url: string) =>
  (post: Post): boolean =>
    post.media.some((m) => isOf(m, url))

/** What could be cleared of a brand's pictures, and how many bytes that would free. */
export interface Clearing {
  /** Pictures of its own that neither posts nor recurring posts nor pieces show. */
  unused: LibraryPicture[]
  /** Hashes of what was made for posts that have gone out or were set aside; it is made again where it is wanted. */
  made: string[]
  bytes: number
}

/** What could be cleared now. */
export async function clearing(brand: string): Promise<Clearing> {
  const [posts, recurrences, pieces, pictures, media] = await Promise.all([
    all('posts'),
    all('recurrences'),
    all('pieces'),
    all('pictures'),
    all('media'),
  ])
  // A post that is set aside may be brought back, and wants its picture then.
  const shown = filesIn({ posts, recurrences, pieces, pictures: [], brands: [] })
  const unused = pictures.filter((p) => p.brand === brand && !shown.has(ownPictureHash(p.url) ?? ''))
  const gone = new Set(unused.map((p) => p.id))
  const done = posts.filter((p) => p.state === 'published' || p.state === 'set aside')
  const doing = posts.filter((p) => p.state !== 'published' && p.state !== 'set aside')
  const kept = filesIn({
    // Of what is done only the sources stay.
    posts: [...doing, ...done.map((p) => ({ ...p, media: p.media.map((m) => ({ ...m, hash: null })) }))],
    recurrences,
    pieces,
    pictures: pictures.filter((p) => !gone.has(p.id)),
    brands: [],
  })
  const infos = new Map(media.map((m) => [m.id, m]))
  const ours = done.filter((p) => p.brand === brand)
  const made = [...new Set(ours.flatMap((p) => p.media.flatMap((m) => m.hash ?? [])))].filter(
    (hash) => !kept.has(hash) && infos.has(hash),
  )
  const hashes = new Set([...made, ...unused.flatMap((p) => ownPictureHash(p.url) ?? [])])
  const bytes = [...hashes].reduce(
    (sum, hash) => sum + (kept.has(hash) ? 0 : (infos.get(hash)?.bytes ?? 0)),
    0,
  )
  return { unused, made, bytes }
}

/** Clears what `clearing` finds now; it cannot be undone. Gives what was cleared. */
export async function clearPictures(brand: string): Promise<Clearing> {
  const cleared = await clearing(brand)
  const db = await database()
  const elsewhere = new Set((await all('pictures')).filter((p) => p.brand !== brand).map((p) => p.url))
  const tx = db.transaction(['pictures', 'media', 'blobs'], 'readwrite')
  const hashes = new Set(cleared.made)
  for (const { id, url } of cleared.unused) {
    await tx.objectStore('pictures').delete(id)
    if (elsewhere.has(url)) continue
    hashes.add(ownPictureHash(url) ?? '')
  }
  const infos: MediaInfo[] = []
  for (const hash of hashes) {
    const info = await tx.objectStore('media').get(hash)
    if (info) infos.push(info)
    await tx.objectStore('media').delete(hash)
    await tx.objectStore('blobs').delete(hash)
  }
  await tx.done
  announceRows([
    ...cleared.unused.map((row) => ({ table: 'pictures' as const, id: row.id, before: row, row: null })),
    ...infos.map((row) => ({ table: 'media' as const, id: row.id, before: row, row: null })),
  ])
  await Promise.all([dropSmall(), dropFilms()])
  return cleared
}
