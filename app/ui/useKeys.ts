import { useEffect, useLayoutEffect, useRef } from 'react'

/** Whether a key goes to a field that is being typed in. */
export function isTyping(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement | null
  return target !== null && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))
}

/**
 * Whether a key is meant for what has the focus: Enter and the space bar press buttons, Enter follows links. A button that
 * the page's own keys walk over (`data-post`) leaves both to the page.
 */
function isPressing({ key, target }: KeyboardEvent): boolean {
  if (key !== 'Enter' && key !== ' ') return false
  const pressed = (target as HTMLElement | null)?.closest(
    key === 'Enter' ? 'button, a, summary' : 'button, summary',
  )
  return pressed !== null && pressed !== undefined && !pressed.hasAttribute('data-post')
}

/** Listens for keys while nothing is being typed. The map's keys are `event.key` values; "mod+" stands for Ctrl or Cmd. */
export function useKeys(keys: Readonly<Record<string, (event: KeyboardEvent) => void>>): void {
  const current = useRef(keys)
  useLayoutEffect(() => {
    current.current = keys
  })
  useEffect(() => {
    const listen = (event: KeyboardEvent): void => {
      if (isTyping(event) || isPressing(event) || event.altKey) return
      const name = `${event.ctrlKey || event.metaKey ? 'mod+' : ''}${event.key}`
      const action = current.current[name]
      if (!action) return
      event.preventDefault()
      action(event)
    }
    window.addEventListener('keydown', listen)
    return () => window.removeEventListener('keydown', listen)
  }, [])
}
