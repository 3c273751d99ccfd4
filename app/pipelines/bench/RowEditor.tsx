import { Box, chakra, Flex } from '@chakra-ui/react'
import {
  isShelfRow,
  type Account,
  type ReleaseRow,
  type SieveRule,
  type Source,
  type WordList,
} from '../../../core/model'
import { ROW_FORMATS } from '../../../core/drips'
import { accountsOf } from '../../../core/pipeline'
import { network } from '../../../core/networks'
import { Button, NetworkMark, SelectField } from '../../ui'
import { Bound, Choice, toggled } from '../rules/fields'
import { FRESH } from '../rules/fresh'
import { RuleSentence } from '../rules/RuleSentence'
import { Check, named, Sentence, Several } from './parts'
import { FromTheShelf } from './FromTheShelf'
import { TimingFields } from './TimingFields'

/** The fields of one row of a release. */
export function RowEditor({
  row,
  first,
  accounts,
  sources,
  lists,
  brand,
  onChange,
}: {
  row: ReleaseRow
  /** Whether no row stands above it. */
  first: boolean
  accounts: readonly Account[]
  sources: readonly Source[]
  lists: readonly WordList[]
  brand: string
  onChange: (change: Partial<ReleaseRow>) => void
}) {
  const rules = row.pieces.kind === 'that' ? row.pieces.rules : []
  const setRules = (next: SieveRule[]): void =>
    onChange({ pieces: next.length ? { kind: 'that', rules: next } : { kind: 'all' } })
  const groups = [...new Set(accounts.flatMap((a) => a.groups))]
  const to = accountsOf(row, accounts)
  // What comes from the shelf is written passage by passage, as the briefs have it.
  const formats = ROW_FORMATS.filter((f) => to.some((a) => network(a.network).formats.includes(f)))
  return (
    <Box>
      <Sentence>
        For
        <Choice
          label="For which pieces"
          value={row.pieces.kind}
          options={[
            ['all', 'every piece'],
            ['that', 'pieces of which all of this holds'],
            ...((first || isShelfRow(row)) && row.pieces.kind !== 'rest'
              ? []
              : ([['rest', 'pieces that no row above takes']] as const)),
          ]}
          onChange={(kind) =>
            onChange({
              pieces: kind === 'that' ? { kind, rules: [FRESH.tags.rule] } : { kind: kind as 'all' | 'rest' },
            })
          }
        />
      </Sentence>
      {row.pieces.kind === 'that' && (
        <Box pl="3">
          {rules.map((rule, index) => (
            <Flex key={`${index} ${rule.kind}`} gap="2" align="center" wrap="wrap" py="1">
              <RuleSentence
                rule={rule}
                lists={lists}
                sources={sources}
                brand={brand}
                onChange={(next) => setRules(rules.map((r, i) => (i === index ? next : r)))}
              />
              <Button
                size="sm"
                look="quiet"
                aria-label="Take this condition out"
                ml="auto"
                onClick={() => setRules(rules.filter((_, i) => i !== index))}
              >
                Take out
              </Button>
            </Flex>
          ))}
          <SelectField
            aria-label="Add a condition about"
            h="7"
            value=""
            onChange={(e) => setRules([...rules, FRESH[e.target.value as SieveRule['kind']].rule])}
          >
            <option value="">And … about</option>
            {Object.entries(FRESH).map(([kind, { words }]) => (
              <option key={kind} value={kind}>
                {words}
              </option>
            ))}
          </SelectField>
        </Box>
      )}
      <Sentence>
        to
        <Several
          label="Accounts of the row"
          words={named(
            [
              ...accounts.filter((a) => row.accounts.includes(a.id)).map((a) => `@${a.handle}`),
              ...row.groups.map((g) => `the group ${g}`),
            ],
            'no account yet',
          )}
        >
          {accounts.map((a) => (
            <Check
              key={a.id}
              checked={row.accounts.includes(a.id)}
              onChange={() => onChange({ accounts: toggled(row.accounts, a.id) })}
            >
              <NetworkMark id={a.network} /> @{a.handle}{' '}
              <chakra.span color="soft">{network(a.network).name}</chakra.span>
            </Check>
          ))}
          {groups.map((g) => (
            <Check
              key={g}
              checked={row.groups.includes(g)}
              onChange={() => onChange({ groups: toggled(row.groups, g) })}
            >
              everyone in the group {g}
            </Check>
          ))}
          {accounts.length === 0 && <Box color="soft">No account yet; link one under Dispatch.</Box>}
        </Several>
        {!isShelfRow(row) && (formats.length > 0 || row.format !== null) && (
          <>
            , as
            <Choice
              label="Format"
              value={row.format ?? ''}
              options={[
                ['', 'the briefs have it'],
                ...[...new Set([...formats, ...(row.format ? [row.format] : [])])].map(
                  (f) => [f, `a ${f} where the network has them`] as const,
                ),
              ]}
              onChange={(f) => onChange({ format: f || null })}
            />
          </>
        )}
      </Sentence>
      <TimingFields
        by={row.by}
        onChange={(by) =>
          onChange(
            by.kind === 'shelf'
              ? {
                  by,
                  again: null,
                  format: null,
                  ...(row.pieces.kind === 'rest' ? { pieces: { kind: 'all' } } : {}),
                }
              : { by },
          )
        }
      />
      {isShelfRow(row) ? (
        <FromTheShelf row={row} accounts={accounts} />
      ) : (
        <Again row={row} onChange={onChange} />
      )}
    </Box>
  )
}

/** Whether a piece that is through comes again. */
function Again({ row, onChange }: { row: ReleaseRow; onChange: (change: Partial<ReleaseRow>) => void }) {
  return (
    <Sentence>
      Once a piece is through, it
      <Choice
        label="Again"
        value={row.again ? 'again' : 'no'}
        options={[
          ['no', 'is done with'],
          ['again', 'is dripped again'],
        ]}
        onChange={(v) => onChange({ again: v === 'again' ? { days: 180, times: 1 } : null })}
      />
      {row.again && (
        <>
          after
          <Bound
            label="Days until it comes again"
            value={row.again.days}
            onChange={(n) =>
              row.again && onChange({ again: { ...row.again, days: within(n ?? 180, 7, 1500) } })
            }
          />
          days,
          <Bound
            label="How many times"
            value={row.again.times}
            onChange={(n) => row.again && onChange({ again: { ...row.again, times: within(n ?? 1, 1, 50) } })}
          />
          {row.again.times === 1 ? 'time' : 'times'}, in other words.
        </>
      )}
    </Sentence>
  )
}

const within = (n: number, least: number, most: number): number =>
  Math.min(most, Math.max(least, Math.round(n)))
