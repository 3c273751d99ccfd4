import { Box, chakra, Flex, Heading } from '@chakra-ui/react'
import { useState } from 'react'
import { Link } from 'react-router'
import { paceOf, writeOpml } from '../../core/feeds'
import type { Piece, Source } from '../../core/model'
import { clockNow, download, useRows } from '../data'
import { useWork } from '../shell'
import { Button, count, distance, Empty, Mono, Page, PageHead } from '../ui'
import { AddSource } from './AddSource'
import { SourceSheet } from './SourceSheet'

/** The sources with their health, grouped, and adding one. */
export function Sources() {
  const { brand } = useWork()
  const sources = useRows('sources', 'brand', brand.id)
  const pieces = useRows('pieces', 'brand', brand.id)
  const [chosen, setChosen] = useState<string | null>(null)
  if (!sources || !pieces) return <Page>{null}</Page>
  const current = sources.find((s) => s.id === chosen)
  const groups = [...new Set(sources.map((s) => s.group))].sort((a, b) => (a ?? '').localeCompare(b ?? ''))
  const feeds = sources.filter((s) => s.kind === 'feed' && s.url !== null)
  return (
    <Page
      side={
        current && (
          <SourceSheet
            key={current.id}
            source={current}
            groups={groups.flatMap((g) => g ?? [])}
            pieces={pieces.filter((p) => p.source === current.id)}
            onClose={() => setChosen(null)}
          />
        )
      }
    >
      <PageHead
        title="Sources"
        note={
          <Link to="/intake">
            <chakra.span textDecoration="underline">Intake</chakra.span>
          </Link>
        }
      >
        {feeds.length > 0 && (
          <Button
            onClick={() =>
              download(
                new Blob(
                  [
                    writeOpml(
                      feeds.map((f) => ({ url: f.url ?? '', title: f.title, group: f.group })),
                      `Sources of ${brand.name}`,
                    ),
                  ],
                  { type: 'text/x-opml' },
                ),
                'sources.opml',
              )
            }
          >
            Export the list (OPML)
          </Button>
        )}
      </PageHead>
      <Box px="6" pb="8" maxW="860px">
        <AddSource />
        {sources.length === 0 ? (
          <Empty title="No source yet">
            Where does the long-form work come from? The address of a blog, or of its feed, is enough.
          </Empty>
        ) : (
          groups.map((group) => (
            <Box key={group ?? ''} mt="6">
              {(group !== null || groups.length > 1) && (
                <Heading as="h2" fontSize="14px" fontWeight="600" color={group ? 'waterText' : 'soft'} mb="1">
                  {group ?? 'In no group'}
                </Heading>
              )}
              {sources
                .filter((s) => s.group === group)
                .map((s) => (
                  <SourceRow
                    key={s.id}
                    source={s}
                    current={s.id === chosen}
                    pieces={pieces.filter((p) => p.source === s.id)}
                    onOpen={() => setChosen(s.id === chosen ? null : s.id)}
                  />
                ))}
            </Box>
          ))
        )}
      </Box>
    </Page>
  )
}

const KIND_WORDS: Record<Source['kind'], string> = {
  feed: 'feed',
  sheet: 'content sheet',
  writing: 'own writing',
}

function SourceRow({
  source,
  pieces,
  current,
  onOpen,
}: {
  source: Source
  pieces: readonly Piece[]
  current: boolean
  onOpen: () => void
}) {
  const now = clockNow()
  const visit = source.lastVisit
  const pace = paceOf(
    pieces.map((p) => p.publishedAt ?? p.takenAt),
    new Date(now).toISOString(),
  )
  const failing = visit !== null && !visit.ok
  const tone = source.held
    ? 'hairline'
    : visit === null
      ? 'hairline'
      : failing
        ? 'plum'
        : visit.notes.length || pace.silentSince
          ? 'amber'
          : 'moss'
  return (
    <chakra.button
      type="button"
      onClick={onOpen}
      aria-pressed={current}
      display="flex"
      w="full"
      textAlign="left"
      gap="4"
      py="3"
      px="2"
      borderTopWidth="1px"
      borderColor="hairline"
      alignItems="flex-start"
      bg={current ? 'waterTint' : undefined}
      cursor="pointer"
      _hover={{ bg: 'waterTint' }}
    >
      <Box w="5px" alignSelf="stretch" borderRadius="sm" bg={tone} flexShrink={0} />
      <Box flex="1" minW="0">
        <Flex gap="3" align="baseline">
          <chakra.span fontWeight="600" fontSize="15px">
            {source.title}
          </chakra.span>
          <Mono>{KIND_WORDS[source.kind]}</Mono>
        </Flex>
        {source.url && (
          <Mono display="block" truncate>
            {source.url}
          </Mono>
        )}
        <Box fontSize="13px" mt="1" color={failing ? 'plumText' : 'ink'}>
          {source.held ? `Held. ${source.held.reason} ` : ''}
          {source.kind === 'writing'
            ? 'Comes in by hand.'
            : visit
              ? `${visit.ok ? 'Visited' : 'Could not be visited'} ${distance(visit.at, now)}. ${visit.message}`
              : 'Not visited yet.'}
        </Box>
        <Box fontSize="13px" color="soft">
          {[
            `${count(pieces.length, 'piece')} taken in`,
            source.kind === 'feed' && pieces.length > 1 ? `${pace.perWeek} new a week` : '',
            source.nextVisitAt && !source.held ? `next visit ${distance(source.nextVisitAt, now)}` : '',
            source.kind !== 'writing' && source.visitEveryMinutes === null ? 'visited by hand' : '',
            source.failures > 1 ? `later than usual after ${source.failures} failures` : '',
          ]
            .filter(Boolean)
            .join(' · ')}
        </Box>
        {pace.silentSince && source.kind === 'feed' && (
          <Box fontSize="13px" color="amberText">
            Silent since {distance(pace.silentSince, now)}, much longer than usual.
          </Box>
        )}
      </Box>
      {visit !== null && visit.notes.length > 0 && (
        <Mono color="amberText" flexShrink={0}>
          {count(visit.notes.length, 'note')}
        </Mono>
      )}
    </chakra.button>
  )
}
