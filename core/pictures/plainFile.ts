const latin = (bytes: Uint8Array, from: number, length: number): string =>
  String.fromCharCode(...bytes.subarray(from, from + length))

/**
 * A moving picture's file without what cameras and programs wrote into it; its frames stay byte for byte. GIF after the GIF89a
 * specification, WebP after RFC 9649; any other file, or one that is cut off, comes back as it is.
 */
export function plainFile(bytes: Uint8Array<ArrayBuffer>): Uint8Array<ArrayBuffer> {
  if (latin(bytes, 0, 4) === 'GIF8') return plainGif(bytes)
  if (latin(bytes, 0, 4) === 'RIFF' && latin(bytes, 8, 4) === 'WEBP') return plainWebp(bytes)
  return bytes
}

/** Extensions of a GIF that programs write for themselves: comments, and all of applications but how often it is repeated. */
const REPEATS = new Set(['NETSCAPE2.0', 'ANIMEXTS1.0'])

function plainGif(bytes: Uint8Array<ArrayBuffer>): Uint8Array<ArrayBuffer> {
  const at = (i: number): number => bytes[i] ?? 0
  const table = (flags: number): number => (flags & 0x80 ? 3 * 2 ** ((flags & 7) + 1) : 0)
  /** Where blocks of at most 255 bytes end that begin here; past the end of the file where they do not. */
  const blocksEnd = (from: number): number => {
    let i = from
    while (i < bytes.length && at(i) !== 0) i += at(i) + 1
    return i + 1
  }
  let i = 13 + table(at(10))
  const kept = [bytes.subarray(0, i)]
  while (i < bytes.length && at(i) !== 0x3b) {
    let end: number
    let drops = false
    if (at(i) === 0x21) {
      end = blocksEnd(i + 2)
      drops = at(i + 1) === 0xfe || (at(i + 1) === 0xff && !REPEATS.has(latin(bytes, i + 3, 11)))
    } else if (at(i) === 0x2c) end = blocksEnd(i + 10 + table(at(i + 9)) + 1)
    else return bytes
    if (end > bytes.length) return bytes
    if (!drops) kept.push(bytes.subarray(i, end))
    i = end
  }
  kept.push(bytes.subarray(i, i + 1))
  return joined(kept)
}

/** The bits by which the head of a WebP says that it has metadata (EXIF and XMP). */
const SAYS_MORE = 0x0c

function plainWebp(bytes: Uint8Array<ArrayBuffer>): Uint8Array<ArrayBuffer> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const head = bytes.slice(0, 12)
  const kept = [head]
  for (let i = 12; i + 8 <= bytes.length;) {
    const length = view.getUint32(i + 4, true)
    const end = i + 8 + length + (length % 2)
    if (end > bytes.length) return bytes
    const name = latin(bytes, i, 4)
    if (name !== 'EXIF' && name !== 'XMP ') {
      const chunk = bytes.slice(i, end)
      if (name === 'VP8X') chunk[8] = (chunk[8] ?? 0) & ~SAYS_MORE
      kept.push(chunk)
    }
    i = end
  }
  const plain = joined(kept)
  new DataView(plain.buffer).setUint32(4, plain.length - 8, true)
  return plain
}

function joined(parts: readonly Uint8Array[]): Uint8Array<ArrayBuffer> {
  const all = new Uint8Array(parts.reduce((sum, p) => sum + p.length, 0))
  let at = 0
  for (const part of parts) {
    all.set(part, at)
    at += part.length
  }
  return all
}
