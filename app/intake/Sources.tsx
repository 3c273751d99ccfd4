import { Box, chakra, Flex, Spinner } from '@chakra-ui/react'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import type { Source } from '../../core/model'
import {
  addSource,
  findFeeds,
  removeSource,
  visitSource,
  type FoundFeed,
  clockNow,
  nowIso,
  useClock,
  useRows,
  during,
  editSource,
} from '../data'
import { useWork } from '../shell'
import {
  attempt,
  Button,
  count,
  distance,
  Empty,
  Labelled,
  Mono,
  Page,
  PageHead,
  say,
  SelectField,
  TextField,
} from '../ui'

const EVERY: readonly [number, string][] = [
  [15, 'every 15 minutes'],
  [60, 'every hour'],
  [180, 'every 3 hours'],
  [720, 'every 12 hours'],
  [1440, 'once a day'],
]

/** The sources with their health, and adding one by its address. */
export function Sources() {
  const { brand } = useWork()
  const sources = useRows('sources', 'brand', brand.id)
  const pieces = useRows('pieces', 'brand', brand.id)
  if (!sources || !pieces) return <Page>{null}</Page>
  return (
    <Page>
      <PageHead
        title="Sources"
        note={
          <Link to="/intake">
            <chakra.span textDecoration="underline">Intake</chakra.span>
          </Link>
        }
      />
      <Box px="6" pb="8" maxW="860px">
        <AddSource />
        {sources.length === 0 ? (
          <Empty title="No source yet">
            Where does the long-form work come from? The address of a blog, or of its feed, is enough.
          </Empty>
        ) : (
          <Box mt="6">
            {sources.map((s) => (
              <SourceRow key={s.id} source={s} pieces={pieces.filter((p) => p.source === s.id).length} />
            ))}
          </Box>
        )}
      </Box>
    </Page>
  )
}

/** Visits a source and says how it went. */
async function visitNow(id: string, title: string): Promise<void> {
  const taken = await during(`Reading ${title}`, (show) => visitSource(id, show))
  if (taken) say(`${count(taken, 'piece')} taken in from ${title}.`)
}

function AddSource() {
  const { brand } = useWork()
  const { worldUrl } = useClock()
  const navigate = useNavigate()
  const [address, setAddress] = useState('')
  const [busy, setBusy] = useState(false)
  const [found, setFound] = useState<FoundFeed[] | null>(null)
  const add = async (feed: FoundFeed): Promise<void> => {
    const id = await addSource(brand.id, feed)
    setFound(null)
    setAddress('')
    await visitNow(id, feed.title)
    void navigate('/intake')
  }
  const look = async (): Promise<void> => {
    setBusy(true)
    setFound(null)
    await attempt(async () => {
      const feeds = await findFeeds(address)
      if (feeds.length === 1 && feeds[0]) await add(feeds[0])
      else setFound(feeds)
    })
    setBusy(false)
  }
  return (
    <Box>
      <chakra.form
        display="flex"
        gap="2"
        alignItems="flex-end"
        onSubmit={(event: React.FormEvent) => {
          event.preventDefault()
          if (address.trim() && !busy) void look()
        }}
      >
        <Box flex="1">
          <Labelled label="Add a source by its address">
            {(id) => (
              <TextField
                id={id}
                w="full"
                value={address}
                onChange={(e) => setAddress(e.target.value)}
                placeholder={worldUrl ? worldUrl.replace('//', '//oakum-yard.') : 'https://example.org/blog'}
                autoComplete="off"
              />
            )}
          </Labelled>
        </Box>
        <Button type="submit" look="water" disabled={busy || !address.trim()}>
          {busy ? <Spinner size="xs" /> : null} {busy ? 'Looking' : 'Add'}
        </Button>
      </chakra.form>
      {worldUrl && (
        <Box fontSize="13px" color="soft" mt="2">
          In the demo, try{' '}
          <Button size="sm" look="quiet" onClick={() => setAddress(worldUrl.replace('//', '//oakum-yard.'))}>
            the Oakum Yard journal
          </Button>
        </Box>
      )}
      {found && (
        <Box mt="3">
          <Box mb="1">This page names several feeds. Which one?</Box>
          {found.map((feed) => (
            <Flex key={feed.url} align="center" gap="3" py="1.5" borderTopWidth="1px" borderColor="hairline">
              <Box flex="1">
                {feed.title} <Mono>{count(feed.items, 'item')}</Mono>
              </Box>
              <Button onClick={() => void attempt(() => add(feed))}>Add</Button>
            </Flex>
          ))}
        </Box>
      )}
    </Box>
  )
}

function SourceRow({ source, pieces }: { source: Source; pieces: number }) {
  const now = clockNow()
  const visit = source.lastVisit
  const change = (label: string, edit: (s: Source) => Source): void =>
    void attempt(() => editSource(source.id, label, edit))
  return (
    <Flex gap="4" py="3" borderTopWidth="1px" borderColor="hairline" align="flex-start" flexWrap="wrap">
      <Box
        w="5px"
        alignSelf="stretch"
        borderRadius="sm"
        bg={source.held ? 'hairline' : visit === null ? 'hairline' : visit.ok ? 'moss' : 'plum'}
      />
      <Box flex="1" minW="260px">
        <Box fontWeight="600" fontSize="15px">
          {source.title}
        </Box>
        <Mono display="block" truncate>
          {source.url}
        </Mono>
        <Box fontSize="13px" mt="1" color={visit && !visit.ok ? 'plumText' : 'ink'}>
          {source.held ? 'Held: it is not visited. ' : ''}
          {visit
            ? `${visit.ok ? 'Visited' : 'Could not be visited'} ${distance(visit.at, now)}. ${visit.message}`
            : 'Not visited yet.'}
        </Box>
        <Box fontSize="13px" color="soft">
          {count(pieces, 'piece')} taken in
          {source.held ? '' : `; next visit ${distance(source.nextVisitAt, now)}`}
          {source.failures > 1 ? `, later than usual after ${source.failures} failures` : ''}.
        </Box>
      </Box>
      <Flex gap="2" align="center" flexWrap="wrap">
        <SelectField
          aria-label={`How often ${source.title} is visited`}
          value={source.visitEveryMinutes}
          onChange={(e) =>
            change('Change how often a source is visited', (s) => ({
              ...s,
              visitEveryMinutes: Number(e.target.value),
            }))
          }
        >
          {EVERY.map(([minutes, words]) => (
            <option key={minutes} value={minutes}>
              {words}
            </option>
          ))}
        </SelectField>
        <Button onClick={() => void attempt(() => visitNow(source.id, source.title))}>Visit now</Button>
        <Button
          onClick={() =>
            change(source.held ? 'Lift the hold on a source' : 'Hold a source', (s) => ({
              ...s,
              held: s.held ? null : { reason: 'A person held it.', since: nowIso() },
            }))
          }
        >
          {source.held ? 'Lift' : 'Hold'}
        </Button>
        <Button look="quiet" onClick={() => void attempt(() => removeSource(source.id))}>
          Remove
        </Button>
      </Flex>
    </Flex>
  )
}
