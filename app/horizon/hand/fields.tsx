import { Box, chakra, Flex } from '@chakra-ui/react'
import type { Account, HandWords } from '../../../core/model'
import { measure, network } from '../../../core/networks'
import type { When } from '../../../core/pipeline'
import { addDays } from '../../../core/planning'
import { isAddress } from './words'
import { PictureField } from './PictureField'
import { Button, DateField, Labelled, Mono, NetworkMark, SelectField, TextField, TimeField } from '../../ui'

/** What a person writes: the words, a link, a picture, and a title where a chosen network wants one. */
export function WordsFields({
  words,
  accounts,
  onChange,
}: {
  words: HandWords
  /** Those chosen, whose limits are shown. */
  accounts: readonly Account[]
  onChange: (words: HandWords) => void
}) {
  const profiles = [...new Set(accounts.map((a) => a.network))].map(network)
  const edit = (change: Partial<HandWords>): void => onChange({ ...words, ...change })
  return (
    <Flex direction="column" gap="3">
      <Box>
        <chakra.textarea
          aria-label="The words"
          placeholder="What you want to say"
          autoFocus
          value={words.text}
          onChange={(e) => edit({ text: e.target.value })}
          w="full"
          minH="116px"
          p="3"
          fontFamily="reading"
          fontSize="16px"
          lineHeight="1.5"
          bg="raised"
          borderWidth="1px"
          borderColor="hairline"
          borderRadius="md"
          resize="vertical"
        />
        <Flex columnGap="4" wrap="wrap" minH="5" fontSize="12px" aria-label="Length by network">
          {profiles.map((p) => {
            const length = measure(words.text, p.text)
            const over = length > (p.text.limit ?? Infinity)
            return (
              <Mono key={p.id} color={over ? 'plumText' : 'soft'}>
                {p.name} {length}
                {p.text.limit === null ? '' : ` of ${p.text.limit}`}
                {over ? ', too long' : ''}
              </Mono>
            )
          })}
        </Flex>
      </Box>
      {profiles.some((p) => p.title) && (
        <Labelled label="Title, where a network wants one" hint="The first line is taken where it is empty.">
          {(id) => (
            <TextField
              id={id}
              w="full"
              value={words.title ?? ''}
              onChange={(e) => edit({ title: e.target.value || null })}
            />
          )}
        </Labelled>
      )}
      <Labelled
        label="Link"
        hint={
          words.link && !isAddress(words.link)
            ? 'Not a whole web address yet; it is left out until it is.'
            : 'Each network has it where its brief says, with the house’s link tags.'
        }
      >
        {(id) => (
          <TextField
            id={id}
            w="full"
            type="url"
            placeholder="https://"
            aria-invalid={words.link !== null && !isAddress(words.link)}
            _invalid={{ borderColor: 'plum' }}
            value={words.link ?? ''}
            onChange={(e) => edit({ link: e.target.value.trim() || null })}
          />
        )}
      </Labelled>
      <PictureField picture={words.picture} onChange={(picture) => edit({ picture })} />
    </Flex>
  )
}

/** Which accounts: one by one, all, or a group at once. */
export function AccountsField({
  accounts,
  chosen,
  onChange,
  legend = 'Accounts',
}: {
  accounts: readonly Account[]
  chosen: readonly string[]
  onChange: (chosen: string[]) => void
  legend?: string
}) {
  const groups = [...new Set(accounts.flatMap((a) => a.groups))].sort()
  const toggle = (id: string): void =>
    onChange(chosen.includes(id) ? chosen.filter((c) => c !== id) : [...chosen, id])
  return (
    <Box as="fieldset">
      <Flex align="center" gap="2" mb="1">
        <chakra.legend fontSize="xs" color="soft" float="left">
          {legend}
        </chakra.legend>
        <Button
          size="sm"
          look="quiet"
          onClick={() => onChange(chosen.length === accounts.length ? [] : accounts.map((a) => a.id))}
        >
          {chosen.length === accounts.length ? 'none' : 'all'}
        </Button>
        {groups.map((group) => (
          <Button
            key={group}
            size="sm"
            look="quiet"
            onClick={() => onChange(accounts.filter((a) => a.groups.includes(group)).map((a) => a.id))}
          >
            {group}
          </Button>
        ))}
      </Flex>
      <Flex wrap="wrap" columnGap="4">
        {accounts.map((a) => (
          <chakra.label
            key={a.id}
            display="flex"
            alignItems="center"
            gap="2"
            py="1"
            cursor="pointer"
            w="196px"
          >
            <input type="checkbox" checked={chosen.includes(a.id)} onChange={() => toggle(a.id)} />
            <NetworkMark id={a.network} />
            <chakra.span truncate>@{a.handle}</chakra.span>
          </chakra.label>
        ))}
      </Flex>
    </Box>
  )
}

/** Where posts without a day of their own go. */
export function WhenField({
  when,
  today,
  label,
  withNow = true,
  children,
  onChange,
}: {
  when: When['kind'] | 'on a day'
  today: string
  label: string
  /** Whether "now" is among the choices. */
  withNow?: boolean
  /** The choice beside it, where one has days. */
  children?: React.ReactNode
  onChange: (when: When | null) => void
}) {
  return (
    <Flex gap="3" align="flex-end" wrap="wrap">
      <Labelled label={label}>
        {(id) => (
          <SelectField
            id={id}
            w="230px"
            value={when}
            onChange={(e) => {
              const kind = e.target.value as When['kind'] | 'on a day'
              onChange(
                kind === 'on a day'
                  ? null
                  : kind === 'spread'
                    ? { kind, from: today, to: addDays(today, 27) }
                    : { kind },
              )
            }}
          >
            <option value="next openings">at the next openings</option>
            <option value="behind what waits">behind what waits already</option>
            <option value="spread">evenly over some days</option>
            {withNow && <option value="on a day">on a day</option>}
            {withNow && <option value="now">now</option>}
          </SelectField>
        )}
      </Labelled>
      {children}
    </Flex>
  )
}

/** The first and last day of an even spread. */
export function SpreadDays({
  when,
  today,
  onChange,
}: {
  when: Extract<When, { kind: 'spread' }>
  today: string
  onChange: (when: When) => void
}) {
  return (
    <>
      {(['from', 'to'] as const).map((end) => (
        <Labelled key={end} label={end === 'from' ? 'First day' : 'Last day'}>
          {(id) => (
            <DateField
              id={id}
              value={when[end]}
              min={end === 'from' ? today : when.from}
              onDate={(date) => {
                const next = { ...when, [end]: date }
                onChange(next.from > next.to ? { ...next, to: next.from } : next)
              }}
            />
          )}
        </Labelled>
      ))}
    </>
  )
}

/** A day, and a time of it or none, which leaves the slot to the planner. */
export function DayAndTime({
  label,
  day,
  time,
  min,
  onChange,
}: {
  label: string
  day: string
  /** Empty where a slot of the day will do. */
  time: string
  /** The first day that may be chosen. */
  min?: string
  onChange: (change: { day?: string; time?: string }) => void
}) {
  return (
    <>
      <Labelled label={label}>
        {(id) => (
          <DateField
            id={id}
            {...(min ? { min } : {})}
            value={day}
            onDate={(date) => onChange({ day: date })}
          />
        )}
      </Labelled>
      <Labelled label="Time, or empty for a slot">
        {() => (
          <TimeField
            label="Time, or empty for a slot"
            mayBeEmpty
            value={time}
            onChange={(next) => onChange({ time: next })}
          />
        )}
      </Labelled>
    </>
  )
}
