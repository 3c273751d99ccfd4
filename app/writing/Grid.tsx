import { Box } from '@chakra-ui/react'
import type { Account, Drip, Hue, Post } from '../../core/model'
import { network } from '../../core/networks'
import { addDays } from '../../core/planning'
import { shortDay } from '../ui'
import { Cell } from './Cell'
import { ColumnHead } from './ColumnHead'

/** Beats along the days against the pipe, accounts in columns; beats that lack a caption say so. */
export function Grid({
  drip,
  posts,
  columns,
  hue,
  chosen,
  picked,
  onChoose,
}: {
  drip: Drip
  posts: readonly Post[]
  columns: Account[]
  hue: Hue | null
  chosen: Post | null
  picked: ReadonlySet<string>
  onChoose: (post: Post, event: React.MouseEvent) => void
}) {
  const places = `104px repeat(${columns.length}, minmax(232px, 440px))`
  return (
    <Box role="grid" aria-label="The drip, beat by beat" minW={`${104 + columns.length * 232}px`}>
      <Box
        role="row"
        display="grid"
        gridTemplateColumns={places}
        borderTopWidth="1px"
        borderBottomWidth="1px"
        borderColor="hairline"
        position="sticky"
        top="0"
        bg="paper"
        zIndex="1"
      >
        <Box role="columnheader" srOnly>
          Day
        </Box>
        <Box />
        {columns.map((a) => (
          <ColumnHead key={a.id} account={a}>
            <Box color="soft" fontSize="13px" truncate>
              {network(a.network).name}
            </Box>
          </ColumnHead>
        ))}
      </Box>
      {drip.days.map((day, beat) => {
        const gap = (drip.days[beat + 1] ?? day) - day
        const lacking = drip.missing.filter(
          (m) =>
            m.beat === beat &&
            columns.some((c) => c.id === m.account) &&
            !posts.some((p) => p.beat === beat && p.account === m.account),
        ).length
        return (
          <Box role="row" key={beat} display="grid" gridTemplateColumns={places} minH="112px">
            <Box role="rowheader" position="relative" pt="5" pr="12">
              <Box fontFamily="mono" fontWeight="600" fontSize="12px" textAlign="right">
                day {day}
              </Box>
              <Box fontFamily="mono" fontSize="11px" color="soft" textAlign="right">
                {shortDay(addDays(drip.startDay, day))}
              </Box>
              {lacking > 0 && (
                <Box fontSize="11px" lineHeight="1.3" color="clayText" textAlign="right" mt="1">
                  no passage for {lacking === columns.length ? 'any' : lacking}
                </Box>
              )}
              <Box
                aria-hidden
                position="absolute"
                right="28px"
                top={beat === 0 ? '26px' : 0}
                bottom={beat === drip.days.length - 1 ? 'calc(100% - 30px)' : 0}
                w="5px"
                bg="water"
              />
              <Box
                aria-hidden
                position="absolute"
                right="21px"
                top="22px"
                w="19px"
                h="16px"
                borderWidth="2px"
                borderColor="water"
                bg="raised"
                borderRadius="sm"
              />
              {gap > 0 && (
                <Box
                  position="absolute"
                  right="2px"
                  bottom="4px"
                  fontFamily="mono"
                  fontSize="10px"
                  color="soft"
                  bg="paper"
                >
                  {gap} d
                </Box>
              )}
            </Box>
            {columns.map((account) => {
              const post = posts.find((p) => p.beat === beat && p.account === account.id)
              const missing = drip.missing.find((m) => m.beat === beat && m.account === account.id)
              return post ? (
                <Cell
                  key={account.id}
                  post={post}
                  zone={account.zone}
                  hue={hue}
                  chosen={post.id === chosen?.id}
                  picked={picked.has(post.id)}
                  onChoose={(event) => onChoose(post, event)}
                />
              ) : (
                <Box
                  role="gridcell"
                  key={account.id}
                  borderLeftWidth="1px"
                  borderBottomWidth="1px"
                  borderColor="hairline"
                  p="3"
                  color="soft"
                  fontSize="13px"
                  fontStyle="italic"
                >
                  {missing?.message ?? 'No post here.'}
                </Box>
              )
            })}
          </Box>
        )
      })}
    </Box>
  )
}
