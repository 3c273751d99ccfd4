import { expose, transfer } from 'comlink'
import type { DrawnScene, Drawing, Faces, FontFile, Plate } from '../../core/cards'
import { FACES, type Card, type FaceName, type Look } from '../../core/model'
import { scenesOf, secondsOf } from '../../core/pictures'
import { hashOf, type MadePicture } from './blobs'
import type { CutOrder } from './clip'
import { paint, plainCanvas, unmoved } from './paint'

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

/** The faces of a look, made once for each pair of typefaces. */
async function facesFor(look: Look): Promise<Faces> {
  opened ??= openFaces()
  const files = await opened
  const key = `${look.words} ${look.labels}`
  const faces = known.get(key) ?? (await drawing()).facesOf(look, files)
  known.set(key, faces)
  return faces
}

/** Paints a drawing at its own size. */
function painted(drawn: Drawing): OffscreenCanvas {
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

async function drawScenes({ card, hook, look, shape, bound }: ClipOrder): Promise<DrawnScene[]> {
  const { drawCard } = await drawing()
  const faces = await facesFor(look)
  return scenesOf({ card, hook }, look.sign, bound).map((scene) => ({
    drawing: drawCard(scene.card, look, faces, shape),
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

/** The longer side to which a picture is brought before its colours are counted. */
const COUNTED = 96

/** What the page asks of the card worker. */
const cards = {
  /** A card as an SVG document. */
  draw: async (
    card: Card,
    look: Look,
    shape: { width: number; height: number } | null,
  ): Promise<DrawnCard> => {
    const { drawCard, paletteOf, toSvg } = await drawing()
    const drawn = drawCard(card, look, await facesFor(look), shape)
    return { svg: toSvg(drawn), missing: drawn.missing, ground: paletteOf(look).plain.ground }
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

  /** A card as a PNG of at least 1080 pixels a side; the same words, look and shape give the same bytes. */
  paint: async (
    card: Card,
    look: Look,
    shape: { width: number; height: number } | null,
  ): Promise<MadePicture> => {
    const { drawCard } = await drawing()
    const drawn = drawCard(card, look, await facesFor(look), shape)
    const blob = await painted(drawn).convertToBlob({ type: 'image/png' })
    const { width, height } = drawn
    return { blob, hash: await hashOf(blob), type: 'image/png', width, height }
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

  /** A part of a film as a clip (`cutClip`). Throws with a sentence what cannot be cut. */
  cut: async (order: CutOrder): Promise<MadePicture> => {
    const { cutClip } = await import('./clip')
    return cutClip(order, await facesFor(order.look))
  },

  /** A film as it is, where the network takes it whole. Throws with a sentence what is none or has too many bytes. */
  whole: async (address: string, maxBytes: number): Promise<MadePicture> => {
    const { wholeFilm } = await import('./clip')
    return wholeFilm(address, maxBytes)
  },

  /** What stands about a part of a film, and where the film stands in it; `film` is its size in pixels. */
  plate: async (
    hook: string,
    look: Look,
    shape: { width: number; height: number } | null,
    film: { width: number; height: number },
    filled: boolean,
  ): Promise<{ svg: string; plate: Plate }> => {
    const { drawPlate, toSvg } = await drawing()
    const plate = drawPlate(hook, look, await facesFor(look), shape, film, filled)
    return { svg: toSvg(plate.drawing), plate }
  },

  /** What is said, as it stands over a plate. */
  said: async (text: string, plate: Plate, look: Look): Promise<string> => {
    const { drawSaid, toSvg } = await drawing()
    return toSvg(drawSaid(text, plate, look, await facesFor(look)))
  },

  /** A moving card as a clip of at most about so many bytes (`filmOf`). */
  film: async (order: ClipOrder, maxBytes: number): Promise<MadePicture> => {
    const { filmOf } = await import('./film')
    return filmOf(await scenesFor(order), maxBytes)
  },
}

export type Cards = typeof cards
expose(cards)
