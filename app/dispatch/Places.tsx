import { Box, chakra, Flex, Heading } from '@chakra-ui/react'
import { useState } from 'react'
import type { Account } from '../../core/model'
import { chooseTargets, useLinked } from '../data'
import { attempt, Button, count, say } from '../ui'

/** The places of an account's login, each with an account of its own once it is chosen; nothing where it has none. */
export function Places({ account, accounts }: { account: Account; accounts: readonly Account[] }) {
  const linked = useLinked(account.id)
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set())
  if (!linked || linked.targets.length === 0) return null
  const taken = new Set(
    accounts
      .filter((a) => a.network === account.network && a.remoteId === account.remoteId)
      .flatMap((a) => a.target?.id ?? []),
  )
  const toggle = (id: string): void => {
    const next = new Set(chosen)
    if (!next.delete(id)) next.add(id)
    setChosen(next)
  }
  return (
    <Box>
      <Heading as="h3" fontSize="14px" fontWeight="600" mb="1">
        Where its posts go
      </Heading>
      {linked.targets.map((target) => (
        <chakra.label key={target.id} display="flex" gap="2" alignItems="center" py="1">
          <input
            type="checkbox"
            disabled={taken.has(target.id)}
            checked={taken.has(target.id) || chosen.has(target.id)}
            onChange={() => toggle(target.id)}
          />
          {target.name}
          <chakra.span color="soft" fontSize="13px">
            {target.kind}
          </chakra.span>
        </chakra.label>
      ))}
      <Flex gap="2" align="center" mt="2">
        <Button
          size="sm"
          look="water"
          disabled={chosen.size === 0}
          onClick={() =>
            void attempt(async () => {
              await chooseTargets(account, [...chosen])
              setChosen(new Set())
              say(`${count(chosen.size, 'place')} chosen; each has slots and a column of its own.`)
            })
          }
        >
          Post there
        </Button>
      </Flex>
    </Box>
  )
}
