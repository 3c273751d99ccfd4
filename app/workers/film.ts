import {
  BufferTarget,
  CanvasSource,
  getFirstEncodableVideoCodec,
  Mp4OutputFormat,
  Output,
  WebMOutputFormat,
} from 'mediabunny'
import { frameAt, type DrawnScene } from '../../core/cards'
import { hashOf, type MadePicture } from './blobs'
import { paint, plainCanvas } from './paint'

/** Frames a second, and the pixels of a clip on its shorter side. */
const RATE = 30
const SIDE = 720
/** Bits a second at most, and how much of what a network takes a clip may come to, since an encoder only aims at a rate. */
const BITS = 1_500_000
const FULL = 0.75

/**
 * Drawn cards as a clip without sound, 720 pixels on its shorter side and 30 frames a second: MP4 (H.264), or WebM where this
 * browser cannot write that; at most about `maxBytes`. `onProgress` is told how much of it is done, 0 to 1.
 */
export async function filmOf(
  scenes: readonly DrawnScene[],
  maxBytes: number,
  onProgress: (part: number) => void = () => undefined,
): Promise<MadePicture> {
  const seconds = scenes.reduce((sum, s) => sum + s.seconds, 0)
  const drawing = scenes[0]?.drawing
  if (!drawing) throw new Error('A clip of nothing cannot be made.')
  const scale = SIDE / Math.min(drawing.width, drawing.height)
  const [width, height] = [even(drawing.width * scale), even(drawing.height * scale)]
  const codec = await getFirstEncodableVideoCodec(['avc', 'vp9', 'vp8'], { width, height })
  if (!codec) throw new Error('This browser cannot write films.')
  const { canvas, context } = plainCanvas(width, height)
  const target = new BufferTarget()
  const mp4 = codec === 'avc'
  const output = new Output({
    format: mp4 ? new Mp4OutputFormat({ fastStart: 'in-memory' }) : new WebMOutputFormat(),
    target,
  })
  const bitrate = Math.min(BITS, Math.floor((maxBytes * 8 * FULL) / seconds))
  const source = new CanvasSource(canvas, { codec, bitrate })
  output.addVideoTrack(source, { frameRate: RATE })
  await output.start()
  const frames = Math.max(1, Math.round(seconds * RATE))
  for (let i = 0; i < frames; i++) {
    paint(context, frameAt(scenes, i / RATE), scale)
    await source.add(i / RATE, 1 / RATE)
    if (i % RATE === 0) onProgress(i / frames)
  }
  await output.finalize()
  const type = mp4 ? 'video/mp4' : 'video/webm'
  const blob = new Blob([target.buffer ?? new ArrayBuffer(0)], { type })
  return { blob, hash: await hashOf(blob), type, width, height }
}

/** The nearest even number, which encoders ask for. */
const even = (n: number): number => Math.round(n / 2) * 2
