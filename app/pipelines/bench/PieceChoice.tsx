import { Box, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { attempt, Button, SelectField, TextArea } from '../../ui'
import type { Traveller } from '../useWorkedExample'
import type { Trial } from '../useSieveTrial'

/** Which piece travels through: one of the last, one that was caught, or one that is pasted. */
export function PieceChoice({
  trial,
  traveller,
  onChoose,
  onPaste,
}: {
  trial: Trial
  traveller: Traveller | null
  onChoose: (id: string | null) => void
  onPaste: (text: string) => Promise<void>
}) {
  const [pasting, setPasting] = useState(false)
  const [reading, setReading] = useState(false)
  const [text, setText] = useState('')
  const caught = trial.results.filter((r) => !r.result.passed)
  const read = async (): Promise<void> => {
    setReading(true)
    if (await attempt(() => onPaste(text))) {
      setPasting(false)
      setText('')
    }
    setReading(false)
  }
  return (
    <>
      <Flex gap="2" align="center" mb="3" wrap="wrap">
        <SelectField
          aria-label="Piece of the worked example"
          fontFamily="reading"
          fontSize="18px"
          fontWeight="700"
          h="9"
          flex="1"
          minW="0"
          value={traveller?.pasted ? '' : (traveller?.piece.id ?? '')}
          onChange={(e) => onChoose(e.target.value)}
        >
          {traveller?.pasted && <option value="">{traveller.piece.title} (pasted)</option>}
          {trial.results.map(({ piece }) => (
            <option key={piece.id} value={piece.id}>
              {piece.title}
            </option>
          ))}
        </SelectField>
        {caught.length > 0 && traveller?.result.passed && !traveller.pasted && (
          <Button onClick={() => onChoose(caught[0]?.piece.id ?? null)}>One that was caught</Button>
        )}
        <Button aria-expanded={pasting} onClick={() => setPasting(!pasting)}>
          Paste one …
        </Button>
      </Flex>
      {pasting && (
        <Box mb="3">
          <TextArea
            aria-label="The address of a page, or the writing itself"
            placeholder="The address of a page, or the writing itself"
            w="full"
            rows={5}
            autoFocus
            value={text}
            onChange={(e) => setText(e.target.value)}
          />
          <Flex gap="2" mt="1.5" align="center">
            <Button look="water" disabled={reading || text.trim() === ''} onClick={() => void read()}>
              {reading ? 'Reading …' : 'Let it travel through'}
            </Button>
            <Button onClick={() => setPasting(false)}>Not now</Button>
            <Box color="soft" fontSize="13px">
              It is kept nowhere.
            </Box>
          </Flex>
        </Box>
      )}
    </>
  )
}
