import { Box, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import type { Account, Brand, Pipeline, Rhythm, Slot } from '../../core/model'
import { network, proposedLimits, SERVED } from '../../core/networks'
import { releasedTo } from '../../core/pipeline'
import { addDays, TRICKLE } from '../../core/planning'
import { thinnedSlots, type Change } from '../../core/rehearsal'
import { SlotGrid } from '../dispatch'
import { Button, count, DateField, Labelled, NumberField, RhythmPicker, SelectField, shortDay } from '../ui'

const KINDS: readonly [Change['kind'], string][] = [
  ['pause', 'a pipeline is paused'],
  ['rhythm', 'a pipeline has another rhythm'],
  ['account', 'a pipeline has one more account'],
  ['slots', 'an account has other slots'],
  ['quiet', 'the brand is quiet for some days'],
]

/** What an unlinked account's id begins with. */
const UNLINKED = 'not linked '

/** One change that is being thought of; it is added when it is said whole. */
export function ChangeForm({
  brand,
  accounts,
  pipelines,
  today,
  onAdd,
}: {
  brand: Brand
  accounts: readonly Account[]
  pipelines: readonly Pipeline[]
  today: string
  onAdd: (change: Change) => void
}) {
  const [kind, setKind] = useState<Change['kind'] | ''>('')
  const [pipelineId, setPipeline] = useState(pipelines[0]?.id ?? '')
  const [accountId, setAccount] = useState(accounts[0]?.id ?? '')
  const [rhythm, setRhythm] = useState<Rhythm>(TRICKLE)
  const [slots, setSlots] = useState<Slot[] | null>(null)
  const [days, setDays] = useState({ from: addDays(today, 14), to: addDays(today, 27) })
  const account = accounts.find((a) => a.id === accountId)
  const pipeline = pipelines.find((p) => p.id === pipelineId)
  const released = new Set((pipeline ? releasedTo(pipeline, accounts) : []).map((a) => a.id))
  const missing = accounts.filter((a) => !released.has(a.id))
  const [added, setAdded] = useState('')
  const drawn = slots ?? account?.slots ?? []
  const change = ((): Change | null => {
    if (kind === 'pause' && pipeline) return { kind, pipeline: pipeline.id }
    if (kind === 'rhythm' && pipeline) return { kind, pipeline: pipeline.id, rhythm }
    if (kind === 'slots' && account && slots) return { kind, account: account.id, slots }
    if (kind === 'quiet' && days.from <= days.to) return { kind, brand: brand.id, days: [days] }
    if (kind === 'account' && pipeline) {
      const chosen = accounts.find((a) => a.id === added) ?? (added ? unlinked(added, brand, today) : null)
      return chosen && { kind, pipeline: pipeline.id, account: chosen }
    }
    return null
  })()
  return (
    <Box>
      <Labelled label="What if …">
        {(id) => (
          <SelectField
            id={id}
            w="full"
            value={kind}
            onChange={(e) => setKind(e.target.value as Change['kind'] | '')}
          >
            <option value="">choose a change</option>
            {KINDS.filter(([k]) => pipelines.length > 0 || !['pause', 'rhythm', 'account'].includes(k)).map(
              ([k, words]) => (
                <option key={k} value={k}>
                  {words}
                </option>
              ),
            )}
          </SelectField>
        )}
      </Labelled>
      <Flex direction="column" gap="3" mt="3" _empty={{ display: 'none' }}>
        {(kind === 'pause' || kind === 'rhythm' || kind === 'account') && (
          <SelectField
            aria-label="Which pipeline"
            w="full"
            value={pipelineId}
            onChange={(e) => setPipeline(e.target.value)}
          >
            {pipelines.map((p) => (
              <option key={p.id} value={p.id}>
                {p.name}
              </option>
            ))}
          </SelectField>
        )}
        {kind === 'rhythm' && <RhythmPicker value={rhythm} onChange={setRhythm} />}
        {kind === 'account' && (
          <SelectField
            aria-label="Which account"
            w="full"
            value={added}
            onChange={(e) => setAdded(e.target.value)}
          >
            <option value="">choose an account</option>
            {missing.map((a) => (
              <option key={a.id} value={a.id}>
                @{a.handle}, {network(a.network).name}
              </option>
            ))}
            {SERVED.map((n) => (
              <option key={n.id} value={n.id}>
                a new one on {n.name}
              </option>
            ))}
          </SelectField>
        )}
        {kind === 'slots' && (
          <>
            <SelectField
              aria-label="Which account"
              w="full"
              value={accountId}
              onChange={(e) => {
                setAccount(e.target.value)
                setSlots(null)
              }}
            >
              {accounts.map((a) => (
                <option key={a.id} value={a.id}>
                  @{a.handle}, {network(a.network).name}
                </option>
              ))}
            </SelectField>
            <NumberField
              label={`Slots a week, of ${account?.slots.length ?? 0}`}
              value={drawn.length}
              min={0}
              max={account?.slots.length ?? 0}
              onChange={(n) => setSlots(thinnedSlots(account?.slots ?? [], Math.max(0, Math.round(n))))}
            />
            <SlotGrid slots={drawn} onChange={setSlots} />
          </>
        )}
        {kind === 'quiet' && (
          <Flex gap="3">
            {(['from', 'to'] as const).map((end) => (
              <Labelled key={end} label={end === 'from' ? 'First day' : 'Last day'}>
                {(id) => (
                  <DateField
                    id={id}
                    value={days[end]}
                    min={today}
                    onDate={(date) => setDays({ ...days, [end]: date })}
                  />
                )}
              </Labelled>
            ))}
          </Flex>
        )}
      </Flex>
      {kind && (
        <Flex justify="flex-end" mt="3">
          <Button
            look="water"
            disabled={!change}
            onClick={() => {
              if (change) onAdd(change)
              setKind('')
              setSlots(null)
            }}
          >
            Try it
          </Button>
        </Flex>
      )}
    </Box>
  )
}

/** An account on a network as it would begin, for trying out before it is linked. */
function unlinked(networkId: string, brand: Brand, today: string): Account {
  const profile = network(networkId)
  return {
    id: `${UNLINKED}${networkId}`,
    brand: brand.id,
    network: networkId,
    connector: 'stand-in',
    remoteId: '',
    target: null,
    handle: `new.on.${profile.name.toLowerCase()}`,
    name: `A new account on ${profile.name}`,
    profileUrl: '',
    groups: [],
    zone: brand.zone,
    ...proposedLimits(profile),
    ...(brand.slots.length ? { slots: brand.slots } : {}),
    quiet: [],
    openedOn: profile.warmUp.length ? today : null,
    warmUp: null,
    health: { state: 'linked', since: `${today}T00:00:00.000Z`, message: '', endsAt: null },
    held: null,
    endedAt: null,
    linkedAt: `${today}T00:00:00.000Z`,
  }
}

/** A change in words. */
export function changeWords(
  change: Change,
  accounts: readonly Account[],
  pipelines: readonly Pipeline[],
): string {
  const pipeline = (id: string): string => pipelines.find((p) => p.id === id)?.name ?? 'A pipeline'
  switch (change.kind) {
    case 'pause':
      return `${pipeline(change.pipeline)} is paused`
    case 'rhythm':
      return `${pipeline(change.pipeline)} drips by ${change.rhythm.name}`
    case 'account':
      return `${pipeline(change.pipeline)} also posts to @${change.account.handle}`
    case 'slots':
      return `@${accounts.find((a) => a.id === change.account)?.handle ?? ''} has ${count(change.slots.length, 'slot')} a week`
    case 'quiet':
      return `Quiet ${change.days
        .map((d) => ('from' in d ? `from ${shortDay(d.from)} to ${shortDay(d.to)}` : 'on a day'))
        .join(', ')}`
  }
}
