import { Box, Flex, Spinner } from '@chakra-ui/react'
import { useState } from 'react'
import useSWR from 'swr'
import { releasedTo } from '../../core/pipeline'
import { asFault, type Account, type Passage, type Piece, type Pipeline } from '../../core/model'
import { useOpenAccounts, useRows, useWholePiece } from '../data'
import { useWork } from '../shell'
import { Button, count, Drop, moment, Mono, NetworkMark, SelectField } from '../ui'
import { Followed } from './bench/Followed'
import { Stage } from './bench/Stage'
import { runExample, type RowExample } from './example'
import type { Trial } from './useSieveTrial'

/** A real recent piece travelling through the pipeline. Nothing is published or kept from here. */
export function WorkedExample({ pipeline, trial }: { pipeline: Pipeline; trial: Trial | null }) {
  const { brand } = useWork()
  const open = useOpenAccounts(brand.id)
  const accounts = open ?? []
  const [chosen, setChosen] = useState<string | null>(null)
  const [without, setWithout] = useState<ReadonlySet<string>>(new Set())
  const readable = trial?.results.filter((r) => r.piece.words > 0) ?? []
  // A piece that passes shows most; one that was caught can be chosen.
  const shown =
    trial?.results.find((r) => r.piece.id === chosen) ?? readable.find((r) => r.result.passed) ?? readable[0]
  const piece = shown?.piece
  const caught = trial?.results.filter((r) => !r.result.passed) ?? []
  const passages = useRows('passages', 'piece', piece?.id ?? '')
  const recipe = [
    piece,
    passages?.map((p) => [p.id, p.choice]),
    pipeline.make,
    pipeline.release,
    pipeline.gate,
    pipeline.limits,
    brand,
    open,
  ]
  const { data: rows, error } = useSWR<RowExample[], unknown>(
    shown && trial && passages && shown.piece.words > 0 && open
      ? ['example', JSON.stringify([recipe, [...without]])]
      : null,
    () =>
      runExample({
        pipeline,
        brand,
        accounts,
        piece: (shown as NonNullable<typeof shown>).piece,
        text: shown?.text ?? '',
        context: (trial as NonNullable<typeof trial>).context,
        passages: passages ?? [],
        without,
      }),
    { revalidateOnFocus: false, keepPreviousData: true },
  )
  const trouble = error === undefined ? null : asFault(error).message
  if (!piece || !shown || !trial)
    return (
      <Box p="6" color="soft">
        The worked example shows a real piece travelling through. Choose a source that has brought one.
      </Box>
    )
  const leave = (id: string): void => {
    const next = new Set(without)
    if (!next.delete(id)) next.add(id)
    setWithout(next)
  }
  return (
    <Box p="6" pt="5">
      <Box fontSize="13px" color="soft">
        Worked example · nothing is published from here
      </Box>
      <Flex gap="3" align="center" mb="3" wrap="wrap">
        <SelectField
          aria-label="Piece of the worked example"
          fontFamily="reading"
          fontSize="18px"
          fontWeight="700"
          h="9"
          flex="1"
          minW="0"
          value={piece.id}
          onChange={(e) => setChosen(e.target.value)}
        >
          {trial.results.map(({ piece: p }) => (
            <option key={p.id} value={p.id}>
              {p.title}
            </option>
          ))}
        </SelectField>
        {caught.length > 0 && shown.result.passed && (
          <Button onClick={() => setChosen(caught[0]?.piece.id ?? null)}>One that was caught</Button>
        )}
      </Flex>
      <Flex gap="1.5" wrap="wrap" align="center" mb="4" role="group" aria-label="Accounts in the example">
        {releasedTo(pipeline, accounts).map((a) => (
          <Button
            key={a.id}
            size="sm"
            aria-pressed={!without.has(a.id)}
            title={without.has(a.id) ? 'Take it in again' : 'Leave it out of the example'}
            textDecoration={without.has(a.id) ? 'line-through' : undefined}
            color={without.has(a.id) ? 'soft' : undefined}
            onClick={() => leave(a.id)}
          >
            <NetworkMark id={a.network} /> @{a.handle}
          </Button>
        ))}
      </Flex>
      {trouble && <Box color="plumText">{trouble}</Box>}
      <Box position="relative" pl="10">
        <Box aria-hidden position="absolute" left="14px" top="0" bottom="0" w="5px" bg="water" />
        <Taken trial={trial} shown={shown} />
        {passages && <Passages passages={passages} most={pipeline.make.passages} />}
        {!rows && !trouble && (
          <Flex gap="2" color="soft" align="center">
            <Spinner size="xs" /> Writing the example …
          </Flex>
        )}
        {rows?.map((row, index) => (
          <Released
            key={row.verdict.row.id}
            example={row}
            number={index + 1}
            pipeline={pipeline}
            accounts={accounts}
          />
        ))}
        {rows && pipeline.follows.length > 0 && (
          <Followed
            pipeline={pipeline}
            piece={piece}
            posts={rows.flatMap((r) => r.posts)}
            accounts={accounts}
          />
        )}
      </Box>
    </Box>
  )
}

function Taken({ trial, shown }: { trial: Trial; shown: Trial['results'][number] }) {
  const { piece, result } = shown
  const words = useWholePiece(piece.id)
  const waiting = trial.results.filter((r) => r.result.passed && r.piece.dealt === null).length
  return (
    <Stage
      title={result.passed ? 'Passed' : 'Caught'}
      note={`${trial.passed} of the last ${count(trial.results.length, 'piece')} pass`}
      data={{ in: about(piece), out: result }}
    >
      <Box color={result.passed ? 'mossText' : 'amberText'}>
        {result.reason}
        {result.passed ? '' : ' What follows is what would be made of it.'}
      </Box>
      <Box color="soft">
        {count(piece.words, 'word')} · {count(piece.images.length, 'picture')} · keeps {piece.keeps.span}
        {piece.categories.length ? ` · tagged ${piece.categories.join(', ')}` : ''} ·{' '}
        {count((words?.blocks ?? []).filter((b) => b.furniture !== null).length, 'block')} of furniture marked
      </Box>
      <Box color="soft">
        {piece.dealt ? `Dripping already, by ${piece.dealt.by}.` : 'Waiting in Intake.'}{' '}
        {count(waiting, 'piece')} that {waiting === 1 ? 'passes' : 'pass'} still{' '}
        {waiting === 1 ? 'waits' : 'wait'}.
      </Box>
    </Stage>
  )
}

/** What the data of a part tells of a piece. */
function about(piece: Piece): object {
  const { title, url, author, publishedAt, kind, language, categories, words, keeps, counts, fields } = piece
  return { title, url, author, publishedAt, kind, language, categories, words, keeps, counts, fields }
}

function Passages({ passages, most }: { passages: readonly Passage[]; most: number | null }) {
  const ranked = [...passages].sort((a, b) => b.score - a.score)
  const kept = ranked.filter((p) => p.choice === 'kept')
  const used = kept.slice(0, most ?? Infinity)
  const left = ranked.filter((p) => !used.includes(p))
  return (
    <Stage
      title={`${used.length} of ${count(ranked.length, 'passage')}`}
      note={
        left.length
          ? `${left.filter((p) => p.choice === 'left out').length} left out · ${left.filter((p) => p.choice !== 'left out').length} spare`
          : 'all of them'
      }
      data={ranked.map(({ text, score, kind, choice, reasons, by }) => ({
        text,
        score,
        kind,
        choice,
        reasons,
        by,
      }))}
    >
      {used.map((p) => (
        <Flex key={p.id} gap="3" py="0.5">
          <Mono color="waterText" fontWeight="600">
            {p.score.toFixed(2).replace(/^0/, '')}
          </Mono>
          <Box fontFamily="reading" lineClamp={2}>
            “{p.text}”
          </Box>
        </Flex>
      ))}
      {left.slice(0, 2).map((p) => (
        <Flex key={p.id} gap="3" py="0.5" color="soft">
          <Mono>–</Mono>
          <Box fontFamily="reading" lineClamp={1}>
            “{p.text}” <i>{p.choice === 'left out' ? 'left out' : p.reasons[0]}</i>
          </Box>
        </Flex>
      ))}
    </Stage>
  )
}

function Released({
  example,
  number,
  pipeline,
  accounts,
}: {
  example: RowExample
  number: number
  pipeline: Pipeline
  accounts: readonly Account[]
}) {
  const { verdict, posts, missing, trouble, milliseconds } = example
  const held = posts.filter((p) => p.state === 'for review').length
  const sorted = [...posts].sort((a, b) => ((a.at ?? '9') < (b.at ?? '9') ? -1 : 1))
  if (!verdict.takes)
    return (
      <Stage title={`Row ${number}`} note="does not take it" data={verdict}>
        <Box color="soft">{verdict.reason}</Box>
      </Stage>
    )
  return (
    <Stage
      title={`Row ${number}: ${count(posts.length, 'post')}`}
      note={`${milliseconds} ms${held ? ` · ${held} would be held` : ''}`}
      data={{
        row: verdict,
        posts: posts.map(({ account, network, at, state, wording, checks, reasons, media }) => ({
          account,
          network,
          at,
          state,
          wording,
          checks,
          reasons,
          media,
        })),
      }}
    >
      {trouble && <Box color="amberText">{trouble}</Box>}
      {sorted.map((post) => (
        <Flex key={post.id} gap="3" py="2" borderTopWidth="1px" borderStyle="dotted" borderColor="hairline">
          <Drop state={post.state} picture={post.media !== null} hue={pipeline.hue} />
          <Mono w="124px" flexShrink={0}>
            {post.at
              ? moment(post.at, accounts.find((a) => a.id === post.account)?.zone ?? 'UTC')
              : 'no place'}
          </Mono>
          <NetworkMark id={post.network} />
          <Box flex="1" minW="0">
            <Mono>
              {post.wording.angle}
              {post.wording.format === 'post' ? '' : ` · ${post.wording.format}`}
            </Mono>
            <Box fontFamily="reading" lineClamp={3}>
              {post.wording.text}
            </Box>
            {post.state === 'for review' && post.checks[0] && (
              <Box fontSize="13px" color="clayText">
                {post.checks[0].message}
              </Box>
            )}
          </Box>
        </Flex>
      ))}
      {missing.count > 0 && (
        <Box color="amberText" fontSize="13px">
          {count(missing.count, 'cell')} of the drip would stay empty: {missing.why}
        </Box>
      )}
    </Stage>
  )
}
