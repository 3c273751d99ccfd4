import { Box, chakra, Flex } from '@chakra-ui/react'
import { useEffect } from 'react'
import { useNavigate, useSearchParams } from 'react-router'
import type { Account } from '../../core/model'
import { network } from '../../core/networks'
import {
  adoptAccount,
  checkAccount,
  clockNow,
  endsSoon,
  linkAgainPath,
  linkPath,
  useAccounts,
  useLinkable,
  useRows,
} from '../data'
import { Holding, useWork } from '../shell'
import {
  attempt,
  Button,
  count,
  distance,
  longDay,
  Empty,
  NetworkMark,
  Notice,
  Page,
  PageHead,
  say,
  weekdayName,
} from '../ui'
import { AccountSheet } from './AccountSheet'
import { BrandSheet } from './BrandSheet'
import { LinkOtherwise } from './LinkOtherwise'
import { Tabs } from './Tabs'

/** What the brand's own sheet is called in the address. */
const BRAND = 'brand'

/** The linked accounts with their health, slots and quiet days. */
export function Accounts() {
  const { brand } = useWork()
  const [params, setParams] = useSearchParams()
  const accounts = useAccounts(brand.id)
  const sources = useRows('sources', 'brand', brand.id)
  const linkable = useLinkable()
  const navigate = useNavigate()
  const linked = params.get('linked')
  const declined = params.get('declined')
  const into = params.get('brand')
  useEffect(() => {
    if (declined) {
      say('The account was not linked: it was declined on the network’s page.')
      setParams({}, { replace: true, flushSync: true })
    }
    if (!linked || !into) return
    void attempt(async () => {
      const account = await adoptAccount(into, linked)
      setParams(account && account.brand === into ? { account: account.id } : {}, {
        replace: true,
        flushSync: true,
      })
      if (!account) say('The linking did not come through. Try it again.')
      else if (account.brand !== into)
        say(`@${account.handle} belongs to another brand already; its permission was renewed there.`)
      else say(`@${account.handle} is linked.`)
    })
  }, [linked, declined, into, setParams])
  if (!accounts) return <Page>{null}</Page>
  const chosen = accounts.find((a) => a.id === params.get('account')) ?? null
  return (
    <Page
      side={
        params.get('account') === BRAND ? (
          <BrandSheet
            key={brand.id}
            brand={brand}
            accounts={accounts}
            onClose={() => setParams({}, { replace: true, flushSync: true })}
          />
        ) : chosen ? (
          <AccountSheet
            key={chosen.id}
            account={chosen}
            accounts={accounts}
            brand={brand}
            onClose={() => setParams({}, { replace: true, flushSync: true })}
          />
        ) : undefined
      }
    >
      <Tabs />
      <PageHead title="Accounts" note={`${count(accounts.length, 'account')} linked for ${brand.name}.`}>
        <Button onClick={() => setParams({ account: BRAND }, { replace: true, flushSync: true })}>
          The brand’s quiet days and slots
        </Button>
      </PageHead>
      <Box px="6" pb="8">
        {accounts.length === 0 && (
          <Empty title="No account is linked yet">
            Choose a network below. Its own page asks whether Dripline may post for you; then you are back
            here, with sensible slots proposed.
          </Empty>
        )}
        {accounts.length > 0 && sources?.length === 0 && (
          <Notice
            tone="moss"
            action={
              <Button look="water" onClick={() => void navigate('/intake/sources')}>
                Add a source
              </Button>
            }
          >
            Link as many as you like. Next, say where your long-form work comes from.
          </Notice>
        )}
        {accounts.map((a) => (
          <AccountRow
            key={a.id}
            account={a}
            others={accounts.filter((o) => o.id !== a.id && o.endedAt === null)}
            current={a.id === chosen?.id}
            onChoose={() => setParams({ account: a.id }, { replace: true, flushSync: true })}
          />
        ))}
        {linkable !== undefined && linkable.length > 0 && (
          <>
            <Box mt="6" mb="2" color="soft" fontSize="13px">
              Link an account on
            </Box>
            <Flex gap="2" wrap="wrap">
              {linkable.map(({ network: id }) => (
                <LinkButton key={id} path={linkPath(id, brand.id)}>
                  <NetworkMark id={id} /> {network(id).name}{' '}
                  <chakra.span color="soft">{network(id).kind}</chakra.span>
                </LinkButton>
              ))}
            </Flex>
          </>
        )}
        <Box mt="5" mb="2" color="soft" fontSize="13px">
          {linkable?.length === 0
            ? 'This server knows no network with a page of its own. Link'
            : 'Or link what has no page here'}
        </Box>
        <LinkOtherwise onLinked={(a) => setParams({ account: a.id }, { replace: true, flushSync: true })} />
      </Box>
    </Page>
  )
}

function LinkButton({ path, children }: { path: string; children: React.ReactNode }) {
  return <Button onClick={() => window.location.assign(path)}>{children}</Button>
}

function AccountRow({
  account,
  others,
  current,
  onChoose,
}: {
  account: Account
  /** The brand's other accounts that have not ended. */
  others: readonly Account[]
  current: boolean
  onChoose: () => void
}) {
  const broken = account.health.state !== 'linked'
  const what = {
    table: 'accounts' as const,
    id: account.id,
    brand: account.brand,
    name: `@${account.handle}`,
  }
  return (
    <Flex
      align="center"
      gap="3"
      minH="60px"
      px="2"
      mx="-2"
      borderTopWidth="1px"
      borderColor="hairline"
      bg={current ? 'waterTint' : undefined}
      wrap="wrap"
      py="1.5"
    >
      <NetworkMark id={account.network} />
      <Box flex="1" minW="220px">
        <Box fontWeight="600">
          @{account.handle}{' '}
          <chakra.span color="soft" fontWeight="400">
            {network(account.network).name}
          </chakra.span>
        </Box>
        <Box fontSize="13px" color={broken ? 'plumText' : 'soft'}>
          {broken
            ? `${account.health.message} Its posts wait; nothing is lost.`
            : `${CONNECTED[account.connector]} ${distance(account.linkedAt, clockNow())}${endsSoon(account, clockNow()) ? `, until ${longDay(account.health.endsAt?.slice(0, 10) ?? '')}` : ''}`}
          {account.endedAt
            ? ` · ended on ${account.endedAt.slice(0, 10)}`
            : account.held
              ? ` · held: ${account.held.reason.replace(/\.$/, '')}`
              : ''}{' '}
          · {describeSlots(account)}
        </Box>
      </Box>
      {broken && <LinkAgain account={account} />}
      {account.profileUrl && (
        <a href={account.profileUrl} target="_blank" rel="noreferrer">
          <chakra.span fontSize="13px" color="waterText" textDecoration="underline">
            Public page
          </chakra.span>
        </a>
      )}
      <Holding what={what} held={account.held} endedAt={account.endedAt} others={others} />
      <Button onClick={onChoose}>Slots and quiet days</Button>
    </Flex>
  )
}

/** Links an account once more: on the network's page, on its own site; a webhook is asked whether it takes posts again. */
function LinkAgain({ account }: { account: Account }) {
  if (account.connector === 'stand-in' || account.connector === 'micropub')
    return <LinkButton path={linkAgainPath(account)}>Link again</LinkButton>
  return (
    <Button
      onClick={() =>
        void attempt(async () => {
          const { state, message } = await checkAccount(account.id)
          say(state === 'linked' ? 'It takes posts again.' : message)
        })
      }
    >
      Check again
    </Button>
  )
}

/** How an account came here, before how long ago. */
const CONNECTED: Record<Account['connector'], string> = {
  'stand-in': 'linked',
  micropub: 'your own site, linked',
  webhook: 'a webhook, linked',
  hand: 'by hand, linked',
}

/** "Mon, Wed, Fri: 3 slots a week". */
function describeSlots(account: Account): string {
  const days = [...new Set(account.slots.map((s) => s.weekday))].sort()
  return account.slots.length
    ? `${count(account.slots.length, 'slot')} a week, ${days.length === 7 ? 'every day' : days.map(weekdayName).join(' ')}`
    : 'no slots: it cannot post'
}
