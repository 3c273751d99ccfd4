import { Box, Heading } from '@chakra-ui/react'
import type { Account } from '../../core/model'
import { slotWords, toWall } from '../../core/planning'
import { clockNow } from '../data'
import { Labelled, SelectField, shortDay, weekdayName } from '../ui'

const SHARES = [0, 0.05, 0.1, 0.2] as const

/** Whether an account tries other hours with some of its slots, and which it tries in the coming weeks. */
export function HourTrialsPart({
  account,
  share,
  onChange,
}: {
  account: Account
  share: number
  onChange: (share: number) => void
}) {
  const today = toWall(clockNow(), account.zone).date
  const until = account.hourTrials?.until ?? null
  const coming = (account.hourTrials?.days ?? [])
    .filter((t) => t.date >= today)
    .sort((a, b) => (a.date < b.date ? -1 : 1))
  return (
    <Box>
      <Heading as="h3" fontSize="14px" fontWeight="600" mb="1">
        Trials of other hours
      </Heading>
      <Labelled
        label="Of its slots, so many stand at another hour each week"
        hint="Drawn two weeks ahead, an hour the likelier the better it may do. What is learned goes into the best times."
      >
        {(id) => (
          <SelectField id={id} value={String(share)} onChange={(e) => onChange(Number(e.target.value))}>
            {SHARES.map((s) => (
              <option key={s} value={s}>
                {s === 0 ? 'none' : `${s * 100} %`}
              </option>
            ))}
          </SelectField>
        )}
      </Labelled>
      {share > 0 && until && (
        <Box mt="2" fontSize="13px">
          <Box color="soft">
            Drawn until Sun {shortDay(until)}
            {coming.length ? ':' : '; the slots chosen stand well as they are.'}
          </Box>
          {coming.map((t) => (
            <Box key={`${t.date} ${t.at}`}>
              {weekdayName(t.slot.weekday)} {shortDay(t.date)}, <b>{t.at}</b> in place of {slotWords(t.slot)}
            </Box>
          ))}
        </Box>
      )}
    </Box>
  )
}
