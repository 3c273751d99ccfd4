import { Box, Flex, Spinner } from '@chakra-ui/react'
import { releasedTo } from '../../core/pipeline'
import { insideOf, type Account, type Passage, type Piece, type Pipeline, type Post } from '../../core/model'
import { Button, count, Drop, moment, Mono, NetworkMark } from '../ui'
import { Followed } from './bench/Followed'
import { PieceChoice } from './bench/PieceChoice'
import { Stage } from './bench/Stage'
import { TestDelivery } from './bench/TestDelivery'
import type { RowExample } from './example'
import type { Trial } from './useSieveTrial'
import { useWorkedExample, type Traveller } from './useWorkedExample'

/** A real recent piece travelling through the pipeline. Nothing is published or kept from here but what a test delivery sends. */
export function WorkedExample({ pipeline, trial }: { pipeline: Pipeline; trial: Trial | null }) {
  const example = useWorkedExample(pipeline, trial)
  const { accounts, traveller, passages, rows, trouble, without } = example
  if (!trial) return null
  return (
    <Box p="6" pt="5">
      <Box fontSize="13px" color="soft">
        Worked example · nothing is published from here
      </Box>
      <PieceChoice trial={trial} traveller={traveller} onChoose={example.choose} onPaste={example.paste} />
      {!traveller && trial.results.length === 0 && (
        <Box color="soft">
          The worked example shows a real piece travelling through. Choose a source that has brought one, or
          paste one.
        </Box>
      )}
      {traveller && (
        <Flex gap="1.5" wrap="wrap" align="center" mb="4" role="group" aria-label="Accounts in the example">
          {releasedTo(pipeline, accounts).map((a) => (
            <Button
              key={a.id}
              size="sm"
              aria-pressed={!without.has(a.id)}
              title={without.has(a.id) ? 'Take it in again' : 'Leave it out of the example'}
              textDecoration={without.has(a.id) ? 'line-through' : undefined}
              color={without.has(a.id) ? 'soft' : undefined}
              onClick={() => example.leave(a.id)}
            >
              <NetworkMark id={a.network} /> @{a.handle}
            </Button>
          ))}
        </Flex>
      )}
      {trouble && <Box color="plumText">{trouble}</Box>}
      {traveller && (
        <Box position="relative" pl="10">
          <Box aria-hidden position="absolute" left="14px" top="0" bottom="0" w="5px" bg="water" />
          <Taken trial={trial} traveller={traveller} />
          <Passages
            passages={passages}
            most={example.passagesHeld ? null : pipeline.make.passages}
            held={example.passagesHeld}
            onHold={example.holdPassages}
          />
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
              held={example.isHeld(row.verdict.row.id)}
              onHold={() => example.holdRow(row)}
            />
          ))}
          {rows && pipeline.follows.length > 0 && (
            <Followed
              pipeline={pipeline}
              piece={traveller.piece}
              posts={rows.flatMap((r) => r.posts)}
              accounts={accounts}
            />
          )}
        </Box>
      )}
    </Box>
  )
}

function Taken({ trial, traveller }: { trial: Trial; traveller: Traveller }) {
  const { piece, result, pasted } = traveller
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
        {count(piece.blocks.filter((b) => b.furniture !== null).length, 'block')} of furniture marked
      </Box>
      <Box color="soft">
        {pasted
          ? 'Pasted, and kept nowhere.'
          : piece.dealt
            ? `Dripping already, by ${piece.dealt.by}.`
            : 'Waiting in Intake.'}{' '}
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

function Passages({
  passages,
  most,
  held,
  onHold,
}: {
  passages: readonly Passage[]
  most: number | null
  held: boolean
  onHold: (used: readonly Passage[]) => void
}) {
  const ranked = [...passages].sort((a, b) => b.score - a.score)
  const kept = ranked.filter((p) => p.choice === 'kept')
  const used = kept.slice(0, most ?? Infinity)
  const left = ranked.filter((p) => !used.includes(p))
  return (
    <Stage
      title={`${used.length} of ${count(ranked.length, 'passage')}`}
      held={held}
      onHold={() => onHold(used)}
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
  held: isHeld,
  onHold,
}: {
  example: RowExample
  number: number
  pipeline: Pipeline
  accounts: readonly Account[]
  held: boolean
  onHold: () => void
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
      held={isHeld}
      onHold={onHold}
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
          <Drop state={post.state} inside={insideOf(post)} hue={pipeline.hue} />
          <Mono w="124px" flexShrink={0}>
            {post.at
              ? moment(post.at, accounts.find((a) => a.id === post.account)?.zone ?? 'UTC')
              : 'no place'}
          </Mono>
          <NetworkMark id={post.network} />
          <Box flex="1" minW="0" position="relative">
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
            <TestedOn post={post} accounts={accounts} />
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

function TestedOn({ post, accounts }: { post: Post; accounts: readonly Account[] }) {
  const account = accounts.find((a) => a.id === post.account)
  return account ? <TestDelivery post={post} account={account} /> : null
}
