import { Box, chakra, Flex, Heading } from '@chakra-ui/react'
import { Link } from 'react-router'
import { AGES, type Account, type Measure, type Post, type Row } from '../../core/model'
import { network } from '../../core/networks'
import { COUNTED_WORDS } from '../../core/results'
import { standingOf, useRows } from '../data'
import { Troubles } from '../writing'
import { attempt, Button, moment, Mono, say, postPath } from '../ui'

/** One delivery: its words, how it is read, and each receipt with its requests. */
export function Delivery({
  post,
  account,
  receipts,
  onClose,
}: {
  post: Post
  account: Account | undefined
  receipts: Row<'receipts'>[]
  onClose: () => void
}) {
  const zone = account?.zone ?? 'UTC'
  const readings = useRows('readings', 'post', post.id)
  return (
    <Box p="4">
      <Flex justify="space-between" align="center" mb="3">
        <Heading as="h2" fontSize="15px" fontWeight="600">
          {network(post.network).name} · {post.state}
        </Heading>
        <Button size="sm" look="quiet" hint="Esc" onClick={onClose}>
          Close
        </Button>
      </Flex>
      <Box fontFamily="reading" whiteSpace="pre-wrap" overflowWrap="anywhere" mb="3">
        {post.wording.text}
      </Box>
      <Flex gap="3" fontSize="13px" mb="3" wrap="wrap">
        <Link to={postPath(post)}>
          <chakra.span color="waterText" textDecoration="underline">
            {post.drip ? 'On its drip sheet' : 'On the Horizon'}
          </chakra.span>
        </Link>
        {post.publicUrl && (
          <a href={post.publicUrl} target="_blank" rel="noreferrer">
            <chakra.span color="waterText" textDecoration="underline">
              Public page
            </chakra.span>
          </a>
        )}
        {post.state === 'published' && post.visibility !== 'gone' && (
          <Button
            size="sm"
            onClick={() => void attempt(async () => say((await standingOf(post.id)).message))}
          >
            Is it still there?
          </Button>
        )}
      </Flex>
      <Troubles post={post} />
      {readings && readings.length > 0 && (
        <Readings readings={readings} measures={countedOf(post, readings)} zone={zone} />
      )}
      {receipts.length === 0 && (
        <Box color="soft">
          {post.state === 'handed over'
            ? `It is with the server and goes out on ${post.at ? moment(post.at, zone) : 'its day'}.`
            : 'No delivery has been tried yet.'}
        </Box>
      )}
      {[...receipts]
        .sort((a, b) => (a.finishedAt < b.finishedAt ? 1 : -1))
        .map((receipt) => (
          <Box key={receipt.id} borderTopWidth="1px" borderColor="hairline" pt="3" mt="3">
            <Box fontWeight="600">
              {receipt.outcome} <Mono>{moment(receipt.finishedAt, zone)}</Mono>
            </Box>
            <Box fontSize="13px" mb="2">
              {receipt.reason} It was due {moment(receipt.dueAt, zone)}.
            </Box>
            {receipt.attempts.map((attempted, i) => (
              <Box key={attempted.at + String(i)} mb="3">
                <Mono>
                  request {i + 1} · {moment(attempted.at, zone)} · {attempted.milliseconds} ms
                </Mono>
                <Payload
                  title={`${attempted.request.method} ${attempted.request.url}`}
                  body={attempted.request.body}
                />
                <Payload
                  title={
                    attempted.answer
                      ? `answered ${attempted.answer.status}`
                      : (attempted.error ?? 'no answer')
                  }
                  body={attempted.answer?.body ?? null}
                />
              </Box>
            ))}
          </Box>
        ))}
    </Box>
  )
}

/** What is counted of a post: what its network does, and the clicks on its short link where they were told. */
function countedOf(post: Post, readings: readonly Row<'readings'>[]): Measure[] {
  const byShortener = readings.some((r) => r.measures?.['link clicks'] !== undefined)
  return [...network(post.network).measures, ...(byShortener ? (['link clicks'] as const) : [])]
}

/** What readers did with a post, a row for each age at which the network was asked. */
function Readings({
  readings,
  measures,
  zone,
}: {
  readings: readonly Row<'readings'>[]
  measures: readonly Measure[]
  zone: string
}) {
  const taken = [...readings].sort((a, b) => AGES[a.age] - AGES[b.age])
  return (
    <chakra.table w="100%" fontSize="12px" mb="3" style={{ fontVariantNumeric: 'tabular-nums' }}>
      <chakra.thead color="soft" textAlign="right">
        <tr>
          <chakra.th textAlign="left" fontWeight="400">
            after
          </chakra.th>
          {measures.map((m) => (
            <chakra.th key={m} fontWeight="400" pl="2">
              {COUNTED_WORDS[m].toLowerCase()}
            </chakra.th>
          ))}
        </tr>
      </chakra.thead>
      <tbody>
        {taken.map((reading) => (
          <chakra.tr key={reading.id} borderTopWidth="1px" borderColor="hairline">
            <chakra.td py="1" whiteSpace="nowrap" title={`Read ${moment(reading.takenAt, zone)}`}>
              {reading.age}
            </chakra.td>
            {reading.measures === null ? (
              <chakra.td colSpan={measures.length} textAlign="right" color="soft">
                missing: {reading.reason}
              </chakra.td>
            ) : (
              measures.map((m) => (
                <chakra.td key={m} textAlign="right" fontFamily="mono">
                  {reading.measures?.[m]?.toLocaleString('en') ?? '–'}
                </chakra.td>
              ))
            )}
          </chakra.tr>
        ))}
      </tbody>
    </chakra.table>
  )
}

function Payload({ title, body }: { title: string; body: unknown }) {
  return (
    <Box as="details" mt="1">
      <chakra.summary fontFamily="mono" fontSize="12px" cursor="pointer" overflowWrap="anywhere">
        {title}
      </chakra.summary>
      <chakra.pre
        fontFamily="mono"
        fontSize="11px"
        whiteSpace="pre-wrap"
        overflowWrap="anywhere"
        bg="paper"
        p="2"
        borderRadius="sm"
        tabIndex={0}
      >
        {JSON.stringify(body, null, 1)}
      </chakra.pre>
    </Box>
  )
}
