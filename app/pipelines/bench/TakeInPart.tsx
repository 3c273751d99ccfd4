import { Box } from '@chakra-ui/react'
import type { Pipeline, Recipe, Source } from '../../../core/model'
import { nowIso, type PipelineChange } from '../../data'
import { Bound, Choice, toggled } from '../rules/fields'
import { Sieve } from '../Sieve'
import type { Trial } from '../useSieveTrial'
import { Check, named, Part, Sentence, Several } from './parts'

/** What a pipeline takes in: sources, backlog, sieve, and how much at once. */
export function TakeInPart({
  pipeline,
  sources,
  trial,
  onSave,
}: {
  pipeline: Pipeline
  sources: readonly Source[]
  trial: Trial | null
  onSave: (change: PipelineChange, label: string) => void
}) {
  const { takeIn } = pipeline
  const save = (change: Partial<Recipe['takeIn']>, label: string): void => onSave({ takeIn: change }, label)
  const groups = [...new Set(sources.flatMap((s) => s.group ?? []))]
  const all = takeIn.since < '1971'
  const atMost = (n: number | null): number | null => (n === null || n < 1 ? null : Math.round(n))
  const chosen = [
    ...sources.filter((s) => takeIn.sources.includes(s.id)).map((s) => s.title),
    ...takeIn.groups.map((g) => `the group ${g}`),
  ]
  return (
    <Part title="Take in">
      <Sentence>
        Pieces from
        <Several label="Sources" words={named(chosen, 'no source yet')}>
          {sources.map((s) => (
            <Check
              key={s.id}
              checked={takeIn.sources.includes(s.id)}
              onChange={() => save({ sources: toggled(takeIn.sources, s.id) }, 'Change a pipeline’s sources')}
            >
              {s.title}
            </Check>
          ))}
          {groups.map((g) => (
            <Check
              key={g}
              checked={takeIn.groups.includes(g)}
              onChange={() => save({ groups: toggled(takeIn.groups, g) }, 'Change a pipeline’s sources')}
            >
              everything in the group {g}
            </Check>
          ))}
          {sources.length === 0 && <Box color="soft">No source yet; add one under Intake.</Box>}
        </Several>
      </Sentence>
      <Sentence>
        At most
        <Bound
          label="Pieces a run at most"
          value={takeIn.aRun}
          onChange={(n) => save({ aRun: atMost(n) }, 'Change how much a pipeline takes in')}
        />
        a run and
        <Bound
          label="Pieces a week at most"
          value={takeIn.aWeek}
          onChange={(n) => save({ aWeek: atMost(n) }, 'Change how much a pipeline takes in')}
        />
        a week, the oldest first.
      </Sentence>
      <Sentence>
        What was there before:
        <Choice
          label="What was there before"
          value={all ? 'all' : 'new'}
          options={[
            ['new', 'nothing, only new pieces'],
            ['all', 'everything that waits, oldest first'],
          ]}
          onChange={(v) =>
            save(
              { since: v === 'all' ? '1970-01-01T00:00:00.000Z' : nowIso() },
              'Change a pipeline’s backlog',
            )
          }
        />
      </Sentence>
      {all && takeIn.aRun === null && takeIn.aWeek === null && (
        <Box fontSize="13px" color="amberText">
          A long backlog fills the schedule with old pieces. Take in one a run, or a few a week.
        </Box>
      )}
      <Sentence>
        When a piece changes at its source, what is still to come of it
        <Choice
          label="When a piece changes"
          value={takeIn.changed ? 'anew' : 'waits'}
          options={[
            ['waits', 'stays until I decide'],
            ['anew', 'is made anew'],
          ]}
          onChange={(v) => save({ changed: v === 'anew' }, 'Change what becomes of changed pieces')}
        />
      </Sentence>
      <Sieve pipeline={pipeline} trial={trial} onSave={(sieve, label) => save({ sieve }, label)} />
    </Part>
  )
}
