import { chakra } from '@chakra-ui/react'
import { useState } from 'react'
import { may, type Account, type Post } from '../../core/model'
import { network } from '../../core/networks'
import {
  copyPost,
  pinPosts,
  placedAnew,
  putAt,
  replaceByNext,
  setAside,
  shifted,
  swapped,
  type Move,
} from '../data'
import { attempt, Button, count, moment, say, SelectField, withDays } from '../ui'
import { Foot } from './Change'
import type { Lifted, Refused } from './useLifting'

/** What is said of a place that is closed, with the next one that is open. */
export function RefusedFoot({
  refused,
  zone,
  onDone,
}: {
  refused: Refused
  zone: string
  onDone: () => void
}) {
  return (
    <Foot
      actions={
        <>
          <Button hint="Esc" onClick={onDone}>
            Put it back
          </Button>
          <Button
            look="water"
            disabled={!refused.next}
            onClick={() =>
              void attempt(async () => {
                const at = refused.next?.at
                if (at) await putAt(refused.post, at)
                onDone()
              })
            }
          >
            Take the next legal place
          </Button>
        </>
      }
    >
      <b>It stays where it was.</b>{' '}
      <chakra.span color="clayText" fontWeight="600">
        Not there: {refused.why}.
      </chakra.span>{' '}
      {refused.next?.at
        ? `Next legal place: ${moment(refused.next.at, zone)}.`
        : 'Nothing later in view is free; page on with ].'}
    </Foot>
  )
}

/** A post on its way, and where it would be put. */
export function MovingFoot({
  lifted,
  zone,
  onPut,
  onDrop,
}: {
  lifted: Lifted
  zone: string
  onPut: () => void
  onDrop: () => void
}) {
  return (
    <Foot
      actions={
        <>
          <Button hint="Esc" onClick={onDrop}>
            Put it back
          </Button>
          <Button look="water" hint="Enter" disabled={lifted.near === null} onClick={onPut}>
            Put it here
          </Button>
        </>
      }
    >
      <b>Moving</b> {lifted.post.wording.text.slice(0, 60)}… {placeWords(lifted, zone)}
    </Foot>
  )
}

function placeWords(lifted: Lifted, zone: string): string {
  const place = lifted.near === null ? null : lifted.places[lifted.near]
  if (!place) return '– choose a place with the arrows, or drag it.'
  if (place.at) return `to ${moment(place.at, zone)}${place.against ? `, though ${place.against}` : ''}.`
  return withDays(`– not there: ${place.date} ${place.against ?? 'is closed'}.`)
}

/** What can be done with what is chosen or selected. */
export function ChosenFoot({
  picked,
  selecting,
  accounts,
  onPropose,
  onShift,
  onLift,
  onChoose,
  onDone,
}: {
  picked: readonly Post[]
  /** Whether several were selected, in place of one chosen. */
  selecting: boolean
  accounts: readonly Account[]
  onPropose: (label: string, made: () => Promise<Move[]>, pin?: boolean) => void
  onShift: (days: number) => void
  onLift: (id: string) => void
  /** Looks at another post. */
  onChoose: (id: string) => void
  /** Nothing is selected any more. */
  onDone: () => void
}) {
  const [busy, setBusy] = useState(false)
  const [first, second] = picked
  const ids = picked.map((p) => p.id)
  const pinned = picked.every((p) => p.pinned)
  const one = picked.length === 1 ? first : undefined
  const open = one && may(one, 'set aside')
  const doing = (work: () => Promise<void>): void =>
    void attempt(async () => {
      setBusy(true)
      try {
        await work()
      } finally {
        setBusy(false)
      }
    })
  return (
    <Foot
      actions={
        <>
          {[-1, 1, 7].map((days) => (
            <Button key={days} size="sm" onClick={() => onShift(days)}>
              {days === -1 ? 'A day earlier' : days === 1 ? 'A day later' : 'A week later'}
            </Button>
          ))}
          {one && (
            <Button size="sm" hint="m" onClick={() => onLift(one.id)}>
              Move
            </Button>
          )}
          {picked.length === 2 && first && second && (
            <Button
              size="sm"
              onClick={() => onPropose('Change places', () => swapped(first.id, second.id), true)}
            >
              Change places
            </Button>
          )}
          <Button size="sm" onClick={() => void attempt(() => pinPosts(ids, !pinned))}>
            {pinned ? 'Unpin' : 'Pin'}
          </Button>
          <Button size="sm" onClick={() => onPropose('Placed anew', () => placedAnew(ids))}>
            Place anew
          </Button>
          {one && (
            <SelectField
              aria-label="Copy to"
              h="7"
              w="112px"
              fontSize="13px"
              disabled={busy}
              value=""
              onChange={(e) => {
                const to = accounts.find((a) => a.id === e.target.value)
                if (to)
                  doing(async () => {
                    const copy = await copyPost(one.id, to.id)
                    say(
                      copy.at
                        ? `Worded for @${to.handle}, at ${moment(copy.at, to.zone)}.`
                        : `Worded for @${to.handle}; it has no place yet.`,
                    )
                    onChoose(copy.id)
                  })
              }}
            >
              <option value="">Copy to …</option>
              {accounts.map((a) => (
                <option key={a.id} value={a.id}>
                  @{a.handle}, {network(a.network).name}
                  {a.id === one.account ? ' (once more)' : ''}
                </option>
              ))}
            </SelectField>
          )}
          {open && one.pipeline && (
            <Button
              size="sm"
              disabled={busy}
              title="Sets it aside and puts a post of the next piece that its pipeline lets through in its place"
              onClick={() =>
                doing(async () => {
                  const post = await replaceByNext(one.id)
                  say('The next piece of its pipeline stands there now; the post before it was set aside.')
                  onChoose(post.id)
                })
              }
            >
              Next piece
            </Button>
          )}
          {selecting && (
            <Button
              size="sm"
              onClick={() =>
                void attempt(async () => {
                  await setAside(ids)
                  onDone()
                })
              }
            >
              Set aside
            </Button>
          )}
        </>
      }
    >
      <b>{one ? 'One post' : count(picked.length, 'post')}</b>
      {one
        ? `: ${withDays(one.reasons.map((r) => r.message).join(' ')) || 'no reason was kept.'}`
        : ' selected.'}
    </Foot>
  )
}

/** Some posts so many days later or earlier, as a difference to look at first. */
export function shiftOf(
  ids: readonly string[],
  days: number,
): { label: string; made: () => Promise<Move[]> } {
  return {
    label: days > 0 ? `${count(days, 'day')} later` : `${count(-days, 'day')} earlier`,
    made: () => shifted(ids, days),
  }
}
