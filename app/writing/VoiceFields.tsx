import { Box, chakra, Flex } from '@chakra-ui/react'
import type { Voice } from '../../core/model'
import { SelectField } from '../ui'

const SLIDERS = [
  ['formality', 'casual', 'formal'],
  ['vividness', 'plain', 'vivid'],
  ['warmth', 'reserved', 'warm'],
] as const

/** The sliders of a voice, and who speaks. */
export function VoiceFields({ voice, onChange }: { voice: Voice; onChange: (voice: Voice) => void }) {
  return (
    <Box role="group" aria-label="Voice">
      {SLIDERS.map(([name, low, high]) => (
        <Flex key={name} align="center" gap="3" h="9">
          <Box w="72px" textAlign="right" fontSize="13px" color="soft">
            {low}
          </Box>
          <chakra.input
            type="range"
            aria-label={`${low} to ${high}`}
            min={-2}
            max={2}
            step={1}
            value={voice[name]}
            flex="1"
            maxW="260px"
            accentColor="var(--chakra-colors-water)"
            onChange={(e) => onChange({ ...voice, [name]: Number(e.target.value) })}
          />
          <Box w="64px" fontSize="13px" color="soft">
            {high}
          </Box>
        </Flex>
      ))}
      <Flex align="center" gap="3" h="9">
        <Box w="72px" textAlign="right" fontSize="13px" color="soft">
          speaks
        </Box>
        <SelectField
          aria-label="Who speaks"
          value={voice.speaker}
          onChange={(e) => onChange({ ...voice, speaker: e.target.value as Voice['speaker'] })}
        >
          <option value="nobody">nobody</option>
          <option value="we">we</option>
          <option value="I">I</option>
          <option value="you">to you</option>
        </SelectField>
      </Flex>
    </Box>
  )
}
