import { Box } from '@chakra-ui/react'
import { Link } from 'react-router'
import type { Account, ShelfRow } from '../../../core/model'
import { accountsOf } from '../../../core/pipeline'
import { addDays, toWall } from '../../../core/planning'
import { choicesFor, firstOf, type Shelf, type ShelfChoice } from '../../../core/shelf'
import { clockNow } from '../../data'
import { useShelfFor } from '../../data/more'
import { useWork } from '../../shell'
import { count, longDay, NetworkMark } from '../../ui'

/** So many days ahead are looked at for when the shelf has something. */
const LOOKED = 200

/** What the shelf would give a row next on each of its accounts, or from when. */
export function FromTheShelf({ row, accounts }: { row: ShelfRow; accounts: readonly Account[] }) {
  const { brand } = useWork()
  const laid = useShelfFor(brand, row)
  if (!laid) return null
  return (
    <Box mt="2" fontSize="14px" role="group" aria-label="What the shelf would give">
      {accountsOf(row, accounts).map((account) => (
        <Box key={account.id} py="1" borderTopWidth="1px" borderColor="hairline">
          <NetworkMark id={account.network} /> @{account.handle}: <NextOn account={account} {...laid} />
        </Box>
      ))}
      <Box mt="1" color="soft">
        New work has its place first: a day on which no opening is free gets nothing from the{' '}
        <Link to="/writing/shelf">shelf</Link>.
      </Box>
    </Box>
  )
}

function NextOn({ account, shelf, choice }: { account: Account; shelf: Shelf; choice: ShelfChoice }) {
  const today = toWall(clockNow(), account.zone).date
  for (let ahead = 1; ahead <= LOOKED; ahead++) {
    const day = addDays(today, ahead)
    const may = choicesFor(shelf, account, day, choice)
    const [first] = firstOf(may, shelf, account, choice, 1)
    if (!first) continue
    return (
      <>
        {ahead === 1
          ? `${count(may.length, 'passage')} may come; first “`
          : `nothing before ${longDay(day)}; then “`}
        <Box as="span" fontFamily="reading">
          {opening(first.passage.text)}
        </Box>
        ” of {first.piece.title}.
      </>
    )
  }
  return <>nothing of the shelf may come within {LOOKED} days.</>
}

/** The beginning of a passage, cut between two words. */
const opening = (text: string): string =>
  text.length > 90 ? `${text.slice(0, 88).replace(/\s+\S*$/, '')} …` : text
