import { expose } from 'comlink'
import type { Drawing, Faces, FontFile } from '../../core/cards'
import { FACES, type Card, type FaceName, type Look } from '../../core/model'
import { hashOf, type MadePicture } from './blobs'

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

const outlines = new Map<string, Path2D>()

function outlineOf(d: string): Path2D {
  const path = outlines.get(d) ?? new Path2D(d)
  outlines.set(d, path)
  return path
}

/** Paints a drawing without the help of a graphics card, so that the same drawing gives the same pixels. */
function painted({ width, height, strokes }: Drawing): OffscreenCanvas {
  const canvas = new OffscreenCanvas(width, height)
  const context = canvas.getContext('2d', { willReadFrequently: true, alpha: false })
  if (!context) throw new Error('This browser cannot draw in a worker.')
  for (const s of strokes) {
    context.fillStyle = s.fill
    if (s.kind === 'field') {
      context.setTransform(1, 0, 0, 1, 0, 0)
      context.fillRect(s.x, s.y, s.width, s.height)
    } else {
      context.setTransform(s.scale, 0, 0, -s.scale, s.x, s.y)
      context.fill(outlineOf(s.outline))
    }
  }
  return canvas
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
}

export type Cards = typeof cards
expose(cards)
