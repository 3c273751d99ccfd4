import {
  ALL_FORMATS,
  BlobSource,
  BufferSource,
  Conversion,
  CustomSource,
  Input,
  type InputVideoTrack,
  type VideoSample,
} from 'mediabunny'
import type { Drawing, Faces, Plate } from '../../core/cards'
import type { Cut, FilmPart, Look } from '../../core/model'
import { cutIn, movedCut } from '../../core/networks'
import { hashOf, type MadePicture } from './blobs'
import { bitsFor, CannotCut, newClip, Stopped, type ClipFile, type Watch } from './clipFile'
import { paint, plainCanvas, unmoved } from './paint'

/** Bits a second at most, for pictures and for sound. */
const BITS = 2_000_000
const SOUND = 96_000
/** So many seconds a film may end before what its transcript says. */
const LATE = 0.5

/** A film to be cut, read in parts by its address on this server. */
export interface CutOrder {
  /** Where its bytes are had in parts. */
  address: string
  part: FilmPart
  shape: { width: number; height: number } | null
  cut: Cut | null
  look: Look
  maxBytes: number
}

/**
 * Cuts a part out of a film, to the frame, as a clip in a shape (`newClip`) with the film's sound: the film whole in the
 * brand's frame or filling it about what was chosen of it, what is said drawn in. Throws `CannotCut`, and `Stopped` where it
 * was to stop.
 */
export async function cutClip(order: CutOrder, faces: Faces, { far, stop }: Watch): Promise<MadePicture> {
  const { drawPlate } = await import('../../core/cards')
  const { part, look, shape, maxBytes } = order
  const input = new Input({ formats: ALL_FORMATS, source: new Parts(order.address).source })
  try {
    const track = await filmTrack(input)
    const end = await endOf(part, input, track)
    const size = { width: track.displayWidth, height: track.displayHeight }
    const plate = drawPlate(part.hook, look, faces, shape, size, part.filled)
    const clip = await newClip(plate.drawing)
    const seconds = end - part.start
    const conversion = await Conversion.init({
      input,
      output: clip.output,
      trim: { start: part.start, end },
      video: {
        codec: clip.codec,
        bitrate: bitsFor(seconds, maxBytes, BITS) - SOUND,
        forceTranscode: true,
        processedWidth: clip.width,
        processedHeight: clip.height,
        process: await framer(order, faces, plate, clip, size),
      },
      audio: { bitrate: SOUND },
    })
    conversion.onProgress = far
    stop.addEventListener('abort', () => void conversion.cancel())
    if (!stop.aborted) await conversion.execute().catch(orStopped(stop))
    if (stop.aborted) throw new Stopped()
    if ((await lengthOf(clip.bytes())) < seconds - LATE)
      throw new CannotCut(
        'The film breaks off in the middle of this passage. Look whether all of it is there.',
      )
    return await clip.made()
  } finally {
    input.dispose()
  }
}

/** Lets what failed because it was to stop pass, and throws everything else. */
const orStopped = (stop: AbortSignal) => (error: unknown) => {
  if (!stop.aborted) throw error
}

/** Where a part ends in its film, in seconds. Throws `CannotCut` where the film cannot be shown or is over before. */
async function endOf(part: FilmPart, input: Input, track: InputVideoTrack): Promise<number> {
  if (!(await track.canDecode()))
    throw new CannotCut(
      `This browser cannot show films packed as ${track.codec ?? 'this one is'}. Save it as MP4 (H.264) or WebM, and choose that.`,
    )
  const all = await input.computeDuration()
  if (part.end > all + LATE)
    throw new CannotCut(
      `The film ends after ${Math.round(all)} s, before this passage does. Is it the film of this transcript?`,
    )
  return Math.min(part.end, all)
}

/** What paints each frame of a clip: what stands about the film, the film, and what is said. */
async function framer(
  { part, look, cut }: CutOrder,
  faces: Faces,
  plate: Plate,
  { width, height, scale }: ClipFile,
  film: Size,
): Promise<(sample: VideoSample) => OffscreenCanvas> {
  const { drawSaid } = await import('../../core/cards')
  const { canvas, context } = plainCanvas(width, height)
  const under = plainCanvas(width, height)
  paint(under.context, unmoved(plate.drawing), scale)
  const said = new Map<string, Drawing>()
  const over = plate.film.height === plate.drawing.height
  const box = over ? cutIn(film, about(film, plate.drawing, cut)) : { x: 0, y: 0, ...film }
  const { x, y, width: across, height: down } = plate.film
  return (sample) => {
    context.setTransform(1, 0, 0, 1, 0, 0)
    context.globalAlpha = 1
    context.drawImage(under.canvas, 0, 0)
    sample.draw(
      context,
      box.x,
      box.y,
      box.width,
      box.height,
      x * scale,
      y * scale,
      across * scale,
      down * scale,
    )
    const now = sample.timestamp + part.start
    const words = part.subtitles.find((s) => s.from <= now && now < s.to)?.text
    if (words) {
      const drawn = said.get(words) ?? drawSaid(words, plate, look, faces)
      said.set(words, drawn)
      paint(context, unmoved(drawn), scale)
    }
    return canvas
  }
}

/** How long the pictures of a film play that was written, in seconds; nought where there are none. */
async function lengthOf(film: ArrayBuffer | null): Promise<number> {
  if (!film) return 0
  const input = new Input({ formats: ALL_FORMATS, source: new BufferSource(film) })
  try {
    return (await (await input.getPrimaryVideoTrack())?.computeDuration()) ?? 0
  } catch {
    return 0
  } finally {
    input.dispose()
  }
}

/** The pictures of a film. Throws `CannotCut` where there are none. */
async function filmTrack(input: Input): Promise<InputVideoTrack> {
  const track = await input.getPrimaryVideoTrack().catch(() => null)
  if (track) return track
  const sound = await input.getPrimaryAudioTrack().catch(() => null)
  throw new CannotCut(
    sound
      ? 'This recording has sound and no pictures. Let a card of the words move instead.'
      : 'This file cannot be read as a film: it is none, or it is cut off. Choose another.',
  )
}

/** A film as it is, where a network takes it whole. Throws `CannotCut` what is no film, and what has more than `maxBytes`. */
export async function wholeFilm(address: string, maxBytes: number): Promise<MadePicture> {
  const parts = new Parts(address)
  const size = await parts.size()
  if (size > maxBytes)
    throw new CannotCut(
      `This film has ${Math.ceil(size / 1e6)} MB; the network takes ${maxBytes / 1e6}. Let the post show a part of it.`,
    )
  const blob = new Blob([await parts.read(0, size)], { type: parts.type })
  const input = new Input({ formats: ALL_FORMATS, source: new BlobSource(blob) })
  try {
    const track = await filmTrack(input)
    return {
      blob,
      hash: await hashOf(blob),
      type: blob.type,
      width: track.displayWidth,
      height: track.displayHeight,
    }
  } finally {
    input.dispose()
  }
}

/** The part of a film that fills a shape, about the middle of what was chosen of it. */
function about(film: Size, shape: Size, cut: Cut | null): Cut {
  const [x, y] = cut ? [cut.x + cut.width / 2, cut.y + cut.height / 2] : [0.5, 0.5]
  return movedCut(film, shape, { x: x - 0.5, y: y - 0.5, width: 1, height: 1 }, {})
}

interface Size {
  width: number
  height: number
}

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
