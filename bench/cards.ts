import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { Resvg } from '@resvg/resvg-js'
import { openFaces } from '../cli/faces'
import { drawCard, facesOf, toSvg } from '../core/cards'
import { writeDrip } from '../core/drips'
import { PLAIN_HOUSE } from '../core/house'
import { LAYOUTS, usualLook, type Card } from '../core/model'
import { network } from '../core/networks'
import { findPassages } from '../core/passages'
import { read } from '../core/reading'

/*
 * npm run cards -- [FOLDER] [--networks a,b] [--beats N]: draws the cards that texts get where they bring no
 * pictures, thirty a sheet, into .build/cards, to be looked at.
 */

const argument = (name: string, usual: string): string => {
  const at = process.argv.indexOf(`--${name}`)
  return at < 0 ? usual : (process.argv[at + 1] ?? usual)
}
const [given] = process.argv.slice(2)
const folder = given && !given.startsWith('--') ? resolve(given) : join(import.meta.dirname, 'corpus')
const networks = argument('networks', 'shutterleaf,rackwell').split(',')
const beats = Number(argument('beats', '6'))
const out = join(import.meta.dirname, '../.build/cards')
const COLOURS = [
  ['#efe7d6', '#22302e', '#a8432d'],
  ['#e6ecdd', '#24331f', '#c46f46'],
  ['#ffffff', '#1d2540', '#3557c9'],
  ['#1f2a33', '#f4efe2', '#e0a030'],
] as const
const files = await openFaces()

const drawn: { svg: string; width: number; height: number }[] = []
for (const [i, file] of readdirSync(folder)
  .filter((f) => /\.(?:md|html?|txt|docx)$/.test(f) && f !== 'README.md')
  .sort()
  .entries()) {
  const result = await read(readFileSync(join(folder, file)), {
    name: file,
    url: `https://texts.example/${file}`,
  })
  if (result.kind !== 'piece') continue
  const piece = { ...result.piece, images: [] }
  const [ground, ink, accent] = COLOURS[i % COLOURS.length] ?? COLOURS[0]
  const look = { ...usualLook('A brand of ours'), ground, ink, accent }
  if (i % 2) look.words = 'Schibsted Grotesk'
  const faces = facesOf(look, files)
  const posts = writeDrip({
    piece,
    passages: findPassages(piece),
    accounts: networks.map((id) => ({ id, network: id })),
    days: Array.from({ length: beats }, (_, n) => n * 7),
    house: PLAIN_HOUSE,
    link: piece.url,
    layouts: LAYOUTS,
    seed: 1,
  })
  for (const { picture, network: id } of posts) {
    if (!picture || !('card' in picture)) continue
    const card: Card = picture.card
    const shape = network(id).media.shapes.at(-1) ?? null
    const { width, height, ...drawing } = drawCard(card, look, faces, shape)
    drawn.push({ svg: toSvg({ width, height, ...drawing }), width, height })
    console.log(
      `${file} · ${id} · ${card.layout} · ${[card.head, card.text, ...card.items, card.speaker].filter(Boolean).join(' | ')}`,
    )
  }
}

mkdirSync(out, { recursive: true })
const [COLUMNS, CELL] = [10, 190]
for (let from = 0; from < drawn.length; from += 3 * COLUMNS) {
  const cells = drawn.slice(from, from + 3 * COLUMNS).map(({ svg, width, height }, n) => {
    const scale = Math.min((CELL - 8) / width, (CELL * 1.5 - 8) / height)
    const at = `${(n % COLUMNS) * CELL} ${Math.floor(n / COLUMNS) * CELL * 1.5}`
    // Each card has names of its own for its letters.
    const own = svg.replaceAll('id="g', `id="c${n}g`).replaceAll('"#g', `"#c${n}g`)
    return `<g transform="translate(${at}) scale(${scale})">${own}</g>`
  })
  const sheet = `<svg xmlns="http://www.w3.org/2000/svg" width="${COLUMNS * CELL}" height="${CELL * 4.5}"><rect width="100%" height="100%" fill="#808080"/>${cells.join('')}</svg>`
  writeFileSync(join(out, `sheet-${from / (3 * COLUMNS)}.png`), new Resvg(sheet).render().asPng())
}
console.log(`${drawn.length} cards in ${out}`)
