import { Fault } from '../../../core/model'
import type { SeenPicture } from '../../workers/blobs'
import { pictures } from '../../workers'
import { storePicture } from './pictures'

const LARGEST = 20 * 1024 * 1024
/** The most pixels that are unpacked: what is more would fill the memory of the browser. */
const MOST_PIXELS = 60_000_000
const TYPES: Readonly<Record<string, string>> = {
  png: 'image/png',
  jpg: 'image/jpeg',
  webp: 'image/webp',
  gif: 'image/gif',
  avif: 'image/avif',
  svg: 'image/svg+xml',
}

/** Keeps a picture out of a file in the workspace (`openPicture`), once however often it comes. */
export async function keepPicture(file: Blob): Promise<SeenPicture> {
  const picture = await openPicture(file)
  await storePicture(picture)
  return picture
}

/**
 * A picture out of a file: turned upright, without what a camera wrote into it, an SVG as the pixels that it shows. Refuses
 * with a sentence (`bad-request`) what is no picture, or is too large.
 */
export async function openPicture(file: Blob): Promise<SeenPicture> {
  if (file.size > LARGEST)
    throw new Fault(
      'bad-request',
      `This picture has ${Math.ceil(file.size / 1024 / 1024)} MB; 20 MB is the most. Make it smaller first.`,
    )
  const content = await file.arrayBuffer()
  const told = await toldBy(new Uint8Array(content))
  if (told.type === 'heic' || told.type === 'heif' || /^image\/hei[cf]/.test(file.type))
    throw new Fault(
      'bad-request',
      'This is a HEIC picture, which networks and most browsers cannot show. Save it as a JPEG first, then take that in.',
    )
  const type = TYPES[told.type ?? ''] ?? (Object.values(TYPES).includes(file.type) ? file.type : null)
  if (type === null)
    throw new Fault(
      'bad-request',
      'A picture is a PNG, JPEG, WebP, GIF, AVIF or SVG here, and this file is none of these. Choose another.',
    )
  if (told.width * told.height > MOST_PIXELS && type !== TYPES['svg'])
    throw new Fault(
      'bad-request',
      `This picture has ${told.width} by ${told.height} pixels; ${MOST_PIXELS / 1e6} million are the most. Make it smaller first.`,
    )
  try {
    // The bytes alone, without the file they came out of.
    const alone = new Blob([content], { type })
    return await pictures().look(type === TYPES['svg'] ? await pixelsOf(alone) : alone)
  } catch {
    throw new Fault(
      'bad-request',
      'This file calls itself a picture and cannot be read as one: it may be cut off. Choose another.',
    )
  }
}

/** What the first bytes of a file tell of it; all is nought where they tell nothing. */
async function toldBy(content: Uint8Array): Promise<{ type: string | null; width: number; height: number }> {
  const { imageSize } = await import('image-size')
  try {
    const { type = null, width, height } = imageSize(content)
    return { type, width, height }
  } catch {
    return { type: null, width: 0, height: 0 }
  }
}

/** How wide an SVG is drawn that does not say it. */
const DRAWN = 1600

/** What an SVG shows, as a PNG: an image element runs no script in it, and fetches nothing that it names. */
async function pixelsOf(svg: Blob): Promise<Blob> {
  const url = URL.createObjectURL(svg)
  try {
    const image = new Image()
    image.src = url
    await image.decode()
    const { naturalWidth, naturalHeight } = image
    const scale = DRAWN / Math.max(naturalWidth, naturalHeight, 1)
    const canvas = new OffscreenCanvas(
      Math.max(1, Math.round((naturalWidth || DRAWN) * scale)),
      Math.max(1, Math.round((naturalHeight || DRAWN) * scale)),
    )
    canvas.getContext('2d')?.drawImage(image, 0, 0, canvas.width, canvas.height)
    return await canvas.convertToBlob({ type: 'image/png' })
  } finally {
    URL.revokeObjectURL(url)
  }
}
