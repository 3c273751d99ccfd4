import { Box, chakra, Flex, Heading } from '@chakra-ui/react'
import useSWR from 'swr'
import { Link } from 'react-router'
import type { Account, Occasion } from '../../../core/model'
import { occasionText, themeOf } from '../../../core/occasions'
import { isQuiet } from '../../../core/planning'
import { useWork } from '../../shell'
import { changeOccasion, nearTo, removeOccasions, type OccasionOn } from '../../data/more'
import {
  attempt,
  Button,
  Chips,
  count,
  Labelled,
  longDay,
  Notice,
  say,
  TextArea,
  TextField,
  useTyped,
} from '../../ui'
import { useDayWords } from './Adding'
import { WriteThem } from './WriteThem'

/** So many passages near an occasion are shown. */
const SHOWN = 6

/** One occasion at large: what it is called, when it is, what it is about, and what is near it. */
export function OccasionBeside({
  on: { occasion, day },
  accounts,
  onClose,
}: {
  on: OccasionOn
  accounts: readonly Account[]
  onClose: () => void
}) {
  const { brand } = useWork()
  const change = (changed: Parameters<typeof changeOccasion>[1]): void =>
    void attempt(async () => {
      const { moved, aside } = await changeOccasion(occasion.id, changed)
      if (moved || aside)
        say(
          `${count(moved, 'post moves', 'posts move')} with it${aside ? `, ${count(aside, 'was', 'were')} set aside` : ''}.`,
        )
    })
  return (
    <Flex direction="column" gap="4" p="4" fontSize="13px">
      <Flex justify="space-between" align="baseline" gap="2">
        <Heading as="h2" fontSize="15px" fontWeight="600" minW="0">
          {longDay(day)} {day.slice(0, 4)}
        </Heading>
        <Button size="sm" look="quiet" hint="Esc" onClick={onClose}>
          Close
        </Button>
      </Flex>
      {isQuiet(day, brand.quiet) && (
        <Notice tone="amber">
          A quiet day of the brand: no post has a place on it. Quiet days stand under Dispatch, with the
          brand.
        </Notice>
      )}
      <Names occasion={occasion} onChange={change} />
      <Box>
        <Box fontSize="xs" color="soft" mb="1">
          Words that its posts may say
        </Box>
        <Chips label="Words" values={occasion.theme} onChange={(theme) => change({ theme })} />
      </Box>
      <Lines occasion={occasion} onChange={change} />
      <chakra.label display="flex" gap="2" alignItems="baseline" cursor="pointer">
        <input
          type="checkbox"
          checked={occasion.again}
          onChange={(e) => change({ again: e.target.checked })}
        />
        Write its captions anew each year, eight weeks ahead
      </chakra.label>
      {occasion.again && occasion.make === null && (
        <Box color="soft" mt="-3">
          They are written as you write them once: choose accounts and write the first.
        </Box>
      )}
      <Flex gap="2" wrap="wrap">
        <WriteThem rows={[{ occasion, day }]} accounts={accounts} align="left" onDone={() => undefined} />
        <Button
          onClick={() =>
            void attempt(async () => {
              await removeOccasions([occasion])
              onClose()
            })
          }
        >
          Take off the calendar
        </Button>
      </Flex>
      <NearIt occasion={occasion} />
    </Flex>
  )
}

interface Part {
  occasion: Occasion
  onChange: (changed: Parameters<typeof changeOccasion>[1]) => void
}

function Names({ occasion, onChange }: Part) {
  const [name, setName] = useTyped(occasion.name)
  const [written, setWritten] = useTyped(occasionText(occasion.on))
  const { on, told, wrong } = useDayWords(written)
  return (
    <>
      <Labelled label="What the day is called">
        {(id) => (
          <TextField
            id={id}
            w="full"
            maxLength={120}
            value={name}
            onChange={(e) => setName(e.target.value)}
            onBlur={() => name.trim() && name.trim() !== occasion.name && onChange({ name: name.trim() })}
          />
        )}
      </Labelled>
      <Box>
        <Labelled label="When, in words">
          {(id) => (
            <TextField
              id={id}
              w="full"
              value={written}
              onChange={(e) => setWritten(e.target.value)}
              onBlur={() => on && written !== occasionText(occasion.on) && onChange({ on })}
            />
          )}
        </Labelled>
        <Box mt="1" fontSize="12px" color={wrong ? 'clayText' : 'soft'} aria-live="polite">
          {told}
        </Box>
      </Box>
    </>
  )
}

function Lines({ occasion, onChange }: Part) {
  const [written, setWritten] = useTyped(occasion.lines.join('\n'))
  const lines = written
    .split('\n')
    .map((l) => l.trim().slice(0, 300))
    .filter(Boolean)
  return (
    <Labelled
      label="Lines that name the day, one a row"
      hint="Each account’s post closes with one of its own, the year after with another."
    >
      {(id) => (
        <TextArea
          id={id}
          rows={3}
          value={written}
          onChange={(e) => setWritten(e.target.value)}
          onBlur={() => lines.join('\n') !== occasion.lines.join('\n') && onChange({ lines })}
        />
      )}
    </Labelled>
  )
}

/** What its captions would be made of. */
function NearIt({ occasion }: { occasion: Occasion }) {
  const { name, theme, brand } = occasion
  const found = useSWR(['near', brand, name, JSON.stringify(theme)], () => nearTo(brand, [{ name, theme }]), {
    revalidateOnFocus: false,
  }).data
  const near = found?.near[0] ?? []
  return (
    <Box>
      <Heading as="h3" fontSize="14px" fontWeight="600" mb="1">
        Near it
      </Heading>
      {!found && <Box color="soft">Looking for what your pieces say of it …</Box>}
      {found && near.length === 0 && (
        <Box color="soft">
          No passage that you keep says {themeOf(occasion).join(', ') || 'what it is called'}. Give it other
          words, such as those of your trade at that time of the year.
        </Box>
      )}
      {near.slice(0, SHOWN).map(({ id, says }) => {
        const passage = found?.passages.get(id)
        const piece = passage && found?.pieces.get(passage.piece)
        return (
          passage && (
            <Box key={id} borderLeftWidth="4px" borderColor="water" pl="3" mb="2">
              <Box fontFamily="reading" fontSize="14px" lineClamp={3} lineHeight="1.4">
                {passage.text}
              </Box>
              <Box fontSize="12px" color="soft" truncate>
                {says.join(', ')} · <Link to={`/intake/${passage.piece}`}>{piece?.title}</Link>
              </Box>
            </Box>
          )
        )
      })}
      {near.length > SHOWN && <Box color="soft">and {near.length - SHOWN} more</Box>}
    </Box>
  )
}
