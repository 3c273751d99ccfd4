import { Box, chakra, Flex, Heading } from '@chakra-ui/react'
import { useId, useState, type ReactNode } from 'react'

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

/** Names as a sentence has them; long lists end in "and 4 more". */
export function inWords(names: readonly string[], none: string, by: 'and' | 'or' = 'and'): string {
  if (names.length === 0) return none
  if (names.length > 4) return `${names.slice(0, 3).join(', ')} ${by} ${names.length - 3} more`
  return names.length === 1
    ? (names[0] ?? none)
    : `${names.slice(0, -1).join(', ')} ${by} ${names[names.length - 1] ?? ''}`
}
