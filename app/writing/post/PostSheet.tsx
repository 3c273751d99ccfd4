import { Box, Flex, Heading } from '@chakra-ui/react'
import {
  hourTrialAt,
  insideOf,
  may,
  type Account,
  type Hue,
  type Piece,
  type Post,
} from '../../../core/model'
import { network } from '../../../core/networks'
import { slotWords, toWall } from '../../../core/planning'
import { editText, remedied, nextWording, useWholePiece } from '../../data'
import { nextPicture } from '../../data/more'
import { attempt, Button, Drop, moment, Mono, Notice, say, useKeys, withDays } from '../../ui'
import { Preview } from './Preview'
import { Editor } from './Editor'
import { Checks } from './Checks'
import { Bounds } from './Bounds'
import { Pictures } from './Pictures'
import { Actions, approveThis, asideOrBack, HoldThis } from './Actions'
import { Remarks } from './Remarks'
import { Troubles } from './Troubles'
import { Wordings } from '../Wordings'

interface Props {
  post: Post
  /** Null where a person wrote it by itself. */
  piece: Piece | null
  account: Account | undefined
  /** The day of its drip; null where it has none. */
  day: number | null
  hue: Hue | null
  editing: boolean
  onEdit: (editing: boolean) => void
  onClose: () => void
}

/** A post beside its sheet: as readers see it, its checks, its passage, and other wordings. */
export function PostSheet({ post, piece, account, day, hue, editing, onEdit, onClose }: Props) {
  const profile = network(post.network)
  const zone = account?.zone ?? 'UTC'
  const editable = may(post, 'edit')
  const rewordable = piece !== null && may(post, 'reword')
  const words = useWholePiece(piece?.id ?? null, post.pieceRevision)
  useKeys({
    a: () => void approveThis(post),
    e: () => editable && onEdit(true),
    w: () => rewordable && void attempt(() => nextWording(post.id)),
    p: () => editable && post.piece && void attempt(() => nextPicture(post.id)),
    x: () => void asideOrBack(post),
  })
  return (
    <Flex direction="column" h="full">
      <Box flex="1" overflowY="auto" p="4">
        <Flex justify="space-between" align="baseline" mb="3" gap="2">
          <Heading as="h2" fontSize="15px" fontWeight="600">
            {day === null
              ? post.recurrence
                ? 'Comes again'
                : post.occasion
                  ? 'For an occasion'
                  : post.piece
                    ? 'By itself'
                    : 'By hand'
              : `Day ${day}`}{' '}
            · {profile.name}
          </Heading>
          <Mono>
            {post.publishedAt ? moment(post.publishedAt, zone) : post.at ? moment(post.at, zone) : 'no place'}
          </Mono>
        </Flex>
        <Flex align="center" gap="2" mb="2" fontSize="13px">
          <Drop state={post.state} inside={insideOf(post)} hue={hue} />
          <Box flex="1">
            {post.state}
            {post.state === 'handed over' ? ', safe to leave' : ''}
            {post.wording.by === 'person' ? ' · written by hand' : post.edited ? ' · edited by hand' : ''}
            {post.wording.by === 'connected' ? ' · by the connected writer' : ''}
          </Box>
          <HoldThis post={post} />
          <Button size="sm" look="quiet" hint="Esc" onClick={onClose}>
            Close
          </Button>
        </Flex>
        <Troubles post={post} />
        <Remarks post={post} />
        {post.fallback && <Notice tone="amber">{`The built-in writer wrote this. ${post.fallback}`}</Notice>}
        {editing ? (
          <Editor post={post} onDone={() => onEdit(false)} />
        ) : (
          <>
            <Preview post={post} account={account} />
            <Checks
              post={post}
              checks={post.checks}
              acceptable={may(post, 'accept')}
              onMend={
                !editable
                  ? undefined
                  : (check) =>
                      void attempt(async () => {
                        const text = await remedied(post, check, post.wording.text)
                        if (text === null) say('Nothing could be mended by itself. Edit it by hand.')
                        else await editText(post.id, text)
                      })
              }
            />
          </>
        )}
        {post.wording.spans.length > 0 && (
          <>
            <Heading as="h3" fontSize="14px" fontWeight="600" mt="4" mb="1">
              From the piece
            </Heading>
            {post.wording.spans.map((span) => (
              <Box
                key={span.start}
                borderLeftWidth="4px"
                borderColor="water"
                pl="3"
                mb="1.5"
                fontFamily="reading"
                fontSize="14px"
              >
                “{words?.text.slice(span.start, span.end)}”
              </Box>
            ))}
          </>
        )}
        {!editing && <Pictures key={`pictures ${post.id}`} post={post} />}
        {rewordable && !editing && <Wordings key={post.id} post={post} />}
        {may(post, 'move') && !editing && <Bounds key={`bounds ${post.id}`} post={post} />}
        <Trial post={post} account={account} />
        {post.reasons.length > 0 && (
          <>
            <Heading as="h3" fontSize="14px" fontWeight="600" mt="4" mb="1">
              {post.at !== null
                ? 'Why it stands there'
                : may(post, 'bring back')
                  ? 'Why it is set aside'
                  : 'Why it has no place'}
            </Heading>
            {post.reasons.map((r) => (
              <Box key={r.code + r.message} color="soft" fontSize="13px">
                {withDays(r.message)}
              </Box>
            ))}
          </>
        )}
      </Box>
      <Actions post={post} editing={editing} onEdit={onEdit} />
    </Flex>
  )
}

/** That a post stands at an hour that its account tries out, where it does. */
function Trial({ post, account }: { post: Post; account: Account | undefined }) {
  const at = post.publishedAt ?? post.at
  if (!account || at === null) return null
  const wall = toWall(Date.parse(at), account.zone)
  const trial = hourTrialAt(account, wall.date, wall.time)
  if (!trial) return null
  return (
    <Box mt="4" fontSize="13px" borderLeftWidth="4px" borderColor="amber" pl="3">
      A trial: @{account.handle} tries this hour on this day, in place of {slotWords(trial.slot)}.
    </Box>
  )
}
