import { describe, expect, it } from 'vitest'
import { Resvg } from '@resvg/resvg-js'
import { picturePng } from '../../demo/pictures'
import { coloursOf } from '.'

const painted = (body: string): ArrayLike<number> =>
  new Resvg(`<svg xmlns="http://www.w3.org/2000/svg" width="80" height="60">${body}</svg>`).render().pixels
const near = (a: string, b: string): boolean =>
  [1, 3, 5].every((i) => Math.abs(parseInt(a.slice(i, i + 2), 16) - parseInt(b.slice(i, i + 2), 16)) < 14)

describe('the colours of a logo', () => {
  it('are its lightest, its darkest, and of the others the most vivid', () => {
    const found = coloursOf(
      painted(
        '<rect width="80" height="60" fill="#f4efe2"/><circle cx="30" cy="30" r="16" fill="#1e6b6f"/><rect x="50" y="10" width="20" height="40" fill="#20262a"/><rect x="2" y="2" width="10" height="8" fill="#b0aca0"/>',
      ),
    )
    expect(near(found.ground, '#f4efe2') && near(found.ink, '#20262a') && near(found.accent, '#1e6b6f')).toBe(
      true,
    )
  })

  it('on nothing count as on white, and a single one is ink on white', () => {
    const found = coloursOf(painted('<circle cx="40" cy="30" r="25" fill="#303a5c"/>'))
    expect([found.ground, near(found.ink, '#303a5c')]).toEqual(['#ffffff', true])
    expect(coloursOf([])).toEqual({ ground: '#ffffff', ink: '#000000', accent: '#000000' })
    expect(coloursOf(painted('<rect width="80" height="60" fill="#808080"/>'))).toMatchObject({
      ground: '#ffffff',
    })
  })

  it('are found in a drawing of many', () => {
    const { pixels } = new Resvg(
      `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="96" height="64"><image width="96" height="64" xlink:href="data:image/png;base64,${Buffer.from(picturePng('seam-section')!).toString('base64')}"/></svg>`,
    ).render()
    // Paper, oak, red lead: as the picture was drawn.
    expect(near(coloursOf(pixels).accent, '#b98a4e') || near(coloursOf(pixels).accent, '#a8432d')).toBe(true)
  })
})
