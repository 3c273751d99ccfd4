import { Resvg } from '@resvg/resvg-js'
import { describe, expect, it } from 'vitest'
import { seededRandom } from '../../core/planning'
import { faceFinder, FACES_LOOKED_AT } from './faceFinder'

const SKINS = ['#f1c9a5', '#d9a679', '#a8714a', '#6f4a30']

/** A face drawn of plain shapes, as light from above shows one; `size` from the brows to the chin. */
function drawnFace(x: number, y: number, size: number, skin: string): string {
  const at = (dx: number, dy: number): string => `cx="${x + dx * size}" cy="${y + dy * size}"`
  const oval = (place: string, rx: number, ry: number, fill: string, opacity = 1): string =>
    `<ellipse ${place} rx="${rx * size}" ry="${ry * size}" fill="${fill}" fill-opacity="${opacity}"/>`
  const eye = (dx: number): string =>
    oval(at(dx, 0.3), 0.17, 0.11, '#000', 0.35) +
    oval(at(dx, 0.32), 0.1, 0.05, '#f4f0ea') +
    oval(at(dx, 0.32), 0.045, 0.045, '#1c1512') +
    `<path d="M ${x + (dx - 0.15) * size} ${y + 0.2 * size} q ${0.15 * size} ${-0.07 * size} ${0.3 * size} 0" stroke="#2a1c14" stroke-width="${0.05 * size}" fill="none"/>`
  return (
    oval(at(0.5, 0.35), 0.62, 0.75, '#2a1c14') +
    oval(at(0.5, 0.45), 0.5, 0.68, skin) +
    oval(at(0.5, -0.02), 0.36, 0.16, '#fff', 0.25) +
    eye(0.28) +
    eye(0.72) +
    oval(at(0.5, 0.5), 0.06, 0.16, '#fff', 0.35) +
    oval(at(0.5, 0.64), 0.11, 0.04, '#000', 0.4) +
    oval(at(0.25, 0.62), 0.12, 0.1, '#fff', 0.2) +
    oval(at(0.75, 0.62), 0.12, 0.1, '#fff', 0.2) +
    oval(at(0.5, 0.84), 0.19, 0.05, '#7c2f2a') +
    oval(at(0.5, 0.93), 0.13, 0.03, '#000', 0.3)
  )
}

function painted(shapes: string, width = FACES_LOOKED_AT, height = 300) {
  const ground = `<rect width="100%" height="100%" fill="#c9cfc6"/><rect width="100%" height="40%" fill="#9fb2b8"/>`
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}">${ground}${shapes}</svg>`
  const image = new Resvg(svg).render()
  return { width: image.width, height: image.height, data: image.pixels }
}

describe('faces of people in a picture', () => {
  it('are found where they are, of any skin and most sizes', async () => {
    const finder = await faceFinder()
    const random = seededRandom(7)
    let found = 0
    const all = 24
    for (let i = 0; i < all; i++) {
      const size = 40 + random() * 90
      const [x, y] = [30 + random() * (340 - size), 50 + random() * (200 - size)]
      const boxes = finder.find(painted(drawnFace(x, y, size, SKINS[i % SKINS.length] ?? '')))
      const on = boxes.filter(
        (b) =>
          Math.abs(400 * (b.x + b.width / 2) - (x + size / 2)) < 0.25 * size &&
          Math.abs(300 * (b.y + b.height / 2) - (y + size / 2)) < 0.3 * size,
      )
      if (on.length) found++
    }
    expect(found / all).toBeGreaterThan(0.75)
  })

  it('are none where eyes, brows and mouth are not', async () => {
    const finder = await faceFinder()
    const plain = `<ellipse cx="150" cy="150" rx="60" ry="80" fill="${SKINS[0]}"/><circle cx="300" cy="90" r="40" fill="#2a1c14"/>`
    expect(finder.find(painted(plain))).toEqual([])
    expect(finder.find({ width: 1, height: 1, data: [0, 0, 0, 255] })).toEqual([])
  })
})
