import { Box, Flex, Heading } from '@chakra-ui/react'
import { useEffect, useState } from 'react'
import { useNavigate } from 'react-router'
import type { Post } from '../../core/model'
import { clockNow, hold, lift, type Holdable, useAccounts, useRows, noteVisit } from '../data'
import { useWork } from '../shell'
import { attempt, Button, count, Drop, Empty, moment, Mono, Notice, Page, PageHead, say } from '../ui'
import { network } from '../../core/networks'
import { River } from './River'
import { waitingFor, type Waiting } from './waiting'

const TWO_DAYS = 48 * 3_600_000

/** What waits for a person, the next 48 hours, and what went out since the last visit. */
export function Desk() {
  const { brand, workspace } = useWork()
  const posts = useRows('posts', 'brand', brand.id)
  const accounts = useAccounts(brand.id)
  const sources = useRows('sources', 'brand', brand.id)
  const pieces = useRows('pieces', 'brand', brand.id)
  const pipelines = useRows('pipelines', 'brand', brand.id)
  const drips = useRows('drips', 'brand', brand.id)
  const [since] = useState(() => workspace.lastVisitAt ?? new Date(clockNow() - 7 * 86_400_000).toISOString())
  useEffect(() => {
    void noteVisit(workspace.id)
  }, [workspace.id])
  if (!posts || !accounts || !sources || !pieces || !pipelines || !drips) return <Page>{null}</Page>
  const now = clockNow()
  const waiting = waitingFor({ posts, pipelines, pieces, accounts, sources, drips, now, zone: brand.zone })
  const soon = posts.filter(
    (p) =>
      p.at !== null &&
      Date.parse(p.at) >= now &&
      Date.parse(p.at) < now + TWO_DAYS &&
      p.state !== 'set aside',
  )
  const out = posts
    .filter((p) => p.state === 'published' && (p.publishedAt ?? '') >= since)
    .sort((a, b) => ((a.publishedAt ?? '') < (b.publishedAt ?? '') ? 1 : -1))
  const all: Holdable = { table: 'workspace', id: workspace.id, brand: brand.id, name: 'everything' }
  const begun = accounts.length > 0 && sources.length > 0
  return (
    <Page
      side={
        accounts.length > 0 ? (
          <River posts={soon} accounts={accounts} pipelines={pipelines} now={now} zone={brand.zone} />
        ) : undefined
      }
    >
      <PageHead
        title={
          waiting.length === 0
            ? 'Nothing waits for you'
            : waiting.length === 1
              ? 'One thing waits for you'
              : `${word(waiting.length)} things wait for you`
        }
        note={
          begun
            ? `${out.length ? count(out.length, 'post') : 'Nothing'} went out since your last visit, ${soon.length ? count(soon.length, 'post goes', 'posts go') : 'nothing goes'} out in the next two days.`
            : undefined
        }
      >
        <Button
          look={workspace.held ? 'water' : 'plain'}
          aria-pressed={workspace.held !== null}
          onClick={() =>
            void attempt(async () => {
              if (workspace.held) {
                const moved = await lift(all)
                say(
                  moved
                    ? `Lifted. ${count(moved, 'post was', 'posts were')} placed anew.`
                    : 'Lifted. Everything goes on as planned.',
                )
              } else {
                await hold(all)
                say('Everything is held. Nothing goes out until you lift it.')
              }
            })
          }
        >
          {workspace.held ? 'Lift the hold' : 'Hold everything'}
        </Button>
      </PageHead>
      <Box px="6" pb="8">
        {workspace.held && (
          <Notice tone="clay">
            Everything is held, for all brands, since {moment(workspace.held.since, brand.zone)}. Handed-over
            posts are recalled.
          </Notice>
        )}
        {brand.held && (
          <Notice tone="clay">
            {brand.name} is held since {moment(brand.held.since, brand.zone)}.
          </Notice>
        )}
        {begun || waiting.length > 0 ? (
          <Box borderBottomWidth={waiting.length ? '1px' : 0} borderColor="hairline">
            {waiting.map((item) => (
              <Line key={item.id} item={item} />
            ))}
          </Box>
        ) : (
          <FirstSteps accounts={accounts.length} sources={sources.length} />
        )}
        {begun && waiting.length === 0 && <Box color="soft">Everything runs. Come back in a week.</Box>}
        {out.length > 0 && (
          <Box mt="7">
            <Heading as="h2" fontSize="14px" fontWeight="600" mb="1">
              Went out since your last visit
            </Heading>
            {out.slice(0, 8).map((post) => (
              <WentOut key={post.id} post={post} zone={brand.zone} />
            ))}
          </Box>
        )}
      </Box>
    </Page>
  )
}

function word(number: number): string {
  return (
    ['No', 'One', 'Two', 'Three', 'Four', 'Five', 'Six', 'Seven', 'Eight', 'Nine', 'Ten'][number] ??
    String(number)
  )
}

function Line({ item }: { item: Waiting }) {
  const navigate = useNavigate()
  return (
    <Flex align="center" gap="3" minH="60px" py="2" borderTopWidth="1px" borderColor="hairline">
      <Box w="5px" h="34px" borderRadius="sm" bg={item.tone} flexShrink={0} />
      <Box flex="1" minW="0">
        <Box fontWeight="600" fontSize="15px">
          {item.title}
        </Box>
        <Box color="soft" fontSize="13px" lineClamp={2}>
          {item.detail}
        </Box>
      </Box>
      <Button onClick={() => void navigate(item.to)}>{item.action}</Button>
    </Flex>
  )
}

function WentOut({ post, zone }: { post: Post; zone: string }) {
  return (
    <Flex align="center" gap="2.5" py="1">
      <Drop state="published" picture={post.media !== null} size={20} />
      <Box fontFamily="reading" fontSize="15px" flex="1" truncate>
        {post.wording.text.split('\n')[0]}
      </Box>
      <Mono>
        {network(post.network).name} · {post.publishedAt ? moment(post.publishedAt, zone) : ''}
      </Mono>
    </Flex>
  )
}

/** The first screen of an empty brand: the order of the work, one button at a time. */
function FirstSteps({ accounts, sources }: { accounts: number; sources: number }) {
  const navigate = useNavigate()
  if (accounts === 0)
    return (
      <Empty
        title="First, link the accounts you post to"
        action={
          <Button look="water" onClick={() => void navigate('/dispatch/accounts')}>
            Link an account
          </Button>
        }
      >
        Each account gets its own slots, quiet days and zone; sensible ones are proposed. Then you point
        Dripline at what you write, and it does the rest.
      </Empty>
    )
  return (
    <Empty
      title={sources === 0 ? 'Now say where your long-form work comes from' : 'Choose a piece to begin with'}
      action={
        <Button look="water" onClick={() => void navigate('/intake/sources')}>
          Add a source
        </Button>
      }
    >
      A blog’s address is enough: its feed is found, its pieces are read in full, and the passages worth
      quoting are marked in them.
    </Empty>
  )
}
