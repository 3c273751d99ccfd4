import type { Stretch } from '../model'

/** How loud a recording is, is told so often: every 20 ms. */
export const LEVEL_SECONDS = 0.02

/** Of a pause this much stays, half of it on either side. */
const STAYS = 0.3
/** A pause is left out where at least so much of it goes. */
const WORTH = 0.25
/** Voice or quiet that is shorter is none of its own. */
const SHORTEST = 0.06
/** How long a sound of hesitation lasts. */
const HESITATES = { least: 0.12, most: 0.9 }
/** How far from where its words have it a sound of hesitation is looked for; another one within that and it stays. */
const NEAR = 0.6

/** What is softer than this part of the loudest is quiet, however still it is elsewhere: 40 decibels below. */
const FLOOR = 0.01

/**
 * Where nobody speaks in a recording, by its levels (root mean squares), in seconds from the first of them. What is quiet is told
 * from its own softest and loudest levels: the lower threshold of Rabiner and Sambur, An algorithm for determining the endpoints
 * of isolated utterances (Bell System Technical Journal 54, 1975), with a fiftieth and nine tenths of the levels for its extremes, so
 * that a single click or gap moves neither.
 */
function quietIn(levels: readonly number[]): Stretch[] {
  const sorted = [...levels].sort((a, b) => a - b)
  const at = (part: number): number => sorted[Math.floor(part * (sorted.length - 1))] ?? 0
  const [softest, loudest] = [at(0.02), at(0.9)]
  // What does not get much louder anywhere is one noise.
  if (loudest <= 4 * softest) return []
  const threshold = Math.max(Math.min(softest + 0.03 * (loudest - softest), 4 * softest), FLOOR * loudest)
  const voiced = withoutShort(
    withoutShort(
      levels.map((level) => level > threshold),
      true,
    ),
    false,
  )
  return stretchesOf(voiced, false)
}

/** Runs of voice, or of quiet, that are too short, taken for what is about them. */
function withoutShort(voiced: readonly boolean[], which: boolean): boolean[] {
  const out = [...voiced]
  for (const { from, to } of stretchesOf(voiced, which)) {
    const [first, last] = [Math.round(from / LEVEL_SECONDS), Math.round(to / LEVEL_SECONDS)]
    if (to - from < SHORTEST - 1e-9 && first > 0 && last < out.length) out.fill(!which, first, last)
  }
  return out
}

function stretchesOf(voiced: readonly boolean[], which: boolean): Stretch[] {
  const found: Stretch[] = []
  let first = -1
  for (let i = 0; i <= voiced.length; i++) {
    if (i < voiced.length && voiced[i] === which) {
      if (first < 0) first = i
    } else if (first >= 0) {
      found.push({ from: first * LEVEL_SECONDS, to: i * LEVEL_SECONDS })
      first = -1
    }
  }
  return found
}

/**
 * What may be left out of a recording so that nothing of its words is lost, in seconds from the first of its levels: the middle of
 * pauses that are longer than a breath, and the sounds of hesitation at about the given moments, where one stands alone between two
 * gaps. One that runs into a word, or that might be another word, stays.
 */
export function toLeaveOut(levels: readonly number[], hesitations: readonly number[]): Stretch[] {
  const quiet = quietIn(levels)
  const sounds = quiet.slice(1).flatMap(({ from }, i) => {
    const sound = { from: quiet[i]?.to ?? 0, to: from }
    const seconds = sound.to - sound.from
    return seconds >= HESITATES.least && seconds <= HESITATES.most ? [sound] : []
  })
  const gone = new Set<Stretch>()
  for (const moment of hesitations) {
    const near = sounds.filter(({ from, to }) => Math.abs((from + to) / 2 - moment) <= NEAR)
    const [only] = near
    if (only && near.length === 1) gone.add(only)
  }
  const length = levels.length * LEVEL_SECONDS
  return merged([...quiet, ...gone]).flatMap(({ from, to }) => {
    // The breath before the first word and after the last one was chosen with the part.
    if (from <= 0 || to >= length - 1e-9) return []
    const inside = [...gone].filter((sound) => sound.from >= from && sound.to <= to)
    const out = {
      from: Math.min(from + STAYS / 2, ...inside.map((sound) => sound.from)),
      to: Math.max(to - STAYS / 2, ...inside.map((sound) => sound.to)),
    }
    return inside.length > 0 || out.to - out.from >= WORTH ? [out] : []
  })
}

/** Stretches in their order, those that meet as one. */
function merged(stretches: readonly Stretch[]): Stretch[] {
  const out: Stretch[] = []
  for (const { from, to } of [...stretches].sort((a, b) => a.from - b.from)) {
    const last = out.at(-1)
    if (last && from <= last.to + 1e-9) last.to = Math.max(last.to, to)
    else out.push({ from, to })
  }
  return out
}
