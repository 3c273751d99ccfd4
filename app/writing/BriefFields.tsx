import { Box, chakra, Flex } from '@chakra-ui/react'
import { ANGLES, Brief, READERS, type Angle, type Brand, type Leaning } from '../../core/model'
import { briefOf, houseOf } from '../../core/house'
import { network } from '../../core/networks'
import { USUAL_PICTURE } from '../../core/pictures'
import { Button, count, Labelled, longDay, NumberField, say, SelectField, TextArea, useTyped } from '../ui'
import { VoiceFields } from './VoiceFields'

/** The fields of one network's brief; null is kept where it goes by what stands behind it. */
export function BriefFields({
  brand,
  id,
  own,
  given,
  onSave,
}: {
  brand: Pick<Brand, 'name' | 'houseStyle' | 'briefs' | 'learned'>
  id: string
  /** The brief that is edited; undefined where there is none yet. */
  own: Brief | undefined
  /** What the button says that gives the own brief up. */
  given: string
  onSave: (brief: Brief | null) => void
}) {
  const profile = network(id)
  const brief = own ?? Brief.parse({ network: id })
  const whole = briefOf(profile, houseOf({ ...brand, briefs: own ? [own] : [] }))
  const save = (change: Partial<Brief>): void => {
    const parsed = Brief.safeParse({ ...brief, ...change })
    if (!parsed.success) {
      say(`Not kept: ${parsed.error.issues[0]?.message ?? 'it has the wrong shape'}.`)
      return
    }
    onSave(parsed.data)
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
        <Length length={whole.length} onKeep={(length) => save({ length })} />
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
          options={READERS}
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
      <Learned
        leanings={(brand.learned?.leanings ?? []).filter((l) => l.network === id)}
        on={brief.leans !== false}
        onTurn={(leans) => save({ leans })}
      />
      <Ordered key={id} picture={brief.picture ?? ''} onKeep={(picture) => save({ picture })} />
      {own && (
        <Box>
          <Button size="sm" onClick={() => onSave(null)}>
            {given}
          </Button>
        </Box>
      )}
    </Box>
  )
}

/** What the results say of captions here, and whether the writer leans to it. */
function Learned({
  leanings,
  on,
  onTurn,
}: {
  leanings: readonly Leaning[]
  on: boolean
  onTurn: (on: boolean) => void
}) {
  if (leanings.length === 0) return null
  return (
    <Box role="group" aria-label="Learned from the results" fontSize="13px">
      <chakra.label display="flex" gap="2" alignItems="center" cursor="pointer">
        <input type="checkbox" checked={on} onChange={(e) => onTurn(e.target.checked)} />
        Captions lean to what earned more here, and away from what earned less
      </chakra.label>
      <Box as="ul" mt="1" pl="6" color={on ? undefined : 'soft'}>
        {leanings.map((leaning) => (
          <Box as="li" key={JSON.stringify(leaning.of)} listStyleType="'– '">
            {leaningWords(leaning)}
          </Box>
        ))}
      </Box>
      <Box mt="1" color="soft">
        All else alike, by how many saw the posts within three days. Others go on coming: a caption is raised
        or lowered by an eighth at most.
      </Box>
    </Box>
  )
}

/** What was learned, as "opening with a question +46 % (23 to 74), in 24 posts, since 24 November". */
function leaningWords({ of, times, posts, since }: Leaning): string {
  const name =
    'angle' in of
      ? `the angle “${of.angle}”`
      : 'opening' in of
        ? `opening with ${of.opening}`
        : of.length === 'usual'
          ? 'the usual length'
          : `${of.length} ones`
  const percent = (n: number): string => `${n < 1 ? '−' : ''}${Math.abs(Math.round((n - 1) * 100))}`
  const sign = times.at > 1 ? '+' : ''
  return `${name} ${sign}${percent(times.at)} % (${percent(times.low)} to ${percent(times.high)}), in ${count(posts, 'post')}, since ${longDay(since)}`
}

/** How pictures look that are made to order; kept when one leaves the field. */
function Ordered({ picture, onKeep }: { picture: string; onKeep: (picture: string) => void }) {
  const [words, setWords] = useTyped(picture)
  return (
    <Labelled label="Pictures that are made to order look like this">
      {(id) => (
        <TextArea
          id={id}
          rows={2}
          maxLength={400}
          placeholder={USUAL_PICTURE}
          value={words}
          onChange={(e) => setWords(e.target.value)}
          onBlur={() => words.trim() !== picture && onKeep(words.trim())}
        />
      )}
    </Labelled>
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
  const [least, setLeast] = useTyped(length.least)
  const [most, setMost] = useTyped(length.most)
  const keep = (): void => {
    if (least !== length.least || most !== length.most) onKeep({ least, most })
  }
  return (
    <Flex gap="2" align="flex-end">
      <NumberField label="Characters, from" value={least} onChange={setLeast} onBlur={keep} />
      <NumberField label="to" value={most} onChange={setMost} onBlur={keep} />
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
