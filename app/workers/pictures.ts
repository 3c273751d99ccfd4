import { expose } from 'comlink'
import { chooseShape, cropAboutCentre, type Shape } from '../../core/networks'

/** A picture ready to be handed over. */
export interface MadePicture {
  blob: Blob
  hash: string
  type: string
  width: number
  height: number
}

const LONGEST = 1600

/** What the page asks of the picture worker. */
const pictures = {
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
    const digest = await crypto.subtle.digest('SHA-256', await blob.arrayBuffer())
    const hash = [...new Uint8Array(digest)].map((b) => b.toString(16).padStart(2, '0')).join('')
    return { blob, hash, type: 'image/jpeg', width, height }
  },
}

export type Pictures = typeof pictures
expose(pictures)
