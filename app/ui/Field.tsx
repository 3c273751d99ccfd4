import { Box, chakra, useRecipe, type HTMLChakraProps } from '@chakra-ui/react'
import { useId, type ReactNode } from 'react'

/** A label above its control. */
export function Labelled({
  label,
  hint,
  children,
}: {
  label: string
  hint?: string
  children: (id: string) => ReactNode
}) {
  const id = useId()
  return (
    <Box>
      <chakra.label htmlFor={id} display="block" fontSize="xs" color="soft" mb="1">
        {label}
      </chakra.label>
      {children(id)}
      {hint && (
        <Box fontSize="xs" color="soft" mt="1">
          {hint}
        </Box>
      )}
    </Box>
  )
}

export function TextField(props: HTMLChakraProps<'input'> & { ref?: React.Ref<HTMLInputElement> }) {
  const recipe = useRecipe({ key: 'dlField' })
  return <chakra.input css={recipe()} {...props} />
}

export function SelectField(props: HTMLChakraProps<'select'>) {
  const recipe = useRecipe({ key: 'dlField' })
  return <chakra.select css={recipe()} {...props} />
}

/** A field of several lines. */
export function TextArea(props: HTMLChakraProps<'textarea'>) {
  return (
    <chakra.textarea
      rows={3}
      w="full"
      p="2"
      bg="raised"
      borderWidth="1px"
      borderColor="hairline"
      borderRadius="sm"
      {...props}
    />
  )
}

/** A labelled whole or decimal number. */
export function NumberField({
  label,
  value,
  onChange,
  ...rest
}: { label: string; value: number; onChange: (value: number) => void } & Omit<
  HTMLChakraProps<'input'>,
  'value' | 'onChange'
>) {
  return (
    <Labelled label={label}>
      {(id) => (
        <TextField
          id={id}
          type="number"
          min={0}
          w="84px"
          value={value}
          onChange={(e) => onChange(Number(e.target.value))}
          {...rest}
        />
      )}
    </Labelled>
  )
}
