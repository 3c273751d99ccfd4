import type { Account, PassageKind, Piece, Pipeline } from '../model'
import { network } from '../networks'
import { WEEKDAYS, wholeDate } from '../planning'
import type { Counted, Grouping } from './answer'
import { HOURS_TOGETHER, type Effect } from './effects'
import type { Estimate } from './estimate'
import type { Followed, Growth } from './followers'

/** What is counted, in words: as a name, and with a number before it. */
export const COUNTED_WORDS: Readonly<Record<Counted, string>> = {
  impressions: 'Seen',
  reactions: 'Reactions',
  comments: 'Comments',
  shares: 'Shares',
  saves: 'Saves',
  clicks: 'Clicks',
  'link clicks': 'Link clicks',
  response: 'Response',
}

/** The names by which groups are called. */
export interface Names {
  accounts: readonly Account[]
  pieces: readonly Pick<Piece, 'id' | 'title'>[]
  pipelines: readonly Pick<Pipeline, 'id' | 'name'>[]
}

/** What a passage is made of, as a group of posts is called by it. */
const PASSAGES: Readonly<Record<PassageKind, string>> = {
  statement: 'from a statement',
  number: 'from a number',
  contrast: 'from a contrast',
  instruction: 'from an instruction',
  steps: 'from steps',
  story: 'from a story',
  definition: 'from a definition',
  question: 'from a question',
}

/** What a group of posts is called. */
export function groupName(by: Grouping, key: string, names: Names): string {
  switch (by) {
    case 'network':
      return network(key).name
    case 'account': {
      const account = names.accounts.find((a) => a.id === key)
      return account ? `@${account.handle}, ${network(account.network).name}` : 'an account that is gone'
    }
    case 'hour':
      return `${key.padStart(2, '0')}:00 to ${String((Number(key) + 1) % 24).padStart(2, '0')}:00`
    case 'weekday':
      return WEEKDAYS[Number(key) - 1] ?? key
    case 'piece':
      return names.pieces.find((p) => p.id === key)?.title ?? 'a piece that is gone'
    case 'pipeline':
      return names.pipelines.find((p) => p.id === key)?.name ?? 'a pipeline that is gone'
    case 'tag':
      return `#${key}`
    case 'passage':
      return PASSAGES[key as PassageKind]
    case 'opening':
      return `opens with ${key}`
    case 'length':
      return key === 'usual' ? 'about as long as usual' : key
    default:
      return key
  }
}

/** What is counted of a post: a whole number from ten on, a share in per cent. */
export function figure(value: number, counted: Counted): string {
  if (counted === 'response') return `${(value * 100).toFixed(1)} %`
  return value.toLocaleString('en-GB', { maximumFractionDigits: value < 10 ? 1 : 0 })
}

/** A ratio as people say it: "12 % more", "as much", "8 % fewer". */
export function more(times: number): string {
  const part = Math.round((times - 1) * 100)
  return part === 0 ? 'as much' : part > 0 ? `${part} % more` : `${-part} % less`
}

/** The bounds of a ratio, as "5 to 19 % more" or "9 % less to 4 % more". */
export function bounds({ low, high }: Estimate): string {
  const [from, to] = [low, high].map((v) => Math.round((v - 1) * 100)) as [number, number]
  if (from >= 0) return `${from} to ${to} % more`
  if (to <= 0) return `${-to} to ${-from} % less`
  return `${-from} % less to ${to} % more`
}

/** How followers grew, as "+23 (+19.5 %)"; the share is left out where it began with nobody. */
export function growthWords({ by, from }: Growth): string {
  const signed = (n: number, digits: number): string =>
    `${n > 0 ? '+' : n < 0 ? '−' : '±'}${Math.abs(n).toLocaleString('en-GB', { maximumFractionDigits: digits })}`
  return signed(by, 0) + (by !== 0 && from > 0 ? ` (${signed((by / from) * 100, 1)} %)` : '')
}

/** How followers grew over a span that begins at a moment, and since when where they are not known from there on. */
export function grownWords({ growth, day }: Pick<Followed, 'growth' | 'day'>, from: number): string {
  if (!growth) return `counted on ${wholeDate(day)} only`
  // A figure of the day before or after the span begins is as good as one of its first day.
  const late = Date.parse(growth.since) - from > 2 * DAY
  return growthWords(growth) + (late ? ` since ${wholeDate(growth.since)}` : '')
}
const DAY = 86_400_000

/** Whether a ratio can be told from 1. */
export function isCertain({ low, high }: Estimate): boolean {
  return low > 1 || high < 1
}

/** What an effect is of, as the subject of a sentence: "Opening with a question". */
export function effectName({ factor, level }: Pick<Effect, 'factor' | 'level'>): string {
  switch (factor) {
    case 'hour':
      return `Going out from ${level.padStart(2, '0')}:00 to ${String((Number(level) + HOURS_TOGETHER) % 24).padStart(2, '0')}:00`
    case 'weekday':
      return `Going out on a ${WEEKDAYS[Number(level) - 1] ?? level}`
    case 'angle':
      return level === 'by hand' ? 'Being written by hand' : `The angle “${level}”`
    case 'format':
      return `The format “${level}”`
    case 'length':
      return level === 'usual' ? 'The usual length' : `Being ${level}`
    case 'shows':
      return `Showing ${level}`
    case 'trait':
      return level.startsWith('opens') ? `Opening${level.slice('opens'.length)}` : 'Being a list'
    case 'crowd':
      return 'Each further post within a day'
    case 'rest':
      return 'The same passage again soon'
    case 'age':
      return 'Each further half year of the account'
  }
}

/** How often posts to come will be seen, as "about 3,400 times (2,600 to 4,400)": to two digits that count. */
export function expectedWords({ at, low, high }: Estimate): string {
  const [about, from, to] = [at, low, high].map((v) =>
    Number(v.toPrecision(2)).toLocaleString('en-GB', { maximumFractionDigits: 0 }),
  ) as [string, string, string]
  return `about ${about} times (${from} to ${to})`
}
