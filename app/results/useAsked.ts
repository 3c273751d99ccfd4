import { useSearchParams } from 'react-router'
import { AGES, type Age } from '../../core/model'
import { COUNTED, GROUPINGS, type Asked, type Counted, type Grouping } from '../../core/results'
import { clockNow } from '../data'

const HOUR = 3_600_000
/** Spans to look at, in days. */
export const SPANS = { '28': '28 days', '91': 'three months', '182': 'half a year', '365': 'a year' }
export type Span = keyof typeof SPANS

/** How long the span is that was asked for. */
export function spanWords({ from, to }: Pick<Asked, 'from' | 'to'>): string {
  const days = Math.round((to - from) / (24 * HOUR))
  return SPANS[String(days) as Span] ?? `${days} days`
}

/** Of what posts may be looked at, one at a time. */
const WHOSE = ['network', 'account', 'pipeline'] as const

/** What is asked, as the address says, and how that is changed. */
export interface Question {
  asked: Asked
  span: Span
  set: (name: 'span' | 'by' | 'counted' | 'age', value: string) => void
  /** Looks at the posts of one thing only, as "account" and its id, or of all. */
  only: (what: (typeof WHOSE)[number] | null, id: string) => void
}

export function useAsked(): Question {
  const [query, setQuery] = useSearchParams()
  const one = <T extends string>(name: string, of: readonly T[], usual: T): T =>
    of.find((o) => o === query.get(name)) ?? usual
  const span = one<Span>('span', Object.keys(SPANS) as Span[], '91')
  // A span ends with the hour, so that the same question is asked again.
  const to = Math.ceil(clockNow() / HOUR) * HOUR
  const asked: Asked = {
    from: to - Number(span) * 24 * HOUR,
    to,
    by: one<Grouping>('by', GROUPINGS, 'opening'),
    counted: one<Counted>('counted', COUNTED, 'impressions'),
    age: one<Age>('age', Object.keys(AGES) as Age[], '7 d'),
    network: query.get('network'),
    account: query.get('account'),
    pipeline: query.get('pipeline'),
  }
  const change = (by: (query: URLSearchParams) => void): void => {
    const changed = new URLSearchParams(query)
    by(changed)
    setQuery(changed, { replace: true })
  }
  return {
    asked,
    span,
    set: (name, value) => change((q) => q.set(name, value)),
    only: (what, id) =>
      change((q) => {
        for (const each of WHOSE) q.delete(each)
        if (what) q.set(what, id)
      }),
  }
}

/** The one after a choice, and after the last the first. */
export const next = <T extends string>(of: readonly T[], now: T): T =>
  of[(of.indexOf(now) + 1) % of.length] ?? now
