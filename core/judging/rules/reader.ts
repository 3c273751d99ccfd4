import { readingEase } from '../../language'
import { briefOf } from '../../house'
import { when, type Rule } from '../rule'

const EMOJI = /\p{Extended_Pictographic}(?:\uFE0F|\u200D\p{Extended_Pictographic})*/gu

/** Whether emoji stand where words should. */
export const emoji: Rule = {
  code: 'many-emoji',
  english: true,
  blocks: false,
  finds: ({ prose }) => {
    const found = (prose.match(EMOJI) ?? []).filter((e) => !/^[©®™✅\d#*]/u.test(e))
    return when(found.length > 2, () => ({
      severity: 'note',
      message: `${found.length} emoji. What does each of them say?`,
      words: found.join(''),
      remedy: 'Take them out',
    }))
  },
  mends: (text) =>
    text
      .replace(EMOJI, '')
      .replace(/ {2,}/g, ' ')
      .replace(/^ +| +$/gm, ''),
}

/** So far below what its reader likes a text may read before it is said. */
const SLACK = 25

/** Whether it reads as easily as its reader likes. */
export const ease: Rule = {
  code: 'hard-to-read',
  english: true,
  blocks: false,
  finds: ({ prose }, { profile, house }) => {
    const score = readingEase(prose)
    const wanted = briefOf(profile, house).reading
    return when(score !== null && score < wanted - SLACK, () => ({
      severity: 'note',
      message: `Hard to read for its reader (reading ease ${Math.round(score ?? 0)}, about ${Math.round(wanted)} is usual). Shorter sentences help.`,
    }))
  },
}
