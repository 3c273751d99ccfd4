import { Box, Flex, Grid, Heading } from '@chakra-ui/react'
import { memo, useEffect, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { insideOf, type Account, type Piece, type Pipeline, type Post, type Source } from '../../core/model'
import { pieceState } from '../../core/sieve'
import { clockNow, during, hold, lift, type Holdable, noteVisit, visitSource } from '../data'
import { useWork } from '../shell'
import { attempt, Button, count, Drop, moment, Mono, NetworkMark, Notice, Page, PageHead, say } from '../ui'
import { FirstSteps, isUnderWay, stepsOf } from './FirstSteps'
import { PostsHere } from './PostsHere'
import { River } from './River'
import { useDeskRows } from './useDeskRows'
import { waitingFor, type Waiting } from './waiting'

const TWO_DAYS = 48 * 3_600_000
/** So many of what is new are listed. */
const SHOWN = 8
/** So many of what waits are listed, until one asks for all; the most urgent come first. */
const FIRST = 20

/** What waits for a person, the next 48 hours, and what went out since the last visit. */
export function Desk() {
  const { brand, workspace } = useWork()
  const rows = useDeskRows(brand.id)
  const since = workspace.visitBefore ?? new Date(clockNow() - 7 * 86_400_000).toISOString()
  useEffect(() => {
    void noteVisit(workspace.id)
  }, [workspace.id])
  if (!rows) return <Page>{null}</Page>
  const { posts, accounts, sources, pieces, pipelines, drips } = rows
  const now = clockNow()
  const waiting = waitingFor({ ...rows, now, zone: brand.zone })
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
  const fresh = pieces
    .filter((p) => p.takenAt >= since && p.through.length === 0)
    .sort((a, b) => (a.takenAt < b.takenAt ? 1 : -1))
  const steps = stepsOf({ accounts, sources, pipelines, drips, posts })
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
            ? isUnderWay(steps, posts)
              ? 'Nothing waits for you'
              : 'Four steps to the first post'
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
        {!isUnderWay(steps, posts) && <FirstSteps steps={steps} />}
        {waiting.length > 0 && <WaitingList waiting={waiting} accounts={accounts} />}
        {begun && waiting.length === 0 && <Box color="soft">Everything runs. Come back in a week.</Box>}
        <Grid templateColumns="repeat(auto-fit, minmax(340px, 1fr))" gap="7" mt="7">
          {out.length > 0 && (
            <Box as="section" aria-label="Went out since your last visit">
              <Heading as="h2" fontSize="14px" fontWeight="600" mb="1">
                Went out since your last visit
              </Heading>
              {out.slice(0, SHOWN).map((post) => (
                <WentOut key={post.id} post={post} zone={brand.zone} />
              ))}
              {out.length > SHOWN && (
                <Box fontSize="13px" color="soft">
                  and {out.length - SHOWN} more, under Dispatch
                </Box>
              )}
            </Box>
          )}
          {fresh.length > 0 && (
            <Box as="section" aria-label="New since your last visit">
              <Heading as="h2" fontSize="14px" fontWeight="600" mb="1">
                New since your last visit
              </Heading>
              {fresh.slice(0, SHOWN).map((piece) => (
                <CameIn key={piece.id} piece={piece} pipelines={pipelines} sources={sources} />
              ))}
              {fresh.length > SHOWN && (
                <Box fontSize="13px" color="soft">
                  and {fresh.length - SHOWN} more, under Intake
                </Box>
              )}
            </Box>
          )}
        </Grid>
      </Box>
    </Page>
  )
}

function WaitingList({ waiting, accounts }: { waiting: readonly Waiting[]; accounts: readonly Account[] }) {
  const [whole, setWhole] = useState(false)
  const shown = whole ? waiting : waiting.slice(0, FIRST)
  return (
    <>
      <Box borderBottomWidth="1px" borderColor="hairline">
        {shown.map((item) => (
          <Line key={item.id} item={item} accounts={accounts} />
        ))}
      </Box>
      {shown.length < waiting.length && (
        <Button mt="3" onClick={() => setWhole(true)}>
          Show the other {waiting.length - shown.length}
        </Button>
      )}
    </>
  )
}

function word(number: number): string {
  return (
    ['No', 'One', 'Two', 'Three', 'Four', 'Five', 'Six', 'Seven', 'Eight', 'Nine', 'Ten'][number] ??
    String(number)
  )
}

/** Whether two lines show the same, so that one stays as it is drawn while others change. */
function sameLine(
  a: { item: Waiting; accounts: readonly Account[] },
  b: { item: Waiting; accounts: readonly Account[] },
): boolean {
  return a.accounts === b.accounts && JSON.stringify(a.item) === JSON.stringify(b.item)
}

const Line = memo(function Line({ item, accounts }: { item: Waiting; accounts: readonly Account[] }) {
  const navigate = useNavigate()
  const [open, setOpen] = useState(false)
  const { here } = item
  const act = (): void => {
    if (here?.do === 'posts') setOpen(!open)
    else if (here?.do === 'link') window.location.assign(here.path)
    else if (here?.do === 'visit')
      void attempt(async () => {
        const taken = await during('Visiting a source', (show) => visitSource(here.source, show))
        say(taken ? `${count(taken, 'piece')} taken in.` : 'It was visited; there is nothing new.')
      })
    else void navigate(item.to)
  }
  return (
    <Box borderTopWidth="1px" borderColor="hairline">
      <Flex align="center" gap="3" minH="60px" py="2">
        <Box w="5px" h="34px" borderRadius="sm" bg={item.tone} flexShrink={0} />
        <Box flex="1" minW="0">
          <Box fontWeight="600" fontSize="15px">
            {item.title}
          </Box>
          <Box color="soft" fontSize="13px" lineClamp={2}>
            {item.detail}
          </Box>
        </Box>
        <Button onClick={act} {...(here?.do === 'posts' ? { 'aria-expanded': open } : {})}>
          {item.action}
        </Button>
      </Flex>
      {open && here?.do === 'posts' && <PostsHere posts={here.posts} accounts={accounts} />}
    </Box>
  )
}, sameLine)

const WentOut = memo(function WentOut({ post, zone }: { post: Post; zone: string }) {
  return (
    <Flex align="center" gap="2.5" py="1">
      <Drop state="published" inside={insideOf(post)} size={20} />
      <Box fontFamily="reading" fontSize="15px" flex="1" truncate>
        {post.wording.text.split('\n')[0]}
      </Box>
      <NetworkMark id={post.network} />
      <Mono>{post.publishedAt ? moment(post.publishedAt, zone) : ''}</Mono>
    </Flex>
  )
})

/** A piece that came in, and where it stands. */
const CameIn = memo(function CameIn({
  piece,
  pipelines,
  sources,
}: {
  piece: Piece
  pipelines: readonly Pipeline[]
  sources: readonly Source[]
}) {
  const state = pieceState(piece, pipelines)
  return (
    <Flex align="baseline" gap="2.5" py="1">
      <Box fontFamily="reading" fontSize="15px" flex="1" truncate>
        <Link to={`/intake/${piece.id}`}>{piece.title}</Link>
      </Box>
      <Box
        fontSize="13px"
        color={state.kind === 'waiting' ? 'clayText' : 'soft'}
        title={`From ${sources.find((s) => s.id === piece.source)?.title ?? 'a removed source'}`}
        flexShrink={0}
        maxW="55%"
        truncate
      >
        {state.words}
      </Box>
    </Flex>
  )
})
