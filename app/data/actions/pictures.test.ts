import { beforeEach, describe, expect, it, vi } from 'vitest'
import { connectTo, emptyDatabase } from '../testing/browser'
import { ownPicture, ownPictureHash } from '../../../core/model'
import { database } from '../database'
import { all } from '../store'
import { keepPicture } from './keepPicture'
import { pictureBytes } from './pictures'

const look = vi.hoisted(() => vi.fn())
vi.mock('../../workers', async () => {
  const made = await (await import('../testing/workers')).inProcess()
  look.mockImplementation(made.pictures().look)
  return { ...made, pictures: () => ({ ...made.pictures(), look }) }
})

const keep = async (file: Blob): Promise<string> => ownPicture((await keepPicture(file)).hash)
const png = (text: string): Blob => new Blob([text], { type: 'image/png' })
beforeEach(async () => {
  connectTo(null)
  await emptyDatabase()
})

describe('a picture out of a file', () => {
  it('lies in the workspace once, however often it comes, and is had by its address', async () => {
    const url = await keep(png('a seam'))
    expect(await keep(png('a seam'))).toBe(url)
    const other = await keep(png('a frame'))
    expect(other).not.toBe(url)
    expect((await all('media')).map((m) => ownPicture(m.id)).toSorted()).toEqual([url, other].toSorted())
    expect(await (await pictureBytes(url))?.text()).toBe('a seam')
    expect(await all('changes')).toEqual([])
  })

  it('is refused with a sentence where it is none, is too large, or cannot be read', async () => {
    await expect(keepPicture(new Blob(['{}'], { type: 'application/json' }))).rejects.toThrow(
      /is none of these/,
    )
    const large = new Blob([new Uint8Array(21 * 1024 * 1024)], { type: 'image/jpeg' })
    await expect(keepPicture(large)).rejects.toThrow(/has 21 MB; 20 MB is the most/)
    // A header that tells of 30,000 by 30,000 pixels; nobody unpacks them.
    const wide = new Uint8Array([
      0x89, 80, 78, 71, 13, 10, 26, 10, 0, 0, 0, 13, 73, 72, 68, 82, 0, 0, 0x75, 0x30, 0, 0, 0x75, 0x30, 8, 6,
      0, 0, 0,
    ])
    await expect(keepPicture(new Blob([wide], { type: 'image/png' }))).rejects.toThrow(
      /30000 by 30000 pixels/,
    )
    const heic = new Blob(['\0\0\0\x18ftypheic\0\0\0\0mif1heic'], { type: 'image/heic' })
    await expect(keepPicture(heic)).rejects.toThrow(/HEIC.+JPEG/)
    look.mockRejectedValueOnce(new Error('InvalidStateError'))
    await expect(keepPicture(png('words'))).rejects.toThrow(/cannot be read as one/)
    expect(await all('media')).toEqual([])
  })

  it('that is gone is said to be gone; any other address is not looked for here', async () => {
    const url = await keep(png('a seam'))
    await (await database()).delete('blobs', ownPictureHash(url) ?? '')
    await expect(pictureBytes(url)).rejects.toMatchObject({ code: 'not-found' })
    for (const address of ['https://yard.example/seam.png', 'picture:short', 'blob:picture:']) {
      expect(ownPictureHash(address)).toBeNull()
      expect(await pictureBytes(address)).toBeNull()
    }
  })
})
