import { Box, Icon, type BoxProps } from '@chakra-ui/react'
import type { Hue, Inside, PostState } from '../../core/model'
import { INSIDES } from './insides'

const OUTLINE = 'M12 2.5C12 2.5 5 10.5 5 15.5a7 7 0 0 0 14 0C19 10.5 12 2.5 12 2.5Z'

const WORDS: Record<PostState, string> = {
  draft: 'draft',
  'for review': 'for review',
  approved: 'approved',
  'handed over': 'handed over, safe to leave',
  published: 'published',
  failed: 'failed',
  'set aside': 'set aside',
}

/**
 * A post as it is drawn everywhere: hollow while a draft, ringed when for review, half-filled when
 * approved, with a tick at its foot when handed over, filled when published, cracked when failed,
 * faint when set aside. The mark inside tells the format; the colour is the pipeline's.
 */
export function Drop({
  state,
  inside = 'plain',
  hue,
  size = 22,
  title,
  ...rest
}: { state: PostState; inside?: Inside; hue?: Hue | null; size?: number; title?: string } & BoxProps) {
  const color = state === 'failed' ? 'plum' : hue ? `hue.${hue}` : 'water'
  const half = state === 'approved' || state === 'handed over'
  const filled = state === 'published'
  const mark = filled ? 'raised' : color
  return (
    <Box
      as="span"
      display="inline-flex"
      color={color}
      opacity={state === 'set aside' ? 0.35 : 1}
      flexShrink={0}
      title={title ?? WORDS[state]}
      {...rest}
    >
      <Icon asChild boxSize={`${size}px`}>
        <svg
          viewBox="0 0 24 24"
          role="img"
          aria-label={WORDS[state]}
          fill="none"
          stroke="currentColor"
          strokeWidth="1.6"
        >
          {state === 'for review' && (
            <circle
              cx="12"
              cy="13"
              r="11"
              strokeDasharray="2.4 2.6"
              stroke="var(--chakra-colors-clay)"
              strokeWidth="1.4"
            />
          )}
          {half && <path d="M5.2 14.2h13.6a7 7 0 1 1-13.6 0Z" fill="currentColor" stroke="none" />}
          <path d={OUTLINE} fill={filled ? 'currentColor' : 'none'} />
          {state === 'failed' && <path d="M12 6l-1.8 4.4 3.6 2.6-2.8 3.4 1.6 4" />}
          {inside !== 'plain' && state !== 'failed' && (
            <Box as="g" color={half ? 'raised' : mark}>
              <path d={INSIDES[inside]} stroke="currentColor" strokeWidth="1.3" />
            </Box>
          )}
          {state === 'handed over' && (
            <path d="M15.5 21.2l1.9 1.8 4-4.2" stroke="var(--chakra-colors-moss)" strokeWidth="2" />
          )}
        </svg>
      </Icon>
    </Box>
  )
}
