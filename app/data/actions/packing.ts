import { strToU8, Zip, ZipDeflate, ZipPassThrough } from 'fflate'
import { asFault, Fault, type Account, type Post } from '../../../core/model'
import { awayCaption, awayCredits, awayPosts, awaySheet, fileNames } from '../../../core/formats'
import { shapedPictures } from './pictures'

/**
 * Posts with all that is needed to use them elsewhere, as one zip: by account their captions as text and their pictures in
 * the network's shape, a sheet of all, whose the pictures are, and which could not be made. Written piece by piece, a post
 * at a time; `onProgress` is told how many there are of all, and while a clip is made how much of it, a part of 1. Refuses (`bad-request`) where there is nothing to take, and what was cancelled by `signal`.
 */
export async function packed(
  posts: readonly Post[],
  accounts: readonly Account[],
  onProgress: (done: number, all: number, ofClip?: number) => void = () => undefined,
  signal?: AbortSignal,
): Promise<Blob> {
  const away = awayPosts(posts, accounts)
  if (away.length === 0) throw new Fault('bad-request', 'There are no posts to take away. Choose others.')
  const parts: Blob[] = []
  const zip = new Zip((error, chunk) => {
    if (error) throw error
    parts.push(new Blob([new Uint8Array(chunk)]))
  })
  const add = (file: ZipDeflate | ZipPassThrough, content: Uint8Array): void => {
    zip.add(file)
    file.push(content, true)
  }
  const text = (name: string, words: string): void => add(new ZipDeflate(name), strToU8(words))
  const names = new Map<string, string[]>()
  const missing: string[] = []
  for (const [done, one] of away.entries()) {
    if (signal?.aborted) throw new Fault('bad-request', 'It was cancelled; nothing was written.')
    onProgress(done, away.length)
    const { post, folder, stem } = one
    text(`${folder}/${stem}.txt`, awayCaption(post))
    try {
      const far = (part: number): void => onProgress(done, away.length, part)
      const made = await shapedPictures(post, undefined, { far, ...(signal ? { signal } : {}) })
      const called = fileNames(
        one,
        made.map(({ blob }) => blob.type),
      )
      names.set(post.id, called)
      for (const [i, { blob }] of made.entries())
        // Pictures are packed already.
        add(new ZipPassThrough(`${folder}/${called[i]}`), new Uint8Array(await blob.arrayBuffer()))
    } catch (error) {
      missing.push(`${folder}/${stem}: ${asFault(error).message}`)
    }
  }
  const named = (post: string): readonly string[] => names.get(post) ?? []
  // The mark by which spreadsheets know UTF-8.
  text('captions.csv', `\uFEFF${awaySheet(away, named)}`)
  const credits = awayCredits(away, named)
  if (credits) text('credits.txt', credits)
  if (missing.length > 0) text('missing pictures.txt', `${missing.join('\n')}\n`)
  zip.end()
  onProgress(away.length, away.length)
  return new Blob(parts, { type: 'application/zip' })
}
