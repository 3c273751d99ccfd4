import { Box, chakra, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { useNavigate, useSearchParams } from 'react-router'
import { briefOf, houseOf } from '../../core/house'
import { ANGLES, Brief, type Angle, type Brand } from '../../core/model'
import { network, NETWORKS } from '../../core/networks'
import { saveBrand, useAccounts } from '../data'
import { useWork } from '../shell'
import { attempt, Button, Labelled, NumberField, Page, PageHead, say, SelectField } from '../ui'
import { Example, PieceChoice, usePieces } from './Example'
import { VoiceFields } from './VoiceFields'

/** The brief of each network, and two of them side by side on the same piece. */
export function Briefs() {
  const { brand } = useWork()
  const navigate = useNavigate()
  const [params, setParams] = useSearchParams()
  const accounts = useAccounts(brand.id) ?? []
  const pieces = usePieces(brand.id)
  const [chosen, setChosen] = useState<string | null>(null)
  const piece = pieces.find((p) => p.id === chosen) ?? pieces[0]
  const used = [...new Set(accounts.map((a) => a.network))]
  const left = params.get('network') ?? used[0] ?? 'murmur'
  const right = params.get('beside')
  const show = (change: Record<string, string | null>): void => {
    const next = new URLSearchParams(params)
    for (const [key, value] of Object.entries(change)) {
      if (value) next.set(key, value)
      else next.delete(key)
    }
    setParams(next, { replace: true })
  }
  return (
    <Page>
      <PageHead
        title="Briefs"
        note="How captions are written for each network. What is not said here is as the network proposes and the house style says."
      >
        <Button onClick={() => void navigate('/writing/house')}>House style</Button>
        {right ? (
          <Button onClick={() => show({ beside: null })}>One brief</Button>
        ) : (
          <Button onClick={() => show({ beside: used.find((n) => n !== left) ?? 'guildhall' })}>
            Two side by side
          </Button>
        )}
      </PageHead>
      <Box px="6" pb="8">
        {piece && (
          <Flex gap="3" align="center" mb="4" maxW="620px">
            <Box fontSize="13px" color="soft" whiteSpace="nowrap">
              Live example on
            </Box>
            <PieceChoice pieces={pieces} value={piece.id} onChange={setChosen} />
          </Flex>
        )}
        <Flex gap="8" align="flex-start">
          {[left, ...(right ? [right] : [])].map((id, i) => (
            <Box key={i} flex="1" minW="0">
              <Flex gap="8" align="flex-start" direction={right ? 'column' : 'row'}>
                <Box w={right ? 'full' : '460px'} flexShrink={0}>
                  <SelectField
                    aria-label={i ? 'The other network' : 'Network'}
                    fontWeight="600"
                    mb="4"
                    value={id}
                    onChange={(e) => show({ [i ? 'beside' : 'network']: e.target.value })}
                  >
                    {NETWORKS.map((n) => (
                      <option key={n.id} value={n.id}>
                        {n.name}
                        {used.includes(n.id) ? '' : ' (no account yet)'}
                      </option>
                    ))}
                  </SelectField>
                  <BriefForm key={id} brand={brand} id={id} />
                </Box>
                {piece && (
                  <Box flex="1" minW="0" w="full">
                    <Example brand={brand} piece={piece.id} networks={[id]} />
                  </Box>
                )}
              </Flex>
            </Box>
          ))}
        </Flex>
      </Box>
    </Page>
  )
}

function BriefForm({ brand, id }: { brand: Brand; id: string }) {
  const profile = network(id)
  const own = brand.briefs.find((b) => b.network === id)
  const brief = own ?? Brief.parse({ network: id })
  const whole = briefOf(profile, houseOf(brand))
  const save = (change: Partial<Brief>): void => {
    const parsed = Brief.safeParse({ ...brief, ...change })
    if (!parsed.success) {
      say(`Not kept: ${parsed.error.issues[0]?.message ?? 'it has the wrong shape'}.`)
      return
    }
    const briefs = [...brand.briefs.filter((b) => b.network !== id), parsed.data]
    void attempt(() => saveBrand({ ...brand, briefs }))
  }
  const angles = brief.angles.length ? brief.angles : ANGLES
  const toggle = (angle: Angle): void => {
    const next = angles.includes(angle) ? angles.filter((a) => a !== angle) : [...angles, angle]
    if (next.length === 0) say('At least one angle is needed.')
    else save({ angles: next.length === ANGLES.length ? [] : ANGLES.filter((a) => next.includes(a)) })
  }
  return (
    <Box display="flex" flexDirection="column" gap="4">
      <chakra.label display="flex" gap="2" fontSize="13px" alignItems="center">
        <input
          type="checkbox"
          checked={brief.voice !== null}
          onChange={(e) => save({ voice: e.target.checked ? brand.houseStyle.voice : null })}
        />
        A voice of its own here
      </chakra.label>
      {brief.voice && <VoiceFields voice={brief.voice} onChange={(voice) => save({ voice })} />}
      <Flex gap="4" wrap="wrap" align="flex-end">
        <Length
          key={`${whole.length.least} ${whole.length.most}`}
          length={whole.length}
          onKeep={(length) => save({ length })}
        />
        <NumberField
          label={`Hashtags, at most ${profile.hashtags.most}`}
          max={profile.hashtags.most}
          value={whole.hashtags}
          onChange={(hashtags) => save({ hashtags: Math.min(hashtags, profile.hashtags.most) })}
        />
      </Flex>
      <Flex gap="4" wrap="wrap">
        <Choice
          label="Written for"
          value={brief.reader}
          options={['anyone', 'somebody who tries', 'the trade']}
          onChange={(reader) => save({ reader })}
        />
        <Choice
          label="The link stands"
          value={brief.link ?? ''}
          options={['', 'text', 'first comment', 'profile', 'none']}
          names={{
            '': `as ${profile.name} likes it`,
            text: 'in the text',
            'first comment': 'in the first comment',
            profile: 'in the profile',
            none: 'nowhere',
          }}
          onChange={(link) => save({ link: link === '' ? null : link })}
        />
        <Choice
          label="Hashtags stand"
          value={brief.hashtagsIn}
          options={['text', 'first comment']}
          names={{ text: 'at the end of the text', 'first comment': 'in the first comment' }}
          onChange={(hashtagsIn) => save({ hashtagsIn })}
        />
        <Choice
          label="It closes with"
          value={brief.closing ?? ''}
          options={['', 'a line of the house', 'none']}
          names={{ '': `what suits ${profile.name}`, none: 'nothing' }}
          onChange={(closing) => save({ closing: closing === '' ? null : closing })}
        />
        <Choice
          label="Emoji"
          value={brief.emoji}
          options={['none', 'where it helps']}
          onChange={(emoji) => save({ emoji })}
        />
      </Flex>
      <Box role="group" aria-label="Angles">
        <Box fontSize="xs" color="soft" mb="1">
          Angles
        </Box>
        <Flex gap="1.5" wrap="wrap">
          {ANGLES.map((angle) => {
            const on = angles.includes(angle)
            return (
              <chakra.button
                key={angle}
                type="button"
                aria-pressed={on}
                onClick={() => toggle(angle)}
                px="2"
                h="7"
                fontSize="13px"
                borderRadius="sm"
                borderWidth="1px"
                borderColor={on ? 'water' : 'hairline'}
                bg={on ? 'waterTint' : undefined}
                color={on ? 'waterText' : 'soft'}
                cursor="pointer"
              >
                {on ? '✓ ' : ''}
                {angle}
              </chakra.button>
            )
          })}
        </Flex>
      </Box>
      {own && (
        <Box>
          <Button
            size="sm"
            onClick={() =>
              void attempt(() =>
                saveBrand({ ...brand, briefs: brand.briefs.filter((b) => b.network !== id) }),
              )
            }
          >
            As {profile.name} proposes
          </Button>
        </Box>
      )}
    </Box>
  )
}

/** The band of lengths; kept when one leaves a field, so that a half-typed number breaks nothing. */
function Length({
  length,
  onKeep,
}: {
  length: { least: number; most: number }
  onKeep: (length: { least: number; most: number }) => void
}) {
  const [draft, setDraft] = useState(length)
  const keep = (): void => {
    if (draft.least !== length.least || draft.most !== length.most) onKeep(draft)
  }
  return (
    <Flex gap="2" align="flex-end">
      <NumberField
        label="Characters, from"
        value={draft.least}
        onChange={(least) => setDraft({ ...draft, least })}
        onBlur={keep}
      />
      <NumberField
        label="to"
        value={draft.most}
        onChange={(most) => setDraft({ ...draft, most })}
        onBlur={keep}
      />
    </Flex>
  )
}

function Choice<T extends string>({
  label,
  value,
  options,
  names = {},
  onChange,
}: {
  label: string
  value: T
  options: readonly T[]
  names?: Partial<Record<T, string>>
  onChange: (value: T) => void
}) {
  return (
    <Labelled label={label}>
      {(id) => (
        <SelectField id={id} value={value} onChange={(e) => onChange(e.target.value as T)}>
          {options.map((o) => (
            <option key={o} value={o}>
              {names[o] ?? o}
            </option>
          ))}
        </SelectField>
      )}
    </Labelled>
  )
}
