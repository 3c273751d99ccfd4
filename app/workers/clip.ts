import { CanvasSource, VideoSampleSink, type Input, type InputVideoTrack } from 'mediabunny'
import type { Drawing, Faces, Plate } from '../../core/cards'
import type { Cut, FilmPart, Look, Stretch } from '../../core/model'
import { cutIn, movedCut } from '../../core/networks'
import { barsOf, partSeconds, shownParts } from '../../core/pictures'
import { hashOf, type MadePicture } from './blobs'
import { bitsFor, CannotCut, newClip, Stopped, type ClipFile, type Watch } from './clipFile'
import { allOf, openFilm, picturesOf, type Film } from './filmSource'
import { paint, plainCanvas, unmoved } from './paint'
import { copySound, loudnessOf, newSound, SOUND_BITS, soundOf } from './sound'

/** Bits a second at most, for pictures and sound together. */
const BITS = 2_000_000
/** So many seconds a film may end before what its transcript says. */
const LATE = 0.5
/** Pictures a second of a recording that has none of its own. */
const RATE = 30

/** A film or a recording to be cut. */
export interface CutOrder {
  film: Film
  part: FilmPart
  shape: { width: number; height: number } | null
  cut: Cut | null
  look: Look
  maxBytes: number
}

/**
 * Cuts a part out of a film, to the frame, as a clip in a shape (`newClip`) with the film's sound, without what is left out of it: the
 * film whole in the brand's frame or filling it about what was chosen of it, what is said drawn in. Of a recording without pictures
 * it shows how loud it is. Throws `CannotCut`, and `Stopped` where it was to stop.
 */
export async function cutClip(order: CutOrder, faces: Faces, { far, stop }: Watch): Promise<MadePicture> {
  const { drawPlate } = await import('../../core/cards')
  const { look, shape, maxBytes } = order
  const input = openFilm(order.film)
  try {
    const pictures = await picturesOf(input)
    const part = { ...order.part, end: await endOf(order.part, input, pictures) }
    const size = pictures && { width: pictures.displayWidth, height: pictures.displayHeight }
    const plate = drawPlate(part.hook, look, faces, shape, size, part.filled)
    const clip = await newClip(plate.drawing)
    const shown = shownParts(part)
    const seconds = partSeconds(part)
    const sound = await soundOf(input)
    const frames = pictures
      ? filmFrames(pictures, shown, placed(pictures, plate, order.cut, clip.scale))
      : waveFrames(shown, seconds, await drawnWave(input, part, plate, look, faces, clip))
    const painter = await painterOf(part, look, faces, plate, clip)
    const video = new CanvasSource(painter.canvas, {
      codec: clip.codec,
      bitrate: bitsFor(seconds, maxBytes, BITS) - SOUND_BITS,
    })
    clip.output.addVideoTrack(video)
    const heard = sound && (await newSound(sound, clip.output))
    await clip.output.start()
    let until = 0
    const show = async (): Promise<void> => {
      for await (const frame of frames) {
        painter.paint(frame)
        await video.add(frame.into, frame.seconds)
        until = frame.into + frame.seconds
        far(Math.min(1, until / seconds))
        if (stop.aborted) return
      }
    }
    await Promise.all([show(), sound && heard && copySound(sound, heard, shown, stop)])
    if (stop.aborted) {
      await clip.output.cancel()
      throw new Stopped()
    }
    if (until < seconds - LATE)
      throw new CannotCut(
        'The film breaks off in the middle of this passage. Look whether all of it is there.',
      )
    await clip.output.finalize()
    return await clip.made()
  } finally {
    input.dispose()
  }
}

/** Where a part ends in its film, in seconds. Throws `CannotCut` where the film cannot be shown or is over before. */
async function endOf(part: FilmPart, input: Input, pictures: InputVideoTrack | null): Promise<number> {
  if (pictures && !(await pictures.canDecode()))
    throw new CannotCut(
      `This browser cannot show films packed as ${pictures.codec ?? 'this one is'}. Save it as MP4 (H.264) or WebM, and choose that.`,
    )
  const all = await input.computeDuration()
  if (part.end > all + LATE)
    throw new CannotCut(
      `The film ends after ${Math.round(all)} s, before this passage does. Is it the film of this transcript?`,
    )
  return Math.min(part.end, all)
}

type Context = OffscreenCanvasRenderingContext2D

/** A picture of a clip: the moment of the film that it shows, where it stands in the clip and for how long, in seconds. */
interface Frame {
  moment: number
  into: number
  seconds: number
  draw: (context: Context) => void
}

/** The pictures of a film in what is shown of it; one that is under way when that begins is shown from there on. */
async function* filmFrames(
  track: InputVideoTrack,
  shown: readonly Stretch[],
  { box, area }: { box: Area; area: Area },
): AsyncGenerator<Frame, void> {
  const sink = new VideoSampleSink(track)
  let gone = 0
  for (const { from, to } of shown) {
    for await (const sample of sink.samples(from, to)) {
      const moment = Math.max(from, sample.timestamp)
      const seconds = Math.min(to, sample.timestamp + sample.duration) - moment
      const draw = (context: Context): void =>
        sample.draw(context, box.x, box.y, box.width, box.height, area.x, area.y, area.width, area.height)
      if (seconds > 0) yield { moment, into: gone + moment - from, seconds, draw }
      sample.close()
    }
    gone += to - from
  }
}

/** What a recording without pictures shows: how loud it is, uncovered as it plays, `all` seconds. */
function* waveFrames(
  shown: readonly Stretch[],
  all: number,
  draw: (context: Context, part: number) => void,
): Generator<Frame, void> {
  let gone = 0
  for (const { from, to } of shown) {
    const count = Math.max(1, Math.round((to - from) * RATE))
    const seconds = (to - from) / count
    for (let i = 0; i < count; i++) {
      const into = gone + i * seconds
      yield { moment: from + i * seconds, into, seconds, draw: (context) => draw(context, into / all) }
    }
    gone += to - from
  }
}

interface Area extends Size {
  x: number
  y: number
}

/** What is shown of a film, in its pixels, and where in the clip, in those of the clip. */
function placed(
  { displayWidth, displayHeight }: InputVideoTrack,
  plate: Plate,
  cut: Cut | null,
  scale: number,
): { box: Area; area: Area } {
  const film = { width: displayWidth, height: displayHeight }
  const fills = plate.film.height === plate.drawing.height
  const { x, y, width, height } = plate.film
  return {
    box: fills ? cutIn(film, about(film, plate.drawing, cut)) : { x: 0, y: 0, ...film },
    area: { x: x * scale, y: y * scale, width: width * scale, height: height * scale },
  }
}

/** What uncovers how loud a recording is, up to a part of it. */
async function drawnWave(
  input: Input,
  part: FilmPart,
  plate: Plate,
  look: Look,
  faces: Faces,
  { width, height, scale }: ClipFile,
): Promise<(context: Context, part: number) => void> {
  const { BARS, drawWave } = await import('../../core/cards')
  const bars = barsOf(part, (await loudnessOf(input, part.start, part.end)) ?? [], BARS)
  const [rest, heard] = [false, true].map((played) => {
    const canvas = new OffscreenCanvas(width, height)
    const context = canvas.getContext('2d')
    if (!context) throw new Error('This browser cannot draw in a worker.')
    paint(context, unmoved(drawWave(bars, plate, look, faces, played)), scale)
    return canvas
  }) as [OffscreenCanvas, OffscreenCanvas]
  return (context, played) => {
    context.drawImage(rest, 0, 0)
    const across = Math.round((plate.said.x + played * plate.said.width) * scale)
    if (across > 0) context.drawImage(heard, 0, 0, across, height, 0, 0, across, height)
  }
}

/** What paints each picture of a clip: what stands about the film, the film, and what is said. */
async function painterOf(
  part: FilmPart,
  look: Look,
  faces: Faces,
  plate: Plate,
  { width, height, scale }: ClipFile,
): Promise<{ canvas: OffscreenCanvas; paint: (frame: Frame) => void }> {
  const { drawSaid } = await import('../../core/cards')
  const { canvas, context } = plainCanvas(width, height)
  const under = plainCanvas(width, height)
  paint(under.context, unmoved(plate.drawing), scale)
  const said = new Map<string, Drawing>()
  return {
    canvas,
    paint: ({ moment, draw }) => {
      context.setTransform(1, 0, 0, 1, 0, 0)
      context.globalAlpha = 1
      context.drawImage(under.canvas, 0, 0)
      draw(context)
      const words = part.subtitles.find((s) => s.from <= moment && moment < s.to)?.text
      if (!words) return
      const drawn = said.get(words) ?? drawSaid(words, plate, look, faces)
      said.set(words, drawn)
      paint(context, unmoved(drawn), scale)
    },
  }
}

/** The picture of a film at a moment, in seconds; null of a recording without pictures. Throws `CannotCut` what cannot be shown. */
export async function stillOf(film: Film, moment: number): Promise<Blob | null> {
  const input = openFilm(film)
  try {
    const track = await picturesOf(input)
    const sample = track && (await new VideoSampleSink(track).getSample(moment))
    if (!sample) return null
    const canvas = new OffscreenCanvas(sample.displayWidth, sample.displayHeight)
    const context = canvas.getContext('2d')
    if (!context) throw new Error('This browser cannot draw in a worker.')
    sample.draw(context, 0, 0)
    sample.close()
    return await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.9 })
  } finally {
    input.dispose()
  }
}

/** A film as it is, where a network takes it whole. Throws `CannotCut` what is no film, and what has more than `maxBytes`. */
export async function wholeFilm(film: Film, maxBytes: number): Promise<MadePicture> {
  const blob = await allOf(film, maxBytes)
  const input = openFilm(blob)
  try {
    const track = await picturesOf(input)
    if (!track)
      throw new CannotCut(
        'This recording has sound and no pictures, so it cannot go out as a film. Let the post show a part of it.',
      )
    const { displayWidth: width, displayHeight: height } = track
    return { blob, hash: await hashOf(blob), type: blob.type, width, height }
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
