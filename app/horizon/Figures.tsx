import { Box, chakra, Flex } from '@chakra-ui/react'
import { memo, useMemo } from 'react'
import { momentOf, type Account, type Pipeline, type Post } from '../../core/model'
import { laneFigures } from '../../core/planning'
import { count, longDay, Mono, NetworkMark, shortDay } from '../ui'

/** What people compare of the time shown, account by account, and when each pipeline runs dry. */
export const Figures = memo(function Figures({
  posts,
  accounts,
  pipelines,
  published,
  from,
  to,
}: {
  posts: readonly Post[]
  accounts: readonly Account[]
  pipelines: readonly Pipeline[]
  /** When pieces appeared, by id. */
  published: ReadonlyMap<string, string>
  from: string
  to: string
}) {
  const figures = useMemo(
    () => accounts.map((account) => ({ account, of: laneFigures(account, posts, from, to, published) })),
    [accounts, posts, from, to, published],
  )
  return (
    <Box p="4" fontSize="13px" overflowY="auto" h="full">
      <Box color="soft" mb="2">
        {shortDay(from)} to {shortDay(to)}
      </Box>
      {figures.map(({ account, of }) => (
        <Box key={account.id} py="2.5" borderTopWidth="1px" borderColor="hairline">
          <Flex gap="2" align="center" mb="1">
            <NetworkMark id={account.network} />
            <chakra.span fontWeight="600" truncate>
              @{account.handle}
            </chakra.span>
            <Mono ml="auto">{count(of.posts, 'post')}</Mono>
          </Flex>
          <Line label="A week, of its slots" value={`${of.perWeek.toFixed(1)} of ${of.slots}`} />
          <Line
            label="Longest silence"
            value={
              of.silence.days === 0
                ? 'none'
                : `${count(of.silence.days, 'day')}${of.silence.after ? ` after ${shortDay(of.silence.after)}` : ''}`
            }
          />
          <Line label="Keep, of all" value={of.posts ? `${Math.round(of.evergreen * 100)} %` : '–'} />
          <Line label="New, of all" value={of.posts ? `${Math.round(of.fresh * 100)} %` : '–'} />
          <Line
            label="Repeats in 30 days"
            value={
              of.repeats.pictures + of.repeats.passages === 0
                ? 'none'
                : `${count(of.repeats.pictures, 'picture')}, ${count(of.repeats.passages, 'passage')}`
            }
          />
          <Line label="Pictures in use" value={String(of.pictures)} />
          {of.gaps > 0 && <Line label="Weeks without a post" value={String(of.gaps)} />}
          {of.crowded > 0 && <Line label="Crowded weeks" value={String(of.crowded)} />}
        </Box>
      ))}
      <Box fontWeight="600" mt="4" mb="1">
        What runs dry when
      </Box>
      {pipelines.length === 0 && <Box color="soft">There is no pipeline yet.</Box>}
      {pipelines.map((p) => {
        const last = posts
          .filter((post) => post.pipeline === p.id && post.state !== 'set aside')
          .map((post) => momentOf(post) ?? '')
          .reduce((a, b) => (b > a ? b : a), '')
        return (
          <Line
            key={p.id}
            label={p.name}
            value={last ? `${longDay(last.slice(0, 10))} ${last.slice(0, 4)}` : 'nothing planned'}
          />
        )
      })}
    </Box>
  )
})

function Line({ label, value }: { label: string; value: string }) {
  return (
    <Flex justify="space-between" gap="3" py="0.5">
      <Box color="soft">{label}</Box>
      <Mono color="ink" textAlign="right">
        {value}
      </Mono>
    </Flex>
  )
}
