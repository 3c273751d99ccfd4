import { Box, chakra, Flex } from '@chakra-ui/react'
import { useState, type ReactNode } from 'react'
import { attempt, Button, say } from '../../ui'

/** The head of a part, which opens to the data that went in and came out; any of it can be copied. */
export function PartData({ title, data, head }: { title: string; data: unknown; head: ReactNode }) {
  const [open, setOpen] = useState(false)
  const text = open ? JSON.stringify(data, null, 2) : ''
  return (
    <Box mb="1.5">
      <Flex align="baseline" gap="3" borderBottomWidth="1px" borderColor="hairline" pb="1">
        {head}
        <chakra.button
          type="button"
          ml="auto"
          fontSize="13px"
          color="waterText"
          cursor="pointer"
          aria-expanded={open}
          aria-label={`Data of “${title}”`}
          onClick={() => setOpen(!open)}
        >
          data {open ? '▴' : '▾'}
        </chakra.button>
      </Flex>
      {open && (
        <Box
          position="relative"
          bg="paper"
          borderWidth="1px"
          borderColor="hairline"
          borderRadius="md"
          my="1.5"
        >
          <Box position="absolute" top="1" right="1">
            <Button
              size="sm"
              onClick={() =>
                void attempt(async () => {
                  await navigator.clipboard.writeText(text)
                  say('Copied.')
                })
              }
            >
              Copy
            </Button>
          </Box>
          <chakra.pre
            tabIndex={0}
            aria-label={`Data of “${title}”`}
            fontFamily="mono"
            fontSize="12px"
            maxH="260px"
            overflow="auto"
            p="3"
            whiteSpace="pre-wrap"
          >
            {text}
          </chakra.pre>
        </Box>
      )}
    </Box>
  )
}
