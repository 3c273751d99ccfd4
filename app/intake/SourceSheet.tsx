import { Box, chakra, Flex, Heading } from '@chakra-ui/react'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { nextRow } from '../../core/formats'
import type { Piece, SheetRow, Source } from '../../core/model'
import { changeAddress, clockNow, editSource, nowIso, removeSource, useRows, visitEvery } from '../data'
import {
  attempt,
  Button,
  count,
  distance,
  Labelled,
  Mono,
  Notice,
  NumberField,
  SelectField,
  TextField,
} from '../ui'
import { BacklogChoice } from './BacklogChoice'
import { visitNow } from './visitNow'

const EVERY: readonly [number, string][] = [
  [15, 'every 15 minutes'],
  [60, 'every hour'],
  [180, 'every 3 hours'],
  [720, 'every 12 hours'],
  [1440, 'once a day'],
]

/** One source beside the list: its health, how it is visited, and the rows of a sheet. */
export function SourceSheet({
  source,
  groups,
  pieces,
  onClose,
}: {
  source: Source
  groups: readonly string[]
  pieces: readonly Piece[]
  onClose: () => void
}) {
  const now = clockNow()
  const navigate = useNavigate()
  const [title, setTitle] = useState(source.title)
  const [group, setGroup] = useState(source.group ?? '')
  const [address, setAddress] = useState(source.url ?? '')
  const edit = (label: string, change: Partial<Source>): void =>
    void attempt(() => editSource(source.id, label, (s) => ({ ...s, ...change })))
  const visit = source.lastVisit
  return (
    <Flex direction="column" p="5" gap="4">
      <Flex justify="space-between" align="baseline" gap="2">
        <Heading as="h2" fontSize="18px" fontWeight="700">
          {source.title}
        </Heading>
        <Button size="sm" look="quiet" onClick={onClose}>
          Close
        </Button>
      </Flex>
      {source.held && (
        <Notice
          tone="clay"
          action={
            <Button
              size="sm"
              onClick={() =>
                edit('Lift the hold on a source', {
                  held: null,
                  nextVisitAt: source.visitEveryMinutes === null ? null : nowIso(),
                })
              }
            >
              Lift
            </Button>
          }
        >
          {source.held.reason}
        </Notice>
      )}
      {visit && !visit.ok && (
        <Notice
          tone="plum"
          action={
            <Button size="sm" onClick={() => void attempt(() => visitNow(source.id, source.title))}>
              Try again
            </Button>
          }
        >
          {visit.message}
        </Notice>
      )}
      {source.movedFrom && (
        <Notice
          tone="amber"
          action={
            <Button size="sm" onClick={() => edit('Take note of a move', { movedFrom: null })}>
              Seen
            </Button>
          }
        >
          It moved for good; it is visited at its new address now. It was at {source.movedFrom}.
        </Notice>
      )}
      {visit && visit.notes.length > 0 && (
        <Box fontSize="13px">
          <Box fontWeight="600">Notes of the last visit</Box>
          {visit.notes.slice(0, 12).map((n) => (
            <Box key={n} color="amberText" py="0.5">
              {n}
            </Box>
          ))}
        </Box>
      )}
      <Labelled label="Title">
        {(id) => (
          <TextField
            id={id}
            w="full"
            value={title}
            onChange={(e) => setTitle(e.target.value)}
            onBlur={() =>
              title.trim() && title !== source.title && edit('Rename a source', { title: title.trim() })
            }
          />
        )}
      </Labelled>
      {source.url !== null && (
        <chakra.form
          onSubmit={(e: React.FormEvent) => {
            e.preventDefault()
            void attempt(() => changeAddress(source.id, address))
          }}
        >
          <Labelled label="Address">
            {(id) => (
              <Flex gap="2">
                <TextField
                  id={id}
                  flex="1"
                  minW="0"
                  value={address}
                  onChange={(e) => setAddress(e.target.value)}
                />
                {address !== source.url && <Button type="submit">Move there</Button>}
              </Flex>
            )}
          </Labelled>
        </chakra.form>
      )}
      <Labelled label="Group" hint="Sources of one group can be used as one in a pipeline.">
        {(id) => (
          <>
            <TextField
              id={id}
              w="full"
              list="source-groups"
              value={group}
              placeholder="none"
              onChange={(e) => setGroup(e.target.value)}
              onBlur={() =>
                (group.trim() || null) !== source.group &&
                edit('Group a source', { group: group.trim() || null })
              }
            />
            <datalist id="source-groups">
              {groups.map((g) => (
                <option key={g} value={g} />
              ))}
            </datalist>
          </>
        )}
      </Labelled>
      {source.kind !== 'writing' && (
        <Box>
          <Flex gap="2" align="center" flexWrap="wrap">
            Visited
            <SelectField
              aria-label={`How often ${source.title} is visited`}
              value={source.visitEveryMinutes ?? 0}
              onChange={(e) => void attempt(() => visitEvery(source.id, Number(e.target.value) || null))}
            >
              {EVERY.map(([minutes, words]) => (
                <option key={minutes} value={minutes}>
                  {words}
                </option>
              ))}
              <option value={0}>by hand</option>
            </SelectField>
            <Button onClick={() => void attempt(() => visitNow(source.id, source.title))}>Visit now</Button>
          </Flex>
          {source.kind === 'feed' && (
            <Box mt="3">
              <NumberField
                label="At most so many new pieces a visit"
                value={source.mostNew}
                min={1}
                max={200}
                onChange={(n) =>
                  n >= 1 &&
                  n <= 200 &&
                  edit('Change how many pieces a visit takes', { mostNew: Math.round(n) })
                }
              />
            </Box>
          )}
          {source.kind === 'feed' && visit === null && (
            <BacklogChoice
              value={source.backlog}
              onChange={(backlog) => edit('Change a source’s backlog', { backlog })}
            />
          )}
          {source.passedOver.length > 0 && (
            <Box fontSize="13px" color="soft" mt="2">
              {count(source.passedOver.length, 'older item was', 'older items were')} left where{' '}
              {source.passedOver.length === 1 ? 'it is' : 'they are'}.{' '}
              <Button
                size="sm"
                look="quiet"
                onClick={() =>
                  edit('Take in what was left', { passedOver: [], etag: null, lastModified: null })
                }
              >
                Take them at the next visit
              </Button>
            </Box>
          )}
        </Box>
      )}
      {source.kind === 'sheet' && <Rows source={source} />}
      <Box fontSize="13px" color="soft">
        {count(pieces.length, 'piece')} taken in
        {visit ? `; last visit ${distance(visit.at, now)}` : ''}
        {source.nextVisitAt && !source.held ? `, next ${distance(source.nextVisitAt, now)}` : ''}.{' '}
        {pieces.length > 0 && (
          <Button size="sm" look="quiet" onClick={() => void navigate(`/intake?source=${source.id}`)}>
            Show them
          </Button>
        )}
      </Box>
      <Flex gap="2">
        {!source.held && source.kind !== 'writing' && (
          <Button
            onClick={() => edit('Hold a source', { held: { reason: 'A person held it.', since: nowIso() } })}
          >
            Hold
          </Button>
        )}
        <Button
          look="quiet"
          onClick={() =>
            void attempt(async () => {
              await removeSource(source.id)
              onClose()
            })
          }
        >
          Remove
        </Button>
      </Flex>
    </Flex>
  )
}

/** The rows of a content sheet: what was taken, what is next, what waits for its status. */
function Rows({ source }: { source: Source }) {
  const rows = [...(useRows('sheetRows', 'source', source.id) ?? [])].sort((a, b) => a.place - b.place)
  const next = nextRow(rows)
  const state = (row: SheetRow): string =>
    row.piece
      ? 'taken in'
      : row.trouble
        ? 'left out'
        : row.id === next?.id
          ? 'next'
          : row.ready
            ? 'ready'
            : row.status || 'no status'
  return (
    <Box>
      <Box fontWeight="600" mb="1">
        {count(rows.length, 'row')}, {rows.filter((r) => r.ready && !r.piece && !r.trouble).length} ready
      </Box>
      {rows.map((row) => (
        <Box key={row.id} borderTopWidth="1px" borderColor="hairline" py="1.5" fontSize="13px">
          <Flex gap="2" justify="space-between">
            <Box truncate fontFamily="reading">
              {row.title || row.address}
            </Box>
            <Mono
              flexShrink={0}
              color={row.id === next?.id ? 'waterText' : row.trouble ? 'amberText' : 'soft'}
            >
              {state(row)}
            </Mono>
          </Flex>
          {row.trouble && <Box color="amberText">{row.trouble}</Box>}
        </Box>
      ))}
      <Box fontSize="13px" color="soft" mt="2">
        Ready rows are taken one a visit, oldest first. Change the sheet and import it again: rows are merged
        by their address.
      </Box>
    </Box>
  )
}
