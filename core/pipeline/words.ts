import type { ReleaseRow, SieveRule, Source, Timing } from '../model'
import { ruleWords, wholeDate } from '../planning'
import { spanInWords } from '../sieve'
import { inWords } from '../text'

/**
 * A row's timing as it stands after "by": a rhythm's name, or what is asked of the openings.
 *
 * @example timingWords({ kind: 'soon', hours: 3 }) // "as soon as possible, within 3 hours"
 */
export function timingWords(by: Timing): string {
  switch (by.kind) {
    case 'rhythm':
      return by.rhythm.name
    case 'next openings':
      return by.posts === 1 ? 'the next opening' : `the next ${by.posts} openings`
    case 'soon':
      return `as soon as possible, within ${by.hours} ${by.hours === 1 ? 'hour' : 'hours'}`
    case 'field':
      return `its field “${by.name}”: ${[...by.before]
        .sort((a, b) => b - a)
        .map((n) => (n === 0 ? 'the day itself' : `${n} ${n === 1 ? 'day' : 'days'} before`))
        .join(', ')}`
    case 'rule':
      return `${ruleWords(by.rule)}, ${by.posts} ${by.posts === 1 ? 'time' : 'times'}`
    case 'shelf':
      return `the shelf, ${by.posts} a ${by.per}, ${by.order}`
  }
}

/** For which pieces a row is, as it stands after "for pieces that". */
export function piecesWords(
  { pieces }: Pick<ReleaseRow, 'pieces'>,
  sources: readonly Pick<Source, 'id' | 'title'>[],
): string {
  if (pieces.kind === 'all') return 'are of any kind'
  if (pieces.kind === 'rest') return 'no row above takes'
  return pieces.rules.map((rule) => conditionWords(rule, sources)).join(' and ')
}

const oneOf = (names: readonly string[], none = '…'): string => inWords(names, 'or', 4) || none

function conditionWords(rule: SieveRule, sources: readonly Pick<Source, 'id' | 'title'>[]): string {
  switch (rule.kind) {
    case 'kind':
      return `are ${oneOf(
        rule.kinds.map((k) => `${k}s`),
        'of any kind',
      )}`
    case 'tags':
      return `${rule.take ? 'are' : 'are not'} tagged ${oneOf(rule.tags)}`
    case 'words':
      return `have ${rule.need} of ${inWords(rule.words, 'and', 4) || (rule.lists.length ? 'a list' : '…')} in ${rule.where}`
    case 'source':
      return `${rule.take ? 'come' : 'do not come'} from ${oneOf(sources.filter((s) => rule.sources.includes(s.id)).map((s) => s.title))}`
    case 'domain':
      return `${rule.take ? 'lie' : 'do not lie'} at ${oneOf(rule.domains)}`
    case 'length':
      return rule.most === null
        ? `have ${rule.least ?? 0} words or more`
        : `have ${rule.least ?? 0} to ${rule.most} words`
    case 'age':
      return `are at most ${rule.mostDays} days old`
    case 'date':
      return rule.until === null
        ? rule.from === null
          ? 'are of any day'
          : `are of ${wholeDate(rule.from)} or later`
        : rule.from === null
          ? `are of ${wholeDate(rule.until)} or earlier`
          : `are of ${wholeDate(rule.from)} to ${wholeDate(rule.until)}`
    case 'keeps':
      return rule.atLeast === 'evergreen' ? 'keep for ever' : `keep ${spanInWords(rule.atLeast)} or longer`
    case 'language':
      return `are written in ${oneOf(rule.languages)}`
    case 'picture':
      return 'have a picture'
    case 'popularity':
      return rule.top !== null
        ? `are in the top ${Math.round(rule.top * 100)} % by ${rule.measure}`
        : `have ${rule.least ?? 0} ${rule.measure} or more`
    case 'field':
      return `have a ${rule.name || '…'} from ${rule.least ?? 'any'} to ${rule.most ?? 'any'}`
  }
}
