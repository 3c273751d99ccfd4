import { Box, chakra, Flex, Heading } from '@chakra-ui/react'
import { followersSheet } from '../../core/formats'
import {
  groupName,
  grownWords,
  growthWords,
  MOST_FOLLOWINGS,
  type Asked,
  type Followed,
  type Names,
} from '../../core/results'
import { download, useTable } from '../data'
import { useFollowers } from '../data/more'
import { useWork } from '../shell'
import { Button, count, fileName } from '../ui'
import { CELL } from './GroupTable'

/** How many follow each account and how that changed over the span; nothing where no network says so. */
export function Followers({ asked, span, names }: { asked: Asked; span: string; names: Names }) {
  const { brand } = useWork()
  const followed = useFollowers(brand.id, names.accounts, asked)
  const dropped = useTable('workspace')?.[0]?.thinned?.followings ?? 0
  if (followed.length === 0) return null
  const called = (account: string): string => groupName('account', account, names)
  const save = (): void =>
    download(
      new Blob([followersSheet(followed, new Map(followed.map((f) => [f.account, called(f.account)])))], {
        type: 'text/csv',
      }),
      `${fileName(`${brand.name} followers`)}.csv`,
    )
  return (
    <Box as="section" aria-label="Followers">
      <Flex align="center" gap="3" mb="2">
        <Heading as="h2" fontSize="15px" fontWeight="600">
          Followers
        </Heading>
        <Button size="sm" look="quiet" onClick={save}>
          CSV
        </Button>
      </Flex>
      <Box overflowX="auto">
        <chakra.table w="full" fontSize="13px" css={{ borderCollapse: 'collapse', '& th, & td': CELL }}>
          <chakra.thead color="soft" fontSize="12px" textAlign="left">
            <tr>
              <th scope="col">Account</th>
              <chakra.th scope="col" textAlign="right">
                Followers
              </chakra.th>
              <th scope="col">In {span}</th>
              <th scope="col">In the span before</th>
              <th scope="col">Day by day</th>
            </tr>
          </chakra.thead>
          <tbody>
            {followed.map((of) => (
              <tr key={of.account}>
                <chakra.th scope="row" fontWeight="500" textAlign="left">
                  {called(of.account)}
                </chakra.th>
                <chakra.td textAlign="right" fontFamily="mono" fontSize="12px">
                  {of.followers.toLocaleString('en-GB')}
                </chakra.td>
                <td>{grownWords(of, asked.from)}</td>
                <chakra.td color="soft">{of.before ? growthWords(of.before) : '–'}</chakra.td>
                <td>
                  <Curve of={of} />
                </td>
              </tr>
            ))}
          </tbody>
        </chakra.table>
      </Box>
      {dropped > 0 && (
        <Box color="soft" fontSize="13px" mt="2" maxW="72ch">
          To keep within {MOST_FOLLOWINGS.toLocaleString('en-GB')} figures in this browser,{' '}
          {count(dropped, 'of the oldest was', 'of the oldest were')} dropped, Mondays last; a bundle of
          before has them.
        </Box>
      )}
    </Box>
  )
}

const WIDE = 220
const HIGH = 28

/** The figures of an account as a line that breaks where days are missing. */
function Curve({ of: { days } }: { of: Followed }) {
  const known = days.flatMap((d) => d.followers ?? [])
  const [least, most] = [Math.min(...known), Math.max(...known)]
  const x = (i: number): number => (i / Math.max(1, days.length - 1)) * WIDE
  const y = (n: number): number => HIGH - 2 - ((n - least) / Math.max(1, most - least)) * (HIGH - 4)
  const path = days
    .map(({ followers }, i) =>
      followers === null
        ? ''
        : `${days[i - 1]?.followers == null ? 'M' : 'L'}${x(i).toFixed(1)} ${y(followers).toFixed(1)}`,
    )
    .join('')
  const missing = days.length - known.length
  const words = `${least.toLocaleString('en-GB')} to ${most.toLocaleString('en-GB')}${missing > 0 ? `; ${count(missing, 'day')} missing` : ''}`
  return (
    <Flex align="center" gap="2">
      <chakra.svg
        viewBox={`0 0 ${WIDE} ${HIGH}`}
        w={`${WIDE}px`}
        h={`${HIGH}px`}
        flexShrink={0}
        role="img"
        aria-label={words}
        color="water"
      >
        <path d={path} fill="none" stroke="currentColor" strokeWidth="1.5" strokeLinecap="round" />
      </chakra.svg>
      <chakra.span color="soft">{words}</chakra.span>
    </Flex>
  )
}
