import type { ComponentProps } from 'react'
import { SelectField } from './Field'

/** One of a few things, each with its words; `label` is told to those who cannot see where it stands. */
export function Choice({
  label,
  options,
  onChange,
  ...rest
}: {
  label: string
  value: string
  options: readonly (readonly [string, string])[]
  onChange: (value: string) => void
} & Omit<ComponentProps<typeof SelectField>, 'onChange' | 'value'>) {
  return (
    <SelectField aria-label={label} {...rest} onChange={(e) => onChange(e.target.value)}>
      {options.map(([v, words]) => (
        <option key={v} value={v}>
          {words}
        </option>
      ))}
    </SelectField>
  )
}
