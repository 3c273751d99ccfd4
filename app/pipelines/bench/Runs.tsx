import { Box, chakra, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { Link } from 'react-router'
import type { Pipeline, Run, RunStep } from '../../../core/model'
import { repeatable, repeatRun, useRows } from '../../data'
import { useWork } from '../../shell'
import { attempt, Button, count, moment, Mono, say } from '../../ui'
import { Part } from './parts'

/** So many runs are listed. */
const SHOWN = 8

const WHAT: Record<RunStep['what'], string> = {
  sieve: 'sieved',
  write: 'written',
  'make anew': 'made anew',
  'drip again': 'dripped again',
  'write ahead': 'written ahead',
  'from the shelf': 'taken from the shelf',
  follow: 'followed',
}

/** What the last runs of a pipeline did, step by step. */
export function Runs({ pipeline }: { pipeline: Pipeline }) {
  const runs = useRows('runs', 'pipeline', pipeline.id)
  const { brand } = useWork()
  const [open, setOpen] = useState<string | null>(null)
  if (!runs) return null
  const last = [...runs].sort((a, b) => (a.at < b.at ? 1 : -1)).slice(0, SHOWN)
  return (
    <Part title="Runs">
      {last.length === 0 && (
        <Box color="soft">
          {pipeline.on
            ? 'Nothing has come in since it was switched on. Each run in which something happens is written down here.'
            : 'It is off. Once it runs, what each run did is written down here.'}
        </Box>
      )}
      {last.map((run) => (
        <Box key={run.id} borderBottomWidth="1px" borderColor="hairline" py="1">
          <chakra.button
            type="button"
            aria-expanded={open === run.id}
            onClick={() => setOpen(open === run.id ? null : run.id)}
            display="flex"
            gap="3"
            w="full"
            textAlign="left"
            cursor="pointer"
          >
            <Mono w="110px" flexShrink={0}>
              {moment(run.at, brand.zone)}
            </Mono>
            <Box flex="1">{outcome(run)}</Box>
            <Mono>{run.milliseconds} ms</Mono>
            <span aria-hidden>{open === run.id ? '▴' : '▾'}</span>
          </chakra.button>
          {open === run.id && pipeline.on && repeatable(run).length > 0 && (
            <Button
              size="sm"
              my="1"
              onClick={() =>
                void attempt(async () => {
                  const pieces = await repeatRun(run.id)
                  say(`${count(pieces, 'piece is', 'pieces are')} looked at again.`)
                })
              }
            >
              Repeat what was left or failed
            </Button>
          )}
          {open === run.id &&
            run.steps.map((step, i) => (
              <Flex key={i} gap="3" py="1" pl="3" fontSize="13px" align="baseline">
                <Box w="96px" flexShrink={0} color={TONE[step.came]}>
                  {step.came === 'done' ? WHAT[step.what] : step.came === 'failed' ? 'failed' : 'left'}
                </Box>
                <Box flex="1" minW="0">
                  <Link to={step.drip ? `/writing/${step.drip}` : `/intake/${step.piece}`}>
                    <chakra.span fontFamily="reading" textDecoration="underline">
                      {step.title}
                    </chakra.span>
                  </Link>
                  <Box color="soft">{step.message}</Box>
                </Box>
                <Mono>{step.milliseconds ? `${step.milliseconds} ms` : ''}</Mono>
              </Flex>
            ))}
        </Box>
      ))}
    </Part>
  )
}

const TONE: Record<RunStep['came'], string> = { done: 'mossText', skipped: 'amberText', failed: 'plumText' }

function outcome({ steps }: Run): string {
  const posts = steps.reduce((sum, s) => sum + s.posts, 0)
  const failed = steps.filter((s) => s.came === 'failed').length
  const left = steps.filter((s) => s.came === 'skipped').length
  const pieces = new Set(steps.filter((s) => s.came === 'done').map((s) => s.piece)).size
  return (
    [
      ...(pieces ? [`${count(posts, 'post')} of ${count(pieces, 'piece')}`] : []),
      ...(left ? [`${left} left`] : []),
      ...(failed ? [`${failed} failed`] : []),
    ].join(', ') || 'nothing'
  )
}
