import { ALL_FORMATS, BlobSource, CustomSource, Input, type InputVideoTrack } from 'mediabunny'
import { sha256 } from '@noble/hashes/sha2.js'
import { bytesToHex } from '@noble/hashes/utils.js'
import { CannotCut } from './clipFile'

/** A film: its address on this server, under which it is had in parts, or the film itself. */
export type Film = string | Blob

/** What reads a film, to be disposed of. */
export function openFilm(film: Film): Input {
  const source = typeof film === 'string' ? new Parts(film).source : new BlobSource(film)
  return new Input({ formats: ALL_FORMATS, source })
}

/** All of a film. Throws `CannotCut` one that has more than `maxBytes`. */
export async function allOf(film: Film, maxBytes: number): Promise<Blob> {
  const parts = typeof film === 'string' ? new Parts(film) : null
  const size = parts ? await parts.size() : (film as Blob).size
  if (size > maxBytes)
    throw new CannotCut(
      `This film has ${Math.ceil(size / 1e6)} MB; the network takes ${maxBytes / 1e6}. Let the post show a part of it.`,
    )
  return parts ? new Blob([await parts.read(0, size)], { type: parts.type }) : (film as Blob)
}

/** The pictures of a film; null where it is a recording without any. Throws `CannotCut` where there is nothing to see or hear. */
export async function picturesOf(input: Input): Promise<InputVideoTrack | null> {
  const track = await input.getPrimaryVideoTrack().catch(() => null)
  if (track || (await input.getPrimaryAudioTrack().catch(() => null))) return track
  throw new CannotCut('This file cannot be read as a film: it is none, or it is cut off. Choose another.')
}

/** What is known of a film out of a file. */
export interface FilmTold {
  /** SHA-256 of its bytes, in hexadecimal. */
  hash: string
  seconds: number
  /** Whether it is a recording without pictures. */
  sound: boolean
}

/** What a film out of a file is; it is not kept in memory whole. Throws `CannotCut` what is none. */
export async function toldOf(file: Blob): Promise<FilmTold> {
  const input = openFilm(file)
  let told: Omit<FilmTold, 'hash'>
  try {
    const pictures = await picturesOf(input)
    told = { seconds: await input.computeDuration(), sound: pictures === null }
  } finally {
    input.dispose()
  }
  const hash = sha256.create()
  for (let from = 0; from < file.size; from += PIECE)
    hash.update(new Uint8Array(await file.slice(from, from + PIECE).arrayBuffer()))
  return { ...told, hash: bytesToHex(hash.digest()) }
}

/** So many bytes of a file are looked at at once. */
const PIECE = 8 * 1024 * 1024

/** A film that is read in parts, so that only what is cut out of it is fetched. A part that broke off is tried again. */
class Parts {
  readonly #address: string
  #size: number | null = null
  type = ''

  constructor(address: string) {
    this.#address = address
  }

  get source(): CustomSource {
    return new CustomSource({
      getSize: () => this.size(),
      read: (start, end) => this.read(start, end),
      prefetchProfile: 'network',
    })
  }

  async size(): Promise<number> {
    if (this.#size === null) await this.#part(0, 0)
    return this.#size ?? 0
  }

  async read(start: number, end: number): Promise<Uint8Array<ArrayBuffer>> {
    const bytes = new Uint8Array(end - start)
    let at = start
    while (at < end) {
      const got = await this.#part(at, end - 1)
      if (got.length === 0) throw new CannotCut('The film breaks off. Try again later.')
      bytes.set(got.subarray(0, end - at), at - start)
      at += got.length
    }
    return bytes
  }

  async #part(from: number, to: number): Promise<Uint8Array> {
    for (let tries = 1; ; tries++) {
      const answer = await fetch(this.#address, { headers: { range: `bytes=${from}-${to}` } }).catch(
        () => null,
      )
      if (answer?.status === 206) {
        this.#size ??= Number(/\/(\d+)$/.exec(answer.headers.get('content-range') ?? '')?.[1] ?? 0)
        this.type = answer.headers.get('content-type') ?? ''
        return new Uint8Array(await answer.arrayBuffer())
      }
      const said = answer && ((await answer.json().catch(() => null)) as { message?: string } | null)
      if (tries === TRIES || (answer && answer.status < 500))
        throw new CannotCut(said?.message ?? 'The film cannot be fetched now. Try again later.')
    }
  }
}

/** How often a part of a film is asked for. */
const TRIES = 3
