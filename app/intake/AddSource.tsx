import { Box, chakra, Flex, Spinner } from '@chakra-ui/react'
import { useState } from 'react'
import { useDropzone } from 'react-dropzone'
import { useNavigate } from 'react-router'
import type { Backlog } from '../../core/model'
import {
  addSource,
  clockNow,
  during,
  lookAt,
  openFile,
  takePage,
  useClock,
  type Looked,
  type OpenedFile,
} from '../data'
import { useWork } from '../shell'
import { attempt, Button, count, distance, Labelled, Mono, say, TextArea, TextField } from '../ui'
import { BacklogChoice } from './BacklogChoice'
import { OpenedPanel } from './OpenedPanel'
import { visitNow } from './visitNow'

/** Adding a source: by an address, by a file, or by pasting. */
export function AddSource() {
  const { worldUrl } = useClock()
  const [address, setAddress] = useState('')
  const [busy, setBusy] = useState(false)
  const [looked, setLooked] = useState<Looked | null>(null)
  const [opened, setOpened] = useState<OpenedFile[]>([])
  const [reading, setReading] = useState(0)
  const [pasting, setPasting] = useState(false)
  const look = async (): Promise<void> => {
    setBusy(true)
    setLooked(null)
    await attempt(async () => setLooked(await during('Looking for feeds', (show) => lookAt(address, show))))
    setBusy(false)
  }
  const open = (files: readonly { name: string; bytes: Uint8Array }[]): void =>
    void (async () => {
      setReading((n) => n + files.length)
      for (const file of files) {
        await attempt(async () => {
          const one = await during(`Reading ${file.name}`, () => openFile(file.name, file.bytes))
          setOpened((all) => [...all, one])
        })
        setReading((n) => n - 1)
      }
    })()
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
          <Labelled label="Add a source by its address: a blog, a video channel, a feed, or one page or film">
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
          {busy ? <Spinner size="xs" /> : null} {busy ? 'Looking' : 'Look'}
        </Button>
      </chakra.form>
      {worldUrl && (
        <Box fontSize="13px" color="soft" mt="1.5">
          In the demo, try{' '}
          {(
            [
              ['oakum-yard', 'the yard’s journal'],
              ['oakum-yard/films', 'its films'],
              ['fernhollow', 'the huts'],
              ['partner', 'a partner'],
            ] as const
          ).map(([site, name]) => {
            const [host, path] = site.split('/')
            const url = `${worldUrl.replace('//', `//${host}.`)}${path ? `/${path}` : ''}`
            return (
              <Button key={site} size="sm" look="quiet" onClick={() => setAddress(url)}>
                {name}
              </Button>
            )
          })}
        </Box>
      )}
      {looked && <FoundFeeds key={looked.page} looked={looked} onClose={() => setLooked(null)} />}
      <DropFiles onFiles={open} onPaste={() => setPasting(true)} />
      {pasting && (
        <Paste
          onClose={() => setPasting(false)}
          onText={(name, text) => {
            setPasting(false)
            open([{ name, bytes: new TextEncoder().encode(text) }])
          }}
        />
      )}
      {opened.map((file, index) => (
        <OpenedPanel
          key={`${file.title} ${index}`}
          file={file}
          last={opened.length + reading === 1}
          onDone={() => setOpened((all) => all.filter((f) => f !== file))}
        />
      ))}
    </Box>
  )
}

/** The feeds at an address with what is in them, and what to do with what is there already. */
function FoundFeeds({ looked, onClose }: { looked: Looked; onClose: () => void }) {
  const { feeds: found, page } = looked
  const { brand } = useWork()
  const navigate = useNavigate()
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set([found[0]?.url ?? '']))
  const [backlog, setBacklog] = useState<Backlog>({ kind: 'everything' })
  const add = (): void =>
    void attempt(async () => {
      for (const feed of found.filter((f) => chosen.has(f.url))) {
        const id = await addSource(brand.id, feed, backlog)
        await visitNow(id, feed.title)
      }
      onClose()
      void navigate('/intake')
    })
  const alone = (url: string): void =>
    void attempt(async () => {
      const id = await during('Reading the page', () => takePage(brand.id, url))
      onClose()
      void navigate(`/intake/${id}`)
    })
  const only = page !== null && <Button onClick={() => alone(page)}>Take in this page alone</Button>
  if (found.length === 0)
    return (
      <Box mt="3" borderLeftWidth="4px" borderColor="amber" pl="4" py="1">
        No feed was found on this page nor in the usual places. Give the feed’s own address, import a list of
        its pages as a sheet, or take in this page alone.
        <Flex gap="2" mt="2">
          {only}
          <Button look="quiet" onClick={onClose}>
            Close
          </Button>
        </Flex>
      </Box>
    )
  return (
    <Box mt="3" borderLeftWidth="4px" borderColor="water" pl="4" py="1">
      <Box fontWeight="600">
        {found.length === 1 ? 'One feed was found' : `${found.length} feeds were found; choose one or more`}
      </Box>
      {found.map((feed) => (
        <chakra.label key={feed.url} display="flex" alignItems="baseline" gap="3" py="1" cursor="pointer">
          <input
            type="checkbox"
            checked={chosen.has(feed.url)}
            onChange={() => {
              const next = new Set(chosen)
              if (!next.delete(feed.url)) next.add(feed.url)
              setChosen(next)
            }}
          />
          <Box flex="1" minW="0">
            <chakra.span fontWeight="600">{feed.title}</chakra.span>{' '}
            <Mono>
              {count(feed.items, 'item')}
              {feed.newest ? `, the newest ${distance(feed.newest, clockNow())}` : ''}
            </Mono>
            <Mono display="block" truncate>
              {feed.url}
            </Mono>
          </Box>
        </chakra.label>
      ))}
      <BacklogChoice value={backlog} onChange={setBacklog} />
      <Flex gap="2" mt="3">
        <Button look="water" disabled={chosen.size === 0} onClick={add}>
          Add {found.length > 1 && chosen.size > 1 ? `${chosen.size} sources` : 'this source'}
        </Button>
        {only}
        <Button look="quiet" onClick={onClose}>
          Not now
        </Button>
      </Flex>
    </Box>
  )
}

function DropFiles({
  onFiles,
  onPaste,
}: {
  onFiles: (files: { name: string; bytes: Uint8Array }[]) => void
  onPaste: () => void
}) {
  const { getRootProps, getInputProps, isDragActive, open } = useDropzone({
    noClick: true,
    onDrop: (files) =>
      void Promise.all(
        files.map(async (f) => ({ name: f.name, bytes: new Uint8Array(await f.arrayBuffer()) })),
      ).then(onFiles),
  })
  return (
    <Box
      {...(getRootProps() as object)}
      mt="4"
      px="4"
      py="3"
      borderWidth="1px"
      borderStyle="dashed"
      borderColor={isDragActive ? 'water' : 'hairline'}
      bg={isDragActive ? 'waterTint' : undefined}
      borderRadius="md"
    >
      <input {...getInputProps({ 'aria-label': 'Files to take in' })} />
      <Flex gap="3" align="center" flexWrap="wrap">
        <Box flex="1" minW="260px" fontSize="13px" color="soft">
          {isDragActive
            ? 'Drop it here.'
            : 'Or drop files: a manuscript (.docx, Markdown, HTML, text), a talk’s transcript (WebVTT, SRT), a content sheet (CSV), a list of feeds (OPML).'}
        </Box>
        <Button onClick={open}>Choose files</Button>
        <Button onClick={onPaste}>Paste text</Button>
      </Flex>
    </Box>
  )
}

function Paste({ onText, onClose }: { onText: (name: string, text: string) => void; onClose: () => void }) {
  const [title, setTitle] = useState('')
  const [text, setText] = useState('')
  return (
    <chakra.form
      mt="3"
      display="flex"
      flexDirection="column"
      gap="2"
      onSubmit={(event: React.FormEvent) => {
        event.preventDefault()
        if (text.trim().length < 40) say('Paste a little more: a piece wants at least a few sentences.')
        else onText(`${title.trim() || 'Pasted writing'}.md`, text)
      }}
    >
      <Labelled label="Its title, where the text has none">
        {(id) => <TextField id={id} w="full" value={title} onChange={(e) => setTitle(e.target.value)} />}
      </Labelled>
      <Labelled label="The text: Markdown, HTML, plain, or with times">
        {(id) => (
          <TextArea
            id={id}
            value={text}
            onChange={(e) => setText(e.target.value)}
            rows={9}
            fontFamily="reading"
            autoFocus
          />
        )}
      </Labelled>
      <Flex gap="2">
        <Button type="submit" look="water" disabled={!text.trim()}>
          Read it
        </Button>
        <Button look="quiet" onClick={onClose}>
          Not now
        </Button>
      </Flex>
    </chakra.form>
  )
}
