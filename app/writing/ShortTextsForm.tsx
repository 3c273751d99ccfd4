import { Box, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { asFault } from '../../core/model'
import { readShortTexts, type ShortTexts } from '../../core/formats'
import { keepCollection, shortTextsOfFile } from '../data/more'
import { Popover } from '../shell'
import { attempt, Button, count, FileButton, Labelled, say, TextArea, TextField, useKept } from '../ui'

/** Puts short texts of one's own on the shelf: written, pasted or out of a file. */
export function ShortTextsForm({ brand }: { brand: string }) {
  return (
    <Popover plain label="Add short texts" face="Add short texts …">
      {(close) => <Form brand={brand} onDone={close} />}
    </Popover>
  )
}

function Form({ brand, onDone }: { brand: string; onDone: () => void }) {
  const [draft, setDraft, forget] = useKept(`short texts ${brand}`, { title: '', written: '' })
  const [busy, setBusy] = useState(false)
  const { texts, fault } = readTexts(draft.written)
  const keep = async (): Promise<void> => {
    setBusy(true)
    const kept = await attempt(async () => {
      if (!texts) return
      await keepCollection(brand, draft.title, texts)
      say(`${count(texts.texts.length, 'short text')} on the shelf, as “${draft.title.trim()}”.`)
    })
    setBusy(false)
    if (!kept) return
    forget()
    onDone()
  }
  const open = (file: File): Promise<boolean> =>
    attempt(async () => {
      const read = await shortTextsOfFile(file.name, new Uint8Array(await file.arrayBuffer()))
      setDraft({
        title: draft.title || file.name.replace(/\.\w+$/, ''),
        written: read.texts.join('\n\n'),
      })
    })
  return (
    <Flex direction="column" gap="3" w="420px" fontSize="13px">
      <Box>
        Sayings, facts, tips: each goes out whole, as a post of its own. The same name again takes the place
        of what it held.
      </Box>
      <Labelled label="Name of the collection">
        {(id) => (
          <TextField
            id={id}
            w="full"
            value={draft.title}
            onChange={(e) => setDraft({ ...draft, title: e.target.value })}
          />
        )}
      </Labelled>
      <Labelled label="One a line, or parted by blank lines">
        {(id) => (
          <TextArea
            id={id}
            rows={9}
            value={draft.written}
            onChange={(e) => setDraft({ ...draft, written: e.target.value })}
          />
        )}
      </Labelled>
      <Box color={fault ? 'clayText' : 'soft'} aria-live="polite" minH="1.4em">
        {fault ?? (texts ? told(texts) : '')}
      </Box>
      <Flex gap="2" justify="space-between">
        <FileButton accept=".csv,.tsv,.txt,.md" label="A file of short texts" onFile={(f) => void open(f)}>
          From a file …
        </FileButton>
        <Button
          look="water"
          disabled={busy || !texts || draft.title.trim() === ''}
          onClick={() => void keep()}
        >
          {busy ? 'Putting them there …' : 'Put on the shelf'}
        </Button>
      </Flex>
    </Flex>
  )
}

/** What was written as texts, or what is wrong with it; neither while nothing is there. */
function readTexts(written: string): { texts: ShortTexts | null; fault: string | null } {
  if (written.trim() === '') return { texts: null, fault: null }
  try {
    return { texts: readShortTexts(written), fault: null }
  } catch (error) {
    return { texts: null, fault: asFault(error).message }
  }
}

const told = ({ texts, doubles }: ShortTexts): string =>
  `${count(texts.length, 'text')}${doubles ? `; ${doubles} came twice and ${doubles === 1 ? 'is' : 'are'} left out` : ''}.`
