import { Box, chakra, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { Link } from 'react-router'
import type { Pipeline, SieveRule } from '../../core/model'
import { letThrough, useRows } from '../data'
import { useWork } from '../shell'
import { attempt, Button, count, SelectField } from '../ui'
import { FRESH } from './rules/fresh'
import { RuleSentence } from './rules/RuleSentence'
import type { Trial } from './useSieveTrial'

/** The sieve of a pipeline, edited as sentences, and how it treats the last pieces. */
export function Sieve({
  pipeline,
  trial,
  onSave,
}: {
  pipeline: Pipeline
  trial: Trial | null
  onSave: (sieve: SieveRule[], label: string) => void
}) {
  const { brand } = useWork()
  const lists = useRows('wordLists', 'brand', brand.id) ?? []
  const sources = useRows('sources', 'brand', brand.id) ?? []
  const [shown, setShown] = useState<number | 'person' | null>(null)
  const rules = pipeline.takeIn.sieve
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

type Results = Trial['results']

function Caught({
  words,
  caught,
  open,
  onOpen,
}: {
  words: string
  caught: Results
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
