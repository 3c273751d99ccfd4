import { Box, chakra, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import type { Piece } from '../../core/model'
import { dealWith, clockNow, useRows } from '../data'
import { useWork } from '../shell'
import { attempt, Button, count, distance, Empty, Mono, Notice, Page, PageHead, useKeys } from '../ui'

const SHOWN = 100

/** Pieces as they arrive: newest first, those that nobody has dealt with before the others. */
export function Intake() {
  const { brand } = useWork()
  const navigate = useNavigate()
  const pieces = useRows('pieces', 'brand', brand.id)
  const sources = useRows('sources', 'brand', brand.id)
  const [at, setAt] = useState(0)
  const [shown, setShown] = useState(SHOWN)
  const time = (p: Piece): string => p.publishedAt ?? p.takenAt
  const sorted = [...(pieces ?? [])].sort(
    (a, b) => Number(a.dealt !== null) - Number(b.dealt !== null) || (time(a) < time(b) ? 1 : -1),
  )
  const current = sorted[Math.min(at, sorted.length - 1)]
  const move = (by: number): void => setAt((i) => Math.max(0, Math.min(sorted.length - 1, i + by)))
  useKeys({
    ArrowDown: () => move(1),
    ArrowUp: () => move(-1),
    j: () => move(1),
    k: () => move(-1),
    Enter: () => current && void navigate(`/intake/${current.id}`),
    x: () => current && void attempt(() => dealWith(current.id, current.dealt === null)),
  })
  if (!pieces || !sources) return <Page>{null}</Page>
  const now = clockNow()
  const failing = sources.filter((s) => s.lastVisit?.ok === false)
  const fresh = pieces.filter((p) => p.dealt === null).length
  return (
    <Page>
      <PageHead
        title="Intake"
        note={`${count(pieces.length, 'piece')} from ${count(sources.length, 'source')}, ${fresh} waiting.`}
      >
        <Button look={sources.length ? 'plain' : 'water'} onClick={() => void navigate('/intake/sources')}>
          {sources.length ? 'Sources' : 'Add a source'}
        </Button>
      </PageHead>
      <Box px="6" pb="8">
        {failing.map((s) => (
          <Notice
            key={s.id}
            tone="clay"
            action={<Button onClick={() => void navigate('/intake/sources')}>Look</Button>}
          >
            {s.title}: {s.lastVisit?.message}
          </Notice>
        ))}
        {sorted.length === 0 && (
          <Empty
            title="Pieces arrive here"
            action={
              <Button look="water" onClick={() => void navigate('/intake/sources')}>
                Add a source
              </Button>
            }
          >
            A piece is one long-form item: an article of your blog, with its text read in full and the
            furniture of its page marked. Give the blog’s address and its pieces appear.
          </Empty>
        )}
        <Box as="ul" listStyleType="none" aria-label="Pieces">
          {sorted.slice(0, shown).map((piece, index) => (
            <Row
              key={piece.id}
              piece={piece}
              source={sources.find((s) => s.id === piece.source)?.title ?? 'a removed source'}
              now={now}
              current={index === at}
            />
          ))}
        </Box>
        {sorted.length > shown && (
          <Button onClick={() => setShown(shown + SHOWN)}>
            Show {Math.min(SHOWN, sorted.length - shown)} more
          </Button>
        )}
      </Box>
    </Page>
  )
}

function Row({
  piece,
  source,
  now,
  current,
}: {
  piece: Piece
  source: string
  now: number
  current: boolean
}) {
  return (
    <Flex
      as="li"
      align="center"
      gap="4"
      minH="60px"
      py="2"
      px="2"
      mx="-2"
      borderTopWidth="1px"
      borderColor="hairline"
      bg={current ? 'waterTint' : undefined}
      borderRadius={current ? 'sm' : undefined}
    >
      <Box flex="1" minW="0">
        <Link to={`/intake/${piece.id}`}>
          <chakra.span
            fontFamily="reading"
            fontSize="17px"
            fontWeight="600"
            color={piece.dealt ? 'soft' : 'ink'}
            _hover={{ textDecoration: 'underline' }}
          >
            {piece.title}
          </chakra.span>
        </Link>
        <Box fontSize="13px" color="soft" truncate>
          {source}
          {piece.author ? ` · ${piece.author}` : ''}
          {piece.categories.length ? ` · ${piece.categories.join(', ')}` : ''}
        </Box>
        {piece.trouble && (
          <Box fontSize="13px" color="amberText">
            {piece.trouble}
          </Box>
        )}
      </Box>
      <Mono textAlign="right" flexShrink={0}>
        {count(piece.words, 'word')} · {count(piece.images.length, 'picture')}
        <br />
        {distance(piece.publishedAt ?? piece.takenAt, now)}
      </Mono>
      <Box w="140px" fontSize="13px" color={piece.dealt ? 'soft' : 'clayText'} flexShrink={0}>
        {piece.dealt === null
          ? 'waiting'
          : piece.dealt.by === 'set aside'
            ? 'set aside'
            : `dripping, by ${piece.dealt.by}`}
      </Box>
    </Flex>
  )
}
