import { Box, chakra, type HTMLChakraProps } from '@chakra-ui/react'
import { useRef } from 'react'
import { readDate } from '../../core/planning'
import { TextField } from './Field'
import { say } from './message'
import { shortDay } from './time'
import { useTyped } from './useTyped'

/** "24 Nov 2026" of a local date; empty for none. */
export const wholeDay = (date: string): string => (date ? `${shortDay(date)} ${date.slice(0, 4)}` : '')

/**
 * A day, in one form whatever the browser's language: 24 Nov 2026. 24.11.2026, 24/11/26 (the day first) and 2026-11-24
 * are understood, and a calendar opens beside it. It is taken when the field is left; what is no day, or lies before
 * `min`, is put back as it was and said. Where the field may be empty, emptying it gives ''.
 */
export function DateField({
  value,
  min,
  mayBeEmpty = false,
  onDate,
  ...rest
}: {
  value: string
  min?: string
  mayBeEmpty?: boolean
  onDate: (date: string) => void
} & Omit<HTMLChakraProps<'input'>, 'value' | 'onChange' | 'min' | 'type'>) {
  const picker = useRef<HTMLInputElement>(null)
  const shown = wholeDay(value)
  const [text, type] = useTyped(shown)
  const take = (typed: string): void => {
    const trimmed = typed.trim()
    const date = trimmed === '' ? (mayBeEmpty ? '' : null) : readDate(trimmed, false)
    const early = min !== undefined && date !== null && date !== '' && date < min
    type(date === null || early ? shown : wholeDay(date))
    if (early) say(`Not kept: ${wholeDay(min)} is the first day that can be chosen.`)
    else if (date === null && trimmed) say(`Not kept: “${trimmed}” is no day. Write one like 24 Nov 2026.`)
    else if (date !== null && date !== value) onDate(date)
  }
  return (
    <Box display="inline-flex" position="relative" alignItems="center">
      <TextField
        w="146px"
        pr="6"
        placeholder="e.g. 24 Nov 2026"
        autoComplete="off"
        {...rest}
        value={text}
        onChange={(e) =>
          /^\d{4}-\d\d-\d\d$/.test(e.target.value) ? take(e.target.value) : type(e.target.value)
        }
        onBlur={() => text !== shown && take(text)}
        onKeyDown={(e) => {
          if (e.key === 'Enter' && text !== shown) take(text)
        }}
      />
      <chakra.button
        type="button"
        tabIndex={-1}
        aria-label="Choose from a calendar"
        title="Choose from a calendar"
        position="absolute"
        right="1"
        px="1"
        color="soft"
        cursor="pointer"
        onClick={() => picker.current?.showPicker()}
      >
        ▾
      </chakra.button>
      <input
        ref={picker}
        type="date"
        aria-hidden
        tabIndex={-1}
        value={value}
        min={min}
        style={{ position: 'absolute', inset: 0, opacity: 0, pointerEvents: 'none' }}
        onChange={(e) => (e.target.value || mayBeEmpty) && take(e.target.value)}
      />
    </Box>
  )
}
