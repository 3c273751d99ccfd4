import { Box, chakra, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import useSWR from 'swr'
import type { Account, Hold } from '../../core/model'
import { network } from '../../core/networks'
import { end, goOn, hold, lift, plannedOf, setAsideBy, type Endable, type Planned } from '../data'
import { attempt, Button, count, Notice, say } from '../ui'
import { Popover } from './Popover'

interface Props {
  what: Endable
  held: Hold | null
  endedAt: string | null
  /** Accounts to which the posts of one that ends can move. */
  others?: readonly Account[]
  align?: 'left' | 'right'
}

/** Holds something, lets it go on, or ends it, and asks what becomes of what was planned. */
export function Holding({ what, held, endedAt, others = [], align = 'right' }: Props) {
  if (endedAt)
    return (
      <Popover plain label={`Let ${what.name} go on`} face="Go on …" align={align}>
        {(close) => <GoOn what={what} onDone={close} />}
      </Popover>
    )
  return (
    <Flex gap="2">
      {held ? (
        <Popover plain label={`Lift the hold on ${what.name}`} face="Lift …" align={align}>
          {(close) => <Lift what={what} onDone={close} />}
        </Popover>
      ) : (
        <Button onClick={() => void attempt(() => hold(what))}>Hold</Button>
      )}
      <Popover plain label={`End ${what.name}`} face="End …" align={align}>
        {(close) => <End what={what} others={others} onDone={close} />}
      </Popover>
    </Flex>
  )
}

function Lift({ what, onDone }: { what: Endable; onDone: () => void }) {
  const go = (passedBy: 'place anew' | 'set aside'): void =>
    void attempt(async () => {
      const passed = await lift(what, passedBy)
      say(
        passed === 0
          ? 'The hold is lifted; no post had missed its time.'
          : `The hold is lifted; ${count(passed, 'post')} that missed its time ${passedBy === 'place anew' ? 'found another' : 'was set aside'}.`,
      )
      onDone()
    })
  return (
    <Box w="280px" fontSize="13px">
      <Box mb="2">What is still to come keeps its place. What missed its time meanwhile is</Box>
      <Flex gap="2">
        <Button look="water" onClick={() => go('place anew')}>
          placed anew
        </Button>
        <Button onClick={() => go('set aside')}>set aside</Button>
      </Flex>
    </Box>
  )
}

const LEAVE: Readonly<Record<Endable['table'], boolean>> = {
  brands: false,
  accounts: false,
  pipelines: true,
  drips: false,
  recurrences: true,
}

function End({ what, others, onDone }: { what: Endable; others: readonly Account[]; onDone: () => void }) {
  const [choice, setChoice] = useState('set aside')
  const planned = useSWR(['planned', what.table, what.id], () => plannedOf(what)).data
  const choices = [
    { value: 'set aside', words: 'set aside' },
    ...(LEAVE[what.table] ? [{ value: 'leave', words: 'still goes out; nothing new is made' }] : []),
    ...others.map((a) => ({
      value: a.id,
      words: `worded and placed anew for @${a.handle} on ${network(a.network).name}`,
    })),
  ]
  const asked: Planned =
    choice === 'set aside' || choice === 'leave' ? { kind: choice } : { kind: 'move', account: choice }
  return (
    <Box w="300px" fontSize="13px" role="group" aria-label={`End ${what.name}`}>
      <Box mb="1">
        {planned?.length
          ? `${count(planned.length, 'post')} ${planned.length === 1 ? 'is' : 'are'} still to go out. What is planned is`
          : 'Nothing of it is still to go out.'}
      </Box>
      {planned !== undefined &&
        planned.length > 0 &&
        choices.map((c) => (
          <chakra.label key={c.value} display="flex" gap="2" py="1" cursor="pointer" alignItems="baseline">
            <input
              type="radio"
              name={`end-${what.id}`}
              checked={choice === c.value}
              onChange={() => setChoice(c.value)}
            />
            {c.words}
          </chakra.label>
        ))}
      <Flex justify="flex-end" mt="2">
        <Button
          look="clay"
          disabled={planned === undefined}
          onClick={() =>
            void attempt(async () => {
              await end(what, asked)
              say(`Ended ${what.name}. Ctrl+Z takes it back.`)
              onDone()
            })
          }
        >
          End it
        </Button>
      </Flex>
    </Box>
  )
}

function GoOn({ what, onDone }: { what: Endable; onDone: () => void }) {
  const aside = useSWR(['set aside by', what.id], () => setAsideBy(what)).data
  const go = (planned: 'place anew' | 'leave aside'): void =>
    void attempt(async () => {
      const placed = await goOn(what, planned)
      say(placed ? `It goes on; ${count(placed, 'post')} placed anew, for review.` : 'It goes on.')
      onDone()
    })
  return (
    <Box w="280px" fontSize="13px">
      {aside?.length ? (
        <>
          <Box mb="2">
            {count(aside.length, 'post')} {aside.length === 1 ? 'was' : 'were'} set aside when it ended. They
            are
          </Box>
          <Flex gap="2">
            <Button look="water" onClick={() => go('place anew')}>
              placed anew
            </Button>
            <Button onClick={() => go('leave aside')}>left aside</Button>
          </Flex>
        </>
      ) : (
        <Button look="water" disabled={aside === undefined} onClick={() => go('leave aside')}>
          Let it go on
        </Button>
      )}
    </Box>
  )
}

/** Says that something has ended, where one may think it still works. */
export function EndedNotice({ name, endedAt }: { name: string; endedAt: string | null }) {
  return endedAt ? (
    <Notice tone="amber">{`${name} ended on ${endedAt.slice(0, 10)}. Nothing new is made of it.`}</Notice>
  ) : null
}
