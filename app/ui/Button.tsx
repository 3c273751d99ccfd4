import { chakra, useRecipe, type HTMLChakraProps } from '@chakra-ui/react'
import type { ReactNode } from 'react'

type Props = Omit<HTMLChakraProps<'button'>, 'size'> & {
  look?: 'plain' | 'water' | 'quiet' | 'clay'
  size?: 'sm' | 'md'
  /** The key that does the same, shown beside the words. */
  hint?: string
  children: ReactNode
}

/** A button of the workshop: plain, water for the one main action, quiet, or clay for what needs care. */
export function Button({ look = 'plain', size = 'md', hint, children, ...rest }: Props) {
  const recipe = useRecipe({ key: 'dlButton' })
  return (
    <chakra.button type="button" css={recipe({ look, size } as never)} {...rest}>
      {children}
      {hint && (
        <chakra.kbd color="inherit" bg="transparent">
          {hint}
        </chakra.kbd>
      )}
    </chakra.button>
  )
}
