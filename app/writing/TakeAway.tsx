import { Flex } from '@chakra-ui/react'
import { useRef, useState, type ComponentProps } from 'react'
import type { Account, Post } from '../../core/model'
import { download, takeAway } from '../data'
import { attempt, Button, count, fileName, Mono, say } from '../ui'

/** A button that packs posts with their pictures for use elsewhere; it shows how far it is and can be cancelled. */
export function TakeAway({
  posts,
  accounts,
  name,
  children,
  ...rest
}: {
  posts: readonly Post[]
  accounts: readonly Account[]
  /** What the file is called, without its ending. */
  name: string
} & ComponentProps<typeof Button>) {
  const [far, setFar] = useState<{ done: number; all: number; ofClip: number | undefined } | null>(null)
  const stop = useRef<AbortController | null>(null)
  const pack = (): void =>
    void attempt(async () => {
      stop.current = new AbortController()
      try {
        const told = (done: number, all: number, ofClip?: number): void => setFar({ done, all, ofClip })
        const zip = await takeAway(posts, accounts, told, stop.current.signal)
        download(zip, `${fileName(name)}.zip`)
        say(`${count(posts.length, 'post')} packed.`)
      } finally {
        setFar(null)
      }
    })
  if (far)
    return (
      <Flex align="center" gap="2" role="status">
        <Mono>
          {far.done} of {far.all} packed
          {far.ofClip === undefined ? '' : `, a clip made to ${Math.round(far.ofClip * 100)} %`}
        </Mono>
        <Button size="sm" look="quiet" onClick={() => stop.current?.abort()}>
          Cancel
        </Button>
      </Flex>
    )
  return (
    <Button
      {...rest}
      disabled={posts.length === 0}
      title="Captions as text and CSV, pictures in each network’s shape, alternative texts and credits"
      onClick={pack}
    >
      {children}
    </Button>
  )
}
