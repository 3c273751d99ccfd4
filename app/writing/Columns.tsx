import { Box, chakra, Flex } from '@chakra-ui/react'
import type { Account, Drip } from '../../core/model'
import { orderColumns } from '../data'
import { attempt } from '../ui'

/** Which accounts a drip sheet shows, and in which order. */
export function Columns({
  drip,
  accounts,
  hidden,
  onHide,
}: {
  drip: Drip
  accounts: readonly Account[]
  hidden: ReadonlySet<string>
  onHide: (hidden: ReadonlySet<string>) => void
}) {
  const toggle = (id: string): void => {
    const next = new Set(hidden)
    if (!next.delete(id)) next.add(id)
    // One column at least stays.
    if (next.size < accounts.length) onHide(next)
  }
  const forward = (index: number): void => {
    const order = accounts.map((a) => a.id)
    const [moved] = order.splice(index, 1)
    if (moved) order.splice(index - 1, 0, moved)
    void attempt(() => orderColumns(drip.id, order))
  }
  return (
    <Flex
      px="6"
      pb="2"
      gap="1.5"
      wrap="wrap"
      align="center"
      fontSize="13px"
      role="group"
      aria-label="Accounts shown"
    >
      <Box color="soft">Shown:</Box>
      {accounts.map((a, i) => {
        const shown = !hidden.has(a.id)
        return (
          <Flex key={a.id} borderWidth="1px" borderColor="hairline" borderRadius="sm" h="6" align="center">
            {i > 0 && (
              <chakra.button
                type="button"
                aria-label={`Move @${a.handle} before @${accounts[i - 1]?.handle ?? ''}`}
                title="Move it forward"
                px="1.5"
                color="soft"
                cursor="pointer"
                _hover={{ color: 'ink' }}
                onClick={() => forward(i)}
              >
                ‹
              </chakra.button>
            )}
            <chakra.button
              type="button"
              aria-pressed={shown}
              onClick={() => toggle(a.id)}
              px="2"
              color={shown ? 'ink' : 'soft'}
              textDecoration={shown ? undefined : 'line-through'}
              cursor="pointer"
            >
              @{a.handle}
            </chakra.button>
          </Flex>
        )
      })}
    </Flex>
  )
}
