import { Box, Flex } from '@chakra-ui/react'
import useSWR from 'swr'
import { asFault, type Brand, type Piece } from '../../core/model'
import { measure, network } from '../../core/networks'
import { exampleOf, useRows } from '../data'
import { Mono, NetworkMark, SelectField } from '../ui'

/** The pieces that an example can be written from, the newest first. */
export function usePieces(brand: string): Piece[] {
  const pieces = useRows('pieces', 'brand', brand) ?? []
  return pieces
    .filter((p) => p.words > 0 && p.double === null)
    .sort((a, b) => (a.takenAt < b.takenAt ? 1 : -1))
}

/** Chooses the piece of an example. */
export function PieceChoice({
  pieces,
  value,
  onChange,
}: {
  pieces: readonly Piece[]
  value: string
  onChange: (id: string) => void
}) {
  return (
    <SelectField
      aria-label="Piece of the example"
      fontFamily="reading"
      fontSize="16px"
      fontWeight="600"
      w="full"
      value={value}
      onChange={(e) => onChange(e.target.value)}
    >
      {pieces.slice(0, 60).map((p) => (
        <option key={p.id} value={p.id}>
          {p.title}
        </option>
      ))}
    </SelectField>
  )
}

/** What a brand, as it stands or as it is being changed, makes of a piece for some networks; nothing is kept. */
export function Example({
  brand,
  piece,
  networks,
}: {
  brand: Brand
  piece: string
  networks: readonly string[]
}) {
  const recipe = JSON.stringify([piece, networks, brand.houseStyle, brand.briefs, brand.name])
  const { data, error } = useSWR<Awaited<ReturnType<typeof exampleOf>>, unknown>(
    networks.length ? ['style example', recipe] : null,
    () => exampleOf(brand, piece, networks),
    { revalidateOnFocus: false, keepPreviousData: true },
  )
  if (error !== undefined)
    return (
      <Box color="plumText" fontSize="13px">
        {asFault(error).message}
      </Box>
    )
  const rows = networks.flatMap((id) => (data ?? []).filter((post) => post.network === id))
  return (
    <Box aria-live="polite">
      {rows.map((post) => {
        const profile = network(post.network)
        return (
          <Box
            key={`${post.network} ${post.beat}`}
            borderTopWidth="1px"
            borderColor="hairline"
            py="3"
            data-testid="example"
          >
            <Flex align="center" gap="2" mb="1.5" fontSize="13px">
              <NetworkMark id={post.network} />
              <Box fontWeight="600">{profile.name}</Box>
              {post.wording && (
                <Mono>
                  {post.wording.angle} · {measure(post.wording.text, profile.text)}
                </Mono>
              )}
            </Flex>
            {post.wording?.title && (
              <Box fontFamily="reading" fontWeight="600" mb="1">
                {post.wording.title}
              </Box>
            )}
            <Box
              fontFamily="reading"
              fontSize="15px"
              lineHeight="1.5"
              whiteSpace="pre-wrap"
              overflowWrap="anywhere"
              color={post.wording ? 'ink' : 'soft'}
            >
              {post.wording?.text ?? post.checks[0]?.message}
            </Box>
          </Box>
        )
      })}
    </Box>
  )
}
