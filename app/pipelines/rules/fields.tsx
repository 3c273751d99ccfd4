import type { ComponentProps } from 'react'
import { Button, Choice as AnyChoice, DateField, TextField, useTyped } from '../../ui'

/** How a field looks that is a word of a sentence. */
const INLINE = {
  h: '7',
  px: '1',
  bg: 'transparent',
  fontWeight: '600',
  borderWidth: '0',
  borderBottomWidth: '2px',
  borderColor: 'water',
  borderRadius: '0',
} as const

/** A list with a value in it if it was not, and without it if it was. */
export const toggled = <T,>(list: readonly T[], value: T): T[] =>
  list.includes(value) ? list.filter((x) => x !== value) : [...list, value]

/** A word of a sentence that is chosen from a few. */
export function Choice(props: ComponentProps<typeof AnyChoice>) {
  return <AnyChoice {...INLINE} maxW="full" {...props} />
}

/** A word of a sentence that is in it or not. */
export function Toggle({
  on,
  onClick,
  title,
  children,
}: {
  on: boolean
  onClick: () => void
  title?: string
  children: React.ReactNode
}) {
  return (
    <Button
      size="sm"
      look={on ? 'water' : 'plain'}
      aria-pressed={on}
      onClick={onClick}
      {...(title ? { title } : {})}
    >
      {children}
    </Button>
  )
}

/** A day that may be left open. */
export function Day({
  label,
  value,
  onChange,
}: {
  label: string
  value: string | null
  onChange: (day: string | null) => void
}) {
  return (
    <DateField
      {...INLINE}
      w="130px"
      aria-label={label}
      placeholder="open"
      mayBeEmpty
      value={value ?? ''}
      onDate={(day) => onChange(day === '' ? null : day)}
    />
  )
}

/** A number that may be left open; kept when the field is left. */
export function Bound({
  label,
  value,
  open = 'open',
  onChange,
}: {
  label: string
  value: number | null
  /** What stands in the field while there is no number. */
  open?: string
  onChange: (value: number | null) => void
}) {
  return (
    <Typed
      label={label}
      type="number"
      placeholder={open}
      value={value === null ? '' : String(value)}
      onChange={(text) => onChange(text === '' ? null : Number(text))}
    />
  )
}

/** A short field whose words are kept when it is left, or on Enter. */
export function Typed({
  label,
  value,
  type = 'text',
  wide = false,
  placeholder = 'name',
  onChange,
}: {
  label: string
  value: string
  type?: 'text' | 'number'
  wide?: boolean
  placeholder?: string
  onChange: (value: string) => void
}) {
  const [text, setText] = useTyped(value)
  return (
    <TextField
      aria-label={label}
      title={label}
      type={type}
      {...INLINE}
      w={wide ? '280px' : type === 'number' ? '64px' : '120px'}
      placeholder={placeholder}
      value={text}
      onChange={(e) => setText(e.target.value)}
      onBlur={() => text !== value && onChange(text.trim())}
      onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
    />
  )
}
