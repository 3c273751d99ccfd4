import { Box, chakra, Flex, Heading } from '@chakra-ui/react'
import { Link } from 'react-router'
import { resultsSheet } from '../../core/formats'
import { GROUPINGS, groupName, MOST_READINGS, type Asked, type Names, type Results } from '../../core/results'
import { inWords } from '../../core/text'
import { download, useTable } from '../data'
import { useWork } from '../shell'
import { Button, Choice, count, fileName } from '../ui'
import { GroupTable } from './GroupTable'
import { Intervals } from './Intervals'
import type { Question } from './useAsked'

/** So many groups are in the picture; the table has all. */
const PICTURED = 16

/** Posts put together by what they have in common: the picture, the table, and what is in neither. */
export function Compared({
  results: { answer, asked },
  question: { asked: wanted, set },
  names,
}: {
  results: Results
  question: Question
  names: Names
}) {
  const { brand } = useWork()
  const called = answer.groups.map((g) => groupName(asked.by, g.key, names))
  const own = asked.by === 'account' || asked.by === 'network'
  const save = (): void =>
    download(
      new Blob([resultsSheet(answer.groups, called, asked)], { type: 'text/csv' }),
      `${fileName(`${brand.name} results by ${asked.by}`)}.csv`,
    )
  return (
    <Box as="section" aria-label="Compared" flex="1 1 560px" minW="0">
      <Flex align="center" gap="3" mb="2" wrap="wrap">
        <Heading as="h2" fontSize="15px" fontWeight="600">
          By
        </Heading>
        <Choice
          label="By what posts are put together"
          value={wanted.by}
          options={GROUPINGS.map((g) => [g, g])}
          onChange={(v) => set('by', v)}
        />
        <Button size="sm" look="quiet" onClick={save}>
          CSV
        </Button>
        {asked.account !== null && (
          <chakra.span color="waterText" fontSize="13px">
            <Link to={`/horizon?lane=${asked.account}`}>Its slots and best times, on the Horizon</Link>
          </chakra.span>
        )}
      </Flex>
      {answer.groups.length === 0 && (
        <Box color="soft" fontSize="13px" py="2">
          None of the {count(answer.posts, 'post')} of this span has a {asked.by}.
        </Box>
      )}
      <Intervals groups={answer.groups.slice(0, PICTURED)} names={called} />
      <GroupTable
        groups={answer.groups}
        names={called}
        by={asked.by}
        counted={asked.counted}
        against={own ? 'Against the span before' : 'Against what is usual'}
      />
      <Left answer={answer} asked={asked} />
    </Box>
  )
}

/** Which posts are not in the figures and why, each as the beginning of a sentence. */
export function leftWords(
  { young, missing, uncounted }: Results['answer'],
  { counted, age }: Pick<Asked, 'counted' | 'age'>,
): string[] {
  return [
    young > 0 && `${count(young, 'post is', 'posts are')} not yet ${age} old`,
    missing > 0 && `${count(missing, 'reading')} at that age ${missing === 1 ? 'is' : 'are'} missing`,
    uncounted > 0 &&
      (counted === 'link clicks'
        ? `${count(uncounted, 'post')} went out without a short link of ${uncounted === 1 ? 'its' : 'their'} own, or the shortener was silent`
        : `${count(uncounted, 'post is', 'posts are')} on networks that do not count this, or nobody saw ${uncounted === 1 ? 'it' : 'them'}`),
  ].filter((words) => words !== false)
}

/** Which posts are not in the figures, and why. */
function Left({ answer, asked }: { answer: Results['answer']; asked: Asked }) {
  const { counted } = asked
  const { responses } = answer
  const thinned = useTable('workspace')?.[0]?.thinned ?? null
  const left = leftWords(answer, asked)
  return (
    <Box color="soft" fontSize="13px" mt="2" maxW="72ch">
      {counted === 'response' &&
        responses.length > 0 &&
        `The response is the share of those who saw a post and left ${inWords(responses)}, which all networks here count. `}
      {left.length > 0 && `Not in these figures: ${left.join('; ')}. `}
      {thinned !== null &&
        thinned.readings > 0 &&
        `To keep within ${MOST_READINGS.toLocaleString('en-GB')} readings in this browser, ${count(thinned.readings, 'reading')} of the oldest posts ${thinned.readings === 1 ? 'was' : 'were'} dropped, those of three and seven days last; a bundle of before has them.`}
    </Box>
  )
}
