import { Box, chakra } from '@chakra-ui/react'
import { bounds, COUNTED_WORDS, figure, isCertain, more, type Counted, type Group } from '../../core/results'

/** Groups of posts in figures: how many, what they earned, and how that compares. */
export function GroupTable({
  groups,
  names,
  by,
  counted,
  against,
}: {
  groups: readonly Group[]
  names: readonly string[]
  by: string
  counted: Counted
  /** What the last column compares with. */
  against: string
}) {
  return (
    <Box overflowX="auto">
      <chakra.table w="full" fontSize="13px" css={{ borderCollapse: 'collapse', '& th, & td': CELL }}>
        <chakra.thead color="soft" fontSize="12px" textAlign="left">
          <tr>
            <chakra.th scope="col" textTransform="capitalize">
              {by}
            </chakra.th>
            <chakra.th scope="col" textAlign="right">
              Posts
            </chakra.th>
            <chakra.th scope="col" textAlign="right">
              {COUNTED_WORDS[counted]} a post
            </chakra.th>
            <chakra.th scope="col" textAlign="right">
              Before
            </chakra.th>
            <chakra.th scope="col">{against}</chakra.th>
          </tr>
        </chakra.thead>
        <tbody>
          {groups.map((group, i) => (
            <tr key={group.key}>
              <chakra.th scope="row" fontWeight="500" textAlign="left">
                {names[i]}
              </chakra.th>
              <Number>{group.posts}</Number>
              <Number>{figure(group.mean, counted)}</Number>
              <Number soft>{group.before ? figure(group.before.mean, counted) : '–'}</Number>
              <chakra.td color={group.times && isCertain(group.times) ? 'ink' : 'soft'}>
                {group.times
                  ? isCertain(group.times)
                    ? `${more(group.times.at)} (${bounds(group.times)})`
                    : `cannot be told apart (${bounds(group.times)})`
                  : 'too few to say'}
              </chakra.td>
            </tr>
          ))}
        </tbody>
      </chakra.table>
    </Box>
  )
}

/** How the cells of a table of figures stand. */
export const CELL = { padding: '5px 10px 5px 0', borderBottom: '1px solid var(--chakra-colors-hairline)' }

function Number({ children, soft = false }: { children: React.ReactNode; soft?: boolean }) {
  return (
    <chakra.td textAlign="right" fontFamily="mono" fontSize="12px" color={soft ? 'soft' : 'ink'}>
      {children}
    </chakra.td>
  )
}
