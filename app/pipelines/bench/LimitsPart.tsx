import { Box } from '@chakra-ui/react'
import type { Gate, Pipeline, Recipe } from '../../../core/model'
import type { PipelineChange } from '../../data'
import { DateField } from '../../ui'
import { Bound, Choice } from '../rules/fields'
import { Part, Sentence } from './parts'

const GATES: readonly [Gate, string][] = [
  ['everything', 'hold everything for me'],
  ['what is flagged', 'hold what is flagged'],
  ['nothing', 'hold nothing, even what is flagged'],
]

/** How much is held for a person, and what bounds a pipeline. */
export function LimitsPart({
  pipeline,
  onSave,
}: {
  pipeline: Pipeline
  onSave: (change: PipelineChange, label: string) => void
}) {
  const { limits } = pipeline
  const save = (change: Partial<Recipe['limits']>): void =>
    onSave({ limits: change }, 'Change a pipeline’s limits')
  const atMost = (n: number | null, most: number, least = 1): number | null =>
    n === null || n <= 0 ? null : Math.min(most, Math.max(least, Math.round(n)))
  return (
    <Part title="Gate and limits">
      <Sentence>
        Gate:
        <Choice
          label="Gate"
          value={pipeline.gate}
          options={GATES}
          onChange={(gate) => onSave({ gate: gate as Gate }, 'Change a pipeline’s gate')}
        />
      </Sentence>
      {pipeline.gate === 'nothing' && (
        <Box fontSize="13px" color="amberText">
          Captions go out unread, also those with a doubtful number or name. Only what breaks a rule is still
          held.
        </Box>
      )}
      <Sentence>
        At most
        <Bound
          label="Posts a day at most"
          value={limits.aDay}
          onChange={(n) => save({ aDay: atMost(n, 500) })}
        />
        posts a day and
        <Bound
          label="Posts a week at most"
          value={limits.aWeek}
          onChange={(n) => save({ aWeek: atMost(n, 2000) })}
        />
        a week, over all of its accounts
      </Sentence>
      <Sentence>
        Written
        <Bound
          label="Days ahead"
          open="all"
          value={limits.ahead}
          onChange={(n) => save({ ahead: atMost(n, 400, 7) })}
        />
        days ahead;{' '}
        {limits.ahead === null ? 'a whole drip is written at once' : 'later posts when their day comes near'}
      </Sentence>
      <Sentence>
        Only from
        <DateField
          aria-label="First day of the run window"
          h="7"
          mayBeEmpty
          value={limits.from ?? ''}
          onDate={(day) => save({ from: day || null })}
        />
        to
        <DateField
          aria-label="Last day of the run window"
          h="7"
          mayBeEmpty
          value={limits.to ?? ''}
          onDate={(day) => save({ to: day || null })}
        />
      </Sentence>
      <Sentence>
        Where places are few, its posts come
        <Choice
          label="Priority"
          value={String(Math.sign(pipeline.priority))}
          options={[
            ['1', 'before others'],
            ['0', 'like all others'],
            ['-1', 'after others'],
          ]}
          onChange={(v) => onSave({ priority: Number(v) }, 'Change a pipeline’s priority')}
        />
      </Sentence>
      <Sentence>
        While an account is down it
        <Choice
          label="While an account is down"
          value={limits.pauseWhenDown ? 'waits' : 'goes on'}
          options={[
            ['goes on', 'goes on taking in'],
            ['waits', 'takes nothing in'],
          ]}
          onChange={(v) => save({ pauseWhenDown: v === 'waits' })}
        />
      </Sentence>
    </Part>
  )
}
