import { Box, Flex } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { FootStrip } from '../../ui'

/** What is written at the left, what comes of it at the right, and the one action below. */
export function Split({ form, outcome, foot }: { form: ReactNode; outcome: ReactNode; foot: ReactNode }) {
  return (
    <Flex direction="column" flex="1" minH="0">
      <Flex flex="1" minH="0">
        <Flex direction="column" gap="4" flex="1" minW="0" maxW="660px" px="6" pt="1" pb="4" overflowY="auto">
          {form}
        </Flex>
        <Box
          flex="1"
          minW="0"
          px="5"
          pt="1"
          pb="4"
          overflowY="auto"
          borderLeftWidth="1px"
          tabIndex={0}
          role="region"
          aria-label="Where it would land"
          borderColor="hairline"
          aria-live="polite"
        >
          {outcome}
        </Box>
      </Flex>
      <FootStrip>{foot}</FootStrip>
    </Flex>
  )
}
