import { Box, chakra, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { Link, useParams } from 'react-router'
import useSWR from 'swr'
import { ASKED_OF, type AskedOf } from '../../core/drips'
import { asFault } from '../../core/model'
import { measure, network } from '../../core/networks'
import { headlinesOf, seriesOf, useAccounts, useRow } from '../data'
import { useWork } from '../shell'
import { Button, count, Empty, Mono, NetworkMark, NumberField, Page, PageHead, say, SelectField } from '../ui'

const OPTIONS = { revalidateOnFocus: false, keepPreviousData: true }

/** A piece as so many posts in one table, each from a passage of its own, and headlines to choose from. */
export function Series() {
  const { id = '' } = useParams()
  const { brand } = useWork()
  const piece = useRow('pieces', id)
  const accounts = useAccounts(brand.id) ?? []
  const [asked, setAsked] = useState<AskedOf>('most useful')
  const [wanted, setWanted] = useState(8)
  const networks = [...new Set(accounts.map((a) => a.network))]
  const used = networks.length ? networks : ['murmur', 'guildhall', 'shutterleaf']
  const many = Math.max(1, Math.min(30, wanted || 1))
  const posts = useSWR(
    piece
      ? [
          'series',
          piece.id,
          piece.revision,
          asked,
          many,
          used.join(),
          JSON.stringify(brand.houseStyle),
          JSON.stringify(brand.briefs),
        ]
      : null,
    () => seriesOf(brand, id, used, asked, many),
    OPTIONS,
  )
  const titles = useSWR(
    piece ? ['headlines', piece.id, piece.revision] : null,
    () => headlinesOf(id),
    OPTIONS,
  )
  if (piece === null)
    return (
      <Page>
        <Box px="6">
          <Empty title="This piece is no longer here">It may have been undone.</Empty>
        </Box>
      </Page>
    )
  if (!piece) return <Page>{null}</Page>
  const fault: unknown = posts.error
  const copy = (text: string): void =>
    void navigator.clipboard.writeText(text).then(
      () => say('Copied.'),
      () => say('The browser does not allow copying here.'),
    )
  return (
    <Page>
      <PageHead
        reading
        title={<Link to={`/intake/${piece.id}`}>{piece.title}</Link>}
        note="As posts, each from a passage of its own. Nothing is kept from here: start a drip from the Reader, or copy what you need."
      >
        <Flex gap="3" align="flex-end">
          <NumberField label="Posts" min={1} max={30} value={wanted} onChange={setWanted} />
          <SelectField
            aria-label="What is asked of the passages"
            value={asked}
            onChange={(e) => setAsked(e.target.value as AskedOf)}
          >
            {ASKED_OF.map((a) => (
              <option key={a}>{a}</option>
            ))}
          </SelectField>
        </Flex>
      </PageHead>
      <Flex px="6" pb="8" gap="10" align="flex-start">
        <Box flex="1" minW="0">
          {fault !== undefined && <Box color="plumText">{asFault(fault).message}</Box>}
          {posts.data && posts.data.length < many && (
            <Box fontSize="13px" color="soft" mb="2">
              The piece has {count(posts.data.length, 'passage')} that stand as posts of their own.
            </Box>
          )}
          <chakra.table w="full" css={{ '& th, & td': { textAlign: 'left', verticalAlign: 'top' } }}>
            <chakra.thead fontSize="12px" color="soft">
              <tr>
                <chakra.th fontWeight="400" pb="1" w="130px">
                  Network
                </chakra.th>
                <chakra.th fontWeight="400" pb="1" w="92px">
                  Angle
                </chakra.th>
                <chakra.th fontWeight="400" pb="1">
                  Caption
                </chakra.th>
                <th aria-label="Actions" />
              </tr>
            </chakra.thead>
            <tbody>
              {(posts.data ?? []).map((p) => (
                <chakra.tr
                  key={`${p.network} ${p.passage.start}`}
                  borderTopWidth="1px"
                  borderColor="hairline"
                  data-testid="series-row"
                >
                  <chakra.td py="2.5" pr="3" fontSize="13px">
                    <Flex gap="2" align="center">
                      <NetworkMark id={p.network} /> {network(p.network).name}
                    </Flex>
                  </chakra.td>
                  <chakra.td py="2.5" pr="3">
                    <Mono>
                      {p.wording.angle}
                      <br />
                      {measure(p.wording.text, network(p.network).text)}
                    </Mono>
                  </chakra.td>
                  <chakra.td py="2.5" pr="3" fontFamily="reading" fontSize="15px" whiteSpace="pre-wrap">
                    {p.wording.title && <chakra.b display="block">{p.wording.title}</chakra.b>}
                    {p.wording.text}
                  </chakra.td>
                  <chakra.td py="2">
                    <Button size="sm" look="quiet" onClick={() => copy(p.wording.text)}>
                      Copy
                    </Button>
                  </chakra.td>
                </chakra.tr>
              ))}
            </tbody>
          </chakra.table>
        </Box>
        <Box w="300px" flexShrink={0}>
          <Box fontWeight="600" fontSize="15px" mb="1">
            Headlines
          </Box>
          {(titles.data ?? []).map((h) => (
            <Flex key={h.text} gap="2" py="1.5" borderTopWidth="1px" borderColor="hairline" align="baseline">
              <Box flex="1">
                <Box fontFamily="reading" fontSize="15px">
                  {h.text}
                </Box>
                <Mono>{h.why}</Mono>
              </Box>
              <Button size="sm" look="quiet" onClick={() => copy(h.text)}>
                Copy
              </Button>
            </Flex>
          ))}
        </Box>
      </Flex>
    </Page>
  )
}
