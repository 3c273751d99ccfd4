import { expose, transfer } from 'comlink'
import type { DrawnScene, Drawing, Faces, FontFile, Plate, UsedColour } from '../../core/cards'
import { FACES, ownFiles, type Card, type FaceName, type FilmPart, type Look } from '../../core/model'
import { barsOf, scenesOf, secondsOf } from '../../core/pictures'
import { hashOf, type MadePicture } from './blobs'
import type { CutOrder } from './clip'
import type { Watch } from './clipFile'
import type { Film, FilmTold } from './filmSource'
import { bitmaps, paint, plainCanvas, unmoved } from './paint'

/** The bytes of the typefaces that come with Dripline, in base64, by the path of their file. */
const FILES = import.meta.glob<string>(
  [
    '../../node_modules/@fontsource-variable/literata/files/literata-*-opsz-normal.woff2',
    '../../node_modules/@fontsource-variable/schibsted-grotesk/files/schibsted-grotesk-*-wght-normal.woff2',
    '../../node_modules/@fontsource/spline-sans-mono/files/spline-sans-mono-*-500-normal.woff2',
  ],
  { query: '?sfnt', import: 'default' },
)

/** What draws; it waits for its WebAssembly, and must not keep this worker from listening meanwhile. */
const drawing = () => import('../../core/cards')

let opened: Promise<Record<FaceName, FontFile[]>> | null = null

/** Opens the typefaces. */
async function openFaces(): Promise<Record<FaceName, FontFile[]>> {
  const { FontFile, inOrder } = await drawing()
  const faces = FACES.map(async (name): Promise<[FaceName, FontFile[]]> => {
    const key = `/${name.toLowerCase().replaceAll(' ', '-')}/`
    const files = inOrder(Object.keys(FILES).filter((f) => f.includes(key)))
    return [
      name,
      await Promise.all(files.map(async (f) => FontFile.open(bytesOf((await FILES[f]?.()) ?? '')))),
    ]
  })
  return Object.fromEntries(await Promise.all(faces)) as Record<FaceName, FontFile[]>
}

const bytesOf = (base64: string): Uint8Array => Uint8Array.from(atob(base64), (c) => c.charCodeAt(0))

const known = new Map<string, Faces>()
/** The fonts of brands' own that were told of, by their hashes. */
const own = new Map<string, FontFile>()

/** The marks of brands that were told of, by their hashes: as PNG files, and as an SVG document names them. */
const marks = new Map<string, Uint8Array>()
const addresses = new Map<string, string>()

/** The faces of a look, made once for each pair of typefaces. */
async function facesFor(look: Look): Promise<Faces> {
  opened ??= openFaces()
  const files = await opened
  const key = JSON.stringify([look.words, look.labels, ownFiles(look).filter((hash) => own.has(hash))])
  const faces = known.get(key) ?? (await drawing()).facesOf(look, files, own)
  known.set(key, faces)
  return faces
}

/** Paints a drawing at its own size. */
function whole(drawn: Drawing): OffscreenCanvas {
  const { canvas, context } = plainCanvas(drawn.width, drawn.height)
  paint(context, unmoved(drawn))
  return canvas
}

/** What a moving card is made of: its words, the look, the shape, and how long the network takes clips, in seconds. */
export interface ClipOrder {
  card: Card
  hook: string
  look: Look
  shape: { width: number; height: number } | null
  bound: { least: number; most: number }
  /** What a code on it leads to. */
  link: string | null
}

/** So many of the clips that were looked at last are kept as they are drawn. */
const KEPT = 4
const drawn = new Map<string, Promise<DrawnScene[]>>()

/** The cards of a clip, drawn. */
function scenesFor(order: ClipOrder): Promise<DrawnScene[]> {
  const key = JSON.stringify(order)
  const known = drawn.get(key)
  if (known) return known
  const made = drawScenes(order)
  drawn.set(key, made)
  for (const old of [...drawn.keys()].slice(0, -KEPT)) drawn.delete(old)
  return made
}

async function drawScenes({ card, hook, look, shape, bound, link }: ClipOrder): Promise<DrawnScene[]> {
  const { drawCard } = await drawing()
  const faces = await facesFor(look)
  return scenesOf({ card, hook }, look.sign, bound).map((scene) => ({
    drawing: drawCard(scene.card, look, faces, shape, link),
    seconds: scene.seconds,
  }))
}

/** A card as it is shown on the page. */
export interface DrawnCard {
  svg: string
  /** The letters that no typeface has. */
  missing: string[]
  /** The ground it stands on: the look's own, unless its ink would be hard to read there. */
  ground: string
}

/** The longer side to which a picture is brought before its colours are counted, and that of a mark. */
const COUNTED = 96
const MARK = 512

/** The clips that are being made, by the number under which each was asked for, and what stops them. */
const making = new Map<number, AbortController>()

/** What stops a clip; it may be stopped before its making has begun. */
function stopOf(id: number): AbortController {
  const stop = making.get(id) ?? new AbortController()
  making.set(id, stop)
  return stop
}

/** Makes a clip under a number, by which it can be stopped meanwhile. */
async function watched(
  id: number,
  far: Watch['far'],
  make: (watch: Watch) => Promise<MadePicture>,
): Promise<MadePicture> {
  try {
    return await make({ far: seldom(far), stop: stopOf(id).signal })
  } finally {
    making.delete(id)
  }
}

/** Tells of every hundredth only: each telling crosses to the page. */
function seldom(far: Watch['far']): Watch['far'] {
  let last = -1
  return (part) => {
    const hundredths = Math.floor(part * 100)
    if (hundredths > last) far((last = hundredths) / 100)
  }
}

/** The last stretch of a film whose loudness was asked for. */
let heardLast: { of: string | Blob; from: number; to: number; levels: Promise<number[] | null> } | null = null

async function levelsOf(film: Film, from: number, to: number): Promise<readonly number[] | null> {
  if (heardLast?.of === film && heardLast.from === from && heardLast.to === to) return heardLast.levels
  const [{ openFilm }, { loudnessOf }] = await Promise.all([import('./filmSource'), import('./sound')])
  const input = openFilm(film)
  const levels = loudnessOf(input, from, to).finally(() => input.dispose())
  heardLast = { of: film, from, to, levels }
  return levels.catch((error: unknown) => {
    heardLast = null
    throw error
  })
}

/** What the page asks of the card worker. */
const cards = {
  /** Takes in a font or a mark (PNG) of a brand's own, by which later looks are drawn. */
  know: async (hash: string, file: Blob): Promise<void> => {
    const bytes = new Uint8Array(await file.arrayBuffer())
    if (file.type === 'image/png') {
      bitmaps.set(hash, await createImageBitmap(file))
      marks.set(hash, bytes)
      const letters = Array.from(bytes, (byte) => String.fromCharCode(byte)).join('')
      addresses.set(hash, `data:image/png;base64,${btoa(letters)}`)
      return
    }
    const { FontFile } = await drawing()
    own.set(hash, FontFile.open(bytes))
  },

  /** A picture as a brand's mark: a PNG of at most 512 pixels a side, what is see-through as it is. */
  mark: async (picture: Blob): Promise<MadePicture> => {
    const bitmap = await createImageBitmap(picture)
    const times = Math.min(1, MARK / Math.max(bitmap.width, bitmap.height))
    const [width, height] = [bitmap.width, bitmap.height].map((v) => Math.max(1, Math.round(v * times))) as [
      number,
      number,
    ]
    const canvas = new OffscreenCanvas(width, height)
    const context = canvas.getContext('2d')
    if (!context) throw new Error('This browser cannot draw in a worker.')
    context.imageSmoothingQuality = 'high'
    context.drawImage(bitmap, 0, 0, width, height)
    bitmap.close()
    const blob = await canvas.convertToBlob({ type: 'image/png' })
    return { blob, hash: await hashOf(blob), type: 'image/png', width, height }
  },

  /** What a font says of itself, or why it is refused. */
  font: async (bytes: Uint8Array): Promise<{ family: string; strong: boolean } | { refused: string }> => {
    const { FontFile } = await drawing()
    try {
      return FontFile.open(bytes).told
    } catch (error) {
      return { refused: error instanceof Error ? error.message : String(error) }
    }
  },

  /** A card as an SVG document. `link` is what a code on it leads to. */
  draw: async (
    card: Card,
    look: Look,
    shape: { width: number; height: number } | null,
    link: string | null,
  ): Promise<DrawnCard> => {
    const { drawCard, paletteOf, toSvg } = await drawing()
    const drawn = drawCard(card, look, await facesFor(look), shape, link)
    return { svg: toSvg(drawn, addresses), missing: drawn.missing, ground: paletteOf(look).plain.ground }
  },

  /** The colours of a logo or another picture, as those of a look. */
  colours: async (picture: Blob): Promise<Pick<Look, 'ground' | 'ink' | 'accent'>> => {
    const { coloursOf } = await drawing()
    const bitmap = await createImageBitmap(picture)
    const scale = Math.min(1, COUNTED / Math.max(bitmap.width, bitmap.height))
    const canvas = new OffscreenCanvas(
      Math.max(1, Math.round(bitmap.width * scale)),
      Math.max(1, Math.round(bitmap.height * scale)),
    )
    const context = canvas.getContext('2d', { willReadFrequently: true })
    if (!context) throw new Error('This browser cannot draw in a worker.')
    context.drawImage(bitmap, 0, 0, canvas.width, canvas.height)
    bitmap.close()
    return coloursOf(context.getImageData(0, 0, canvas.width, canvas.height).data)
  },

  /** The colours of a page as those of a look (`coloursOfPage`). */
  pageColours: async (
    used: readonly UsedColour[],
    theme: string | null,
  ): Promise<Pick<Look, 'ground' | 'ink' | 'accent'> | null> => (await drawing()).coloursOfPage(used, theme),

  /** A card as a PNG of at least 1080 pixels a side; the same words, look, shape and link give the same bytes. */
  paint: async (
    card: Card,
    look: Look,
    shape: { width: number; height: number } | null,
    link: string | null,
  ): Promise<MadePicture> => {
    const { drawCard } = await drawing()
    const drawn = drawCard(card, look, await facesFor(look), shape, link)
    const blob = await whole(drawn).convertToBlob({ type: 'image/png' })
    const { width, height } = drawn
    return { blob, hash: await hashOf(blob), type: 'image/png', width, height }
  },

  /** Cards as the pages of one PDF; the same words, look, shapes, link and title give the same bytes. */
  document: async (
    pages: readonly { card: Card; shape: { width: number; height: number } | null }[],
    look: Look,
    link: string | null,
    title: string,
  ): Promise<MadePicture> => {
    const { drawCard, toPdf } = await drawing()
    const faces = await facesFor(look)
    const drawn = pages.map(({ card, shape }) => drawCard(card, look, faces, shape, link))
    const type = 'application/pdf'
    const blob = new Blob([await toPdf(drawn, title, marks)], { type })
    const { width = 0, height = 0 } = drawn[0] ?? {}
    return { blob, hash: await hashOf(blob), type, width, height }
  },

  /** How long a moving card plays, in seconds. */
  lasts: async (order: ClipOrder): Promise<number> => secondsOf(await scenesFor(order)),

  /** What a moving card shows at a moment, in seconds, so many pixels wide. */
  frame: async (order: ClipOrder, at: number, width: number): Promise<ImageBitmap> => {
    const { frameAt } = await drawing()
    const scenes = await scenesFor(order)
    const whole = scenes[0]?.drawing ?? { width: 1, height: 1 }
    const scale = width / whole.width
    const { canvas, context } = plainCanvas(width, Math.max(1, Math.round(whole.height * scale)))
    paint(context, frameAt(scenes, at), scale)
    const bitmap = canvas.transferToImageBitmap()
    return transfer(bitmap, [bitmap])
  },

  /** A part of a film as a clip (`cutClip`), under a number. Throws with a sentence what cannot be cut. */
  cut: async (order: CutOrder, id: number, far: Watch['far']): Promise<MadePicture> => {
    const { cutClip } = await import('./clip')
    const faces = await facesFor(order.look)
    return watched(id, far, (watch) => cutClip(order, faces, watch))
  },

  /** A film as it is, where the network takes it whole. Throws with a sentence what is none or has too many bytes. */
  whole: async (film: Film, maxBytes: number): Promise<MadePicture> => {
    const { wholeFilm } = await import('./clip')
    return wholeFilm(film, maxBytes)
  },

  /** The picture of a film at a moment (`stillOf`). */
  still: async (film: Film, moment: number): Promise<Blob | null> => {
    const { stillOf } = await import('./clip')
    return stillOf(film, moment)
  },

  /** What a film out of a file is (`toldOf`). Throws with a sentence what is none. */
  film: async (file: Blob): Promise<FilmTold> => {
    const { toldOf } = await import('./filmSource')
    return toldOf(file)
  },

  /** How loud a stretch of a film is, every 20 ms (`loudnessOf`). */
  levels: async (film: Film, from: number, to: number): Promise<readonly number[] | null> =>
    levelsOf(film, from, to),

  /** How loud a part of a recording is, as it stands in the film's place over a plate: what was heard, and what is to come. */
  wave: async (
    film: Film,
    part: FilmPart,
    plate: Plate,
    look: Look,
  ): Promise<{ heard: string; toCome: string }> => {
    const { BARS, drawWave, toSvg } = await drawing()
    const faces = await facesFor(look)
    const bars = barsOf(part, (await levelsOf(film, part.start, part.end)) ?? [], BARS)
    const drawn = (played: boolean): string => toSvg(drawWave(bars, plate, look, faces, played))
    return { heard: drawn(true), toCome: drawn(false) }
  },

  /** What stands about a part of a film, and where the film stands in it (`drawPlate`). */
  plate: async (
    hook: string,
    look: Look,
    shape: { width: number; height: number } | null,
    film: { width: number; height: number } | null,
    filled: boolean,
  ): Promise<{ svg: string; plate: Plate }> => {
    const { drawPlate, toSvg } = await drawing()
    const plate = drawPlate(hook, look, await facesFor(look), shape, film, filled)
    return { svg: toSvg(plate.drawing, addresses), plate }
  },

  /** What is said, as it stands over a plate. */
  said: async (text: string, plate: Plate, look: Look): Promise<string> => {
    const { drawSaid, toSvg } = await drawing()
    return toSvg(drawSaid(text, plate, look, await facesFor(look)))
  },

  /** A moving card as a clip of at most about so many bytes (`movingClip`), under a number. */
  moving: async (order: ClipOrder, maxBytes: number, id: number, far: Watch['far']): Promise<MadePicture> => {
    const { movingClip } = await import('./moving')
    const scenes = await scenesFor(order)
    return watched(id, far, (watch) => movingClip(scenes, maxBytes, watch))
  },

  /** Stops the clip that is being made under a number. */
  stop: (id: number): void => stopOf(id).abort(),
}

export type Cards = typeof cards
expose(cards)
