import { CARD_MOST, type Card, type MediaSource } from '../model'
import { graphemes } from '../networks'
import { slidesOf } from './slides'

/** A card of a clip and for how long it shows, in seconds. */
export interface Scene {
  card: Card
  seconds: number
}

/**
 * So many characters are read in a second while they stand on a screen: of subtitles at 12, 16 and 20 a second, viewers read
 * the second at their ease and re-read the first (Szarkowska and Gerber-Morón, PLOS ONE 13(6), 2018).
 */
const READ = 15
/** Seconds that a card takes before it is read, and the fewest that one shows. */
const TAKEN_IN = 1.4
const FEWEST = 2.4

/**
 * What a moving card shows one after the other: what it opens with, the card itself or, of a list or steps, each point by
 * itself, and the brand's own line last, where it has one; a code of the card stands on the last. Each shows as long as it
 * takes to be read; where all of them together are shorter or longer than the network takes a clip, each is so much longer or
 * shorter.
 */
export function scenesOf(
  { card, hook }: Pick<MediaSource & { from: 'moving' }, 'card' | 'hook'>,
  line: string,
  { least, most }: { least: number; most: number },
): Scene[] {
  const title = (text: string): Card => ({ layout: 'title', head: '', text, items: [], speaker: '' })
  const last = line.trim().slice(0, CARD_MOST.text)
  const { code, ...plain } = card
  const cards: Card[] = [
    ...(hook === '' ? [] : [title(hook)]),
    ...(slidesOf(plain, '', Infinity) ?? [plain]),
    ...(last === '' ? [] : [title(last)]),
  ]
  if (code) cards.push({ ...(cards.pop() as Card), code })
  const scenes = cards.map((shown) => ({ card: shown, seconds: Math.max(FEWEST, readIn(shown)) }))
  const all = secondsOf(scenes)
  const times = Math.min(Math.max(all, least), most) / all
  return scenes.map((s) => ({ ...s, seconds: s.seconds * times }))
}

/** How long some scenes show together, in seconds. */
export function secondsOf(scenes: readonly Pick<Scene, 'seconds'>[]): number {
  return scenes.reduce((sum, s) => sum + s.seconds, 0)
}

/** How long it takes to read a card, in seconds. */
function readIn({ head, text, items, speaker }: Card): number {
  return TAKEN_IN + graphemes([head, text, ...items, speaker].join('')) / READ
}
