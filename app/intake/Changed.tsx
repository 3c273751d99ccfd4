import { Box, chakra, Flex } from '@chakra-ui/react'
import { useMemo } from 'react'
import useSWR from 'swr'
import type { WholePiece } from '../../core/model'
import { differences, shortened } from '../../core/reading'
import { during, leaveChanged, makeAgain, openPostsOf, useWholePiece } from '../data'
import { attempt, Button, count, say } from '../ui'

/** Around a change, how many characters of what stayed are shown. */
const AROUND = 90

/** What changed in a piece at its source, and what is to be done with its posts that have not gone out. */
export function Changed({ piece }: { piece: WholePiece }) {
  const before = useWholePiece(piece.id, piece.revision - 1)
  const { data: open } = useSWR(['open posts', piece.id, piece.revision], () => openPostsOf(piece.id))
  const parts = useMemo(
    () => (before && before.text !== piece.text ? differences(before.text, piece.text) : []),
    [before, piece.text],
  )
  const changes = parts.filter(
    (p, i) => p.kind !== 'same' && !(p.kind === 'new' && parts[i - 1]?.kind === 'gone'),
  ).length
  return (
    <Box borderLeftWidth="4px" borderColor="amber" bg="raised" px="4" py="3" mb="5" borderRadius="sm">
      <Flex justify="space-between" gap="3" align="flex-start" flexWrap="wrap">
        <Box flex="1" minW="220px">
          <Box fontWeight="600">
            {piece.video?.transcript === 'dropped'
              ? 'This piece has another transcript'
              : 'This piece changed at its source'}
          </Box>
          <Box fontSize="13px" color="soft">
            {changes ? `${count(changes, 'change')}, below. ` : 'Its marks changed, its words did not. '}
            {open === undefined
              ? ''
              : open.length
                ? `${count(open.length, 'post')} of it ${open.length === 1 ? 'has' : 'have'} not gone out and ${open.length === 1 ? 'quotes' : 'quote'} the old words.`
                : 'No post of it waits.'}
          </Box>
        </Box>
        <Flex gap="2">
          {open !== undefined && open.length > 0 && (
            <Button
              look="water"
              onClick={() =>
                void attempt(async () => {
                  await during(`Writing “${piece.title}” again`, (show) => makeAgain(piece.id, show))
                  say('The posts to come are made again from the new text; they wait for review.')
                })
              }
            >
              Make them again
            </Button>
          )}
          <Button onClick={() => void attempt(() => leaveChanged(piece.id))}>
            {open?.length ? 'Leave them' : 'Seen'}
          </Button>
        </Flex>
      </Flex>
      {changes > 0 && (
        <Box fontFamily="reading" fontSize="15px" mt="2" maxH="220px" overflowY="auto" whiteSpace="pre-wrap">
          {parts.map((part, i) =>
            part.kind === 'same' ? (
              <chakra.span key={i} color="soft">
                {shortened(part.text, AROUND, { after: i > 0, before: i < parts.length - 1 })}
              </chakra.span>
            ) : (
              <chakra.span
                key={i}
                as={part.kind === 'new' ? 'ins' : 'del'}
                bg={part.kind === 'new' ? 'waterTint' : 'clayTint'}
                textDecoration={part.kind === 'new' ? 'underline' : 'line-through'}
              >
                {part.text}
              </chakra.span>
            ),
          )}
        </Box>
      )}
    </Box>
  )
}
