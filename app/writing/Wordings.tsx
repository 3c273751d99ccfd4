import { Box, chakra, Flex, Heading } from '@chakra-ui/react'
import { useEffect, useRef, useState } from 'react'
import useSWR from 'swr'
import { WAYS, type Way } from '../../core/drips'
import type { Angle, Post, Wording } from '../../core/model'
import { measure, network } from '../../core/networks'
import {
  anglesFor,
  anotherWording,
  connectedWording,
  otherWordings,
  takeWording,
  useWriter,
  type Option,
} from '../data'
import { attempt, Button, Mono, SelectField } from '../ui'

/** What is asked of the connected writer. */
const CONNECTED = 'by the connected writer'

/** The other wordings of a post: those there are, to go back to, and new ones in a way that is asked for. */
export function Wordings({ post }: { post: Post }) {
  const profile = network(post.network)
  const [asked, setAsked] = useState<{ way: string; options: Option[]; of: string } | null>(null)
  const [busy, setBusy] = useState(false)
  const [open, setOpen] = useState<string | null>(null)
  const ways = WAYS.filter(
    (w) =>
      w !== 'another angle' && (w !== 'as a thread' || profile.thread) && (w !== 'as a poll' || profile.poll),
  )
  // Only what the piece has material for is offered.
  const angles =
    useSWR(post.piece && ['angles', post.piece], () => anglesFor(post.piece as string)).data ?? []
  const connected = useWriter()?.settings !== null
  const show = (way: string, made: () => Promise<Option[]>): void =>
    void (async () => {
      setBusy(true)
      setAsked(null)
      await attempt(async () => setAsked({ way, options: await made(), of: post.wording.text }))
      setBusy(false)
    })()
  const ask = (way: Way, to?: Angle): void => show(to ?? way, () => otherWordings(post.id, way, to))
  const fresh = asked?.of === post.wording.text ? asked.options : []
  const list = useRef<HTMLDivElement>(null)
  useEffect(() => {
    if (asked) list.current?.scrollIntoView({ block: 'nearest' })
  }, [asked])
  return (
    <>
      <Heading as="h3" fontSize="14px" fontWeight="600" mt="4" mb="1.5">
        Other wordings
      </Heading>
      <Flex gap="2" mb="2" align="center">
        <SelectField
          aria-label="Say it otherwise"
          value=""
          disabled={busy}
          onChange={(e) =>
            e.target.value === CONNECTED
              ? show(CONNECTED, () => connectedWording(post.id))
              : ask(e.target.value as Way)
          }
        >
          <option value="" disabled>
            {busy ? 'Writing …' : 'Say it …'}
          </option>
          {ways.map((way) => (
            <option key={way} value={way}>
              {way === 'another'
                ? 'in other words'
                : way === 'another passage'
                  ? 'from another passage'
                  : way}
            </option>
          ))}
          {connected && <option value={CONNECTED}>{CONNECTED}</option>}
        </SelectField>
        <SelectField
          aria-label="In another angle"
          value=""
          disabled={busy}
          onChange={(e) => ask('another angle', e.target.value as Angle)}
        >
          <option value="" disabled>
            As a …
          </option>
          {angles
            .filter((a) => a !== post.wording.angle)
            .map((angle) => (
              <option key={angle}>{angle}</option>
            ))}
        </SelectField>
      </Flex>
      {fresh.length > 0 && (
        <Box ref={list} mb="3" role="group" aria-label={`Wordings: ${asked?.way ?? ''}`}>
          {fresh.map((option, i) => (
            <Choice
              key={option.wording.text}
              wording={option.wording}
              network={post.network}
              open={open === `new ${i}` || (i === 0 && open === null)}
              fresh
              onOpen={() => setOpen(`new ${i}`)}
              onTake={() =>
                void attempt(() => takeWording(post.id, option)).then((taken) => taken && setAsked(null))
              }
            />
          ))}
        </Box>
      )}
      {post.others.length === 0 && fresh.length === 0 && (
        <Box color="soft" fontSize="13px">
          No other wording is kept yet. Ask for one above.
        </Box>
      )}
      {post.others.map((other, index) => (
        <Choice
          key={`${index} ${other.text.slice(0, 30)}`}
          wording={other}
          network={post.network}
          open={open === `old ${index}`}
          onOpen={() => setOpen(open === `old ${index}` ? null : `old ${index}`)}
          onTake={() => void attempt(() => anotherWording(post.id, index)).then(() => setOpen(null))}
        />
      ))}
    </>
  )
}

/** One wording: two lines of it, or, opened, all of it beside the present one above, and a button to take it. */
function Choice({
  wording,
  network: id,
  open,
  fresh = false,
  onOpen,
  onTake,
}: {
  wording: Wording
  network: string
  open: boolean
  fresh?: boolean
  onOpen: () => void
  onTake: () => void
}) {
  const whole = [wording.text, ...wording.parts].join('\n\n')
  return (
    <Box borderLeftWidth={fresh ? '3px' : '0'} borderColor="water" pl={fresh ? '2' : '0'} mb="1">
      <chakra.button
        type="button"
        aria-expanded={open}
        display="block"
        w="full"
        textAlign="left"
        py="1.5"
        px="2"
        mx={fresh ? '0' : '-2'}
        borderRadius="sm"
        cursor="pointer"
        _hover={{ bg: 'waterTint' }}
        onClick={onOpen}
      >
        <Mono>
          {wording.angle} · {measure(wording.text, network(id).text)}
          {wording.by === 'connected' ? ' · connected writer' : ''}
          {wording.parts.length ? ` · thread of ${wording.parts.length + 1}` : ''}
          {wording.poll.length ? ` · poll: ${wording.poll.join(' / ')}` : ''}
        </Mono>
        <Box
          fontFamily="reading"
          fontSize="14px"
          whiteSpace={open ? 'pre-wrap' : undefined}
          lineClamp={open ? undefined : 2}
        >
          {open ? whole : wording.text}
        </Box>
      </chakra.button>
      {open && (
        <Flex justify="flex-end" mb="1">
          <Button size="sm" look="water" onClick={onTake}>
            Take it
          </Button>
        </Flex>
      )}
    </Box>
  )
}
