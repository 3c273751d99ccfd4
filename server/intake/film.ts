import { Fault } from '../../core/model'
import type { World } from './addresses'
import { safeFetch } from './fetch'

/** The largest film that is read, in bytes. */
export const FILM_MOST = 500 * 1024 * 1024
/** The most bytes of it that one answer brings. */
const PART = 4 * 1024 * 1024

/** Some bytes of a film. */
export interface FilmPart {
  type: string
  from: number
  /** The last byte. */
  to: number
  /** How many bytes the whole film has. */
  size: number
  bytes: Buffer
}

/**
 * Bytes of a film on the web, from `from` up to `to` (the last byte) or as many as one answer brings. A film is read in parts,
 * so that what was broken off goes on where it stopped, and only what a clip needs is fetched. Refuses what is no film
 * (`bad-answer`), what is larger than 500 MB, and a large one whose site gives no parts (`too-large`).
 */
export async function filmPart(
  url: string,
  from: number,
  to: number | null,
  world: World | null,
): Promise<FilmPart> {
  const last = Math.min(to ?? Infinity, from + PART - 1)
  const answer = await safeFetch(url, {
    world,
    accept: 'video/*, audio/*',
    range: `bytes=${from}-${last}`,
    maxBytes: 2 * PART,
    timeout: 60_000,
  }).catch((error: unknown) => {
    if (error instanceof Fault && error.code === 'too-large')
      throw new Fault(
        'too-large',
        `${new URL(url).host} gives its films only whole, and this one is too large for that. Choose the film from a file.`,
        url,
      )
    throw error
  })
  const { host } = new URL(answer.url)
  const [, first, end, size] = /^bytes (\d+)-(\d+)\/(\d+)$/.exec(answer.contentRange ?? '') ?? []
  const whole = answer.status === 200
  if (!whole && (answer.status !== 206 || size === undefined))
    throw new Fault('bad-answer', `There is no film at ${host} under this address (${answer.status}).`, url)
  if (!/^(?:video|audio)\//.test(answer.contentType))
    throw new Fault(
      'bad-answer',
      `What ${host} has under this address is no film. Choose it from a file.`,
      url,
    )
  const all = whole ? answer.bytes.length : Number(size)
  if (all > FILM_MOST)
    throw new Fault('too-large', `This film has ${Math.ceil(all / 1024 / 1024)} MB; 500 MB is the most.`, url)
  // A site that knows no ranges sends all of it.
  if (whole)
    return {
      type: answer.contentType,
      from,
      to: Math.min(last, all - 1),
      size: all,
      bytes: answer.bytes.subarray(from, last + 1),
    }
  return {
    type: answer.contentType,
    from: Number(first),
    to: Number(end),
    size: all,
    bytes: answer.bytes,
  }
}
