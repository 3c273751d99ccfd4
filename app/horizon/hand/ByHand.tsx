import { Flex } from '@chakra-ui/react'
import { useNavigate, useSearchParams } from 'react-router'
import { toWall } from '../../../core/planning'
import { clockNow, useOpenAccounts } from '../../data'
import { useWork } from '../../shell'
import { Button, LinkFirst, Page, PageHead, Segments, useKeys } from '../../ui'
import { ComesAgain } from './ComesAgain'
import { FromSheet } from './FromSheet'
import { OnePost } from './OnePost'

const WAYS = ['one post', 'comes again', 'from a sheet'] as const

/** Posts that a person writes without a piece: one, one that comes again, or a sheet of them. */
export function ByHand() {
  const { brand } = useWork()
  const navigate = useNavigate()
  const [params, setParams] = useSearchParams()
  const accounts = useOpenAccounts(brand.id)
  const way = WAYS.find((w) => w === params.get('way')) ?? 'one post'
  const today = toWall(clockNow(), brand.zone).date
  useKeys({ Escape: () => void navigate('/horizon') })
  if (!accounts) return <Page>{null}</Page>
  const Way = way === 'one post' ? OnePost : way === 'comes again' ? ComesAgain : FromSheet
  return (
    <Page>
      <Flex direction="column" h="full">
        <PageHead title="Write by hand">
          <Segments
            label="What to write"
            choices={WAYS}
            value={way}
            onChange={(w) =>
              setParams(w === 'one post' ? {} : { way: w }, { replace: true, flushSync: true })
            }
          />
          <Button hint="Esc" onClick={() => void navigate('/horizon')}>
            Back to the Horizon
          </Button>
        </PageHead>
        {accounts.length === 0 ? (
          <LinkFirst title="A post needs an account">
            Link one first; then what you write here finds its place in the account’s slots.
          </LinkFirst>
        ) : (
          <Way key={brand.id} brand={brand} accounts={accounts} today={today} />
        )}
      </Flex>
    </Page>
  )
}
