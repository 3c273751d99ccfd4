import { Box, chakra, Flex } from '@chakra-ui/react'
import { useEffect, useRef, useState } from 'react'
import { Link } from 'react-router'
import {
  linkShown,
  may,
  openFlagsOf,
  waitsForReview,
  type Account,
  type Check,
  type Post,
} from '../../core/model'
import { approve, approveAsItIs, decideLate, sayItIsOut, setAside, tryAgain, useMedia } from '../data'
import { attempt, Button, count, moment, Mono, NetworkMark, postPath, say, TextField } from '../ui'

/** So many posts are listed at once; more come as these are done. */
const SHOWN = 12

/** Some posts that wait for a person, each with what can be done: read, approved, tried again, set aside, without leaving. */
export function PostsHere({ posts, accounts }: { posts: readonly Post[]; accounts: readonly Account[] }) {
  const list = useRef<HTMLDivElement>(null)
  const shown = [...posts].sort((a, b) => ((a.at ?? '9') < (b.at ?? '9') ? -1 : 1)).slice(0, SHOWN)
  useEffect(() => list.current?.querySelector<HTMLElement>('[data-here]')?.focus(), [])
  const plain = posts.filter((p) => waitsForReview(p) && may(p, 'approve'))
  /** Moves to the post beside; after one is done its place is taken by the next. */
  const goTo = (index: number): void => {
    const rows = list.current?.querySelectorAll<HTMLElement>('[data-here]')
    rows?.[Math.max(0, Math.min(index, rows.length - 1))]?.focus()
  }
  /** Where the next one is to be found once the list has changed; null while nothing was done. */
  const next = useRef<number | null>(null)
  const ids = shown.map((p) => p.id).join(' ')
  useEffect(() => {
    if (next.current !== null) goTo(next.current)
    next.current = null
  }, [ids])
  const done = (index: number, work: () => Promise<void>): void => {
    next.current = index
    void attempt(work).then((went) => {
      if (!went) next.current = null
    })
  }
  return (
    <Box ref={list} pl="5" pb="3" role="list" aria-label="Posts that wait">
      {shown.map((post, index) => (
        <One
          key={post.id}
          post={post}
          account={accounts.find((a) => a.id === post.account)}
          first={index === 0}
          onMove={(by) => goTo(index + by)}
          onDone={(work) => done(index, work)}
        />
      ))}
      <Flex gap="2" mt="2" align="center">
        {plain.length > 1 && (
          <Button
            size="sm"
            look="water"
            onClick={() =>
              void attempt(async () => {
                const { approved, left } = await approve(plain.map((p) => p.id))
                say(
                  `${count(approved, 'caption')} approved.${left.length ? ` ${left.length} left: ${left[0]?.why ?? ''}` : ''}`,
                )
              })
            }
          >
            Approve all {plain.length}
          </Button>
        )}
        {posts.length > shown.length && (
          <Box color="soft" fontSize="13px">
            and {posts.length - shown.length} more
          </Box>
        )}
      </Flex>
    </Box>
  )
}

function One({
  post,
  account,
  first,
  onMove,
  onDone,
}: {
  post: Post
  account: Account | undefined
  first: boolean
  onMove: (by: number) => void
  onDone: (work: () => Promise<void>) => void
}) {
  const byHand = account?.connector === 'hand' && post.held !== null
  const [whole, setWhole] = useState(byHand)
  const words = [post.wording.title, post.wording.text, ...post.wording.parts].filter(Boolean).join('\n\n')
  const block = post.checks.find((c) => c.severity === 'block')
  const flags = openFlagsOf(post)
  const why = post.failure ?? block?.message ?? flags[0]?.message ?? post.held?.reason ?? null
  const yes = waitsForReview(post) && !block
  /** Approves it; what is doubtful is accepted as it is shown. */
  const approveIt = (): void =>
    onDone(async () => {
      const { left } = await approveAsItIs(post.id)
      say(left[0] ? `It is not approved: ${left[0].why}` : 'Approved.')
    })
  const aside = (): void => onDone(async () => void (await setAside([post.id])))
  const keys: Record<string, () => void> = {
    ArrowDown: () => onMove(1),
    ArrowUp: () => onMove(-1),
    Enter: () => setWhole(!whole),
    ...(yes ? { a: approveIt } : {}),
    ...(may(post, 'set aside') ? { x: aside } : {}),
  }
  const actions = (
    <Flex gap="2" flexShrink={0} wrap="wrap" align="center" mt={byHand ? 2 : 0}>
      {yes && (
        <Button size="sm" hint="a" onClick={approveIt} title={acceptWords(flags)}>
          {flags.length ? 'Approve as it is' : 'Approve'}
        </Button>
      )}
      {may(post, 'try again') && (
        <Button size="sm" onClick={() => onDone(() => tryAgain(post.id))}>
          Try again
        </Button>
      )}
      {may(post, 'say it is out') && <ItIsOut post={post} onDone={onDone} />}
      {post.held && post.state === 'approved' && (
        <>
          <Button size="sm" onClick={() => onDone(() => decideLate(post.id, 'place anew'))}>
            Place anew
          </Button>
          {!byHand && (
            <Button size="sm" onClick={() => onDone(() => decideLate(post.id, 'send now'))}>
              Send now
            </Button>
          )}
        </>
      )}
      {may(post, 'set aside') && (
        <Button size="sm" hint="x" look="quiet" onClick={aside}>
          Set aside
        </Button>
      )}
      <Link to={post.failure ? `/dispatch?post=${post.id}` : postPath(post)}>
        <chakra.span
          display="inline-block"
          px="2"
          py="1"
          fontSize="13px"
          color="waterText"
          textDecoration="underline"
        >
          Open
        </chakra.span>
      </Link>
    </Flex>
  )
  return (
    <Flex
      role="listitem"
      data-here
      tabIndex={first ? 0 : -1}
      aria-label={post.wording.text.slice(0, 80)}
      gap="3"
      py="2"
      borderTopWidth="1px"
      borderStyle="dotted"
      borderColor="hairline"
      align="flex-start"
      onKeyDown={(e) => {
        const act = e.target === e.currentTarget ? keys[e.key] : undefined
        if (!act || e.ctrlKey || e.metaKey || e.altKey) return
        e.preventDefault()
        e.stopPropagation()
        act()
      }}
    >
      <NetworkMark id={post.network} />
      <Mono w="124px" flexShrink={0}>
        {post.at ? moment(post.at, account?.zone ?? 'UTC') : 'no place'}
      </Mono>
      <Box flex="1" minW="0">
        <chakra.button
          type="button"
          tabIndex={-1}
          textAlign="left"
          fontFamily="reading"
          whiteSpace="pre-wrap"
          cursor="pointer"
          lineClamp={whole ? undefined : 3}
          onClick={() => setWhole(!whole)}
        >
          {whole ? words : words.replace(/\s+/g, ' ')}
        </chakra.button>
        {byHand && (
          <>
            <ToCopy post={post} words={words} />
            {actions}
          </>
        )}
        {why && !byHand && (
          <Box fontSize="13px" color={post.failure || block ? 'plumText' : 'clayText'}>
            {why}
            {flags.length > 1 ? ` And ${count(flags.length - 1, 'more doubt')}.` : ''}
          </Box>
        )}
      </Box>
      {!byHand && actions}
    </Flex>
  )
}

/** What a person needs to publish a post by hand: its words and its link to copy, its picture to save. */
function ToCopy({ post, words }: { post: Post; words: string }) {
  const picture = useMedia(post.media[0], post.brand, linkShown(post))
  const copy = (text: string): void =>
    void attempt(async () => {
      await navigator.clipboard.writeText(text)
      say('Copied.')
    })
  return (
    <Flex gap="2" my="1" wrap="wrap" align="center">
      <Button size="sm" onClick={() => copy(words)}>
        Copy the words
      </Button>
      {post.wording.firstComment && (
        <Button size="sm" onClick={() => copy(post.wording.firstComment ?? '')}>
          Copy the first comment
        </Button>
      )}
      {post.link && !words.includes(post.link) && (
        <Button size="sm" onClick={() => copy(post.link ?? '')}>
          Copy the link
        </Button>
      )}
      {picture && (
        <a href={picture} download={`picture-${post.id}`} target="_blank" rel="noreferrer">
          <chakra.span fontSize="13px" color="waterText" textDecoration="underline">
            Save the picture
          </chakra.span>
        </a>
      )}
    </Flex>
  )
}

/** A person says that a post is out, and where. */
function ItIsOut({ post, onDone }: { post: Post; onDone: (work: () => Promise<void>) => void }) {
  const [asking, setAsking] = useState(false)
  const [url, setUrl] = useState('')
  if (!asking)
    return (
      <Button size="sm" look="water" onClick={() => setAsking(true)}>
        It is out
      </Button>
    )
  return (
    <chakra.form
      display="flex"
      gap="1"
      onSubmit={(e) => {
        e.preventDefault()
        onDone(() => sayItIsOut(post.id, URL.canParse(url.trim()) ? url.trim() : null))
      }}
    >
      <TextField
        aria-label="Where it stands, if it has an address"
        placeholder="its address, if any"
        w="170px"
        value={url}
        onChange={(e) => setUrl(e.target.value)}
        autoFocus
      />
      <Button size="sm" look="water" type="submit">
        Note it
      </Button>
    </chakra.form>
  )
}

const acceptWords = (flags: readonly Check[]): string | undefined =>
  flags.length ? `Accepts: ${flags.map((f) => f.message).join(' ')}` : undefined
