import { Box, chakra, Flex, Heading } from '@chakra-ui/react'
import type { Passage, Rhythm, WholePiece } from '../../core/model'
import { NETWORKS } from '../../core/networks'
import { beatCount, RHYTHMS } from '../../core/planning'
import { useAccounts } from '../data'
import { Button, count, Drop, Mono, SelectField } from '../ui'
import { KeepsNotice } from './KeepsNotice'
import type { PassageActions } from './passageActions'
import { PassageRow } from './PassageRow'
import { isWordless, type Choosing } from './useChoosing'

/** The passages of a piece, those kept first, held against what a rhythm wants, with what is done with them. */
export function PassagesSide({
  piece,
  passages,
  current,
  selecting,
  acts,
  choosing,
  rhythm,
  suited,
  onRhythm,
  onChoose,
  onPosts,
  onDrip,
}: {
  piece: WholePiece
  passages: readonly Passage[]
  current: Passage | null
  /** Whether text of the piece is selected, which can be kept. */
  selecting: boolean
  acts: PassageActions
  /** Null where there is nobody to choose, or nothing to choose from. */
  choosing: Choosing | null
  rhythm: Rhythm
  /** The rhythm that suits how long the piece keeps. */
  suited: Rhythm
  onRhythm: (rhythm: Rhythm) => void
  onChoose: (passage: string) => void
  onPosts: () => void
  onDrip: () => void
}) {
  return (
    <Flex direction="column" h="full">
      <Wanted piece={piece} passages={passages} rhythm={rhythm} suited={suited} onRhythm={onRhythm} />
      <List piece={piece} passages={passages} current={current} choosing={choosing} onChoose={onChoose} />
      <Foot current={current} selecting={selecting} acts={acts} onPosts={onPosts} onDrip={onDrip} />
    </Flex>
  )
}

/** How many passages a rhythm wants, and how many are kept. */
function Wanted({
  piece,
  passages,
  rhythm,
  suited,
  onRhythm,
}: {
  piece: WholePiece
  passages: readonly Passage[]
  rhythm: Rhythm
  suited: Rhythm
  onRhythm: (rhythm: Rhythm) => void
}) {
  const kept = passages.filter((p) => p.choice === 'kept' && !p.lostPlace).length
  const spare = passages.filter((p) => p.choice === 'spare').length
  const wanted = beatCount(rhythm)
  return (
    <Box p="5" pb="2">
      <Flex align="center" gap="2" mb="2">
        <SelectField
          aria-label="Rhythm"
          h="7"
          value={RHYTHMS.findIndex((r) => r.name === rhythm.name)}
          onChange={(e) => onRhythm(RHYTHMS[Number(e.target.value)] ?? suited)}
        >
          {!RHYTHMS.some((r) => r.name === suited.name) && <option value={-1}>{suited.name}</option>}
          {RHYTHMS.map((r, i) => (
            <option key={r.name} value={i}>
              {r.name}
            </option>
          ))}
        </SelectField>
        <Mono>wants {count(wanted, 'passage')}</Mono>
      </Flex>
      <Flex gap="1" wrap="wrap" aria-hidden>
        {Array.from({ length: wanted }, (_, i) => (
          <Drop key={i} state={i < kept ? 'published' : 'draft'} size={24} title="" />
        ))}
      </Flex>
      <Box mt="1.5" fontSize="13px">
        <b>{kept >= wanted ? `${kept} kept, enough.` : `${kept} kept, ${wanted - kept} short.`}</b>{' '}
        <chakra.span color="soft">
          {spare ? `${spare} spare below; or select text to add your own.` : 'Select text to add your own.'}
        </chakra.span>
      </Box>
      <KeepsNotice piece={piece} />
    </Box>
  )
}

function List({
  piece,
  passages,
  current,
  choosing,
  onChoose,
}: {
  piece: WholePiece
  passages: readonly Passage[]
  current: Passage | null
  choosing: Choosing | null
  onChoose: (passage: string) => void
}) {
  const accounts = useAccounts(piece.brand)
  const networks = NETWORKS.filter((n) => accounts?.some((a) => a.network === n.id))
  return (
    <>
      <Flex px="5" pt="3" pb="1" align="center" justify="space-between" minH="9">
        <Heading as="h2" fontSize="14px" fontWeight="600">
          Passages
        </Heading>
        {choosing && (
          <Button size="sm" look="quiet" disabled={choosing.asking} onClick={choosing.ask}>
            {choosing.asking ? 'It is choosing …' : 'Have the connected writer choose'}
          </Button>
        )}
      </Flex>
      <Box flex="1" overflowY="auto" px="3" pb="3" role="listbox" aria-label="Passages" tabIndex={0}>
        {passages.map((p) => (
          <PassageRow
            key={p.id}
            piece={piece}
            passage={p}
            networks={networks}
            current={p === current}
            onChoose={() => onChoose(p.id)}
          />
        ))}
        {passages.length === 0 && (
          <Box px="2" color="soft">
            {isWordless(piece)
              ? 'Without a transcript there is nothing to quote. Drop one on the page.'
              : 'No passage stands alone in this piece. Select text in it to add one.'}
          </Box>
        )}
      </Box>
    </>
  )
}

/** What is done with the selected text, or with the passage that is chosen. */
function Foot({
  current,
  selecting,
  acts,
  onPosts,
  onDrip,
}: {
  current: Passage | null
  selecting: boolean
  acts: PassageActions
  onPosts: () => void
  onDrip: () => void
}) {
  return (
    <Flex p="3" gap="2" borderTopWidth="1px" borderColor="hairline" justify="flex-end" flexWrap="wrap">
      {selecting ? (
        <Button hint="k" look="water" onMouseDown={(e) => e.preventDefault()} onClick={acts.add}>
          Keep the selection
        </Button>
      ) : (
        <>
          {current && (
            <Flex gap="1" w="full" justify="flex-end" flexWrap="wrap">
              <Button size="sm" look="quiet" hint="[" onClick={() => acts.stretch('end', -1)}>
                Shorten
              </Button>
              <Button size="sm" look="quiet" hint="]" onClick={() => acts.stretch('end', 1)}>
                Stretch
              </Button>
              <Button size="sm" look="quiet" hint="j" onClick={acts.join}>
                Join with the next
              </Button>
              <Button size="sm" look="quiet" hint="s" onClick={acts.shelf}>
                {current.shelf === 'on' ? 'Take off the shelf' : 'Put on the shelf'}
              </Button>
            </Flex>
          )}
          {current?.by === 'person' && (
            <Button look="quiet" onClick={acts.remove}>
              Remove
            </Button>
          )}
          <Button hint="k" disabled={!current} onClick={() => acts.choose('kept')}>
            {current?.choice === 'kept' ? 'Make spare' : 'Keep'}
          </Button>
          <Button hint="x" disabled={!current} onClick={() => acts.choose('left out')}>
            {current?.choice === 'left out' ? 'Take back in' : 'Leave out'}
          </Button>
          <Button onClick={onPosts}>As posts</Button>
          <Button hint="d" look="water" onClick={onDrip}>
            Start a drip
          </Button>
        </>
      )}
    </Flex>
  )
}
