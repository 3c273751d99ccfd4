import { Box, chakra, Flex } from '@chakra-ui/react'
import { useMemo } from 'react'
import { Link, useLocation } from 'react-router'
import {
  bounds,
  COUNTED_WORDS,
  figure,
  GROUPINGS,
  isCertain,
  more,
  type Asked,
  type Results,
} from '../../core/results'
import { useAccounts, useRows, useShortener } from '../data'
import { useEffects, useResults } from '../data/more'
import { useWork } from '../shell'
import { Button, count, Empty, Page, PageHead, useKeys } from '../ui'
import { Choices } from './Choices'
import { Compared, leftWords } from './Compared'
import { Effects } from './Effects'
import { Followers } from './Followers'
import { Hours } from './Hours'
import { Ranking } from './Ranking'
import { Tires } from './Tires'
import { next, SPANS, spanWords, useAsked, type Span } from './useAsked'

/** So many posts are shown at the head and at the foot of their order. */
const RANKED = 5

/** What published posts earned, put together and told apart, and how sure that is. */
export function ResultsScreen() {
  const { brand } = useWork()
  const question = useAsked()
  const { asked, span, set } = question
  const { search } = useLocation()
  const accounts = useAccounts(brand.id)
  const pieces = useRows('pieces', 'brand', brand.id)
  const pipelines = useRows('pipelines', 'brand', brand.id)
  const results = useResults(brand.id, asked)
  useKeys({
    g: () => set('by', next(GROUPINGS, asked.by)),
    s: () => set('span', next(Object.keys(SPANS) as Span[], span)),
  })
  if (!accounts || !pieces || !pipelines || !results)
    return (
      <Page>
        <PageHead title="Results" note="What was counted of the posts is being read …" />
      </Page>
    )
  const names = { accounts, pieces, pipelines }
  return (
    <Page>
      <PageHead title="Results" note={headline(results)}>
        <Choices question={question} names={names} />
        <Link to={{ pathname: '/results/report', search }}>
          <Button as="span">Report</Button>
        </Link>
      </PageHead>
      {results.answer.posts === 0 ? (
        <Nothing answer={results.answer} asked={results.asked} />
      ) : (
        <Flex direction="column" gap="7" px="6" pb="8">
          <Flex gap="8" wrap="wrap" align="flex-start">
            <Compared results={results} question={question} names={names} />
            <Told brand={brand.id} asked={asked} />
          </Flex>
          {results.hours.length > 0 && <Hours cells={results.hours} />}
          <Best results={results} brand={brand.id} />
          <Tires brand={brand.id} />
          <Followers asked={asked} span={SPANS[span]} names={names} />
        </Flex>
      )}
    </Page>
  )
}

/** What is told apart, beside what is compared. */
function Told({ brand, asked }: { brand: string; asked: Asked }) {
  const told = useEffects(brand, asked, [])
  return (
    <Box flex="1 1 380px" minW="0">
      {told && <Effects effects={told.effects} />}
    </Box>
  )
}

/** The posts that earned most and those that fell behind, and what holds these back. */
function Best({ results: { ranked, asked }, brand }: { results: Results; brand: string }) {
  const posts = useRows('posts', 'brand', brand)
  const accounts = useAccounts(brand)
  const worst = ranked.slice(RANKED).slice(-RANKED).reverse()
  const told = useEffects(
    brand,
    asked,
    worst.map((r) => r.post),
  )
  const byId = useMemo(() => new Map((posts ?? []).map((p) => [p.id, p])), [posts])
  const zones = new Map((accounts ?? []).map((a) => [a.id, a.zone]))
  const both = { posts: byId, zones, counted: asked.counted }
  return (
    <Flex gap="8" wrap="wrap">
      <Ranking label="Earned most, for its account" ranked={ranked.slice(0, RANKED)} {...both} />
      {worst.length > 0 && <Ranking label="Fell behind" ranked={worst} held={told?.held} {...both} />}
    </Flex>
  )
}

/** Why nothing stands here, and what would change that. */
function Nothing({ answer, asked }: { answer: Results['answer']; asked: Asked }) {
  const shortener = useShortener()
  const left = leftWords(answer, asked)
  const lacksShortener =
    asked.counted === 'link clicks' && answer.uncounted > 0 && shortener !== undefined && !shortener.settings
  return (
    <Box px="6">
      <Empty title="Nothing to compare here">
        {left.length === 0
          ? 'Once posts are out, what readers do with them is read after an hour, a day, a week and later, and stands here. Choose a longer span, or other posts.'
          : `${left.join('; ')}. `}
        {answer.young > 0 && 'Compare them younger, or wait. '}
        {answer.young === 0 &&
          left.length > 0 &&
          !lacksShortener &&
          'Count something else, or choose other posts. '}
        {lacksShortener && (
          <>
            <Link to="/settings/services">
              <chakra.span textDecoration="underline">Connect a shortener under Services</chakra.span>
            </Link>
            : links of posts that go out from then on are short, and their clicks are counted.
          </>
        )}
      </Empty>
    </Box>
  )
}

/** The span in a sentence: what a post earned, and how that compares with the span before. */
function headline({ answer, asked }: Results): string {
  const { counted, age } = asked
  const span = spanWords(asked)
  if (answer.mean === null) return `Posts of the last ${span}`
  const mean = `${COUNTED_WORDS[counted]} a post after ${age}: ${figure(answer.mean, counted)}, of ${count(answer.posts, 'post')}`
  if (!answer.times) return `${mean}. There is nothing before the last ${span} to compare it with.`
  return isCertain(answer.times)
    ? `${mean}; ${more(answer.times.at)} than in the span before (${bounds(answer.times)}).`
    : `${mean}; not to be told from the span before (${bounds(answer.times)}).`
}
