import { isBalanced } from '../../language'
import { briefOf } from '../../house'
import { when, type Rule } from '../rule'

const LEFTOVER =
  /\{\{?\w*\}?\}|\[\w+\](?!\()|<\/?[a-z][^>]*>|&[a-z]+;|\bundefined\b|\bNaN\b|\*\*|```|^\s*#{1,6} |\bLorem ipsum\b|\bAs an AI\b|[¶§†‡]|\p{L}[⁰¹²³⁴-⁹]|\[\d{1,2}:\d\d(?::\d\d)?\]|\((?:laughs?|laughter|pause|applause|music)\)/imu
/** Markup that a letter is written in. */
const MARKDOWN = /\*\*|^\s*#{1,6} /gm
const DOUBLED = /[,;:][.,;:]|(?<!\.)\.\.(?!\.)|[?!.]{2,}(?<!\.\.\.)(?<!\?!)|\s[,.;:!?](?=\s|$)/u
const SHOUT = /\b\p{Lu}{5,}(?: \p{Lu}{3,})+\b|!{2,}/u

/** Whether what opens also closes. */
export const balanced: Rule = {
  code: 'unbalanced',
  english: true,
  blocks: false,
  finds: ({ prose }) =>
    when(!isBalanced(prose), () => ({
      severity: 'flag',
      message: 'A quotation mark or bracket opens and does not close, or the other way round.',
    })),
}

/** Whether something of a template, of markup or of another medium is left in it. */
export const leftover: Rule = {
  code: 'leftover',
  english: true,
  blocks: false,
  finds: ({ prose }, { profile, house }) => {
    const markdown = briefOf(profile, house).shape === 'letter'
    const words = LEFTOVER.exec(markdown ? prose.replace(MARKDOWN, '') : prose)?.[0].trim()
    return when(words !== undefined, () => ({
      severity: 'flag',
      message: `“${words}” looks like a leftover of a template or of markup.`,
      words: words ?? '',
      remedy: 'Take it out',
    }))
  },
  mends: (text, { words }) =>
    text
      .replace(words ?? '', '')
      .replace(/ {2,}/g, ' ')
      .trim(),
}

/** Whether two marks meet. */
export const doubled: Rule = {
  code: 'doubled-marks',
  english: true,
  blocks: false,
  finds: ({ prose }) => {
    const words = DOUBLED.exec(prose.replace(/\n+/g, '\n').trim())?.[0]
    return when(words !== undefined && !SHOUT.test(words), () => ({
      severity: 'flag',
      message: `“${words?.trim()}”: two marks meet, or one stands alone.`,
      words: words?.trim() ?? '',
      remedy: 'Keep one mark',
    }))
  },
  mends: (text) =>
    text
      .replace(/([,;:])[.,;:]+/g, '$1')
      .replace(/(?<!\.)\.\.(?!\.)/g, '.')
      .replace(/\s+([,.;:!?])(?=\s|$)/g, '$1')
      .replace(/([?!.])\1+(?!\.)/g, '$1'),
}

/** Whether it shouts. */
export const shouting: Rule = {
  code: 'shouting',
  english: true,
  blocks: false,
  finds: ({ prose }) => {
    const words = SHOUT.exec(prose)?.[0]
    return when(words, () => ({
      severity: 'note',
      message: `“${words}” shouts.`,
      words: words ?? '',
      remedy: 'Say it calmly',
    }))
  },
  mends: calm,
}

/** Whether it exclaims more than once. */
export const exclamations: Rule = {
  code: 'exclamations',
  english: true,
  blocks: false,
  finds: ({ prose }) =>
    when(!SHOUT.test(prose) && (prose.match(/!/g)?.length ?? 0) > 1, () => ({
      severity: 'note',
      message: 'More than one exclamation mark. One is plenty.',
      words: '!',
      remedy: 'Say it calmly',
    })),
  mends: calm,
}

function calm(text: string): string {
  let marks = 0
  return text
    .replace(/!+/g, () => (++marks > 1 ? '.' : '!'))
    .replace(/\b\p{Lu}{5,}(?: \p{Lu}{3,})+\b/gu, (shout) => shout.charAt(0) + shout.slice(1).toLowerCase())
}
