import { Box, Flex } from '@chakra-ui/react'
import type { Backlog } from '../../core/model'
import { toWall } from '../../core/planning'
import { clockNow } from '../data'
import { useWork } from '../shell'
import { DateField, SelectField, TextField } from '../ui'

/** What the first visit does with the items that are there already, as a sentence. */
export function BacklogChoice({ value, onChange }: { value: Backlog; onChange: (backlog: Backlog) => void }) {
  const { brand } = useWork()
  const choose = (kind: Backlog['kind']): void => {
    const monthAgo = toWall(clockNow() - 30 * 86_400_000, brand.zone).date
    onChange(kind === 'from' ? { kind, day: monthAgo } : kind === 'last' ? { kind, count: 10 } : { kind })
  }
  return (
    <Box mt="2">
      <Flex gap="2" align="center" flexWrap="wrap">
        Of what is there already, take
        <SelectField
          aria-label="Of what is there already, take"
          value={value.kind}
          onChange={(e) => choose(e.target.value as Backlog['kind'])}
        >
          <option value="everything">everything</option>
          <option value="last">only the last ones</option>
          <option value="from">only from a date</option>
          <option value="nothing">nothing, only what comes</option>
        </SelectField>
        {value.kind === 'last' && (
          <TextField
            type="number"
            aria-label="How many of the last ones"
            w="76px"
            min={1}
            max={1000}
            value={value.count}
            onChange={(e) =>
              Number(e.target.value) >= 1 &&
              onChange({ kind: 'last', count: Math.round(Number(e.target.value)) })
            }
          />
        )}
        {value.kind === 'from' && (
          <DateField
            aria-label="From which date"
            value={value.day}
            onDate={(day) => onChange({ kind: 'from', day })}
          />
        )}
      </Flex>
      {(value.kind === 'everything' || value.kind === 'from') && (
        <Box fontSize="13px" color="amberText" mt="1">
          A long backlog fills the schedule with old news. Right for your own evergreen blog, and for little
          else.
        </Box>
      )}
    </Box>
  )
}
