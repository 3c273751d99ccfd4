import type { Run } from './faces'

/** A box in pixels of the card. */
export interface Area {
  x: number
  y: number
  width: number
  height: number
}

/** What a card is drawn of, in the order of painting; what is `still` stands on every card of a brand alike. */
export type Stroke = (
  | ({ kind: 'field'; fill: string } & Area)
  | { kind: 'glyph'; outline: string; fill: string; x: number; y: number; scale: number }
  | ({ kind: 'picture'; hash: string } & Area)
) & { still?: true }

/** A card, drawn: fields, outlines and the brand's mark, so that it looks alike wherever it is painted. */
export interface Drawing {
  width: number
  height: number
  strokes: Stroke[]
  /** Where words stand, and on what: for those who check that nothing is cut or hard to read. */
  words: (Area & { text: string; fill: string; on: string; size: number })[]
  /** Where a code stands, the light about it included. */
  code: Area | null
  /** Letters that no typeface has, each once. */
  missing: string[]
}

/** The strokes of a run whose baseline begins at a place, at a size in pixels. */
export function strokesOf(run: Run, x: number, y: number, size: number, fill: string): Stroke[] {
  return run.glyphs.flatMap((g): Stroke[] =>
    g.outline === ''
      ? []
      : [
          {
            kind: 'glyph',
            outline: g.outline,
            fill,
            x: x + g.x * size,
            y: y - g.y * size,
            scale: g.scale * size,
          },
        ],
  )
}

const fixed = (n: number): string => String(Math.round(n * 1000) / 1000)

/**
 * A drawing as an SVG document without any text: every letter is an outline, each written once. `pictures` gives the addresses
 * of pictures by their hashes; what it lacks is left out.
 */
export function toSvg(
  { width, height, strokes }: Drawing,
  pictures: ReadonlyMap<string, string> = new Map(),
): string {
  const names = new Map<string, string>()
  const body = strokes.map((s) => {
    if (s.kind === 'field')
      return `<rect x="${fixed(s.x)}" y="${fixed(s.y)}" width="${fixed(s.width)}" height="${fixed(s.height)}" fill="${s.fill}"/>`
    if (s.kind === 'picture') {
      const url = pictures.get(s.hash)
      return url === undefined
        ? ''
        : `<image href="${url}" x="${fixed(s.x)}" y="${fixed(s.y)}" width="${fixed(s.width)}" height="${fixed(s.height)}"/>`
    }
    let name = names.get(s.outline)
    if (name === undefined) names.set(s.outline, (name = `g${names.size}`))
    const scale = String(Math.round(s.scale * 1e6) / 1e6)
    return `<use href="#${name}" fill="${s.fill}" transform="translate(${fixed(s.x)} ${fixed(s.y)}) scale(${scale} -${scale})"/>`
  })
  const outlines = [...names].map(([d, name]) => `<path id="${name}" d="${d}"/>`).join('')
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}"><defs>${outlines}</defs>${body.join('')}</svg>\n`
}
