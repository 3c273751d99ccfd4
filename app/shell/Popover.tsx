import { Box, chakra, useRecipe } from '@chakra-ui/react'
import { useEffect, useId, useLayoutEffect, useRef, useState, type ReactNode } from 'react'
import { useKeys } from '../ui'

/** So far from the edge of the page a panel stays, in pixels. */
const EDGE = 8

/** A small panel below its face, whole on the page; Esc or a click outside closes it, and focus goes back to the face. */
export function Popover({
  label,
  face,
  children,
  align = 'right',
  hotkey,
  plain = false,
}: {
  label: string
  face: ReactNode
  children: (close: () => void) => ReactNode
  align?: 'left' | 'right'
  /** A key that opens and closes it. */
  hotkey?: string
  /** Whether the face looks like a button of the workshop. */
  plain?: boolean
}) {
  const recipe = useRecipe({ key: 'dlButton' })
  const [open, setOpen] = useState(false)
  const box = useRef<HTMLDivElement>(null)
  const panel = useRef<HTMLDivElement>(null)
  const id = useId()
  const faceId = `${id}-face`
  const close = (): void => {
    setOpen(false)
    document.getElementById(faceId)?.focus()
  }
  useLayoutEffect(() => {
    if (!open || !panel.current) return
    const { left, right } = panel.current.getBoundingClientRect()
    const over = Math.max(0, right - (document.documentElement.clientWidth - EDGE))
    panel.current.style.translate = `${left < EDGE ? EDGE - left : -over}px 0`
  }, [open])
  useKeys(hotkey ? { [hotkey]: () => setOpen(!open) } : {})
  useEffect(() => {
    if (!open) return undefined
    const outside = (event: MouseEvent): void => {
      if (!box.current?.contains(event.target as Node)) setOpen(false)
    }
    const escape = (event: KeyboardEvent): void => {
      if (event.key !== 'Escape') return
      event.stopPropagation()
      setOpen(false)
      document.getElementById(faceId)?.focus()
    }
    document.addEventListener('mousedown', outside)
    document.addEventListener('keydown', escape, true)
    return () => {
      document.removeEventListener('mousedown', outside)
      document.removeEventListener('keydown', escape, true)
    }
  }, [open, faceId])
  return (
    <Box position="relative" ref={box}>
      <chakra.button
        id={faceId}
        type="button"
        aria-label={label}
        aria-expanded={open}
        aria-controls={open ? id : undefined}
        onClick={() => setOpen(!open)}
        {...(plain
          ? { css: recipe({ look: 'plain' } as never) }
          : { px: '2', py: '1', borderRadius: 'md', cursor: 'pointer', _hover: { bg: 'waterTint' } })}
      >
        {face}
      </chakra.button>
      {open && (
        <Box
          id={id}
          ref={panel}
          position="absolute"
          top="100%"
          mt="1"
          zIndex="popover"
          bg="raised"
          borderWidth="1px"
          borderColor="hairline"
          borderRadius="md"
          p="3"
          {...(align === 'right' ? { right: 0 } : { left: 0 })}
        >
          {children(close)}
        </Box>
      )}
    </Box>
  )
}
