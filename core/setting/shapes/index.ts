import { considered } from './considered'
import { letter } from './letter'
import { neighbourly } from './neighbourly'
import { news } from './news'
import { pictures } from './pictures'
import { searchable } from './searchable'
import type { Shape } from './shape'
import { short } from './short'
import { video } from './video'

/** Every shape by its name. */
export const SHAPES: Readonly<Record<Shape['name'], Shape>> = {
  short,
  considered,
  'pictures speak': pictures,
  neighbourly,
  searchable,
  video,
  news,
  letter,
}
