import type { Timing } from '../model'
import { ruleWords } from '../planning'

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
  }
}
