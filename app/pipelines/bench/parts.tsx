import { Box, chakra, Flex, Heading } from '@chakra-ui/react'
import { useId, useState, type ReactNode } from 'react'
import { inWords } from '../../../core/text'

/** A part of the bench, headed by its name. */
export function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box as="section" aria-label={title} borderTopWidth="1px" borderColor="hairline" pt="3" lineHeight="1.7">
      <Heading as="h2" fontSize="14px" fontWeight="700" color="waterText" mb="1">
        {title}
      </Heading>
      {children}
    </Box>
  )
}

/** A sentence whose changeable words are fields. */
export function Sentence({ children }: { children: ReactNode }) {
  return (
    <Flex wrap="wrap" align="center" columnGap="1.5" rowGap="1" py="0.5">
      {children}
    </Flex>
  )
}

export function Check({
  checked,
  onChange,
  children,
}: {
  checked: boolean
  onChange: () => void
  children: ReactNode
}) {
  return (
    <chakra.label display="flex" gap="2" alignItems="center" py="0.5" cursor="pointer">
      <input type="checkbox" checked={checked} onChange={onChange} />
      {children}
    </chakra.label>
  )
}

/** Several of a list, told in words; opens to the list itself. */
export function Several({ label, words, children }: { label: string; words: string; children: ReactNode }) {
  const [open, setOpen] = useState(false)
  const id = useId()
  return (
    <>
      <chakra.button
        type="button"
        aria-expanded={open}
        aria-controls={id}
        aria-label={`${label}: ${words}`}
        onClick={() => setOpen(!open)}
        fontWeight="600"
        textAlign="left"
        cursor="pointer"
        borderBottomWidth="2px"
        borderColor="water"
        lineHeight="1.4"
      >
        {words} <span aria-hidden>{open ? '▴' : '▾'}</span>
      </chakra.button>
      {open && (
        <Box
          id={id}
          role="group"
          aria-label={label}
          w="full"
          my="1"
          px="3"
          py="1.5"
          bg="raised"
          borderWidth="1px"
          borderColor="hairline"
          borderRadius="md"
        >
          {children}
        </Box>
      )}
    </>
  )
}

/** Names as a sentence of the bench has them, or what stands there while there is none. */
export const named = (names: readonly string[], none: string): string => inWords(names, 'and', 4) || none
