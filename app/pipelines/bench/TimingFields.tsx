import { Box } from '@chakra-ui/react'
import { SHELF_ORDERS, type FromShelf, type ShelfOrder, type Timing } from '../../../core/model'
import { readDayRule, ruleWords, TRICKLE } from '../../../core/planning'
import { RhythmPicker, say } from '../../ui'
import { Bound, Choice, Typed } from '../rules/fields'
import { Sentence } from './parts'

const FRESH: Record<Timing['kind'], { words: string; by: Timing }> = {
  rhythm: { words: 'by a rhythm', by: { kind: 'rhythm', rhythm: TRICKLE } },
  'next openings': { words: 'at the next openings', by: { kind: 'next openings', posts: 1 } },
  soon: { words: 'as soon as possible', by: { kind: 'soon', hours: 4 } },
  field: { words: 'about a day that its field names', by: { kind: 'field', name: 'date', before: [7, 1] } },
  rule: {
    words: 'on the days of a rule',
    by: { kind: 'rule', rule: 'FREQ=WEEKLY;BYDAY=TU', posts: 4 },
  },
  shelf: {
    words: 'from the shelf',
    by: {
      kind: 'shelf',
      posts: 1,
      per: 'week',
      order: 'the longest unseen first',
      restDays: 120,
      earned: null,
    },
  },
}

const within = (n: number | null, most: number): number => Math.min(most, Math.max(1, Math.round(n ?? 1)))

/** When the posts of a row go out. */
export function TimingFields({ by, onChange }: { by: Timing; onChange: (by: Timing) => void }) {
  return (
    <>
      <Sentence>
        <Choice
          label="When"
          value={by.kind}
          options={Object.entries(FRESH).map(([kind, { words }]) => [kind, words])}
          onChange={(kind) => onChange(FRESH[kind as Timing['kind']].by)}
        />
        {by.kind === 'next openings' && (
          <>
            :
            <Bound
              label="How many openings"
              value={by.posts}
              onChange={(n) => onChange({ ...by, posts: within(n, 60) })}
            />
            {by.posts === 1 ? 'post' : 'posts'} on each account, a day each
          </>
        )}
        {by.kind === 'soon' && (
          <>
            within
            <Bound
              label="Within so many hours"
              value={by.hours}
              onChange={(n) => onChange({ ...by, hours: within(n, 168) })}
            />
            {by.hours === 1 ? 'hour' : 'hours'}, in a slot where one opens
          </>
        )}
        {by.kind === 'field' && (
          <>
            called
            <Typed
              label="Name of the field with the day"
              value={by.name}
              onChange={(name) => name && onChange({ ...by, name })}
            />
            ,
            <Typed
              label="Days before it, 0 for the day itself"
              value={by.before.join(', ')}
              onChange={(text) => {
                const before = [...new Set((text.match(/\d+/g) ?? []).map(Number))].filter((n) => n <= 365)
                if (before.length) onChange({ ...by, before: before.slice(0, 12) })
                else say('Not kept: write days such as 14, 3, 0.')
              }}
            />
            days before it
          </>
        )}
        {by.kind === 'rule' && (
          <>
            <Typed
              label="Rule, such as FREQ=WEEKLY;BYDAY=TU"
              wide
              value={by.rule}
              onChange={(rule) => {
                try {
                  readDayRule(rule)
                  onChange({ ...by, rule })
                } catch (error) {
                  say(error instanceof Error ? error.message : 'This rule cannot be followed.')
                }
              }}
            />
            <Bound
              label="How many days"
              value={by.posts}
              onChange={(n) => onChange({ ...by, posts: within(n, 60) })}
            />
            {by.posts === 1 ? 'time' : 'times'}
            <Box w="full" fontSize="13px" color="soft">
              {ruleWords(by.rule)}
            </Box>
          </>
        )}
        {by.kind === 'shelf' && <ShelfFields by={by} onChange={onChange} />}
      </Sentence>
      {by.kind === 'rhythm' && (
        <Box maxW="400px" py="1">
          <RhythmPicker value={by.rhythm} onChange={(rhythm) => onChange({ kind: 'rhythm', rhythm })} />
        </Box>
      )}
    </>
  )
}

/** How often the shelf gives something to each account, and what comes first. */
function ShelfFields({ by, onChange }: { by: FromShelf; onChange: (by: FromShelf) => void }) {
  return (
    <>
      :
      <Bound
        label="How many posts from the shelf"
        value={by.posts}
        onChange={(n) => onChange({ ...by, posts: within(n, 20) })}
      />
      {by.posts === 1 ? 'post' : 'posts'} a
      <Choice
        label="A day or a week"
        value={by.per}
        options={[
          ['day', 'day'],
          ['week', 'week'],
        ]}
        onChange={(per) => onChange({ ...by, per: per as FromShelf['per'] })}
      />
      on each account:
      <Choice
        label="What comes first"
        value={by.order}
        options={SHELF_ORDERS.map((o) => [o, o])}
        onChange={(order) => onChange({ ...by, order: order as ShelfOrder })}
      />
      and nothing that was seen there within
      <Bound
        label="Days of rest"
        value={by.restDays}
        onChange={(n) => onChange({ ...by, restDays: Math.max(7, within(n, 1500)) })}
      />
      days;
      <Choice
        label="What it must have earned"
        value={by.earned === null ? '' : String(by.earned)}
        options={EARNED}
        onChange={(earned) => onChange({ ...by, earned: earned === '' ? null : Number(earned) })}
      />
    </>
  )
}

const EARNED = [
  ['', 'whatever it earned'],
  ['1', 'only what earned its account’s usual or more'],
  ['1.2', 'only what earned a fifth more than usual'],
] as const
