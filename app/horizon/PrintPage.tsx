import { Box, chakra } from '@chakra-ui/react'
import { useEffect, useState } from 'react'
import { flushSync } from 'react-dom'
import { momentOf, type Account, type Post } from '../../core/model'
import { network } from '../../core/networks'
import { toWall } from '../../core/planning'
import { longDay, weekdayName } from '../ui'
import { spanWords } from './lanes'

/** The posts of some days as a plain page, day by day; it appears on paper only. */
export function PrintPage({
  brand,
  from,
  to,
  posts,
  accounts,
}: {
  brand: string
  /** The days that are printed, both included, on each account's own clock. */
  from: string
  to: string
  posts: readonly Post[]
  accounts: readonly Account[]
}) {
  // Thousands of rows are made only when paper asks for them.
  const [printing, setPrinting] = useState(false)
  useEffect(() => {
    const begin = (): void => flushSync(() => setPrinting(true))
    const end = (): void => setPrinting(false)
    window.addEventListener('beforeprint', begin)
    window.addEventListener('afterprint', end)
    return () => {
      window.removeEventListener('beforeprint', begin)
      window.removeEventListener('afterprint', end)
    }
  }, [])
  if (!printing) return null
  const known = new Map(accounts.map((a) => [a.id, a]))
  const rows = posts
    .flatMap((post) => {
      const at = momentOf(post)
      const account = known.get(post.account)
      if (!at || !account) return []
      const wall = toWall(Date.parse(at), account.zone)
      return wall.date >= from && wall.date <= to ? [{ post, account, wall, at }] : []
    })
    .sort((a, b) => (a.at < b.at ? -1 : 1))
  return (
    <Box display="none" _print={{ display: 'block' }} color="black" bg="white" p="0">
      <Box fontSize="20px" fontWeight="700" mb="3">
        {brand}, {spanWords(from, to)}
      </Box>
      <chakra.table
        w="full"
        fontSize="12px"
        css={{
          borderCollapse: 'collapse',
          '& tr': { breakInside: 'avoid' },
          '& td': { verticalAlign: 'top', padding: '3px 8px 3px 0', borderTop: '1px solid #ccc' },
        }}
      >
        <tbody>
          {rows.length === 0 && (
            <tr>
              <td>Nothing stands on these days.</td>
            </tr>
          )}
          {rows.map(({ post, account, wall }, i) => (
            <tr key={post.id}>
              <td style={{ whiteSpace: 'nowrap', fontWeight: 700 }}>
                {wall.date === rows[i - 1]?.wall.date
                  ? ''
                  : `${weekdayName(wall.weekday)} ${longDay(wall.date)}`}
              </td>
              <td>{wall.time}</td>
              <td style={{ whiteSpace: 'nowrap' }}>
                {network(account.network).name} @{account.handle}
              </td>
              <td style={{ whiteSpace: 'nowrap' }}>{post.state}</td>
              <td style={{ fontFamily: 'var(--chakra-fonts-reading)' }}>{post.wording.text}</td>
            </tr>
          ))}
        </tbody>
      </chakra.table>
    </Box>
  )
}
