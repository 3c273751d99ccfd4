import { FACES, Fault, OWN_FACES, type OwnFace } from '../../../core/model'
import { hashOf } from '../../workers/blobs'
import { cards } from '../../workers'
import { bytes } from '../api'
import { must } from '../store'
import { openPicture } from './keepPicture'
import { saveLook } from './look'
import { storePicture } from './pictures'

/** The most bytes of a font's file. */
const LARGEST = 5_000_000

/**
 * Takes a typeface out of a file into a brand's look: TTF, OTF or WOFF2, one weight a file, those of one family together.
 * Gives its name. Refuses with a sentence (`bad-request`) what is no font, or is too large.
 */
export async function addFace(brand: string, file: Blob): Promise<string> {
  if (file.size > LARGEST)
    throw new Fault(
      'bad-request',
      `This file has ${Math.ceil(file.size / 1e6)} MB; a font may have ${LARGEST / 1e6} MB. Choose one with fewer letters.`,
    )
  const content = await unpacked(file)
  const told = await cards().font(new Uint8Array(await content.arrayBuffer()))
  if ('refused' in told) throw new Fault('bad-request', told.refused)
  const hash = await hashOf(content)
  const kept = await must('brands', brand)
  const { look } = kept
  // A shipped typeface goes by its name already.
  const name = FACES.some((f) => f === told.family) ? `${told.family} (own)` : told.family
  const own = withFace(look.own ?? [], name, told.strong, hash)
  if (own.length > OWN_FACES)
    throw new Fault(
      'bad-request',
      `A brand has at most ${OWN_FACES} typefaces of its own. Take one out first.`,
    )
  await storePicture({ blob: content, hash, type: 'font/sfnt', width: 0, height: 0 })
  await saveLook(kept, { ...look, own })
  return name
}

/** Some typefaces with one more file, in the place of an earlier one of that weight. */
function withFace(own: readonly OwnFace[], name: string, strong: boolean, hash: string): OwnFace[] {
  const before = own.find((f) => f.name === name)
  if (!before) return [...own, { name, regular: hash, strong: strong ? hash : null }]
  // A strong file alone stands for both.
  const alone = before.regular === before.strong
  const face = strong
    ? { ...before, regular: alone ? hash : before.regular, strong: hash }
    : { ...before, regular: hash }
  return own.map((f) => (f === before ? face : f))
}

/** Takes a typeface out of a brand's look; what was set in it is set in the first that comes with Dripline. */
export async function removeFace(brand: string, name: string): Promise<void> {
  const kept = await must('brands', brand)
  const { look } = kept
  const rest = (face: string): string => (face === name ? FACES[0] : face)
  await saveLook(kept, {
    ...look,
    words: rest(look.words),
    labels: rest(look.labels),
    own: (look.own ?? []).filter((f) => f.name !== name),
  })
}

/** Takes a mark for a brand's cards out of a file with a picture. Refuses with a sentence (`bad-request`) what is none. */
export async function setMark(brand: string, file: Blob): Promise<void> {
  const { blob } = await openPicture(file)
  const made = await cards().mark(blob)
  await storePicture(made)
  const kept = await must('brands', brand)
  const { hash, width, height } = made
  await saveLook(kept, { ...kept.look, mark: { hash, width, height } })
}

/** A font's file as TTF or OTF: what is packed as WOFF2 is unpacked by the server. */
async function unpacked(file: Blob): Promise<Blob> {
  const magic = await file.slice(0, 4).text()
  if (magic === 'wOFF')
    throw new Fault(
      'bad-request',
      'This font is packed as WOFF, the older way. Take its TTF, OTF or WOFF2 file.',
    )
  const packed = new Blob([file], { type: 'font/woff2' })
  const plain = magic === 'wOF2' ? await bytes('POST', '/api/fonts/unpack', packed) : file
  return new Blob([await plain.arrayBuffer()], { type: 'font/sfnt' })
}
