import { Box, chakra, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import useSWR from 'swr'
import { SHEET_FIELDS, type Backlog, type SheetField, type SheetReading } from '../../core/model'
import { addListedFeeds, during, importSheet, takeWriting, trySheet, useRows, type OpenedFile } from '../data'
import { useWork } from '../shell'
import { attempt, Button, count, Labelled, Mono, say, SelectField, TextField } from '../ui'
import { BacklogChoice } from './BacklogChoice'

type Of<K extends OpenedFile['kind']> = Extract<OpenedFile, { kind: K }>

/** A file that was opened, with what is in it, before anything of it is kept. */
export function OpenedPanel({
  file,
  last,
  onDone,
}: {
  file: OpenedFile
  /** No other file waits beside it. */
  last: boolean
  onDone: () => void
}) {
  return (
    <Box role="group" aria-label={file.title} mt="3" borderLeftWidth="4px" borderColor="water" pl="4" py="1">
      {file.kind === 'sheet' ? (
        <SheetPanel file={file} onDone={onDone} />
      ) : file.kind === 'feeds' ? (
        <FeedsPanel file={file} onDone={onDone} />
      ) : (
        <WritingPanel file={file} last={last} onDone={onDone} />
      )}
    </Box>
  )
}

/** A manuscript chapter by chapter, or one talk. */
function WritingPanel({
  file,
  last,
  onDone,
}: {
  file: Of<'writing'> | Of<'transcript'>
  last: boolean
  onDone: () => void
}) {
  const { brand } = useWork()
  const navigate = useNavigate()
  const [title, setTitle] = useState(file.title)
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set())
  const chosen = file.chapters.filter((_, i) => !left.has(i))
  const take = (): void =>
    void attempt(async () => {
      const ids = await during(`Reading ${title}`, () =>
        takeWriting(
          brand.id,
          title.trim() || file.title,
          chosen,
          file.kind === 'transcript' ? 'video' : 'manuscript',
        ),
      )
      say(`${count(ids.length, 'piece')} taken in from ${title}.`)
      onDone()
      if (last) void navigate(ids.length === 1 ? `/intake/${ids[0]}` : '/intake')
    })
  return (
    <>
      <Labelled
        label={file.kind === 'transcript' ? 'A talk with times, under the title' : 'Writing, under the title'}
      >
        {(id) => (
          <TextField id={id} w="full" maxW="420px" value={title} onChange={(e) => setTitle(e.target.value)} />
        )}
      </Labelled>
      <Box mt="2">
        {file.chapters.map((chapter, index) => (
          <chakra.label
            key={chapter.title + index}
            display="flex"
            gap="3"
            py="1"
            cursor="pointer"
            alignItems="baseline"
          >
            <input
              type="checkbox"
              checked={!left.has(index)}
              onChange={() => {
                const next = new Set(left)
                if (!next.delete(index)) next.add(index)
                setLeft(next)
              }}
            />
            <Box flex="1" minW="0" fontFamily="reading" truncate>
              {chapter.title}
            </Box>
            <Mono>{count(chapter.words, 'word')}</Mono>
          </chakra.label>
        ))}
      </Box>
      <Flex gap="2" mt="2">
        <Button look="water" disabled={chosen.length === 0} onClick={take}>
          Take in {chosen.length === 1 ? 'this piece' : count(chosen.length, 'chapter')}
        </Button>
        <Button look="quiet" onClick={onDone}>
          Not now
        </Button>
      </Flex>
    </>
  )
}

const FIELD_WORDS: Record<SheetField, string> = {
  address: 'address of the page',
  title: 'title',
  status: 'status',
  categories: 'categories',
  notes: 'notes',
}

/** A content sheet: its columns matched to fields, with a preview of what an import would do. */
function SheetPanel({ file, onDone }: { file: Of<'sheet'>; onDone: () => void }) {
  const { brand } = useWork()
  const sheets = (useRows('sources', 'brand', brand.id) ?? []).filter((s) => s.kind === 'sheet')
  const [title, setTitle] = useState(file.title)
  const [into, setInto] = useState<string | null>(null)
  const same = sheets.find((s) => s.title === file.title)
  const target = into ?? same?.id ?? ''
  const source = target === '' || target === 'new' ? null : target
  const [reading, setReading] = useState<SheetReading>(file.reading)
  const { data: merge } = useSWR(['sheet', file.title, source, JSON.stringify(reading)], () =>
    trySheet(source, file.table, reading),
  )
  const column = (field: SheetField): number => file.table.columns.indexOf(reading.columns[field] ?? '\0')
  const match = (field: SheetField, name: string): void => {
    const { [field]: _, ...rest } = reading.columns
    setReading({ ...reading, columns: name ? { ...rest, [field]: name } : rest })
  }
  const statuses = [...new Set(file.table.rows.map((r) => r.cells[column('status')] ?? ''))]
    .filter(Boolean)
    .slice(0, 12)
  const keep = (): void =>
    void attempt(async () => {
      await importSheet(brand.id, source, title.trim() || file.title, file.table, reading)
      say(`${title} is imported; its ready rows are taken in one at a time.`)
      onDone()
    })
  return (
    <>
      <Flex gap="3" flexWrap="wrap" align="flex-end">
        <Labelled label="A content sheet, under the title">
          {(id) => <TextField id={id} w="260px" value={title} onChange={(e) => setTitle(e.target.value)} />}
        </Labelled>
        {sheets.length > 0 && (
          <Labelled label="Import it as">
            {(id) => (
              <SelectField id={id} value={target} onChange={(e) => setInto(e.target.value || 'new')}>
                <option value="">a new sheet</option>
                {sheets.map((s) => (
                  <option key={s.id} value={s.id}>
                    {s.title} again
                  </option>
                ))}
              </SelectField>
            )}
          </Labelled>
        )}
      </Flex>
      <Flex gap="3" flexWrap="wrap" mt="3">
        {SHEET_FIELDS.map((field) => (
          <Labelled key={field} label={`The ${FIELD_WORDS[field]} is in`}>
            {(id) => (
              <SelectField
                id={id}
                value={reading.columns[field] ?? ''}
                onChange={(e) => match(field, e.target.value)}
              >
                <option value="">no column</option>
                {file.table.columns.map((c) => (
                  <option key={c} value={c}>
                    {c}
                  </option>
                ))}
              </SelectField>
            )}
          </Labelled>
        ))}
      </Flex>
      {statuses.length > 0 && (
        <Flex gap="2" mt="3" align="center" flexWrap="wrap" fontSize="13px">
          A row is ready when its status says
          {statuses.map((s) => {
            const on = reading.ready.includes(s.toLowerCase())
            return (
              <Button
                key={s}
                size="sm"
                look={on ? 'water' : 'plain'}
                aria-pressed={on}
                onClick={() =>
                  setReading({
                    ...reading,
                    ready: on
                      ? reading.ready.filter((w) => w !== s.toLowerCase())
                      : [...reading.ready, s.toLowerCase()],
                  })
                }
              >
                {s}
              </Button>
            )
          })}
        </Flex>
      )}
      <Box overflowX="auto" mt="3">
        <chakra.table fontSize="13px" w="full">
          <thead>
            <tr>
              {file.table.columns.map((c) => {
                const field = SHEET_FIELDS.find((f) => reading.columns[f] === c)
                return (
                  <chakra.th key={c} textAlign="left" pr="4" pb="1" fontWeight="600" whiteSpace="nowrap">
                    {c}
                    <Mono display="block" fontWeight="400" color={field ? 'waterText' : 'soft'}>
                      {field ?? 'its own field'}
                    </Mono>
                  </chakra.th>
                )
              })}
            </tr>
          </thead>
          <tbody>
            {file.table.rows.slice(0, 4).map((row) => (
              <tr key={row.line}>
                {row.cells.map((cell, i) => (
                  <chakra.td
                    key={file.table.columns[i]}
                    pr="4"
                    py="1"
                    maxW="240px"
                    truncate
                    borderTopWidth="1px"
                    borderColor="hairline"
                  >
                    {cell}
                  </chakra.td>
                ))}
              </tr>
            ))}
          </tbody>
        </chakra.table>
      </Box>
      {merge && (
        <Box mt="2" fontSize="13px">
          {count(file.table.rows.length, 'row')}: {merge.added.length} new,{' '}
          {[...merge.added, ...merge.changed].filter((r) => r.ready).length} of them ready
          {source ? `; ${merge.changed.length} changed, ${merge.same} as they were` : ''}.
          {merge.faults.length > 0 && (
            <Box color="amberText" mt="1">
              {count(merge.faults.length, 'row is', 'rows are')} left out:
              {merge.faults.slice(0, 6).map((f) => (
                <Box key={`${f.line} ${f.reason}`}>
                  <Mono color="amberText">line {f.line}</Mono> {f.reason}
                </Box>
              ))}
              {merge.faults.length > 6 && <Box>and {merge.faults.length - 6} more.</Box>}
            </Box>
          )}
        </Box>
      )}
      <Flex gap="2" mt="3">
        <Button
          look="water"
          disabled={!merge || (merge.added.length === 0 && merge.changed.length === 0)}
          onClick={keep}
        >
          Import
        </Button>
        <Button look="quiet" onClick={onDone}>
          Not now
        </Button>
      </Flex>
    </>
  )
}

function FeedsPanel({ file, onDone }: { file: Of<'feeds'>; onDone: () => void }) {
  const { brand } = useWork()
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set())
  const [backlog, setBacklog] = useState<Backlog>({ kind: 'last', count: 5 })
  const chosen = file.feeds.filter((f) => !left.has(f.url))
  return (
    <>
      <Box fontWeight="600">{count(file.feeds.length, 'feed')} in this list</Box>
      {file.feeds.map((feed) => (
        <chakra.label key={feed.url} display="flex" gap="3" py="0.5" cursor="pointer" alignItems="baseline">
          <input
            type="checkbox"
            checked={!left.has(feed.url)}
            onChange={() => {
              const next = new Set(left)
              if (!next.delete(feed.url)) next.add(feed.url)
              setLeft(next)
            }}
          />
          <Box flex="1" minW="0" truncate>
            {feed.title} {feed.group && <Mono>in {feed.group}</Mono>}
          </Box>
          <Mono truncate maxW="300px">
            {feed.url}
          </Mono>
        </chakra.label>
      ))}
      <BacklogChoice value={backlog} onChange={setBacklog} />
      <Flex gap="2" mt="3">
        <Button
          look="water"
          disabled={chosen.length === 0}
          onClick={() =>
            void attempt(async () => {
              const ids = await addListedFeeds(brand.id, chosen, backlog)
              say(
                ids.length
                  ? `${count(ids.length, 'source')} added; they are visited one after the other.`
                  : 'All of them are among your sources already.',
              )
              onDone()
            })
          }
        >
          Add {count(chosen.length, 'feed')}
        </Button>
        <Button look="quiet" onClick={onDone}>
          Not now
        </Button>
      </Flex>
    </>
  )
}
