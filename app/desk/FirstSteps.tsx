import { Box, Flex } from '@chakra-ui/react'
import { useNavigate } from 'react-router'
import type { Account, Drip, Pipeline, Post, Source } from '../../core/model'
import { Button } from '../ui'

/** One of the four steps from an empty brand to its first post. */
export interface Step {
  title: string
  words: string
  done: boolean
  action: string
  to: string
}

/** The steps to a brand's first post, ticked off by what is there. */
export function stepsOf({
  accounts,
  sources,
  pipelines,
  drips,
  posts,
}: {
  accounts: readonly Account[]
  sources: readonly Source[]
  pipelines: readonly Pick<Pipeline, 'on'>[]
  drips: readonly Drip[]
  posts: readonly Post[]
}): Step[] {
  const reads = posts.some((p) => p.state === 'for review')
  return [
    {
      title: 'Link an account',
      words: 'Each account gets its own slots, quiet days and zone; sensible ones are proposed.',
      done: accounts.length > 0,
      action: 'Link an account',
      to: '/dispatch/accounts',
    },
    {
      title: 'Say where your long-form work comes from',
      words:
        'A blog’s address is enough: its feed is found, its pieces are read in full, and the passages worth quoting are marked in them.',
      done: sources.length > 0,
      action: 'Add a source',
      to: '/intake/sources',
    },
    {
      title: 'Drip a piece, or let a pipeline do it',
      words:
        'A drip is the posts of one piece; a pipeline makes one of each piece that its sieve lets through.',
      done: drips.length > 0 || pipelines.some((p) => p.on),
      action: sources.length > 0 ? 'Choose a piece' : 'Make a pipeline',
      to: sources.length > 0 ? '/intake' : '/pipelines/new',
    },
    {
      title: 'See the first post go out',
      words: reads
        ? 'Captions wait for a yes. What you approve goes out at its time, by itself.'
        : 'What is approved goes out at its time, by itself.',
      done: posts.some((p) => p.state === 'published'),
      action: reads ? 'Read them' : 'See the week',
      to: reads ? '/writing' : '/horizon',
    },
  ]
}

/** Whether the steps need nobody any more: all are done, or the last one will be by itself. */
export function isUnderWay(steps: readonly Step[], posts: readonly Post[]): boolean {
  const goesOut = posts.some((p) => (p.state === 'approved' || p.state === 'handed over') && p.at !== null)
  return steps.every((step, i) => step.done || (i === steps.length - 1 && goesOut))
}

/** The way from an empty brand to its first post; each step ticks itself off. */
export function FirstSteps({ steps }: { steps: readonly Step[] }) {
  const navigate = useNavigate()
  const next = steps.findIndex((s) => !s.done)
  return (
    <Box as="ol" aria-label="First steps" mb="5" maxW="720px">
      {steps.map((step, index) => (
        <Flex
          as="li"
          key={step.title}
          gap="4"
          py="3"
          align="center"
          borderTopWidth="1px"
          borderColor="hairline"
          {...(index === next ? { 'aria-current': 'step' as const } : {})}
        >
          <Flex
            aria-hidden
            w="26px"
            h="26px"
            borderRadius="full"
            borderWidth="2px"
            borderColor={step.done ? 'moss' : index === next ? 'water' : 'hairline'}
            bg={step.done ? 'moss' : 'transparent'}
            color={step.done ? 'white' : index === next ? 'waterText' : 'soft'}
            fontSize="13px"
            fontWeight="700"
            align="center"
            justify="center"
            flexShrink={0}
          >
            {step.done ? '✓' : index + 1}
          </Flex>
          <Box flex="1" minW="0">
            <Box fontWeight="600" fontSize="15px" color={step.done ? 'soft' : undefined}>
              {step.title}
              {step.done ? ' · done' : ''}
            </Box>
            {!step.done && (
              <Box color="soft" fontSize="13px">
                {step.words}
              </Box>
            )}
          </Box>
          {index === next && (
            <Button look="water" onClick={() => void navigate(step.to)}>
              {step.action}
            </Button>
          )}
        </Flex>
      ))}
    </Box>
  )
}
