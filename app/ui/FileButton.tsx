import { useRef, type ComponentProps } from 'react'
import { Button } from './Button'

/** A button that lets a file be chosen; the same file may be chosen again. */
export function FileButton({
  accept,
  label,
  onFile,
  ...rest
}: {
  accept: string
  /** What the file is, for who does not see the button. */
  label: string
  onFile: (file: File) => void
} & Omit<ComponentProps<typeof Button>, 'onClick'>) {
  const input = useRef<HTMLInputElement>(null)
  return (
    <>
      <Button {...rest} onClick={() => input.current?.click()} />
      <input
        ref={input}
        type="file"
        accept={accept}
        aria-label={label}
        hidden
        onChange={(event) => {
          const [chosen] = event.target.files ?? []
          event.target.value = ''
          if (chosen) onFile(chosen)
        }}
      />
    </>
  )
}
