import { Box, Flex, Heading } from '@chakra-ui/react'
import { type WarmUpStep } from '../../core/model'
import { Button, DateField, Labelled, NumberField } from '../ui'
import type { PlainTimes } from './plainTimes'

/** How a young account is warmed up: since when it is there, and how many posts a day until when. */
export function WarmUp({
  opened,
  steps,
  proposed,
  onChange,
}: {
  opened: string | null
  steps: readonly WarmUpStep[] | null
  proposed: readonly WarmUpStep[]
  onChange: (change: Pick<Partial<PlainTimes>, 'openedOn' | 'warmUp'>) => void
}) {
  const own = steps ?? proposed
  const change = (index: number, step: Partial<WarmUpStep>): void =>
    onChange({ warmUp: own.map((s, i) => (i === index ? { ...s, ...step } : s)) })
  return (
    <Box>
      <Heading as="h3" fontSize="14px" fontWeight="600" mb="1">
        Warming up
      </Heading>
      <Labelled label="The day it was opened, while it is young">
        {(id) => (
          <Flex gap="2" align="center">
            <DateField
              id={id}
              mayBeEmpty
              value={opened ?? ''}
              onDate={(date) => onChange({ openedOn: date || null })}
            />
            {opened && (
              <Button size="sm" look="quiet" onClick={() => onChange({ openedOn: null })}>
                It is old enough
              </Button>
            )}
          </Flex>
        )}
      </Labelled>
      {opened && (
        <Box mt="2" fontSize="13px">
          {own.length === 0 && (
            <Box color="soft">Its network asks for no warm-up; add steps if you want to be careful.</Box>
          )}
          {own.map((step, i) => (
            <Flex key={i} gap="2" align="flex-end" mt="1">
              <NumberField
                label="Until day"
                value={step.days}
                onChange={(days) => change(i, { days: Math.max(1, days) })}
              />
              <NumberField
                label="Posts a day"
                value={step.postsPerDay}
                onChange={(postsPerDay) => change(i, { postsPerDay: Math.max(1, postsPerDay) })}
              />
              <Button
                size="sm"
                look="quiet"
                aria-label="Remove this step"
                onClick={() => onChange({ warmUp: own.filter((_, k) => k !== i) })}
              >
                ×
              </Button>
            </Flex>
          ))}
          <Flex gap="2" mt="2">
            <Button
              size="sm"
              onClick={() =>
                onChange({
                  warmUp: [
                    ...own,
                    { days: (own.at(-1)?.days ?? 0) + 7, postsPerDay: (own.at(-1)?.postsPerDay ?? 0) + 1 },
                  ],
                })
              }
            >
              Add a step
            </Button>
            {steps !== null && (
              <Button size="sm" look="quiet" onClick={() => onChange({ warmUp: null })}>
                As its network proposes
              </Button>
            )}
          </Flex>
        </Box>
      )}
    </Box>
  )
}
