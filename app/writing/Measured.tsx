import { Box, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { measureVoice, partPosts, type MeasuredVoice } from '../../core/house'
import type { HouseStyle } from '../../core/model'
import { NETWORKS } from '../../core/networks'
import { Button, Labelled, SelectField, TextArea } from '../ui'

/** From posts that the brand has written, the voice they are in, to be taken over. */
export function Measured({ onTake }: { onTake: (measured: MeasuredVoice, on: string | null) => void }) {
  const [open, setOpen] = useState(false)
  const [text, setText] = useState('')
  const [on, setOn] = useState<string | null>(null)
  const posts = partPosts(text)
  const measured = measureVoice(posts)
  if (!open)
    return (
      <Box>
        <Button size="sm" onClick={() => setOpen(true)}>
          Measure it from posts you have written …
        </Button>
      </Box>
    )
  return (
    <Box>
      <Labelled label="Paste some of your posts, with a blank line between them">
        {(id) => (
          <TextArea
            id={id}
            rows={7}
            autoFocus
            fontFamily="reading"
            value={text}
            onChange={(e) => setText(e.target.value)}
          />
        )}
      </Labelled>
      <Flex mt="2" gap="3" align="center" fontSize="13px">
        <Box flex="1">
          {measured
            ? `${measured.posts} posts: ${inWords(measured.voice)}; ${measured.length.least} to ${measured.length.most} characters, ${measured.hashtags || 'no'} hashtags.`
            : `${posts.length} so far; three are the least that says something.`}
        </Box>
        <SelectField
          aria-label="Take the lengths too"
          value={on ?? ''}
          onChange={(e) => setOn(e.target.value || null)}
        >
          <option value="">voice only</option>
          {NETWORKS.map((n) => (
            <option key={n.id} value={n.id}>
              and lengths for {n.name}
            </option>
          ))}
        </SelectField>
        <Button size="sm" onClick={() => setOpen(false)}>
          Leave it
        </Button>
        <Button
          size="sm"
          look="water"
          disabled={!measured}
          onClick={() => {
            if (measured) onTake(measured, on)
            setOpen(false)
          }}
        >
          Take it
        </Button>
      </Flex>
    </Box>
  )
}

function inWords(voice: HouseStyle['voice']): string {
  const side = (value: number, low: string, high: string): string | null =>
    value === 0 ? null : `${Math.abs(value) === 2 ? 'very ' : ''}${value < 0 ? low : high}`
  const sides = [
    side(voice.formality, 'casual', 'formal'),
    side(voice.vividness, 'plain', 'vivid'),
    side(voice.warmth, 'reserved', 'warm'),
  ].filter((s) => s !== null)
  const speaks =
    voice.speaker === 'nobody'
      ? 'nobody speaks'
      : voice.speaker === 'you'
        ? 'it speaks to you'
        : `it says “${voice.speaker}”`
  return `${sides.length ? sides.join(', ') : 'in the middle'}, ${speaks}`
}
