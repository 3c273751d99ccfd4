import { CanvasSource } from 'mediabunny'
import { frameAt, type DrawnScene } from '../../core/cards'
import type { MadePicture } from './blobs'
import { bitsFor, newClip, Stopped, type Watch } from './clipFile'
import { paint, plainCanvas } from './paint'

/** Frames a second, and bits a second at most. */
const RATE = 30
const BITS = 1_500_000

/** Drawn cards as a clip without sound (`newClip`), 30 frames a second, at most about `maxBytes`. Throws `Stopped`. */
export async function movingClip(
  scenes: readonly DrawnScene[],
  maxBytes: number,
  { far, stop }: Watch,
): Promise<MadePicture> {
  const seconds = scenes.reduce((sum, s) => sum + s.seconds, 0)
  const drawing = scenes[0]?.drawing
  if (!drawing) throw new Error('A clip of nothing cannot be made.')
  const { output, codec, width, height, scale, made } = await newClip(drawing)
  const { canvas, context } = plainCanvas(width, height)
  const source = new CanvasSource(canvas, { codec, bitrate: bitsFor(seconds, maxBytes, BITS) })
  output.addVideoTrack(source, { frameRate: RATE })
  await output.start()
  const frames = Math.max(1, Math.round(seconds * RATE))
  for (let i = 0; i < frames; i++) {
    paint(context, frameAt(scenes, i / RATE), scale)
    await source.add(i / RATE, 1 / RATE)
    far((i + 1) / frames)
    if (stop.aborted) {
      await output.cancel()
      throw new Stopped()
    }
  }
  await output.finalize()
  return made()
}
