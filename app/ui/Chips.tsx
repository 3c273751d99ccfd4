import { chakra, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { TextField } from './Field'

/** A short list of words, each a chip that can be taken out; new ones are typed, parted by Enter, and by commas unless they may hold one. */
export function Chips({
  label,
  values,
  onChange,
  commas = false,
}: {
  label: string
  values: readonly string[]
  onChange: (values: string[]) => void
  /** Whether a comma is a part of the words. */
  commas?: boolean
}) {
  const [text, setText] = useState('')
  const add = (): void => {
    const fresh = text
      .split(commas ? '\n' : /[,\n]/)
      .map((w) => w.trim())
      .filter((w) => w && !values.includes(w))
    setText('')
    if (fresh.length) onChange([...values, ...new Set(fresh)])
  }
  return (
    <Flex gap="1" flexWrap="wrap" align="center" role="group" aria-label={label}>
      {values.map((value) => (
        <chakra.button
          key={value}
          type="button"
          title={`Take “${value}” out`}
          aria-label={`Take “${value}” out`}
          onClick={() => onChange(values.filter((v) => v !== value))}
          display="inline-flex"
          gap="1.5"
          px="2"
          h="6"
          alignItems="center"
          fontSize="13px"
          fontFamily="reading"
          bg="waterTint"
          color="waterText"
          borderRadius="sm"
          cursor="pointer"
        >
          {value} <span aria-hidden>×</span>
        </chakra.button>
      ))}
      <TextField
        aria-label={label}
        title={label}
        placeholder={values.length ? 'another' : 'type words'}
        h="7"
        w={values.length ? '84px' : '140px'}
        value={text}
        onChange={(e) => setText(e.target.value)}
        onBlur={add}
        onKeyDown={(e) => {
          if (e.key === 'Enter' || (e.key === ',' && !commas)) {
            e.preventDefault()
            add()
          } else if (e.key === 'Backspace' && text === '' && values.length) onChange(values.slice(0, -1))
        }}
      />
    </Flex>
  )
}
