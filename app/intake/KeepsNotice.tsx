import { Box } from '@chakra-ui/react'
import type { WholePiece } from '../../core/model'
import { keepForGood } from '../data'
import { attempt, Button, longDay } from '../ui'

/** How long the piece keeps, with the phrases that led to it. */
export function KeepsNotice({ piece }: { piece: WholePiece }) {
  const { span, until, phrases } = piece.keeps
  if (phrases.length === 0 && span === 'evergreen') return null
  const words = [...new Set(phrases.map((p) => `“${piece.text.slice(p.start, p.end)}”`))]
  const named = words.slice(0, 4).join(', ') + (words.length > 4 ? ` and ${words.length - 4} more` : '')
  const overruled = piece.keeps.overruled
  const title = overruled
    ? 'It keeps for good: you said so'
    : span === 'evergreen'
      ? phrases.length === 1
        ? 'Evergreen but for one phrase'
        : `Evergreen but for ${phrases.length} phrases`
      : span === 'past'
        ? 'What it is about is past'
        : `Keeps ${span === 'about a year' ? 'about a year' : `some ${span}`}${until ? `, until ${longDay(until)} ${until.slice(0, 4)}` : ''}`
  const ends = overruled !== undefined || span !== 'evergreen'
  return (
    <Box mt="3" borderLeftWidth="4px" borderColor="amber" pl="3" fontSize="13px">
      <Box fontWeight="600">{title}</Box>
      <Box color="soft">
        {overruled
          ? `It had been found to end${overruled.until ? ` on ${longDay(overruled.until)} ${overruled.until.slice(0, 4)}` : ''}. ${piece.keeps.because ?? ''}`
          : ends
            ? `${piece.keeps.because ?? ''} A drip that you begin is placed as you ask; what comes later than that day is flagged.`
            : `${named} ${words.length === 1 ? 'ages' : 'age'}. Passages near ${words.length === 1 ? 'it' : 'them'} are left out of long drips.`}
      </Box>
      {ends && (
        <Box mt="2">
          <Button onClick={() => void attempt(() => keepForGood(piece.id, !overruled))}>
            {overruled ? 'Go by what was found' : 'It keeps for good'}
          </Button>
        </Box>
      )}
    </Box>
  )
}
