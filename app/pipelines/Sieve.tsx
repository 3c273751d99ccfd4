import { Box, chakra, Flex } from '@chakra-ui/react'
import { nanoid } from 'nanoid'
import { useState } from 'react'
import { Link } from 'react-router'
import {
  FIELDS_SEARCHED,
  MEASURES,
  PIECE_KINDS,
  SPANS,
  type FieldSearched,
  type Measure,
  type Pipeline,
  type SieveRule,
  type Source,
  type Span,
  type WordList,
} from '../../core/model'
import { languageName, spanInWords } from '../../core/sieve'
import { letThrough, saveWordList, useRows } from '../data'
import { useWork } from '../shell'
import { attempt, Button, Chips, count, SelectField, TextField } from '../ui'
import { useSieveTrial } from './useSieveTrial'

const FRESH: Record<SieveRule['kind'], { words: string; rule: SieveRule }> = {
  words: {
    words: 'words in it',
    rule: { kind: 'words', need: 'any', words: [], lists: [], where: 'the title and the text' },
  },
  tags: { words: 'its tags', rule: { kind: 'tags', take: true, tags: [] } },
  kind: { words: 'its kind', rule: { kind: 'kind', kinds: ['article'] } },
  source: { words: 'its source', rule: { kind: 'source', take: false, sources: [] } },
  domain: { words: 'its site', rule: { kind: 'domain', take: true, domains: [] } },
  length: { words: 'its length', rule: { kind: 'length', least: 400, most: null } },
  age: { words: 'its age', rule: { kind: 'age', mostDays: 365 } },
  keeps: { words: 'how long it keeps', rule: { kind: 'keeps', atLeast: 'about a year' } },
  language: { words: 'its language', rule: { kind: 'language', languages: ['en'] } },
  picture: { words: 'a picture', rule: { kind: 'picture' } },
  popularity: {
    words: 'its popularity',
    rule: { kind: 'popularity', measure: 'shares', least: null, top: 0.1 },
  },
  field: { words: 'a number in a field', rule: { kind: 'field', name: '', least: null, most: null } },
}

/** The sieve of a pipeline, edited as sentences, and how it treats the last pieces. */
export function Sieve({
  pipeline,
  onSave,
}: {
  pipeline: Pipeline
  onSave: (sieve: SieveRule[], label: string) => void
}) {
  const { brand } = useWork()
  const lists = useRows('wordLists', 'brand', brand.id) ?? []
  const sources = useRows('sources', 'brand', brand.id) ?? []
  const trial = useSieveTrial(pipeline, brand.id)
  const [shown, setShown] = useState<number | 'person' | null>(null)
  const rules = pipeline.sieve
  const change = (index: number, rule: SieveRule): void =>
    onSave(
      rules.map((r, i) => (i === index ? rule : r)),
      'Change a rule of the sieve',
    )
  const caughtBy = (index: number | null) =>
    (trial?.results ?? []).filter((r) => !r.result.passed && r.result.rule === index)
  return (
    <Box mt="3">
      <Box fontWeight="600">The sieve lets a piece through when</Box>
      {rules.length === 0 && <Box color="soft">there is no rule yet: everything passes.</Box>}
      {rules.map((rule, index) => (
        <Box key={`${index} ${rule.kind}`} py="1.5" borderTopWidth="1px" borderColor="hairline">
          <Flex gap="2" align="center" flexWrap="wrap">
            <RuleSentence
              rule={rule}
              lists={lists}
              sources={sources}
              brand={brand.id}
              onChange={(r) => change(index, r)}
            />
            <Button
              size="sm"
              look="quiet"
              aria-label="Take this rule out"
              ml="auto"
              onClick={() =>
                onSave(
                  rules.filter((_, i) => i !== index),
                  'Take a rule out of the sieve',
                )
              }
            >
              Take out
            </Button>
          </Flex>
          {trial && trial.results.length > 0 && (
            <Caught
              words={`catches ${caughtBy(index).length} of the last ${trial.results.length}`}
              caught={caughtBy(index)}
              open={shown === index}
              onOpen={() => setShown(shown === index ? null : index)}
            />
          )}
        </Box>
      ))}
      <Flex gap="2" mt="2" align="center" flexWrap="wrap">
        <SelectField
          aria-label="Add a rule about"
          value=""
          onChange={(e) => {
            const fresh = FRESH[e.target.value as SieveRule['kind']]
            onSave([...rules, fresh.rule], 'Add a rule to the sieve')
          }}
        >
          <option value="">Add a rule about …</option>
          {Object.entries(FRESH).map(([kind, { words }]) => (
            <option key={kind} value={kind}>
              {words}
            </option>
          ))}
        </SelectField>
        {trial && trial.results.length > 0 && (
          <Box data-testid="trial">
            Of the last {count(trial.results.length, 'piece')}, <b>{trial.passed} pass</b>
            {trial.results.length > trial.passed
              ? `, ${count(trial.results.length - trial.passed, 'is', 'are')} caught`
              : ''}
            .
          </Box>
        )}
      </Flex>
      {caughtBy(null).length > 0 && (
        <Caught
          words={`${caughtBy(null).length} of them by a person, or as a double`}
          caught={caughtBy(null)}
          open={shown === 'person'}
          onOpen={() => setShown(shown === 'person' ? null : 'person')}
        />
      )}
    </Box>
  )
}

type Trial = NonNullable<ReturnType<typeof useSieveTrial>>['results']

function Caught({
  words,
  caught,
  open,
  onOpen,
}: {
  words: string
  caught: Trial
  open: boolean
  onOpen: () => void
}) {
  return (
    <Box fontSize="13px">
      {caught.length ? (
        <Button size="sm" look="quiet" ml="-2.5" aria-expanded={open} onClick={onOpen}>
          {words}
        </Button>
      ) : (
        <Box color="soft">{words}</Box>
      )}
      {open &&
        caught.slice(0, 30).map(({ piece, result }) => (
          <Flex key={piece.id} gap="3" py="1" align="baseline">
            <Box flex="1" minW="0">
              <Link to={`/intake/${piece.id}`}>
                <chakra.span fontFamily="reading" _hover={{ textDecoration: 'underline' }}>
                  {piece.title}
                </chakra.span>
              </Link>
              <Box color="soft">{result.reason}</Box>
            </Box>
            {result.rule !== null && (
              <Button size="sm" onClick={() => void attempt(() => letThrough([piece.id], true))}>
                Let through
              </Button>
            )}
          </Flex>
        ))}
    </Box>
  )
}

/** One rule as a sentence whose changeable words are fields. */
function RuleSentence({
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
            options={MEASURES.map((m) => [m, m])}
            onChange={(measure) => onChange({ ...rule, measure: measure as Measure })}
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

const toggled = <T,>(list: readonly T[], value: T): T[] =>
  list.includes(value) ? list.filter((x) => x !== value) : [...list, value]
const whole = (n: number | null): number | null => (n === null ? null : Math.max(0, Math.round(n)))

/** The saved word lists of a rule, and keeping its own words as one. */
function WordLists({
  rule,
  lists,
  brand,
  onChange,
}: {
  rule: Extract<SieveRule, { kind: 'words' }>
  lists: readonly WordList[]
  brand: string
  onChange: (rule: SieveRule) => void
}) {
  const [naming, setNaming] = useState<string | null>(null)
  return (
    <>
      {lists.map((l) => (
        <Toggle
          key={l.id}
          on={rule.lists.includes(l.id)}
          title={l.words.join(', ')}
          onClick={() => onChange({ ...rule, lists: toggled(rule.lists, l.id) })}
        >
          list: {l.name}
        </Toggle>
      ))}
      {naming === null ? (
        rule.words.length > 1 && (
          <Button size="sm" look="quiet" onClick={() => setNaming('')}>
            Save as a list
          </Button>
        )
      ) : (
        <chakra.form
          display="inline-flex"
          gap="1"
          onSubmit={(e: React.FormEvent) => {
            e.preventDefault()
            const name = naming.trim()
            if (!name) return
            const id = nanoid()
            void attempt(async () => {
              await saveWordList({ id, brand, name, words: rule.words })
              onChange({ ...rule, words: [], lists: [...rule.lists, id] })
              setNaming(null)
            })
          }}
        >
          <TextField
            aria-label="Name of the list"
            placeholder="Name of the list"
            h="7"
            w="140px"
            value={naming}
            autoFocus
            onChange={(e) => setNaming(e.target.value)}
          />
          <Button size="sm" type="submit">
            Save
          </Button>
        </chakra.form>
      )}
    </>
  )
}

function Choice({
  label,
  value,
  options,
  onChange,
}: {
  label: string
  value: string
  options: readonly (readonly [string, string])[]
  onChange: (value: string) => void
}) {
  return (
    <SelectField aria-label={label} h="7" value={value} onChange={(e) => onChange(e.target.value)}>
      {options.map(([v, words]) => (
        <option key={v} value={v}>
          {words}
        </option>
      ))}
    </SelectField>
  )
}

function Toggle({
  on,
  onClick,
  title,
  children,
}: {
  on: boolean
  onClick: () => void
  title?: string
  children: React.ReactNode
}) {
  return (
    <Button
      size="sm"
      look={on ? 'water' : 'plain'}
      aria-pressed={on}
      onClick={onClick}
      {...(title ? { title } : {})}
    >
      {children}
    </Button>
  )
}

/** A number that may be left open; kept when the field is left. */
function Bound({
  label,
  value,
  onChange,
}: {
  label: string
  value: number | null
  onChange: (value: number | null) => void
}) {
  return (
    <Typed
      label={label}
      type="number"
      value={value === null ? '' : String(value)}
      onChange={(text) => onChange(text === '' ? null : Number(text))}
    />
  )
}

/** A short field whose words are kept when it is left, or on Enter. */
function Typed({
  label,
  value,
  type = 'text',
  onChange,
}: {
  label: string
  value: string
  type?: 'text' | 'number'
  onChange: (value: string) => void
}) {
  const [text, setText] = useState(value)
  const [from, setFrom] = useState(value)
  if (from !== value) {
    setFrom(value)
    setText(value)
  }
  return (
    <TextField
      aria-label={label}
      title={label}
      type={type}
      h="7"
      w={type === 'number' ? '76px' : '120px'}
      placeholder={type === 'number' ? 'open' : 'name'}
      value={text}
      onChange={(e) => setText(e.target.value)}
      onBlur={() => text !== value && onChange(text.trim())}
      onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
    />
  )
}
