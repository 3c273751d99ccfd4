import { Box, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { USUAL_WEIGHTS, Weights, type Brand } from '../../core/model'
import { saveWeights } from '../data'
import { attempt, Button, NumberField, say } from '../ui'

const WEIGHTS: readonly (readonly [keyof Weights, string, string])[] = [
  ['distance', 'A day away from the wish', 'the measure of all others'],
  ['picture', 'The same picture again', 'worth so many days of moving away'],
  ['passage', 'The same passage again', 'worth so many days'],
  ['share', 'Another post of its pipeline that week', 'so that pipelines share an account'],
  ['even', 'Another post on that day', 'so that days fill evenly'],
  ['hours', 'An hour that is worth nothing', 'where the hours’ worth is known'],
  ['stagger', 'Another account at the same time', 'within the stagger below'],
]

const SPANS: readonly (readonly [keyof Weights, string])[] = [
  ['pictureDays', 'A picture is seen again within, days'],
  ['passageDays', 'A passage is seen again within, days'],
  ['staggerMinutes', 'Accounts of a beat stand apart, minutes'],
]

const HARD = [
  'Slots, quiet days, posts a day and a week, gaps, warm-up',
  'First and last days, run windows, what a person pinned',
  'The same words on two accounts of a network within seven days',
  'Two posts of one piece on one account on one day',
  'Two accounts of a beat in the same minute',
]

/** What the planner never breaks, and what its soft rules count: seen, and set for the brand. */
export function Rules({ brand }: { brand: Brand }) {
  const [draft, setDraft] = useState(brand.weights)
  const valid = Weights.safeParse(draft)
  const changed = JSON.stringify(draft) !== JSON.stringify(brand.weights)
  const set = (key: keyof Weights, value: number): void => setDraft({ ...draft, [key]: value })
  return (
    <Box p="4" fontSize="13px" overflowY="auto" h="full">
      <Box fontWeight="600" mb="1">
        Never broken
      </Box>
      {HARD.map((rule) => (
        <Box key={rule} color="soft" py="0.5">
          {rule}
        </Box>
      ))}
      <Box fontWeight="600" mt="4" mb="1">
        Weighed, in days
      </Box>
      {WEIGHTS.map(([key, words, note]) => (
        <Flex key={key} justify="space-between" align="center" gap="3" py="1">
          <Box>
            {words}
            <Box color="soft" fontSize="12px">
              {note}
            </Box>
          </Box>
          <NumberField
            label=""
            aria-label={words}
            value={draft[key]}
            min={key === 'distance' ? 0.05 : 0}
            max={20}
            step={0.1}
            onChange={(value) => set(key, value)}
          />
        </Flex>
      ))}
      {SPANS.map(([key, words]) => (
        <Flex key={key} justify="space-between" align="center" gap="3" py="1">
          <Box>{words}</Box>
          <NumberField
            label=""
            aria-label={words}
            value={draft[key]}
            onChange={(value) => set(key, Math.round(value))}
          />
        </Flex>
      ))}
      {!valid.success && (
        <Box color="clayText" mt="2">
          Not right yet: {valid.error.issues[0]?.message}.
        </Box>
      )}
      <Flex gap="2" mt="3" wrap="wrap">
        <Button
          size="sm"
          look="water"
          disabled={!changed || !valid.success}
          onClick={() =>
            void attempt(async () => {
              await saveWeights(brand.id, draft)
              say('Kept. What stands stays; what is placed from now on goes by them.')
            })
          }
        >
          Keep
        </Button>
        <Button size="sm" disabled={!changed} onClick={() => setDraft(brand.weights)}>
          Drop
        </Button>
        <Button size="sm" look="quiet" onClick={() => setDraft(USUAL_WEIGHTS)}>
          As they come
        </Button>
      </Flex>
      <Box color="soft" mt="3">
        To let what stands be weighed anew, select posts on the board and press Place anew: the difference is
        shown first.
      </Box>
    </Box>
  )
}
