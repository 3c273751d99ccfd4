import { Box, Flex, Heading, Spinner } from '@chakra-ui/react'
import { useState } from 'react'
import useSWR from 'swr'
import type { DripResult } from '../../core/pipeline'
import { asFault, type Brand, type Passage, type Piece, type Pipeline } from '../../core/model'
import { toWall } from '../../core/planning'
import { nowIso, useAccounts, tryDrip, useWholePiece } from '../data'
import { useWork } from '../shell'
import { useSieveTrial } from './useSieveTrial'
import { Button, count, Drop, moment, Mono, NetworkMark, SelectField } from '../ui'

interface Example {
  result: DripResult
  passages: Passage[]
  milliseconds: number
}

/** Runs one piece through a pipeline as it stands; nothing is kept. */
async function runExample(pipeline: Pipeline, brand: Brand, piece: Piece): Promise<Example> {
  const started = performance.now()
  const { result, passages } = await tryDrip(
    {
      piece: piece.id,
      accounts: pipeline.accounts,
      rhythm: pipeline.rhythm,
      startDay: toWall(Date.parse(nowIso()), brand.zone).date,
      gate: pipeline.gate,
      pipeline,
    },
    undefined,
    // As if nothing of it were out yet.
    (post) => post.piece !== piece.id,
  )
  return { result, passages, milliseconds: Math.round(performance.now() - started) }
}

/** A real recent piece travelling through the pipeline. Nothing is published or kept from here. */
export function WorkedExample({ pipeline }: { pipeline: Pipeline }) {
  const { brand } = useWork()
  const trial = useSieveTrial(pipeline, brand.id)
  const pieces = (trial?.results ?? []).map((r) => r.piece)
  const accounts = useAccounts(brand.id) ?? []
  const [chosen, setChosen] = useState<string | null>(null)
  const readable = trial?.results.filter((r) => r.piece.words > 0) ?? []
  // A piece that passes shows most; one that was caught can be chosen.
  const shown =
    trial?.results.find((r) => r.piece.id === chosen) ?? readable.find((r) => r.result.passed) ?? readable[0]
  const piece = shown?.piece
  const caught = trial?.results.filter((r) => !r.result.passed) ?? []
  const recipe = [
    piece?.id,
    piece?.revision,
    pipeline.accounts,
    pipeline.rhythm,
    pipeline.gate,
    brand.houseStyle,
    accounts,
  ]
  const { data: example, error } = useSWR<Example, unknown>(
    piece && piece.words > 0 && pipeline.accounts.length ? ['example', JSON.stringify(recipe)] : null,
    () => runExample(pipeline, brand, piece as Piece),
    { revalidateOnFocus: false, keepPreviousData: true },
  )
  const words = useWholePiece(piece?.id ?? null)
  const trouble = error === undefined ? null : asFault(error).message
  if (!piece)
    return (
      <Box p="6" color="soft">
        The worked example shows a real piece travelling through. Choose a source that has brought one.
      </Box>
    )
  const kept = (example?.passages ?? []).filter((p) => p.choice === 'kept').sort((a, b) => b.score - a.score)
  const posts = [...(example?.result.posts ?? [])].sort((a, b) => ((a.at ?? '9') < (b.at ?? '9') ? -1 : 1))
  const held = posts.filter((p) => p.state === 'for review').length
  return (
    <Box p="6" pt="5">
      <Box fontSize="13px" color="soft">
        Worked example · nothing is published from here
      </Box>
      <SelectField
        aria-label="Piece of the worked example"
        fontFamily="reading"
        fontSize="18px"
        fontWeight="700"
        h="9"
        mb="4"
        maxW="full"
        value={piece.id}
        onChange={(e) => setChosen(e.target.value)}
      >
        {pieces.map((p) => (
          <option key={p.id} value={p.id}>
            {p.title}
          </option>
        ))}
      </SelectField>
      {caught.length > 0 && shown?.result.passed && (
        <Button look="quiet" onClick={() => setChosen(caught[0]?.piece.id ?? null)}>
          One that was caught
        </Button>
      )}
      {trouble && <Box color="plumText">{trouble}</Box>}
      {!example && !trouble && (
        <Flex gap="2" color="soft" align="center">
          <Spinner size="xs" /> Writing the example …
        </Flex>
      )}
      {example && (
        <Box position="relative" pl="10">
          <Box aria-hidden position="absolute" left="14px" top="0" bottom="0" w="5px" bg="water" />
          <Stage
            title="Taken in"
            note={`${count(piece.words, 'word')} · ${count(piece.images.length, 'picture')}`}
          >
            {pipeline.sieve.length > 0 && shown && (
              <Box color={shown.result.passed ? 'mossText' : 'amberText'}>
                {shown.result.passed ? 'Passed. ' : 'Caught. '}
                {shown.result.reason}
                {shown.result.passed ? '' : ' What follows is what would be made of it.'}
              </Box>
            )}
            <Box color="soft">
              {count((words?.blocks ?? []).filter((b) => b.furniture !== null).length, 'block')} of furniture
              marked; {piece.dealt ? `dripping already, by ${piece.dealt.by}` : 'waiting in Intake'}.
            </Box>
          </Stage>
          <Stage title={`${kept.length} of ${example.passages.length} passages`} note="kept">
            {kept.map((p) => (
              <Flex key={p.id} gap="3" py="0.5">
                <Mono color="waterText" fontWeight="600">
                  {p.score.toFixed(2).replace(/^0/, '')}
                </Mono>
                <Box fontFamily="reading" lineClamp={2}>
                  “{p.text}”
                </Box>
              </Flex>
            ))}
          </Stage>
          <Stage
            title={count(posts.length, 'post')}
            note={`${example.milliseconds} ms${held ? ` · ${held} would be held` : ''}`}
          >
            {posts.map((post) => (
              <Flex
                key={post.id}
                gap="3"
                py="2"
                borderTopWidth="1px"
                borderStyle="dotted"
                borderColor="hairline"
              >
                <Drop state={post.state} picture={post.media !== null} hue={pipeline.hue} />
                <Mono w="110px" flexShrink={0}>
                  {post.at
                    ? moment(post.at, accounts.find((a) => a.id === post.account)?.zone ?? brand.zone)
                    : 'no place'}
                </Mono>
                <NetworkMark id={post.network} />
                <Box flex="1" minW="0">
                  <Mono>{post.wording.angle}</Mono>
                  <Box fontFamily="reading" lineClamp={3}>
                    {post.wording.text}
                  </Box>
                </Box>
              </Flex>
            ))}
            {example.result.drip.missing.length > 0 && (
              <Box color="amberText" fontSize="13px">
                {count(example.result.drip.missing.length, 'cell')} of the drip would stay empty:{' '}
                {example.result.drip.missing[0]?.message}
              </Box>
            )}
          </Stage>
        </Box>
      )}
    </Box>
  )
}

function Stage({ title, note, children }: { title: string; note: string; children: React.ReactNode }) {
  return (
    <Box position="relative" pb="6">
      <Box
        aria-hidden
        position="absolute"
        left="-33px"
        top="2px"
        w="19px"
        h="18px"
        borderWidth="2px"
        borderColor="water"
        bg="raised"
        borderRadius="sm"
      />
      <Flex align="baseline" gap="3" borderBottomWidth="1px" borderColor="hairline" pb="1" mb="1.5">
        <Heading as="h3" fontSize="15px" fontWeight="600">
          {title}
        </Heading>
        <Mono>{note}</Mono>
      </Flex>
      {children}
    </Box>
  )
}
