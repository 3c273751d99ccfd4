import { Box, chakra, Flex, Heading } from '@chakra-ui/react'
import { useEffect, useRef, useState } from 'react'
import useSWR from 'swr'
import type { Way } from '../../core/drips'
import {
  may,
  waitsForReview,
  type Account,
  type Check,
  type Hue,
  type Piece,
  type Post,
} from '../../core/model'
import { measure, network, sliceGraphemes } from '../../core/networks'
import {
  bringBack,
  acceptFlag,
  boundPost,
  checkWording,
  approve,
  decideLate,
  editText,
  setAside,
  remedied,
  rewordedSelection,
  takeDown,
  tryAgain,
  hold,
  lift,
  nextWording,
  useClicks,
  usePicture,
  useWholePiece,
} from '../data'
import { Wordings } from './Wordings'
import {
  attempt,
  Button,
  count,
  Drop,
  Labelled,
  moment,
  Mono,
  NetworkMark,
  Notice,
  say,
  SelectField,
  TextField,
  useKeys,
  useLater,
  withDays,
} from '../ui'

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

/** What can be asked of selected words. */
const SELECTION: readonly Way[] = ['shorter', 'plainer', 'warmer', 'as a question', 'another']

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
          <Drop state={post.state} picture={post.media !== null} hue={hue} />
          <Box flex="1">
            {post.state}
            {post.state === 'handed over' ? ', safe to leave' : ''}
            {post.wording.by === 'person' ? ' · written by hand' : post.edited ? ' · edited by hand' : ''}
            {post.wording.by === 'connected' ? ' · by the connected writer' : ''}
          </Box>
          <Button size="sm" look="quiet" hint="Esc" onClick={onClose}>
            Close
          </Button>
        </Flex>
        {post.failure && (
          <Notice
            tone="plum"
            action={<Button onClick={() => void attempt(() => tryAgain(post.id))}>Try again</Button>}
          >
            {post.failure}
          </Notice>
        )}
        {post.held && <HeldNotice post={post} />}
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
        {rewordable && !editing && <Wordings key={post.id} post={post} />}
        {may(post, 'move') && !editing && <Bounds key={`bounds ${post.id}`} post={post} />}
        {post.reasons.length > 0 && (
          <>
            <Heading as="h3" fontSize="14px" fontWeight="600" mt="4" mb="1">
              Why it stands there
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

/** The days between which it may go out, and whether before others. */
function Bounds({ post }: { post: Post }) {
  const save = (change: Partial<Pick<Post, 'earliest' | 'latest' | 'priority'>>): void =>
    void attempt(async () => {
      const placed = await boundPost(post.id, {
        earliest: post.earliest,
        latest: post.latest,
        priority: post.priority,
        ...change,
      })
      if (placed.at !== post.at)
        say(placed.at ? 'It moved to keep to that.' : 'It has no place within these days.')
    })
  return (
    <Flex gap="2" mt="4" wrap="wrap" align="flex-end">
      {(['earliest', 'latest'] as const).map((end) => (
        <Labelled key={end} label={end === 'earliest' ? 'Not before' : 'Not after'}>
          {(id) => (
            <TextField
              id={id}
              type="date"
              w="126px"
              key={post[end]}
              defaultValue={post[end] ?? ''}
              onBlur={(e) => e.target.value !== (post[end] ?? '') && save({ [end]: e.target.value || null })}
            />
          )}
        </Labelled>
      ))}
      <SelectField
        aria-label="Priority"
        w="112px"
        value={Math.sign(post.priority)}
        onChange={(e) => save({ priority: Number(e.target.value) })}
      >
        <option value={1}>before others</option>
        <option value={0}>like all</option>
        <option value={-1}>after others</option>
      </SelectField>
    </Flex>
  )
}

/** Approves one post, and says what came of it. */
async function approveThis(post: Post): Promise<void> {
  if (!waitsForReview(post)) return
  await attempt(async () => {
    const { moved, left } = await approve([post.id])
    const placed = moved ? ' Its time had passed, so it was placed anew.' : ''
    say(left[0] ? `It is not approved: ${left[0].why}` : `Approved.${placed}`)
  })
}

/** Sets a post aside, or brings one back that was. */
async function asideOrBack(post: Post): Promise<void> {
  await attempt(async () => {
    if (may(post, 'bring back')) await bringBack(post.id)
    else await setAside([post.id])
  })
}

/** Why a post is kept back, with what a person may decide. */
export function HeldNotice({ post }: { post: Post }) {
  return (
    <Notice
      tone="clay"
      action={
        <Flex gap="1" direction="column">
          <Button size="sm" onClick={() => void attempt(() => decideLate(post.id, 'send now'))}>
            Send now
          </Button>
          <Button size="sm" onClick={() => void attempt(() => decideLate(post.id, 'place anew'))}>
            Place anew
          </Button>
        </Flex>
      }
    >
      {post.held?.reason}
    </Notice>
  )
}

function Preview({ post, account }: { post: Post; account: Account | undefined }) {
  const picture = usePicture(post.media?.sourceUrl ?? null)
  const profile = network(post.network)
  const fold = profile.text.fold
  const head = fold === null ? post.wording.text : sliceGraphemes(post.wording.text, fold)
  const rest = post.wording.text.slice(head.length)
  return (
    <Box borderWidth="1px" borderColor="hairline" borderRadius="md" p="3" bg="raised">
      <Flex align="center" gap="2" mb="2">
        <NetworkMark id={post.network} />
        <Box lineHeight="1.25">
          <Box fontWeight="600">{account?.name ?? 'A removed account'}</Box>
          <Box fontSize="12px" color="soft">
            @{account?.handle} · shown as readers see it
          </Box>
        </Box>
      </Flex>
      <Box
        fontFamily="reading"
        fontSize="15px"
        lineHeight="1.5"
        whiteSpace="pre-wrap"
        overflowWrap="anywhere"
        data-testid="caption"
      >
        {post.wording.title && (
          <Box fontWeight="600" mb="1">
            {post.wording.title}
          </Box>
        )}
        {head}
        {rest && (
          <>
            <Box fontFamily="mono" fontSize="11px" color="soft" my="0.5">
              — fold at {fold} —
            </Box>
            {rest.trimStart()}
          </>
        )}
      </Box>
      {post.wording.parts.map((part, i) => (
        <Box
          key={i}
          mt="2"
          pt="2"
          borderTopWidth="1px"
          borderColor="hairline"
          fontFamily="reading"
          fontSize="15px"
          lineHeight="1.5"
          whiteSpace="pre-wrap"
          overflowWrap="anywhere"
        >
          {part}
        </Box>
      ))}
      {post.wording.poll.map((answer) => (
        <Box key={answer} mt="1.5" px="2" py="1" borderWidth="1px" borderColor="hairline" borderRadius="sm">
          {answer}
        </Box>
      ))}
      {post.wording.firstComment && (
        <Box
          mt="2"
          pt="2"
          borderTopWidth="1px"
          borderColor="hairline"
          fontSize="13px"
          color="soft"
          whiteSpace="pre-wrap"
          overflowWrap="anywhere"
        >
          First comment: {post.wording.firstComment}
        </Box>
      )}
      {post.media && (
        <chakra.img
          src={picture}
          alt={post.media.alt}
          mt="2"
          w="full"
          borderRadius="sm"
          objectFit="cover"
          aspectRatio={post.media.shape ? `${post.media.shape.width} / ${post.media.shape.height}` : '3 / 2'}
        />
      )}
      {post.shortLink && <ShortLinkLine short={post.shortLink} />}
      {post.publicUrl && post.state === 'published' && (
        <Box mt="2" fontSize="13px">
          <a href={post.publicUrl} target="_blank" rel="noreferrer">
            <chakra.span color="waterText" textDecoration="underline">
              See it on {profile.name}
            </chakra.span>
          </a>
        </Box>
      )}
    </Box>
  )
}

/** What the link goes out as, and how often it was followed. */
function ShortLinkLine({ short }: { short: string }) {
  const clicks = useClicks(short)
  return (
    <Box mt="2" fontSize="13px" color="soft">
      The link goes out as <Mono>{short}</Mono>
      {clicks === null ? '' : ` · ${count(clicks, 'click')}`}
    </Box>
  )
}

/**
 * Writes the caption by hand; what is typed is checked a moment after the last key. Leaving for
 * another post keeps it; words that were not kept before the browser closed are there again.
 */
function Editor({ post, onDone }: { post: Post; onDone: () => void }) {
  const profile = network(post.network)
  const unsaved = `dripline-draft-${post.id}`
  const [draft, setDraft] = useState(() => localStorage.getItem(unsaved) ?? post.wording.text)
  const leaving = useRef({ draft, settled: false })
  useEffect(() => {
    leaving.current.draft = draft
    if (draft !== post.wording.text) localStorage.setItem(unsaved, draft)
  }, [draft, post.wording.text, unsaved])
  useEffect(() => {
    const state = leaving.current
    return () => {
      const text = localStorage.getItem(unsaved)
      if (state.settled || text === null) return
      localStorage.removeItem(unsaved)
      void attempt(() => editText(post.id, text))
    }
  }, [post.id, unsaved])
  const typed = useLater(draft, 180)
  const checks = useSWR(['checks', post.id, typed], () => checkWording(post, typed), {
    revalidateOnFocus: false,
    keepPreviousData: true,
  }).data
  const [picked, setPicked] = useState<{ from: number; to: number }>({ from: 0, to: 0 })
  const length = measure(draft, profile.text)
  const selected = draft.slice(picked.from, picked.to)
  const resay = (way: Way): void =>
    void rewordedSelection(selected, way).then(([first]) => {
      if (first === undefined) {
        say(`Nothing can be said ${way} in the selected words by grammar alone.`)
        return
      }
      const kept = selected.length - selected.trimEnd().length
      const text = first + (kept ? selected.slice(-kept) : '')
      setDraft(draft.slice(0, picked.from) + text + draft.slice(picked.to))
      setPicked({ from: picked.from, to: picked.from + text.length })
    })
  const leave = (): void => {
    leaving.current.settled = true
    localStorage.removeItem(unsaved)
    onDone()
  }
  const save = async (): Promise<void> => {
    if (draft === post.wording.text || (await attempt(() => editText(post.id, draft)))) leave()
  }
  return (
    <Box>
      <chakra.textarea
        aria-label="Caption"
        autoFocus
        value={draft}
        onChange={(e) => setDraft(e.target.value)}
        onSelect={(e) =>
          setPicked({ from: e.currentTarget.selectionStart, to: e.currentTarget.selectionEnd })
        }
        onKeyDown={(e) => {
          if (e.key === 'Enter' && (e.ctrlKey || e.metaKey)) void save()
          if (e.key === 'Escape') leave()
        }}
        w="full"
        minH="220px"
        p="3"
        fontFamily="reading"
        fontSize="15px"
        lineHeight="1.5"
        bg="paper"
        borderWidth="1px"
        borderColor="water"
        borderRadius="md"
      />
      {selected.trim().length > 3 && (
        <Flex
          gap="1"
          mt="1"
          wrap="wrap"
          align="center"
          fontSize="13px"
          role="group"
          aria-label="Selected words"
        >
          <Box color="soft">Selected:</Box>
          {SELECTION.map((way) => (
            <Button key={way} size="sm" look="quiet" onClick={() => resay(way)}>
              {way === 'another' ? 'turned round' : way}
            </Button>
          ))}
        </Flex>
      )}
      <Flex justify="space-between" align="center" mt="1">
        <Mono color={length > (profile.text.limit ?? Infinity) ? 'plumText' : 'soft'}>
          {length}
          {profile.text.limit === null ? '' : ` of ${profile.text.limit}`}
          {profile.text.fold ? `, fold at ${profile.text.fold}` : ''}
        </Mono>
        <Flex gap="2">
          <Button size="sm" onClick={leave}>
            Leave it
          </Button>
          <Button size="sm" look="water" hint="Ctrl ⏎" onClick={() => void save()}>
            Keep
          </Button>
        </Flex>
      </Flex>
      <Checks
        post={post}
        checks={checks ?? post.checks}
        acceptable={false}
        onMend={(check) =>
          void remedied(post, check, draft).then((text) => {
            if (text === null) say('Nothing could be mended by itself.')
            else setDraft(text)
          })
        }
      />
    </Box>
  )
}

function Checks({
  post,
  checks,
  acceptable,
  onMend,
}: {
  post: Post
  checks: readonly Check[]
  acceptable: boolean
  onMend?: ((check: Check) => void) | undefined
}) {
  const accepted = (c: Check): boolean =>
    post.accepted.some((a) => a.code === c.code && a.words === (c.words ?? ''))
  const acceptedAt = (c: Check): string => {
    const at = post.accepted.find((a) => a.code === c.code && a.words === (c.words ?? ''))?.at
    return at ? ` on ${at.slice(0, 10)}` : ''
  }
  return (
    <Box fontSize="13px">
      <Heading as="h3" fontSize="14px" fontWeight="600" mt="4" mb="1">
        Checks
      </Heading>
      {checks.map((check) => (
        <Flex key={check.code + (check.words ?? '')} gap="2" py="0.5" align="baseline">
          <Box
            fontWeight="700"
            color={check.severity === 'block' ? 'plumText' : check.severity === 'flag' ? 'clayText' : 'soft'}
            w="12px"
          >
            {check.severity === 'note' ? 'i' : '!'}
          </Box>
          <Box flex="1">
            {check.message}
            {accepted(check) && <chakra.span color="mossText"> Accepted{acceptedAt(check)}.</chakra.span>}
          </Box>
          {check.remedy && onMend && (
            <Button size="sm" look="quiet" onClick={() => onMend(check)}>
              {check.remedy}
            </Button>
          )}
          {check.severity === 'flag' && !accepted(check) && acceptable && (
            <Button size="sm" look="quiet" onClick={() => void attempt(() => acceptFlag(post.id, check))}>
              It is fine
            </Button>
          )}
        </Flex>
      ))}
      {checks.length === 0 && (
        <Flex gap="2">
          <Box color="mossText">✓</Box>
          <Box color="soft">
            {post.piece ? 'Numbers, names and quotations are in the piece · within' : 'Within'} the limit ·
            unlike its neighbours
          </Box>
        </Flex>
      )}
    </Box>
  )
}

function Actions({
  post,
  editing,
  onEdit,
}: {
  post: Post
  editing: boolean
  onEdit: (editing: boolean) => void
}) {
  const [sure, setSure] = useState(false)
  if (editing) return null
  const what = { table: 'posts' as const, id: post.id, brand: post.brand, name: 'this post' }
  return (
    <Flex p="3" gap="2" borderTopWidth="1px" borderColor="hairline" justify="flex-end" flexWrap="wrap">
      {may(post, 'take down') ? (
        sure ? (
          <Flex role="alertdialog" aria-label="Take it down" align="center" gap="2" fontSize="13px">
            It disappears from the network for good.
            <Button
              look="clay"
              onClick={() =>
                void attempt(async () => {
                  await takeDown(post.id)
                  say('It is being taken down.')
                  setSure(false)
                })
              }
            >
              Take it down
            </Button>
            <Button onClick={() => setSure(false)}>Leave it</Button>
          </Flex>
        ) : (
          <Button onClick={() => setSure(true)}>Take down …</Button>
        )
      ) : (
        <>
          {may(post, 'hold') && (
            <Button look="quiet" onClick={() => void attempt(() => (post.held ? lift(what) : hold(what)))}>
              {post.held ? 'Lift' : 'Hold'}
            </Button>
          )}
          <Button hint="x" onClick={() => void asideOrBack(post)}>
            {may(post, 'bring back') ? 'Bring back' : 'Set aside'}
          </Button>
          {post.piece && may(post, 'reword') && (
            <Button hint="w" onClick={() => void attempt(() => nextWording(post.id))}>
              Another
            </Button>
          )}
          {may(post, 'edit') && (
            <Button hint="e" onClick={() => onEdit(true)}>
              Edit
            </Button>
          )}
          {waitsForReview(post) && (
            <Button hint="a" look="water" onClick={() => void approveThis(post)}>
              Approve
            </Button>
          )}
        </>
      )}
    </Flex>
  )
}
