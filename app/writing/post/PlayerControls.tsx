import { chakra, Flex } from '@chakra-ui/react'
import { Button, clip, Mono } from '../../ui'

/** Plays a clip and pauses it, and tells and takes its place, in seconds from its beginning. */
export function PlayerControls({
  playing,
  at,
  seconds,
  onToggle,
  onSeek,
}: {
  playing: boolean
  at: number
  /** Undefined until it is known. */
  seconds: number | undefined
  onToggle: () => void
  onSeek: (at: number) => void
}) {
  return (
    <Flex align="center" gap="2" mt="1.5">
      <Button size="sm" onClick={onToggle} aria-label={playing ? 'Pause the clip' : 'Play the clip'}>
        {playing ? 'Pause' : 'Play'}
      </Button>
      <chakra.input
        type="range"
        flex="1"
        minW="0"
        aria-label="Place in the clip"
        aria-valuetext={`${clip(at)} of ${clip(seconds ?? 0)}`}
        min={0}
        max={seconds ?? 1}
        step={0.1}
        value={at}
        onChange={(e) => onSeek(Number(e.target.value))}
        css={{ accentColor: 'var(--chakra-colors-water)' }}
      />
      <Mono>{seconds === undefined ? '…' : `${clip(at)} / ${clip(seconds)}`}</Mono>
    </Flex>
  )
}
