import { Box, chakra, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import useSWR from 'swr'
import { asFault, type Account, type Brand } from '../../core/model'
import { network } from '../../core/networks'
import { calendarAddress, endCalendar, renewCalendar } from '../data'
import { attempt, Button, say, SelectField } from '../ui'

/** The address that calendar programs subscribe to: made, copied, renewed, ended. */
export function Subscription({ brand, accounts }: { brand: Brand; accounts: readonly Account[] }) {
  const found = useSWR(['calendar', brand.id], () => calendarAddress(brand.id), {
    revalidateOnFocus: false,
    shouldRetryOnError: false,
  })
  const [account, setAccount] = useState('')
  const [sure, setSure] = useState(false)
  const url = found.data
  const shown = url ? `${url}${account ? `?account=${encodeURIComponent(account)}` : ''}` : ''
  const renew = (): void =>
    void attempt(async () => {
      await found.mutate(await renewCalendar(brand.id), { revalidate: false })
      setSure(false)
      say(
        url
          ? 'The calendar has another address; the old one answers no more.'
          : 'The calendar has an address.',
      )
    })
  if (found.error)
    return (
      <Box fontSize="13px" color="soft" mt="2">
        {asFault(found.error).message}
      </Box>
    )
  if (!url)
    return (
      <Flex mt="2" gap="3" align="center" fontSize="13px" color="soft" minH="8">
        <Button disabled={url === undefined} onClick={renew}>
          Make a calendar address
        </Button>
        Calendar programs can subscribe to it and follow what moves.
      </Flex>
    )
  return (
    <Flex
      mt="2"
      gap="2"
      align="center"
      wrap="wrap"
      fontSize="13px"
      role="group"
      aria-label="Calendar address"
    >
      <SelectField aria-label="Of which account" value={account} onChange={(e) => setAccount(e.target.value)}>
        <option value="">All accounts</option>
        {accounts.map((a) => (
          <option key={a.id} value={a.id}>
            @{a.handle}, {network(a.network).name}
          </option>
        ))}
      </SelectField>
      <chakra.code fontFamily="mono" fontSize="12px" flex="1" minW="0" truncate title={shown}>
        {shown}
      </chakra.code>
      <Button
        size="sm"
        onClick={() =>
          void attempt(async () => {
            await navigator.clipboard.writeText(shown)
            say('The address is copied. Whoever has it can read the plan.')
          })
        }
      >
        Copy
      </Button>
      {sure ? (
        <>
          <Button size="sm" look="clay" onClick={renew}>
            End this address and make another
          </Button>
          <Button
            size="sm"
            look="clay"
            onClick={() =>
              void attempt(async () => {
                await endCalendar(brand.id)
                await found.mutate(null, { revalidate: false })
                setSure(false)
              })
            }
          >
            End it
          </Button>
          <Button size="sm" onClick={() => setSure(false)}>
            Keep it
          </Button>
        </>
      ) : (
        <Button size="sm" look="quiet" onClick={() => setSure(true)}>
          Renew or end …
        </Button>
      )}
    </Flex>
  )
}
