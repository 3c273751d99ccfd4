import { expose } from 'comlink'
import { hashOf, type MadePicture } from './blobs'
import { chooseShape, cropAboutCentre, type Shape } from '../../core/networks'

const LONGEST = 1600

/** By what the parts of a picture begin in which cameras and programs write of it. */
const SAYS_MORE = ['Exif\0\0', 'http://ns.adobe.com/', 'eXIf', 'EXIF', 'XMP ', 'iTXtXML:com.adobe.xmp']

/** Whether a picture's file tells more than its pixels: how it was held, when, where, with what. */
async function saysMore(blob: Blob): Promise<boolean> {
  const text = new TextDecoder('latin1').decode(await blob.arrayBuffer())
  return SAYS_MORE.some((mark) => text.includes(mark))
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

/** What the page asks of the picture worker. */
const pictures = {
  /**
   * A picture as it is, with its size in pixels and its hash; where a camera wrote into it how it was held or where it was
   * taken, it is turned upright and painted anew without that. Throws where it cannot be read as a picture.
   */
  look: async (blob: Blob): Promise<MadePicture> => {
    const bitmap = await createImageBitmap(blob)
    const { width, height } = bitmap
    const kept = (await saysMore(blob)) ? await paintedAnew(bitmap, blob.type) : blob
    bitmap.close()
    return { blob: kept, hash: await hashOf(kept), type: kept.type, width, height }
  },

  /**
   * Crops a picture about its centre to one of the shapes a network takes (whole where there are
   * none), at most 1600 pixels on its longer side, as JPEG; the hash is SHA-256 of its bytes.
   */
  crop: async (source: Blob, shapes: readonly Shape[]): Promise<MadePicture> => {
    const bitmap = await createImageBitmap(source)
    const shape = chooseShape(bitmap, shapes)
    const box = shape
      ? cropAboutCentre(bitmap, shape)
      : { x: 0, y: 0, width: bitmap.width, height: bitmap.height }
    const scale = Math.min(1, LONGEST / Math.max(box.width, box.height))
    const width = Math.max(1, Math.round(box.width * scale))
    const height = Math.max(1, Math.round(box.height * scale))
    const canvas = new OffscreenCanvas(width, height)
    const context = canvas.getContext('2d')
    if (!context) throw new Error('This browser cannot draw in a worker.')
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
