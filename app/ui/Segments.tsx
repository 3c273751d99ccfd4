import { chakra, Flex } from '@chakra-ui/react'

/** A choice of a few, one pressed. */
export function Segments<T extends string>({
  label,
  choices,
  value,
  words = (c) => `${c.slice(0, 1).toUpperCase()}${c.slice(1)}`,
  onChange,
}: {
  label: string
  choices: readonly T[]
  value: T
  words?: (choice: T) => string
  onChange: (choice: T) => void
}) {
  return (
    <Flex
      role="group"
      aria-label={label}
      borderWidth="1px"
      borderColor="hairline"
      borderRadius="md"
      overflow="hidden"
    >
      {choices.map((choice) => (
        <chakra.button
          key={choice}
          type="button"
          aria-pressed={value === choice}
          px="3"
          h="8"
          fontSize="13px"
          cursor="pointer"
          bg={value === choice ? 'waterTint' : 'raised'}
          color={value === choice ? 'waterText' : 'ink'}
          fontWeight={value === choice ? '700' : '400'}
          onClick={() => onChange(choice)}
        >
          {words(choice)}
        </chakra.button>
      ))}
    </Flex>
  )
}
