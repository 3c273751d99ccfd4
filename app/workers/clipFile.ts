import {
  BufferTarget,
  getFirstEncodableVideoCodec,
  Mp4OutputFormat,
  Output,
  WebMOutputFormat,
  type VideoCodec,
} from 'mediabunny'
import type { Drawing } from '../../core/cards'
import { hashOf, type MadePicture } from './blobs'

/** Pixels of a clip on its shorter side. */
const SIDE = 720
/** How much of what a network takes a clip may come to, since an encoder only aims at a rate. */
const FULL = 0.75

/** A clip that cannot be made, with why in a sentence. */
export class CannotCut extends Error {
  override name = 'CannotCut'
}

/** The making of one clip, watched: how much of it is done, from 0 to 1, and whether it is to stop. */
export interface Watch {
  far: (part: number) => void
  stop: AbortSignal
}

/** A clip that nobody wanted any more. */
export class Stopped extends CannotCut {
  constructor() {
    super('It was cancelled; the post is as it was.')
  }
}

/** A clip that is about to be written. */
export interface ClipFile {
  output: Output
  codec: VideoCodec
  width: number
  height: number
  /** So much larger than it is drawn. */
  scale: number
  /** The file, once the output is finished; null where nothing was written. */
  bytes: () => ArrayBuffer | null
  made: () => Promise<MadePicture>
}

/**
 * A clip of the shape of a drawing, 720 pixels on its shorter side: MP4 (H.264), or WebM where this browser cannot write that.
 * Throws `CannotCut` where it writes none.
 */
export async function newClip(drawing: Pick<Drawing, 'width' | 'height'>): Promise<ClipFile> {
  const scale = SIDE / Math.min(drawing.width, drawing.height)
  const [width, height] = [even(drawing.width * scale), even(drawing.height * scale)]
  const codec = await getFirstEncodableVideoCodec(['avc', 'vp9', 'vp8'], { width, height })
  if (!codec) throw new CannotCut('This browser cannot write films. Use another one for clips.')
  const mp4 = codec === 'avc'
  const type = mp4 ? 'video/mp4' : 'video/webm'
  const target = new BufferTarget()
  const format = mp4 ? new Mp4OutputFormat({ fastStart: 'in-memory' }) : new WebMOutputFormat()
  return {
    output: new Output({ format, target }),
    codec,
    width,
    height,
    scale,
    bytes: () => target.buffer,
    made: async () => {
      const blob = new Blob([target.buffer ?? new ArrayBuffer(0)], { type })
      return { blob, hash: await hashOf(blob), type, width, height }
    },
  }
}

/** The nearest even number, which encoders ask for. */
const even = (n: number): number => Math.round(n / 2) * 2

/** Bits a second at which a clip stays within so many bytes, at most `most`. */
export function bitsFor(seconds: number, maxBytes: number, most: number): number {
  return Math.min(most, Math.floor((maxBytes * 8 * FULL) / seconds))
}
