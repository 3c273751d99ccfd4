import { Box, Flex, Heading } from '@chakra-ui/react'
import type { ReactNode } from 'react'

/** A station's page: its work at the left, and what is beside it at the right, never over it. */
export function Page({ children, side }: { children: ReactNode; side?: ReactNode }) {
  return (
    <Flex flex="1" minH="0" w="full" _print={{ display: 'block' }}>
      <Box as="main" flex="1" minW="0" overflowY="auto" _print={{ overflow: 'visible' }}>
        {children}
      </Box>
      {side && (
        <Box
          as="aside"
          aria-label="Beside"
          w="372px"
          flexShrink={0}
          bg="raised"
          borderLeftWidth="1px"
          borderColor="hairline"
          overflowY="auto"
          _print={{ display: 'none' }}
        >
          {side}
        </Box>
      )}
    </Flex>
  )
}

/** The strip at the foot of a page's work: what is about to happen, and what can be done. */
export function FootStrip({ label, children }: { label?: string; children: ReactNode }) {
  return (
    <Flex
      minH="14"
      px="6"
      py="2"
      gap="4"
      align="center"
      bg="raised"
      borderTopWidth="1px"
      borderColor="hairline"
      flexShrink={0}
      {...(label ? { role: 'region', 'aria-label': label } : {})}
    >
      {children}
    </Flex>
  )
}

/** A page's head: its name, a line of what is so, and its actions. */
export function PageHead({
  title,
  note,
  reading = false,
  children,
}: {
  title: ReactNode
  note?: ReactNode
  reading?: boolean
  children?: ReactNode
}) {
  return (
    <Flex align="flex-end" justify="space-between" gap="4" px="6" pt="5" pb="3" flexWrap="wrap">
      <Box minW="0">
        <Heading
          as="h1"
          fontSize="22px"
          lineHeight="1.25"
          fontWeight="700"
          fontFamily={reading ? 'reading' : 'heading'}
          letterSpacing="-0.01em"
        >
          {title}
        </Heading>
        {note && (
          <Box color="soft" fontSize="13px" mt="1">
            {note}
          </Box>
        )}
      </Box>
      <Flex gap="2" align="center" flexWrap="wrap">
        {children}
      </Flex>
    </Flex>
  )
}

/** A screen with nothing on it yet: what belongs here, why, and one button to begin. */
export function Empty({
  title,
  children,
  action,
}: {
  title: string
  children: ReactNode
  action?: ReactNode
}) {
  return (
    <Box maxW="460px" my="6" borderTopWidth="1px" borderColor="hairline" pt="5">
      <Heading as="h2" fontSize="16px" fontWeight="600">
        {title}
      </Heading>
      <Box color="soft" mt="2" mb="4" lineHeight="1.55">
        {children}
      </Box>
      {action}
    </Box>
  )
}

/** Small words in the measuring face. */
export function Mono({ children, ...rest }: { children: ReactNode } & React.ComponentProps<typeof Box>) {
  return (
    <Box as="span" fontFamily="mono" fontSize="12px" color="soft" {...rest}>
      {children}
    </Box>
  )
}

/** A sentence about a fault, with its remedy beside it. */
export function Notice({
  tone,
  children,
  action,
}: {
  tone: 'plum' | 'clay' | 'amber' | 'moss'
  children: ReactNode
  action?: ReactNode
}) {
  return (
    <Flex
      role="status"
      borderLeftWidth="4px"
      borderColor={tone}
      bg="raised"
      px="3"
      py="2"
      gap="3"
      align="center"
      justify="space-between"
      borderRadius="sm"
      fontSize="13px"
    >
      <Box>{children}</Box>
      {action}
    </Flex>
  )
}
