import {
  asFault,
  Fault,
  isOwnFilm,
  ownFilm,
  type Piece,
  type PieceContent,
  type Post,
  type WholePiece,
} from '../../../core/model'
import type { Film } from '../../workers/filmSource'
import { cards } from '../../workers'
import { database } from '../database'
import { all, commit, must, patch } from '../store'

/** The largest film that is kept in this browser, in bytes: as much as is read of the web. */
const FILM_MOST = 500 * 1024 * 1024

/** A film by its address: where this server gives one of the web in parts, or the file that lies in this browser. */
export async function filmOf(url: string): Promise<Film> {
  // A worker of this page asks the page's own server.
  if (!isOwnFilm(url)) return new URL(`/api/intake/film?url=${encodeURIComponent(url)}`, location.href).href
  const stored = await (await database()).get('blobs', url)
  if (!stored)
    throw new Fault(
      'not-found',
      'This film lies in the browser in which it was chosen, and not in this one. Choose the file again at its piece.',
    )
  return stored.blob
}

/** A film as a video element shows it. */
export async function filmShown(url: string): Promise<string> {
  const film = await filmOf(url)
  return typeof film === 'string' ? film : URL.createObjectURL(film)
}

/** What went wrong with a film, as a fault with its sentence. */
export function asCut(error: unknown): Fault {
  return error instanceof Error && error.name === 'CannotCut'
    ? new Fault('bad-answer', error.message)
    : asFault(error)
}

/**
 * Gives a piece its film, or its recording, from a file, which stays in this browser; its clips are cut from that from now on. Refuses
 * what is no film (`bad-answer`), and what is larger than 500 MB.
 */
export async function giveFilm(id: string, file: Blob): Promise<void> {
  const piece = await must('pieces', id)
  if (!piece.video) throw new Fault('bad-request', 'This piece is written, so it has no film.')
  if (file.size > FILM_MOST)
    throw new Fault(
      'too-large',
      `This film has ${Math.ceil(file.size / 1024 / 1024)} MB; 500 MB is the most. Save it smaller first.`,
    )
  const told = await cards()
    .film(file)
    .catch((error: unknown) => {
      throw asCut(error)
    })
  const url = ownFilm(told.hash)
  await (await database()).put('blobs', { id: url, blob: file })
  const showing = (await all('posts', 'piece', id)).filter((p) => isToCut(p) && cutFrom(p, piece))
  await commit({ brand: piece.brand, label: `Choose the film of ${piece.title}` }, [
    patch('pieces', id, (p) => {
      if (!p.video) return undefined
      const { sound: _, ...video } = p.video
      return { ...p, video: { ...video, url, ...(told.sound ? { sound: true as const } : {}) } }
    }),
    ...showing.map((post) =>
      patch('posts', post.id, (p) => ({
        ...p,
        media: p.media.map((m) =>
          m.source.from === 'film' ? { ...m, source: { ...m.source, url }, hash: null } : m,
        ),
      })),
    ),
  ])
}

/** Whether what a post shows is still to be made. */
const isToCut = ({ state }: Post): boolean => state !== 'published' && state !== 'handed over'

/** Whether a post shows its piece's film as it was until now. */
function cutFrom({ media }: Post, { video }: Piece): boolean {
  return media.some(
    ({ source }) => source.from === 'film' && (video?.url === null || source.url === video?.url),
  )
}

/** What was read of a piece anew, with the film that a person chose for it. */
export function withItsFilm({ video: before }: WholePiece, content: PieceContent): PieceContent {
  const { video } = content
  if (!video || !before?.url || !isOwnFilm(before.url)) return content
  const { sound: _, ...rest } = video
  return {
    ...content,
    video: { ...rest, url: before.url, ...(before.sound ? { sound: true as const } : {}) },
  }
}

/** Drops the films of this browser that neither pieces nor posts are cut from any more. */
export async function dropFilms(): Promise<void> {
  const [pieces, posts] = await Promise.all([all('pieces'), all('posts')])
  const wanted = new Set([
    ...pieces.map((p) => p.video?.url ?? ''),
    ...posts.flatMap((p) => p.media.map(({ source }) => (source.from === 'film' ? source.url : ''))),
  ])
  const tx = (await database()).transaction('blobs', 'readwrite')
  for (const key of await tx.store.getAllKeys())
    if (isOwnFilm(key) && !wanted.has(key)) await tx.store.delete(key)
  await tx.done
}
