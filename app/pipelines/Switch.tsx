import { Box, chakra } from '@chakra-ui/react'

/** On or off; the words beside it say which, not the colour alone. */
export function Switch({
  on,
  label,
  onChange,
}: {
  on: boolean
  label: string
  onChange: (on: boolean) => void
}) {
  return (
    <chakra.button
      type="button"
      role="switch"
      aria-checked={on}
      aria-label={label}
      onClick={() => onChange(!on)}
      display="inline-flex"
      alignItems="center"
      gap="2"
      cursor="pointer"
      fontSize="13px"
    >
      <Box w="44px" h="24px" borderRadius="full" bg={on ? 'moss' : 'hatch'} position="relative">
        <Box
          position="absolute"
          top="3px"
          left={on ? '23px' : '3px'}
          w="18px"
          h="18px"
          borderRadius="full"
          bg="raised"
        />
      </Box>
      <Box w="20px" color="soft">
        {on ? 'on' : 'off'}
      </Box>
    </chakra.button>
  )
}
