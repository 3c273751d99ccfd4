import { Box, Flex, Heading } from '@chakra-ui/react'
import { useState } from 'react'
import useSWR from 'swr'
import type { Account, Brand } from '../../core/model'
import { difference, saveBrand } from '../data'
import { attempt, Button, count, say } from '../ui'
import { MovesBeside } from './MovesList'
import { QuietDays } from './QuietDays'
import { SlotGrid } from './SlotGrid'

/** The days on which the whole brand is quiet, and the slots that its accounts can take. Tried before they are kept. */
export function BrandSheet({
  brand,
  accounts,
  onClose,
}: {
  brand: Brand
  accounts: readonly Account[]
  onClose: () => void
}) {
  const [draft, setDraft] = useState({ quiet: brand.quiet, slots: brand.slots })
  const next = { ...brand, ...draft }
  const changed = JSON.stringify(next) !== JSON.stringify(brand)
  const moves = useSWR(
    changed ? ['difference', brand.id, JSON.stringify(draft)] : null,
    () => difference({ brands: [next] }),
    { revalidateOnFocus: false },
  ).data
  const zoneOf = (id: string): string => accounts.find((a) => a.id === id)?.zone ?? brand.zone
  return (
    <Box p="5" display="flex" flexDirection="column" gap="5">
      <Flex justify="space-between" align="center">
        <Heading as="h2" fontSize="16px" fontWeight="600">
          {brand.name}
        </Heading>
        <Button size="sm" look="quiet" onClick={onClose}>
          Close
        </Button>
      </Flex>
      <QuietDays days={draft.quiet} onChange={(quiet) => setDraft({ ...draft, quiet })} />
      <Box fontSize="13px" color="soft" mt="-3">
        On these days no account of the brand posts.
      </Box>
      <Box>
        <Heading as="h3" fontSize="14px" fontWeight="600" mb="1">
          Slots
        </Heading>
        <SlotGrid slots={draft.slots} onChange={(slots) => setDraft({ ...draft, slots })} />
        <Box fontSize="13px" color="soft" mt="1">
          A new account begins with these, and each account’s sheet can take them. Without any, its network’s
          are proposed.
        </Box>
      </Box>
      {changed && (
        <Box position="sticky" bottom="0" bg="raised" borderTopWidth="1px" borderColor="hairline" pt="3">
          {moves && <MovesBeside moves={moves} zoneOf={zoneOf} />}
          <Flex gap="2" justify="flex-end" mt="2">
            <Button onClick={() => setDraft({ quiet: brand.quiet, slots: brand.slots })}>Drop</Button>
            <Button
              look="water"
              disabled={moves === undefined}
              onClick={() =>
                void attempt(async () => {
                  await saveBrand(brand, next, moves ?? [])
                  say(
                    moves?.length
                      ? `Kept; ${count(moves.length, 'post')} moved.`
                      : 'Kept; no post had to move.',
                  )
                })
              }
            >
              Apply
            </Button>
          </Flex>
        </Box>
      )}
    </Box>
  )
}
