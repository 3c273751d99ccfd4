import { Box, Flex } from '@chakra-ui/react'
import { useEffect, useSyncExternalStore } from 'react'
import { asFault } from '../../core/model'
import { Button } from './Button'

interface Message {
  tone: 'moss' | 'plum'
  text: string
  undo: (() => void) | null
}

let current: Message | null = null
const listeners = new Set<() => void>()

function set(message: Message | null): void {
  current = message
  for (const listener of listeners) listener()
}

/** Says that something was done, with the way back where there is one. */
export function say(text: string, undo: (() => void) | null = null): void {
  set({ tone: 'moss', text, undo })
}

/** Runs an action of a person; a fault becomes its sentence. Gives whether it went well. */
export async function attempt(work: () => Promise<unknown>): Promise<boolean> {
  try {
    await work()
    return true
  } catch (error) {
    set({ tone: 'plum', text: asFault(error).message, undo: null })
    return false
  }
}

/** The one place where messages appear; empty while there is none. */
export function Messages() {
  const message = useSyncExternalStore(
    (listener) => {
      listeners.add(listener)
      return () => listeners.delete(listener)
    },
    () => current,
  )
  useEffect(() => {
    if (!message) return undefined
    const timer = setTimeout(() => set(null), message.tone === 'plum' ? 12_000 : 5000)
    return () => clearTimeout(timer)
  }, [message])
  return (
    <Flex
      role="status"
      aria-live="polite"
      flex="1"
      minW="0"
      align="center"
      gap="3"
      fontSize="13px"
      {...(message ? { px: '4', minH: '10', borderLeftWidth: '4px', borderColor: message.tone } : {})}
    >
      {message && (
        <Box flex="1" lineClamp="3" lineHeight="1.3" title={message.text}>
          {message.text}
        </Box>
      )}
      {message?.undo && (
        <Button size="sm" look="quiet" pointerEvents="auto" onClick={message.undo}>
          Undo
        </Button>
      )}
      {message && (
        <Button size="sm" look="quiet" pointerEvents="auto" onClick={() => set(null)}>
          Close
        </Button>
      )}
    </Flex>
  )
}
