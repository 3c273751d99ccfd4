import { Box } from '@chakra-ui/react'
import type { Timing } from '../../../core/model'
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
      </Sentence>
      {by.kind === 'rhythm' && (
        <Box maxW="400px" py="1">
          <RhythmPicker value={by.rhythm} onChange={(rhythm) => onChange({ kind: 'rhythm', rhythm })} />
        </Box>
      )}
    </>
  )
}
