import { Chips } from '../../ui'
import {
  FIELDS_SEARCHED,
  COUNTED,
  PIECE_KINDS,
  SPANS,
  type FieldSearched,
  type Counted,
  type SieveRule,
  type Source,
  type Span,
  type WordList,
} from '../../../core/model'
import { languageName, spanInWords } from '../../../core/sieve'
import { Bound, Choice, Day, Toggle, toggled, Typed } from './fields'
import { WordLists } from './WordLists'

/** One rule as a sentence whose changeable words are fields. */
export function RuleSentence({
  rule,
  lists,
  sources,
  brand,
  onChange,
}: {
  rule: SieveRule
  lists: readonly WordList[]
  sources: readonly Source[]
  brand: string
  onChange: (rule: SieveRule) => void
}) {
  switch (rule.kind) {
    case 'words':
      return (
        <>
          <Choice
            label="How many of the words"
            value={rule.need}
            options={[
              ['any', 'any of'],
              ['all', 'all of'],
              ['none', 'none of'],
            ]}
            onChange={(need) => onChange({ ...rule, need: need as typeof rule.need })}
          />
          <Chips
            label="Words, phrases, or beginnings such as varnish*"
            values={rule.words}
            onChange={(words) => onChange({ ...rule, words })}
          />
          <WordLists rule={rule} lists={lists} brand={brand} onChange={onChange} />
          stands in
          <Choice
            label="Where the words are looked for"
            value={rule.where}
            options={FIELDS_SEARCHED.map((f) => [f, f])}
            onChange={(where) => onChange({ ...rule, where: where as FieldSearched })}
          />
        </>
      )
    case 'tags':
      return (
        <>
          it
          <Choice
            label="Take or leave the tags"
            value={String(rule.take)}
            options={[
              ['true', 'has one of the tags'],
              ['false', 'has none of the tags'],
            ]}
            onChange={(take) => onChange({ ...rule, take: take === 'true' })}
          />
          <Chips label="Tags" values={rule.tags} onChange={(tags) => onChange({ ...rule, tags })} />
        </>
      )
    case 'kind':
      return (
        <>
          it is one of
          {PIECE_KINDS.map((k) => (
            <Toggle
              key={k}
              on={rule.kinds.includes(k)}
              onClick={() => onChange({ ...rule, kinds: toggled(rule.kinds, k) })}
            >
              {k}s
            </Toggle>
          ))}
        </>
      )
    case 'source':
      return (
        <>
          it
          <Choice
            label="Take or leave the sources"
            value={String(rule.take)}
            options={[
              ['true', 'comes from'],
              ['false', 'does not come from'],
            ]}
            onChange={(take) => onChange({ ...rule, take: take === 'true' })}
          />
          {sources.map((s) => (
            <Toggle
              key={s.id}
              on={rule.sources.includes(s.id)}
              onClick={() => onChange({ ...rule, sources: toggled(rule.sources, s.id) })}
            >
              {s.title}
            </Toggle>
          ))}
        </>
      )
    case 'domain':
      return (
        <>
          its address
          <Choice
            label="Take or leave the sites"
            value={String(rule.take)}
            options={[
              ['true', 'lies at'],
              ['false', 'does not lie at'],
            ]}
            onChange={(take) => onChange({ ...rule, take: take === 'true' })}
          />
          <Chips
            label="Sites, such as example.org"
            values={rule.domains}
            onChange={(domains) => onChange({ ...rule, domains })}
          />
        </>
      )
    case 'length':
      return (
        <>
          it has
          <Bound
            label="At least so many words"
            value={rule.least}
            onChange={(least) => onChange({ ...rule, least: whole(least) })}
          />
          to
          <Bound
            label="At most so many words"
            value={rule.most}
            onChange={(most) => onChange({ ...rule, most: whole(most) })}
          />
          words
        </>
      )
    case 'age':
      return (
        <>
          it is at most
          <Bound
            label="Days"
            value={rule.mostDays}
            onChange={(n) => onChange({ ...rule, mostDays: whole(n) ?? 0 })}
          />
          days old
        </>
      )
    case 'date':
      return (
        <>
          it came out from
          <Day label="From which day on" value={rule.from} onChange={(from) => onChange({ ...rule, from })} />
          until
          <Day
            label="Until which day"
            value={rule.until}
            onChange={(until) => onChange({ ...rule, until })}
          />
        </>
      )
    case 'keeps':
      return (
        <>
          it keeps at least
          <Choice
            label="How long it keeps"
            value={rule.atLeast}
            options={SPANS.slice(0, 4).map((s) => [s, spanInWords(s)])}
            onChange={(atLeast) => onChange({ ...rule, atLeast: atLeast as Span })}
          />
        </>
      )
    case 'language':
      return (
        <>
          it is written in
          {[...new Set(['en', 'de', 'fr', 'es', 'pt', 'it', 'nl', ...rule.languages])].map((l) => (
            <Toggle
              key={l}
              on={rule.languages.includes(l)}
              onClick={() => onChange({ ...rule, languages: toggled(rule.languages, l) })}
            >
              {languageName(l)}
            </Toggle>
          ))}
        </>
      )
    case 'picture':
      return <>it has a picture</>
    case 'popularity':
      return (
        <>
          its
          <Choice
            label="Which count"
            value={rule.measure}
            options={COUNTED.map((m) => [m, m])}
            onChange={(measure) => onChange({ ...rule, measure: measure as Counted })}
          />
          <Choice
            label="How popularity is meant"
            value={rule.top !== null ? 'top' : 'least'}
            options={[
              ['top', 'are in the top'],
              ['least', 'are at least'],
            ]}
            onChange={(how) =>
              onChange({ ...rule, ...(how === 'top' ? { top: 0.1, least: null } : { top: null, least: 10 }) })
            }
          />
          {rule.top !== null ? (
            <>
              <Bound
                label="Per cent of its source"
                value={Math.round(rule.top * 100)}
                onChange={(n) => onChange({ ...rule, top: Math.min(1, Math.max(0.01, (n ?? 10) / 100)) })}
              />
              per cent of its source
            </>
          ) : (
            <Bound
              label="At least"
              value={rule.least}
              onChange={(n) => onChange({ ...rule, least: Math.max(0, n ?? 0) })}
            />
          )}
        </>
      )
    case 'field':
      return (
        <>
          the number in its field
          <Typed
            label="Name of the field"
            value={rule.name}
            onChange={(name) => onChange({ ...rule, name })}
          />
          lies between
          <Bound label="At least" value={rule.least} onChange={(least) => onChange({ ...rule, least })} />
          and
          <Bound label="At most" value={rule.most} onChange={(most) => onChange({ ...rule, most })} />
        </>
      )
  }
}

const whole = (n: number | null): number | null => (n === null ? null : Math.max(0, Math.round(n)))
