import { expose } from 'comlink'
import { hashOf, type MadePicture } from './blobs'
import { chooseShape, cropAboutCentre, type Shape } from '../../core/networks'

const LONGEST = 1600

/** What the page asks of the picture worker. */
const pictures = {
  /** A picture as it is, with its size in pixels and its hash. Throws where it cannot be read as one. */
  look: async (blob: Blob): Promise<MadePicture> => {
    const bitmap = await createImageBitmap(blob)
    const { width, height } = bitmap
    bitmap.close()
    return { blob, hash: await hashOf(blob), type: blob.type, width, height }
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
