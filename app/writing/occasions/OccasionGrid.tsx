import { Box, chakra, Flex } from '@chakra-ui/react'
import { useEffect, useRef } from 'react'
import type { Account, Occasion, Post } from '../../../core/model'
import { nextDayOf, occasionWords } from '../../../core/occasions'
import { weekdayOf } from '../../../core/planning'
import type { OccasionOn } from '../../data/more'
import { longDay, shortDay, weekdayName, withDays } from '../../ui'
import { Cell } from '../Cell'
import { ColumnHead } from '../ColumnHead'

/** What tells one day of an occasion from every other. */
export const rowKey = ({ occasion, day }: OccasionOn): string => `${occasion.id} ${day}`

/** Days down, accounts across: what each day is, and the post that each account has for it. */
export function OccasionGrid({
  rows,
  later,
  columns,
  picked,
  cursor,
  isQuiet,
  postAt,
  zone,
  today,
  onPick,
  onChoose,
  onOpen,
}: {
  rows: readonly OccasionOn[]
  /** Occasions that are on no day of the coming year. */
  later: readonly Occasion[]
  columns: readonly Account[]
  picked: ReadonlySet<string>
  cursor: { row: number; column: number }
  isQuiet: (day: string) => boolean
  postAt: (on: OccasionOn, account: string | undefined) => Post | undefined
  zone: string
  today: string
  onPick: (on: OccasionOn) => void
  onChoose: (post: Post) => void
  onOpen: (on: OccasionOn) => void
}) {
  const places = `minmax(300px, ${columns.length ? '300px' : '1fr'}) repeat(${columns.length}, minmax(232px, 440px))`
  return (
    <Box role="grid" aria-label="The year, day by day" minW={`${300 + columns.length * 232}px`} pb="8">
      {columns.length > 0 && <Heads columns={columns} places={places} />}
      {rows.map((on, i) => (
        <Box role="row" key={rowKey(on)} display="grid" gridTemplateColumns={places}>
          <Day
            on={on}
            quiet={isQuiet(on.day)}
            year={on.day.slice(0, 4) === today.slice(0, 4) ? null : on.day.slice(0, 4)}
            current={cursor.row === i && cursor.column === -1}
            picked={picked.has(rowKey(on))}
            wide={columns.length === 0}
            onPick={() => onPick(on)}
            onOpen={() => onOpen(on)}
          />
          {columns.map((account, column) => {
            const post = postAt(on, account.id)
            return post ? (
              <Cell
                key={account.id}
                post={post}
                zone={account.zone}
                hue={null}
                chosen={cursor.row === i && cursor.column === column}
                picked={false}
                onChoose={() => onChoose(post)}
              />
            ) : (
              <Lacking key={account.id} on={on} account={account.id} />
            )
          })}
        </Box>
      ))}
      {later.length > 0 && (
        <Box px="6" pt="4" fontSize="13px" color="soft" borderTopWidth="1px" borderColor="hairline">
          On no day of the coming year:{' '}
          {later.map((o) => `${o.name} (${nextWords(o, zone, today)})`).join(', ')}.
        </Box>
      )}
    </Box>
  )
}

function nextWords({ on }: Occasion, zone: string, today: string): string {
  const next = nextDayOf(on, zone, today)
  return next === null ? 'over' : `${longDay(next)} ${next.slice(0, 4)}`
}

function Heads({ columns, places }: { columns: readonly Account[]; places: string }) {
  return (
    <Box
      role="row"
      display="grid"
      gridTemplateColumns={places}
      position="sticky"
      top="0"
      bg="paper"
      zIndex="1"
      borderTopWidth="1px"
      borderBottomWidth="1px"
      borderColor="hairline"
    >
      <Box role="columnheader" srOnly>
        Day
      </Box>
      <Box />
      {columns.map((a) => (
        <ColumnHead key={a.id} account={a} />
      ))}
    </Box>
  )
}

function Day({
  on: { occasion, day },
  quiet,
  year,
  current,
  picked,
  wide,
  onPick,
  onOpen,
}: {
  on: OccasionOn
  quiet: boolean
  /** The year where it is not this one. */
  year: string | null
  current: boolean
  picked: boolean
  wide: boolean
  onPick: () => void
  onOpen: () => void
}) {
  const words = 'dates' in occasion.on ? '' : occasionWords(occasion.on)
  const box = useRef<HTMLDivElement>(null)
  useEffect(() => {
    if (current) box.current?.scrollIntoView({ block: 'nearest' })
  }, [current])
  return (
    <Flex
      role="rowheader"
      borderBottomWidth="1px"
      borderColor="hairline"
      ref={box}
      gap="3"
      pl="6"
      pr="3"
      py="2"
      align="flex-start"
      bg={current ? 'waterTint' : picked ? 'raised' : undefined}
    >
      <chakra.input
        type="checkbox"
        mt="1"
        checked={picked}
        onChange={onPick}
        aria-label={`Select ${occasion.name}, ${longDay(day)}`}
      />
      <Box w="74px" flexShrink={0} fontFamily="mono" fontSize="12px" lineHeight="1.5">
        {weekdayName(weekdayOf(day))} {shortDay(day)}
        {year && <Box color="soft">{year}</Box>}
      </Box>
      <Box minW="0" flex="1">
        <chakra.button
          type="button"
          data-post=""
          textAlign="left"
          fontWeight="600"
          cursor="pointer"
          _hover={{ textDecoration: 'underline' }}
          onClick={onOpen}
        >
          {occasion.name}
        </chakra.button>
        <Box fontSize="12px" color="soft" lineHeight="1.4">
          {[
            ...(words === longDay(day) || !words ? [] : [words]),
            ...(occasion.again ? ['written each year'] : []),
          ].join(', ')}
        </Box>
        {quiet && (
          <Box fontSize="12px" color="amberText">
            A quiet day: nothing is posted.
          </Box>
        )}
      </Box>
      {wide && (
        <Box flex="1" minW="0" fontSize="13px" color="soft" lineClamp={2}>
          {occasion.theme.length ? occasion.theme.join(', ') : 'goes by its name'}
        </Box>
      )}
    </Flex>
  )
}

/** A cell without a post: why there is none, where one was asked for. */
function Lacking({ on: { occasion, day }, account }: { on: OccasionOn; account: string }) {
  const missing = occasion.missing.find((m) => m.day === day && m.account === account)
  return (
    <Box
      role="gridcell"
      borderLeftWidth="1px"
      borderBottomWidth="1px"
      borderColor="hairline"
      p="3"
      color="soft"
      fontSize="13px"
      fontStyle="italic"
    >
      {missing ? withDays(missing.message) : ''}
    </Box>
  )
}
