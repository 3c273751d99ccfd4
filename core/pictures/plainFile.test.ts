import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { createCanvas, GifEncoder } from '@napi-rs/canvas'
import { imageSize } from 'image-size'
import { describe, expect, it } from 'vitest'
import { mayMove, network, staysMoving } from '../networks'
import { plainFile } from '.'

const latin = (text: string): number[] => Array.from(text, (c) => c.charCodeAt(0))
const bytesOf = (...parts: (Uint8Array | number[])[]): Uint8Array<ArrayBuffer> =>
  Uint8Array.from(parts.flatMap((p) => [...p]))

/** Three frames in three colours, by an encoder of its own. */
function gif(): Uint8Array {
  const encoder = new GifEncoder(8, 6, { repeat: 0 })
  for (const colour of ['#ff0000', '#00ff00', '#0000ff']) {
    const context = createCanvas(8, 6).getContext('2d')
    context.fillStyle = colour
    context.fillRect(0, 0, 8, 6)
    encoder.addFrame(new Uint8Array(context.getImageData(0, 0, 8, 6).data), 8, 6, { delay: 100 })
  }
  return new Uint8Array(encoder.finish())
}

const COMMENT = [0x21, 0xfe, 11, ...latin('51.50 -0.12'), 0]
// XMP lies in a GIF as it is; 258 bytes at its end lead whoever reads it as blocks out of it (XMP Specification Part 3, 1.1.2).
const XMP = [
  ...[0x21, 0xff, 11, ...latin('XMP DataXMP')],
  ...latin('<x:xmpmeta>here</x:xmpmeta>'),
  ...[1, ...Array.from({ length: 256 }, (_, i) => 255 - i), 0],
]

describe('a moving picture without what was written into it', () => {
  it('is the file that it was before that was written into a GIF', () => {
    const plain = gif()
    // After the head and its table of colours, of three bytes each.
    const head = 13 + ((plain[10] ?? 0) & 0x80 ? 3 * 2 ** (((plain[10] ?? 0) & 7) + 1) : 0)
    const more = bytesOf(plain.subarray(0, head), COMMENT, XMP, plain.subarray(head))
    expect(plainFile(more)).toEqual(bytesOf(plain))
    expect(plainFile(bytesOf(plain))).toEqual(bytesOf(plain))
  })

  it('keeps how often a GIF of another program is repeated, and all of its frames', () => {
    const path = createRequire(import.meta.url).resolve('pdfjs-dist/web/images/loading-icon.gif')
    const icon = bytesOf(readFileSync(path))
    const plain = plainFile(icon)
    // What stands before each frame begins with these two bytes.
    const frames = (file: Uint8Array): number => Buffer.from(file).toString('latin1').split('!ù').length - 1
    expect(frames(plain)).toBe(frames(icon))
    expect(frames(plain)).toBeGreaterThan(1)
    const text = Buffer.from(plain).toString('latin1')
    expect(text).toContain('NETSCAPE2.0')
  })

  it('has no EXIF and no XMP in a WebP, and says so', () => {
    const canvas = createCanvas(5, 4)
    canvas.getContext('2d').fillRect(1, 1, 2, 2)
    const still = new Uint8Array(canvas.encodeSync('webp'))
    const chunk = (name: string, body: number[]): number[] => [
      ...latin(name),
      ...[body.length, 0, 0, 0],
      ...body,
      ...(body.length % 2 ? [0] : []),
    ]
    const file = (flags: number, ...more: number[][]): Uint8Array<ArrayBuffer> => {
      const body = [
        ...chunk('VP8X', [flags, 0, 0, 0, 4, 0, 0, 3, 0, 0]),
        ...still.subarray(12),
        ...more.flat(),
      ]
      const size = body.length + 4
      return bytesOf(latin('RIFF'), [size & 255, size >> 8, 0, 0], latin('WEBP'), body)
    }
    // Bits 3 and 2 of the flags say EXIF and XMP, bit 4 that it is see-through (RFC 9649, 2.7).
    const more = file(0x1c, chunk('EXIF', latin('MM*place')), chunk('XMP ', latin('<x>')))
    expect(plainFile(more)).toEqual(file(0x10))
    expect(imageSize(plainFile(more))).toMatchObject({ width: 5, height: 4 })
  })

  it('is left alone where it is another file or is cut off', () => {
    for (const file of [
      bytesOf(latin('no picture')),
      bytesOf([]),
      bytesOf(gif()).slice(0, 60),
      bytesOf(latin('GIF89a')),
    ])
      expect(plainFile(file)).toEqual(file)
  })
})

it('stays moving where its network takes that, whole and small enough', () => {
  const on = (
    id: string,
    type: string,
    bytes: number | null = 1000,
    shape: { width: number; height: number } | null = null,
  ) => staysMoving({ type, bytes }, shape, mayMove(network(id)))
  expect(on('murmur', 'image/gif')).toBe(true)
  expect(on('murmur', 'image/webp')).toBe(false)
  expect(on('courier', 'image/webp', null)).toBe(true)
  expect(on('guildhall', 'image/gif')).toBe(false)
  expect(on('murmur', 'image/gif', 5_000_001)).toBe(false)
  expect(on('courier', 'image/gif', 1000, { width: 9, height: 16 })).toBe(false)
})
