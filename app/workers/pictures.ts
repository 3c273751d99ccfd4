import { expose } from 'comlink'
import smartcrop, { type Crop } from 'smartcrop'
import type { Cut } from '../../core/model'
import { cutIn, movedCut, staysMoving, type MayMove, type Shape } from '../../core/networks'
import {
  aroundParts,
  greyOf,
  headOf,
  LOOKED_AT,
  plainFile,
  PRINT_SIDE,
  printOf,
  textLines,
} from '../../core/pictures'
import { faceFinder, FACES_LOOKED_AT } from './faceFinder'
import { hashOf, type MadePicture, type SeenPicture } from './blobs'

const LONGEST = 1600
/** The longer side of what stands in lists. */
const SMALL = 240

/** By what the parts of a picture begin in which cameras and programs write of it. */
const SAYS_MORE = ['Exif\0\0', 'http://ns.adobe.com/', 'eXIf', 'EXIF', 'XMP ', 'iTXtXML:com.adobe.xmp']

/** Whether a picture's file tells more than its pixels: how it was held, when, where, with what. */
async function saysMore(blob: Blob): Promise<boolean> {
  const text = new TextDecoder('latin1').decode(await blob.arrayBuffer())
  return SAYS_MORE.some((mark) => text.includes(mark))
}

/** A moving picture's file with its frames alone. */
async function withoutMore(blob: Blob): Promise<Blob> {
  return new Blob([plainFile(new Uint8Array(await blob.arrayBuffer()))], { type: blob.type })
}

/** A picture's pixels as a file of their own: PNG stays PNG, anything else becomes a JPEG. */
function paintedAnew(bitmap: ImageBitmap, type: string): Promise<Blob> {
  const canvas = new OffscreenCanvas(bitmap.width, bitmap.height)
  const context = canvas.getContext('2d')
  if (!context) throw new Error('This browser cannot draw in a worker.')
  context.drawImage(bitmap, 0, 0)
  return canvas.convertToBlob(
    type === 'image/png' || type === 'image/webp'
      ? { type, quality: 0.95 }
      : { type: 'image/jpeg', quality: 0.95 },
  )
}

/** A canvas and its context, in pixels. */
function canvasOf(width: number, height: number) {
  const canvas = new OffscreenCanvas(Math.max(1, Math.round(width)), Math.max(1, Math.round(height)))
  const context = canvas.getContext('2d', { willReadFrequently: true })
  if (!context) throw new Error('This browser cannot draw in a worker.')
  context.imageSmoothingQuality = 'high'
  return { canvas, context }
}

/** Whether a picture has more than one frame, as far as this browser can tell. */
async function moves(blob: Blob): Promise<boolean> {
  if (typeof ImageDecoder === 'undefined' || !(await ImageDecoder.isTypeSupported(blob.type))) return false
  const decoder = new ImageDecoder({ data: await blob.arrayBuffer(), type: blob.type })
  try {
    await decoder.tracks.ready
    return (decoder.tracks.selectedTrack?.frameCount ?? 1) > 1
  } catch {
    return false
  } finally {
    decoder.close()
  }
}

function printIn(bitmap: ImageBitmap): string | null {
  const { context } = canvasOf(PRINT_SIDE, PRINT_SIDE)
  context.drawImage(bitmap, 0, 0, PRINT_SIDE, PRINT_SIDE)
  return printOf(greyOf(context.getImageData(0, 0, PRINT_SIDE, PRINT_SIDE).data))
}

/**
 * The part of a picture that is worth showing in a shape, as fractions of it (smartcrop: detail, skin, colour, and faces where there
 * are some), moved so that it cuts through no head and no line of text where that can be had.
 */
async function proposedCut(bitmap: ImageBitmap, shape: Shape): Promise<Cut> {
  const { width, height } = bitmap
  const faces = await facesIn(bitmap)
  const options = {
    width: shape.width * 100,
    height: shape.height * 100,
    canvasFactory: (wide: number, high: number) => canvasOf(wide, high).canvas,
    boost: faces.map(headOf).map((head) => ({
      x: head.x * width,
      y: head.y * height,
      width: head.width * width,
      height: head.height * height,
      weight: 1,
    })),
  }
  // Null where a picture is smaller than its coarse steps, which its types do not say.
  const { topCrop } = (await smartcrop.crop(bitmap, options)) as { topCrop: Crop | null }
  const middle = topCrop
    ? { x: topCrop.x + topCrop.width / 2, y: topCrop.y + topCrop.height / 2 }
    : { x: width / 2, y: height / 2 }
  // It counts in coarse steps: the place is its, the size the largest that the shape has.
  const cut = movedCut(
    bitmap,
    shape,
    { x: middle.x / width - 0.5, y: middle.y / height - 0.5, width: 1, height: 1 },
    {},
  )
  return aroundParts(cut, { faces, lines: textLines(pixelsOf(bitmap, LOOKED_AT)) })
}

/** The faces in a picture; none where what finds them cannot be had, since a cut is wanted all the same. */
async function facesIn(bitmap: ImageBitmap): Promise<Cut[]> {
  const finder = await faceFinder().catch(() => null)
  return finder?.find(pixelsOf(bitmap, FACES_LOOKED_AT)) ?? []
}

/** A picture's pixels, made smaller so that its longer side has at most so many. */
function pixelsOf(bitmap: ImageBitmap, longest: number): ImageData {
  const scale = Math.min(1, longest / Math.max(bitmap.width, bitmap.height))
  const { canvas, context } = canvasOf(bitmap.width * scale, bitmap.height * scale)
  context.drawImage(bitmap, 0, 0, canvas.width, canvas.height)
  return context.getImageData(0, 0, canvas.width, canvas.height)
}

/** What the page asks of the picture worker. All of it throws what cannot be read as a picture. */
const pictures = {
  /**
   * A picture as it is, with its size in pixels, its hash and its print; where a camera wrote into it how it was held or
   * where it was taken, it is turned upright and painted anew without that.
   */
  look: async (blob: Blob): Promise<SeenPicture> => {
    const bitmap = await createImageBitmap(blob)
    const { width, height } = bitmap
    const print = printIn(bitmap)
    const moving = await moves(blob)
    const kept = !(await saysMore(blob))
      ? blob
      : moving
        ? await withoutMore(blob)
        : await paintedAnew(bitmap, blob.type)
    bitmap.close()
    return {
      blob: kept,
      hash: await hashOf(kept),
      type: kept.type,
      width,
      height,
      ...(print ? { print } : {}),
      ...(moving ? { moves: true } : {}),
    }
  },

  /** A picture small enough for a list of thousands, as a JPEG on white. */
  small: async (source: Blob): Promise<Blob> => {
    const bitmap = await createImageBitmap(source)
    const scale = Math.min(1, SMALL / Math.max(bitmap.width, bitmap.height))
    const { canvas, context } = canvasOf(bitmap.width * scale, bitmap.height * scale)
    context.fillStyle = '#ffffff'
    context.fillRect(0, 0, canvas.width, canvas.height)
    context.drawImage(bitmap, 0, 0, canvas.width, canvas.height)
    bitmap.close()
    return canvas.convertToBlob({ type: 'image/jpeg', quality: 0.8 })
  },

  /** The part of a picture that is proposed for a shape. */
  propose: async (source: Blob, shape: Shape): Promise<Cut> => {
    const bitmap = await createImageBitmap(source)
    const cut = await proposedCut(bitmap, shape)
    bitmap.close()
    return cut
  },

  /**
   * Cuts a picture to the part that was chosen for a shape, or that is proposed for it, or leaves it whole; at most 1600 pixels
   * on its longer side, as JPEG; one that moves as it is where it may (`staysMoving`). The hash is SHA-256 of its bytes.
   */
  crop: async (source: Blob, shape: Shape | null, cut: Cut | null, may: MayMove): Promise<MadePicture> => {
    const bitmap = await createImageBitmap(source)
    if (staysMoving({ type: source.type, bytes: source.size }, shape, may) && (await moves(source))) {
      const { width, height } = bitmap
      bitmap.close()
      const blob = await withoutMore(source)
      return { blob, hash: await hashOf(blob), type: blob.type, width, height }
    }
    const part = shape && (cut ?? (await proposedCut(bitmap, shape)))
    const box = cutIn(bitmap, part ?? { x: 0, y: 0, width: 1, height: 1 })
    const scale = Math.min(1, LONGEST / Math.max(box.width, box.height))
    const { canvas, context } = canvasOf(box.width * scale, box.height * scale)
    const { width, height } = canvas
    context.fillStyle = '#ffffff'
    context.fillRect(0, 0, width, height)
    context.drawImage(bitmap, box.x, box.y, box.width, box.height, 0, 0, width, height)
    bitmap.close()
    const blob = await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.9 })
    return { blob, hash: await hashOf(blob), type: 'image/jpeg', width, height }
  },
}

export type Pictures = typeof pictures
expose(pictures)
