import { Box } from '@chakra-ui/react'
import { network } from '../../core/networks'

const HATCHES: Record<string, string> = {
  rising: 'repeating-linear-gradient(135deg, var(--chakra-colors-hatch) 0 1px, transparent 1px 5px)',
  falling: 'repeating-linear-gradient(45deg, var(--chakra-colors-hatch) 0 1px, transparent 1px 5px)',
  level: 'repeating-linear-gradient(0deg, var(--chakra-colors-hatch) 0 1px, transparent 1px 4px)',
  upright: 'repeating-linear-gradient(90deg, var(--chakra-colors-hatch) 0 1px, transparent 1px 4px)',
  dots: 'radial-gradient(var(--chakra-colors-hatch) 1px, transparent 1.2px) 0 0 / 5px 5px',
  cross:
    'repeating-linear-gradient(45deg, var(--chakra-colors-hatch) 0 1px, transparent 1px 6px), repeating-linear-gradient(135deg, var(--chakra-colors-hatch) 0 1px, transparent 1px 6px)',
  grid: 'repeating-linear-gradient(0deg, var(--chakra-colors-hatch) 0 1px, transparent 1px 6px), repeating-linear-gradient(90deg, var(--chakra-colors-hatch) 0 1px, transparent 1px 6px)',
  waves:
    'repeating-radial-gradient(circle at 50% 120%, var(--chakra-colors-hatch) 0 1px, transparent 1px 5px)',
  plain: 'none',
}

/** A network's two-letter mark on its hatch; networks have no colour of their own. */
export function NetworkMark({ id }: { id: string }) {
  const profile = network(id)
  return (
    <Box
      as="span"
      display="inline-flex"
      alignItems="center"
      justifyContent="center"
      w="28px"
      h="21px"
      flexShrink={0}
      borderWidth="1.5px"
      borderColor="ink"
      borderRadius="sm"
      fontFamily="mono"
      fontWeight="600"
      fontSize="11px"
      lineHeight="1"
      title={profile.name}
      style={{ background: HATCHES[profile.hatch] }}
    >
      <Box as="span" bg="paper" px="1px" borderRadius="2px">
        {profile.mark}
      </Box>
    </Box>
  )
}
