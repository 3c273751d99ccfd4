import { Box, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { readDecisions } from '../../core/formats'
import type { Brand, Post } from '../../core/model'
import { download, makePacket, nowIso, takeDecisions, type Decided } from '../data'
import { Popover } from '../shell'
import { attempt, Button, count, FileButton, fileName, Labelled, moment, say, TextArea } from '../ui'

/** Sends what waits for review to somebody who does not use Dripline, and takes their decisions in. */
export function Review({ brand, waiting }: { brand: Brand; waiting: readonly Post[] }) {
  const [note, setNote] = useState('')
  const [busy, setBusy] = useState(false)
  const save = async (): Promise<void> => {
    setBusy(true)
    await attempt(async () => {
      download(
        await makePacket(brand, waiting, note, moment),
        `${fileName(brand.name)}-review-${nowIso().slice(0, 10)}.html`,
      )
    })
    setBusy(false)
  }
  return (
    <Popover plain label="Review by others" face="Review by others …">
      {(close) => (
        <Flex direction="column" gap="3" w="340px" fontSize="13px">
          <Box>
            A review packet is one page that works without Dripline and without a network: your client reads
            the captions, approves or rejects them, and sends a small file back.
          </Box>
          <Labelled label="A line to whoever reads it">
            {(id) => <TextArea id={id} rows={2} value={note} onChange={(e) => setNote(e.target.value)} />}
          </Labelled>
          <Button look="water" disabled={busy || waiting.length === 0} onClick={() => void save()}>
            {busy
              ? 'Making it …'
              : waiting.length
                ? `Save a packet of ${count(waiting.length, 'caption')}`
                : 'No caption waits'}
          </Button>
          <FileButton
            accept=".json,application/json"
            label="A file of decisions"
            onFile={(file) =>
              void attempt(async () => {
                say(told(await takeDecisions(brand.id, readDecisions(await file.text()))))
                close()
              })
            }
          >
            Take decisions in …
          </FileButton>
        </Flex>
      )}
    </Popover>
  )
}

/** What a file of decisions came to, in a sentence. */
function told({ approved, rejected, changed, left }: Decided): string {
  return `${[
    `${count(approved, 'caption')} approved`,
    `${rejected} rejected and set aside`,
    ...(changed
      ? [`${changed} left, since ${changed === 1 ? 'it' : 'they'} changed after the packet was made`]
      : []),
    ...(left.length ? [`${left.length} not approved: ${left[0]?.why ?? ''}`] : []),
  ].join(', ')}.`.replace(/\.\.$/, '.')
}
