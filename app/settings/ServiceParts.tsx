import { Box, Heading } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { Labelled, TextField } from '../ui'

/** The key of the stand-ins, which is no secret. */
export const STAND_IN_KEY = 'workshop-key'

/** One service: what it is for, and its fields. */
export function Service({ title, about, children }: { title: string; about: string; children: ReactNode }) {
  return (
    <Box as="section" aria-label={title} w="480px" maxW="full" display="flex" flexDirection="column" gap="4">
      <Box>
        <Heading as="h2" fontSize="16px" fontWeight="600">
          {title}
        </Heading>
        <Box color="soft" fontSize="13px" mt="1">
          {about}
        </Box>
      </Box>
      {children}
    </Box>
  )
}

/** Where a key is given, which is never shown again. */
export function KeyField({
  hasKey,
  value,
  onChange,
}: {
  hasKey: boolean
  value: string
  onChange: (key: string) => void
}) {
  return (
    <Labelled label={hasKey ? 'Key: one is kept, a new one replaces it' : 'Key, where it wants one'}>
      {(id) => (
        <TextField
          id={id}
          w="full"
          type="password"
          autoComplete="off"
          value={value}
          placeholder={hasKey ? '••••••••' : ''}
          onChange={(e) => onChange(e.target.value)}
        />
      )}
    </Labelled>
  )
}
