import { Box, chakra, Flex, Heading } from '@chakra-ui/react'
import { Link } from 'react-router'
import { ownPictureHash, type Brand, type Credit, type LibraryPicture } from '../../../core/model'
import { mayMove, NETWORKS, staysMoving } from '../../../core/networks'
import type { LibraryEntry } from '../../../core/pictures'
import { inWords } from '../../../core/text'
import { removePicture, tellPicture, useMedia, useRow } from '../../data'
import {
  attempt,
  Button,
  count,
  Labelled,
  longDay,
  moment,
  Mono,
  NetworkMark,
  Notice,
  postPath,
  TextArea,
  TextField,
  useTyped,
} from '../../ui'

/** How many posts are listed that show a picture. */
const LISTED = 12

/** A picture of the library at large: what it is, whose, and where it is used. */
export function LibraryBeside({
  entry,
  picture,
  brand,
  onLike,
  onClose,
}: {
  entry: LibraryEntry
  /** Its record, where it is one of the brand's own. */
  picture: LibraryPicture | null
  brand: Brand
  /** Shows what looks like it. */
  onLike: () => void
  onClose: () => void
}) {
  const url = useMedia({ source: entry.source, alt: entry.alt, shape: null, hash: null }, brand.id)
  const { size } = entry
  return (
    <Box p="4">
      <Flex justify="space-between" align="baseline" gap="2" mb="3">
        <Heading as="h2" fontSize="15px" fontWeight="600" minW="0">
          {entry.title || 'A picture'}
        </Heading>
        <Button size="sm" look="quiet" hint="Esc" onClick={onClose}>
          Close
        </Button>
      </Flex>
      {entry.trouble ? (
        <Notice tone="clay">{`${entry.trouble} No post is given it.`}</Notice>
      ) : (
        <chakra.img
          src={url}
          alt={entry.alt}
          maxH="260px"
          maxW="full"
          mx="auto"
          borderRadius="sm"
          borderWidth="1px"
          borderColor="hairline"
        />
      )}
      <Flex mt="2" gap="2" align="center" fontSize="13px" color="soft" wrap="wrap">
        <Box flex="1">
          {WHENCE[entry.origin]}
          {entry.origin !== 'card' && `, ${longDay(entry.addedAt.slice(0, 10))}`}
        </Box>
        {size && (
          <Mono>
            {size.width} × {size.height}
          </Mono>
        )}
      </Flex>
      {entry.others > 0 && (
        <Flex mt="1" align="center" fontSize="13px" gap="2">
          <Box flex="1">
            {count(entry.others, 'picture looks', 'pictures look')} like it; the rules take them for one.
          </Box>
          <Button size="sm" look="quiet" onClick={onLike}>
            Show them
          </Button>
        </Flex>
      )}
      {picture?.moves && <Moves picture={picture} />}
      {picture ? (
        <Told key={picture.id} picture={picture} />
      ) : (
        entry.alt !== '' && (
          <Box mt="3" fontSize="13px">
            {entry.alt}
          </Box>
        )
      )}
      {entry.pieces.map(({ id, title }) => (
        <Box key={id} mt="2" fontSize="13px">
          In{' '}
          <Link to={`/intake/${id}`}>
            <chakra.span textDecoration="underline">{title}</chakra.span>
          </Link>
        </Box>
      ))}
      <Heading as="h3" fontSize="14px" fontWeight="600" mt="4" mb="1">
        {entry.uses.length === 0 ? 'No post shows it' : `Shown by ${count(entry.uses.length, 'post')}`}
      </Heading>
      {entry.uses.slice(-LISTED).map(({ post, at, out }) => (
        <Use key={post} post={post} at={at} out={out} zone={brand.zone} />
      ))}
      {entry.uses.length > LISTED && (
        <Box fontSize="13px" color="soft">
          and {entry.uses.length - LISTED} before these
        </Box>
      )}
      {picture && entry.uses.length === 0 && (
        <Button
          mt="3"
          onClick={() =>
            void attempt(async () => {
              await removePicture(picture.id)
              onClose()
            })
          }
        >
          Take it out of the library
        </Button>
      )}
    </Box>
  )
}

const WHENCE: Readonly<Record<LibraryEntry['origin'], string>> = {
  piece: 'Came with a piece',
  card: 'A card, drawn in the brand’s look',
  file: 'Out of a file',
  stock: 'From the stock',
  order: 'Made to order',
}

function Use({ post: id, at, out, zone }: { post: string; at: string; out: boolean; zone: string }) {
  const post = useRow('posts', id)
  const account = useRow('accounts', post?.account ?? null)
  if (!post) return null
  return (
    <Flex align="center" gap="2" fontSize="13px" py="0.5">
      <NetworkMark id={post.network} />
      <Box flex="1" minW="0" truncate>
        <Link to={postPath(post)}>
          <chakra.span _hover={{ textDecoration: 'underline' }}>@{account?.handle ?? '…'}</chakra.span>
        </Link>
      </Box>
      <Mono color={out ? 'soft' : 'ink'}>{moment(at, zone)}</Mono>
    </Flex>
  )
}

const NOBODY: Credit = { author: '', from: '', licence: '', page: null, mustShow: false }

/** What a person says of a picture of the brand's own; kept as one leaves a field. */
function Told({ picture }: { picture: LibraryPicture }) {
  const { title, alt, credit } = picture
  const keep = (change: Partial<Pick<LibraryPicture, 'title' | 'alt' | 'credit'>>): void =>
    void attempt(() => tellPicture(picture.id, { title, alt, credit, ...change }))
  const give = (change: Partial<Credit>): void => {
    const given = { ...(credit ?? NOBODY), ...change }
    keep({ credit: given.author || given.from || given.licence ? given : null })
  }
  return (
    <Box mt="3">
      <Typed label="What it is called" value={title} onKeep={(v) => v && keep({ title: v })} />
      <Typed
        label="Alternative text, for those who cannot see it"
        long
        value={alt}
        onKeep={(v) => keep({ alt: v })}
      />
      <Flex gap="2">
        <Typed label="Who made it" value={credit?.author ?? ''} onKeep={(v) => give({ author: v })} />
        <Typed label="Where it is from" value={credit?.from ?? ''} onKeep={(v) => give({ from: v })} />
      </Flex>
      <Typed label="Licence" value={credit?.licence ?? ''} onKeep={(v) => give({ licence: v })} />
      {credit?.page && (
        <Box fontSize="13px" mt="1" truncate>
          <a href={credit.page} target="_blank" rel="noreferrer">
            {credit.page}
          </a>
        </Box>
      )}
      <chakra.label display="flex" gap="2" mt="2" fontSize="13px" alignItems="center">
        <input
          type="checkbox"
          checked={credit?.mustShow ?? false}
          disabled={!credit}
          onChange={(e) => give({ mustShow: e.target.checked })}
        />
        Its maker has to be named in every post that shows it
      </chakra.label>
    </Box>
  )
}

function Typed({
  label,
  value,
  long = false,
  onKeep,
}: {
  label: string
  value: string
  long?: boolean
  onKeep: (value: string) => void
}) {
  const [text, setText] = useTyped(value)
  const leave = (): void => {
    if (text.trim() !== value) onKeep(text.trim())
  }
  return (
    <Box mt="2" flex="1" minW="0">
      <Labelled label={label}>
        {(id) =>
          long ? (
            <TextArea
              id={id}
              rows={2}
              fontSize="13px"
              value={text}
              onChange={(e) => setText(e.target.value)}
              onBlur={leave}
            />
          ) : (
            <TextField
              id={id}
              w="full"
              fontSize="13px"
              value={text}
              onChange={(e) => setText(e.target.value)}
              onBlur={leave}
            />
          )
        }
      </Labelled>
    </Box>
  )
}

/** Says where a picture that moves is shown so. */
function Moves({ picture }: { picture: LibraryPicture }) {
  const info = useRow('media', ownPictureHash(picture.url))
  if (!info) return null
  const there = NETWORKS.filter((n) => staysMoving(info, null, mayMove(n))).map((n) => n.name)
  return (
    <Notice tone="amber">
      {there.length > 0
        ? `It moves on ${inWords(there)}; other networks show its first frame, still.`
        : 'It moves; posts show its first frame, still.'}
    </Notice>
  )
}
