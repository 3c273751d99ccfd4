import { Box, chakra, Flex, Heading } from '@chakra-ui/react'
import { Link } from 'react-router'
import { bounds, more } from '../../core/results'
import { useRows } from '../data'
import { shelve, useTiring } from '../data/more'
import { attempt, Button, count } from '../ui'

/** Passages and pictures that earn less each further time, for certain; nothing where none do. */
export function Tires({ brand }: { brand: string }) {
  const tiring = useTiring(brand)
  const passages = useRows('passages', 'brand', brand)
  const pieces = useRows('pieces', 'brand', brand)
  const posts = useRows('posts', 'brand', brand)
  if (tiring.length === 0 || !passages || !pieces || !posts) return null
  const shown = (address: string) =>
    posts.flatMap((p) => p.media).find((m) => m.source.from === 'address' && m.source.url === address)
  return (
    <Box as="section" aria-label="Readers tire of these">
      <Heading as="h2" fontSize="15px" fontWeight="600">
        Readers tire of these
      </Heading>
      <Box fontSize="13px" color="soft" mb="2">
        What each further time on an account earns, against what was usual there about then, after three days.
      </Box>
      {tiring.map(({ kind, key, posts: of, times }) => {
        const passage = kind === 'passage' ? passages.find((p) => p.id === key) : undefined
        const piece = passage && pieces.find((p) => p.id === passage.piece)
        return (
          <Flex
            key={`${kind} ${key}`}
            gap="4"
            py="2"
            align="center"
            borderTopWidth="1px"
            borderColor="hairline"
            fontSize="13px"
          >
            <Box flex="1" minW="0">
              <Box fontFamily="reading" fontSize="14px" lineClamp={2}>
                {kind === 'picture' ? shown(key)?.alt || key : (passage?.text ?? 'A passage that is gone')}
              </Box>
              <Box color="soft" truncate>
                {kind === 'picture' ? (
                  <Link to="/writing/pictures">a picture</Link>
                ) : (
                  piece && <Link to={`/intake/${piece.id}`}>{piece.title}</Link>
                )}
                , in {count(of, 'post')}
              </Box>
            </Box>
            <Box w="230px" flexShrink={0}>
              <chakra.b>{more(times.at)}</chakra.b> each time{' '}
              <chakra.span color="soft">({bounds(times)})</chakra.span>
            </Box>
            <Box w="140px" flexShrink={0} textAlign="right">
              {passage && passage.shelf !== 'off' && (
                <Button size="sm" onClick={() => void attempt(() => shelve([passage], 'off'))}>
                  Take off the shelf
                </Button>
              )}
              {passage?.shelf === 'off' && <Box color="soft">off the shelf</Box>}
            </Box>
          </Flex>
        )
      })}
    </Box>
  )
}
