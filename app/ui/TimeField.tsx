import { useState } from 'react'
import { TextField } from './Field'

/**
 * A time of day on the 24-hour clock, whatever the browser's language: 9, 930, 9:30 and 09.30 are
 * understood. What is no time is put back as it was when the field is left; where the field may be
 * empty, emptying it gives ''.
 */
export function TimeField({
  label,
  value,
  mayBeEmpty = false,
  onChange,
}: {
  label: string
  value: string
  mayBeEmpty?: boolean
  onChange: (time: string) => void
}) {
  const [text, setText] = useState<string | null>(null)
  const emptied = mayBeEmpty && text?.trim() === ''
  const time = text === null ? value : emptied ? '' : readTime(text)
  return (
    <TextField
      aria-label={label}
      aria-invalid={time === null}
      inputMode="numeric"
      w="64px"
      fontFamily="mono"
      borderColor={time === null ? 'plum' : 'hairline'}
      value={text ?? value}
      onChange={(e) => setText(e.target.value)}
      onKeyDown={(e) => {
        if (e.key === 'Enter') e.currentTarget.blur()
      }}
      onBlur={() => {
        setText(null)
        if (time !== null && time !== value) onChange(time)
      }}
    />
  )
}

/** The time of day in what was typed as `09:30`, or null. */
export function readTime(text: string): string | null {
  const match = /^\s*(\d{1,2})(?:[:.h]?([0-5]\d))?\s*$/.exec(text)
  const hours = Number(match?.[1])
  return match && hours < 24 ? `${String(hours).padStart(2, '0')}:${match[2] ?? '00'}` : null
}
