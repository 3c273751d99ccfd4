import { INSIDE } from './inside'
import { OUTSIDE } from './outside'
import { LIGHTS } from './places'
import type { Subject } from './subject'

/** What is drawn, in the fields of the demo's brands and beyond them. */
export const SUBJECTS: readonly Subject[] = [...OUTSIDE, ...INSIDE]

/** A subject in a light as a drawing (SVG), 1200 by 800. */
export function drawScene(subject: Subject, light: number): string {
  const of = LIGHTS[light] as (typeof LIGHTS)[number]
  const { behind, y } = subject.place(of, light)
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 1200 800" width="1200" height="800"><g>${behind}${subject.draw(of, y, light)}</g></svg>`
}
