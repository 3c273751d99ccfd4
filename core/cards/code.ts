import { encode } from 'uqr'
import { Fault } from '../model'

/** Modules of light that a code needs on each side, to be told from what is about it. */
export const QUIET = 4

/** A QR code: how many modules a side has, without the light about it, and its dark ones as an outline that goes upwards. */
export interface Code {
  modules: number
  outline: string
}

/** The most bytes that a QR code holds at level M: its version 40 (ISO/IEC 18004, table 7). */
const MOST = 2331

/**
 * The QR code of a text (ISO/IEC 18004), which is read also where 15 per cent of it are hidden (level M). Refuses
 * (`bad-request`) what no code has room for.
 */
export function codeOf(text: string): Code {
  if (new TextEncoder().encode(text).length > MOST)
    throw new Fault(
      'bad-request',
      'This link is too long for a code. Let links go out short, or leave the code off.',
    )
  const { data } = encode(text, { ecc: 'M', border: 0 })
  const runs = data.flatMap((row, down) =>
    runsOf(row).map(({ from, to }) => {
      const [top, foot] = [-down, -down - 1]
      return `M${from} ${top}L${to} ${top}L${to} ${foot}L${from} ${foot}Z`
    }),
  )
  return { modules: data.length, outline: runs.join('') }
}

/** The dark modules of a row that stand side by side, from the first to the one after the last. */
function runsOf(row: readonly boolean[]): { from: number; to: number }[] {
  const runs: { from: number; to: number }[] = []
  row.forEach((dark, i) => {
    const last = runs.at(-1)
    if (dark && last?.to === i) last.to = i + 1
    else if (dark) runs.push({ from: i, to: i + 1 })
  })
  return runs
}
