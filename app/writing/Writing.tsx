import { Box, chakra, Flex } from '@chakra-ui/react'
import { Link, useNavigate } from 'react-router'
import { insideOf, isToCome, waitsForReview, type Drip, type Post } from '../../core/model'
import { useRows } from '../data'
import { useWork } from '../shell'
import { Review } from './Review'
import { Button, count, Drop, Empty, longDay, moment, Mono, Notice, Page, PageHead } from '../ui'

/** The drips of the brand: what is under way, and what waits for review first. */
export function Writing() {
  const { brand } = useWork()
  const navigate = useNavigate()
  const drips = useRows('drips', 'brand', brand.id)
  const posts = useRows('posts', 'brand', brand.id)
  const pieces = useRows('pieces', 'brand', brand.id)
  const pipelines = useRows('pipelines', 'brand', brand.id)
  if (!drips || !posts || !pieces || !pipelines) return <Page>{null}</Page>
  const review = posts.filter(waitsForReview).length
  const beside = posts.filter((p) => p.drip === null && waitsForReview(p))
  const alone = beside.filter((p) => !p.occasion).length
  const waits = (drip: Drip): number => posts.filter((p) => p.drip === drip.id && waitsForReview(p)).length
  const sorted = [...drips].sort(
    (a, b) => Number(waits(b) > 0) - Number(waits(a) > 0) || (a.createdAt < b.createdAt ? 1 : -1),
  )
  return (
    <Page>
      <PageHead
        title="Writing"
        note={`${count(drips.length, 'drip')}, ${review === 0 ? 'no caption waits for review' : `${count(review, 'caption waits', 'captions wait')} for review`}.`}
      >
        <Review brand={brand} waiting={posts.filter(waitsForReview)} />
        <Button onClick={() => void navigate('/writing/briefs')}>Briefs</Button>
        <Button onClick={() => void navigate('/writing/house')}>House style</Button>
        <Button onClick={() => void navigate('/writing/look')}>Look of cards</Button>
        <Button onClick={() => void navigate('/writing/pictures')}>Pictures</Button>
        <Button onClick={() => void navigate('/writing/occasions')}>Occasions</Button>
        <Button onClick={() => void navigate('/writing/shelf')}>Shelf</Button>
      </PageHead>
      <Box px="6" pb="8">
        {alone > 0 && (
          <Notice
            tone="clay"
            action={
              <Button onClick={() => void navigate('/horizon?zoom=season&show-state=for review')}>
                Read them
              </Button>
            }
          >
            {count(alone, 'post')} beside the drips {alone === 1 ? 'waits' : 'wait'} for review.
          </Notice>
        )}
        {beside.length > alone && (
          <Notice
            tone="clay"
            action={<Button onClick={() => void navigate('/writing/occasions')}>Read them</Button>}
          >
            {count(beside.length - alone, 'caption for an occasion waits', 'captions for occasions wait')} for
            review.
          </Notice>
        )}
        {sorted.length === 0 && (
          <Empty
            title="Drips are written here"
            action={
              <Button look="water" onClick={() => void navigate('/intake')}>
                Choose a piece
              </Button>
            }
          >
            A drip is the sequence of posts made from one piece: at each beat every account gets a caption of
            its own, from a passage of its own. Start one from a piece in Intake, or let a pipeline do it.
          </Empty>
        )}
        {sorted.map((drip) => (
          <DripRow
            key={drip.id}
            drip={drip}
            posts={posts.filter((p) => p.drip === drip.id)}
            title={pieces.find((p) => p.id === drip.piece)?.title ?? 'A removed piece'}
            pipeline={pipelines.find((p) => p.id === drip.pipeline) ?? null}
            zone={brand.zone}
          />
        ))}
      </Box>
    </Page>
  )
}

function DripRow({
  drip,
  posts,
  title,
  pipeline,
  zone,
}: {
  drip: Drip
  posts: readonly Post[]
  title: string
  pipeline: { name: string; hue: Parameters<typeof Drop>[0]['hue'] } | null
  zone: string
}) {
  const review = posts.filter(waitsForReview).length
  const published = posts.filter((p) => p.state === 'published').length
  const next = posts
    .filter((p) => p.at !== null && isToCome(p))
    .map((p) => p.at as string)
    .sort()[0]
  const line = [...posts].sort((a, b) => a.beat - b.beat)
  return (
    <Flex align="center" gap="4" minH="68px" py="2" borderTopWidth="1px" borderColor="hairline">
      <Box flex="1" minW="0">
        <Link to={`/writing/${drip.id}`}>
          <chakra.span
            fontFamily="reading"
            fontSize="17px"
            fontWeight="600"
            _hover={{ textDecoration: 'underline' }}
          >
            {title}
          </chakra.span>
        </Link>
        <Box fontSize="13px" color="soft">
          {drip.rhythm.name}, {count(drip.days.length, 'beat')} from {longDay(drip.startDay)} ·{' '}
          {pipeline?.name ?? 'begun by hand'}
          {drip.held ? ' · held' : ''}
        </Box>
      </Box>
      <Flex gap="0" maxW="330px" wrap="wrap" justify="flex-end" aria-hidden>
        {line.slice(0, 30).map((p) => (
          <Drop key={p.id} state={p.state} inside={insideOf(p)} hue={pipeline?.hue ?? null} size={17} />
        ))}
      </Flex>
      <Mono w="190px" textAlign="right" flexShrink={0}>
        {published} of {posts.length} out
        <br />
        {next ? `next ${moment(next, zone)}` : 'nothing planned'}
      </Mono>
      <Box w="92px" fontSize="13px" color={review ? 'clayText' : 'soft'} textAlign="right">
        {review ? `${review} to review` : 'settled'}
      </Box>
    </Flex>
  )
}
