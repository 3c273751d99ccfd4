import { Box, chakra, Flex } from '@chakra-ui/react'
import { useRef, useState } from 'react'
import { HOOK_MOST, isClip, type FilmPart, type Post, type PostMedia } from '../../../core/model'
import { movedCut } from '../../../core/networks'
import { partSeconds, subtitleFile } from '../../../core/pictures'
import { download, useRow } from '../../data'
import { changeHook, changeSubtitles, fillClip, makeClip, moveClip, tightenClip } from '../../data/more'
import {
  attempt,
  Button,
  count,
  fileName,
  Labelled,
  Mono,
  Segments,
  TextArea,
  TextField,
  useTyped,
} from '../../ui'

/** What is chosen of a clip, and the making of it. */
export function ClipFields({ post, index, media }: { post: Post; index: number; media: PostMedia }) {
  if (!isClip(media)) return null
  return (
    <>
      <Choices post={post} index={index} media={media} />
      <Making key={JSON.stringify(media.source)} post={post} index={index} hash={media.hash} />
    </>
  )
}

/** Makes the file of a clip before its post goes out, shows how far it is, and saves it; it can be cancelled. */
function Making({ post, index, hash }: { post: Post; index: number; hash: string | null }) {
  const [far, setFar] = useState<number | null>(null)
  const stop = useRef<AbortController | null>(null)
  const made = useRow('media', hash)
  const make = (): void =>
    void attempt(async () => {
      stop.current = new AbortController()
      setFar(0)
      try {
        const file = await makeClip(post.id, index, { far: setFar, signal: stop.current.signal })
        const ending = file.type === 'video/webm' ? 'webm' : 'mp4'
        download(file, `${fileName(`${post.network} ${post.wording.hashtags[0] ?? 'clip'}`)}.${ending}`)
      } finally {
        setFar(null)
      }
    })
  if (far !== null)
    return (
      <Flex mt="2" align="center" gap="2" role="status">
        <chakra.progress
          aria-label="How much of the clip is made"
          value={far}
          max={1}
          flex="1"
          css={{ accentColor: 'var(--chakra-colors-water)' }}
        />
        <Mono>{Math.round(far * 100)} %</Mono>
        <Button size="sm" look="quiet" onClick={() => stop.current?.abort()}>
          Cancel
        </Button>
      </Flex>
    )
  return (
    <Flex mt="2" align="center" gap="2" wrap="wrap" fontSize="13px" color="soft">
      <Button size="sm" onClick={make}>
        {made ? 'Save the file' : 'Make the file now'}
      </Button>
      <span>
        {made
          ? `${made.width} × ${made.height}, ${(made.bytes / 1e6).toFixed(1)} MB`
          : 'By itself it is made when the post goes out.'}
      </span>
    </Flex>
  )
}

/** What is chosen of a clip: the words it opens with, and of a film how it stands in its clip. */
function Choices({ post, index, media }: { post: Post; index: number; media: PostMedia }) {
  const { source } = media
  if (source.from === 'moving')
    return (
      <Hook
        post={post}
        index={index}
        hook={source.hook}
        label="Opens with, to make people stay; may be empty"
      />
    )
  if (source.from !== 'film' || !source.part) return null
  return (
    <>
      <OfFilm post={post} index={index} media={media} part={source.part} />
      <Subtitles
        post={post}
        index={index}
        part={source.part}
        name={`${post.network} ${post.wording.hashtags[0] ?? 'clip'}`}
      />
    </>
  )
}

/** What is chosen of a part of a film, or of a recording, which has no pictures to fill the clip with. */
function OfFilm(of: { post: Post; index: number; media: PostMedia; part: FilmPart }) {
  const { post, index, part } = of
  const sound = useRow('pieces', post.piece)?.video?.sound === true
  return (
    <>
      {(sound || !part.filled) && (
        <Hook
          post={post}
          index={index}
          hook={part.hook}
          label={`Stands over the ${sound ? 'wave' : 'film'}; may be empty`}
        />
      )}
      <Ends post={post} index={index} part={part} />
      <Pauses post={post} index={index} part={part} />
      {!sound && <Standing {...of} />}
    </>
  )
}

/** Whether pauses and sounds of hesitation are left out of a part of a film. */
function Pauses({ post, index, part }: { post: Post; index: number; part: FilmPart }) {
  const [looking, setLooking] = useState(false)
  const { leftOut } = part
  const less = part.end - part.start - partSeconds(part)
  const choose = (tight: boolean): void =>
    void attempt(async () => {
      setLooking(true)
      await tightenClip(post.id, index, tight).finally(() => setLooking(false))
    })
  return (
    <Flex mt="2" align="center" gap="2" wrap="wrap" fontSize="13px" color="soft">
      <Button size="sm" disabled={looking} onClick={() => choose(!leftOut)}>
        {leftOut ? 'Put the pauses back' : 'Leave pauses and ums out'}
      </Button>
      <span role="status">
        {looking
          ? 'Listening …'
          : leftOut &&
            `${count(leftOut.length, 'place')}, ${less.toFixed(1)} s; the clip has ${partSeconds(part).toFixed(1)} s`}
      </span>
    </Flex>
  )
}

function Hook({ post, index, hook, label }: { post: Post; index: number; hook: string; label: string }) {
  const [words, setWords] = useTyped(hook)
  return (
    <Box mt="2">
      <Labelled label={label}>
        {(id) => (
          <TextField
            id={id}
            w="full"
            maxLength={HOOK_MOST}
            value={words}
            onChange={(e) => setWords(e.target.value)}
            onBlur={() => words.trim() !== hook && void attempt(() => changeHook(post.id, index, words))}
          />
        )}
      </Labelled>
    </Box>
  )
}

/** Films lie so, wide to high, where nobody has looked yet: only what is cut off at their sides is chosen here. */
const WIDE = { width: 16, height: 9 }

/** How a film stands in its clip, and what is shown of it where it fills it. */
function Standing({
  post,
  index,
  media,
  part: { filled },
}: {
  post: Post
  index: number
  media: PostMedia
  part: FilmPart
}) {
  const { cut, shape } = media
  const middle = cut ? cut.x + cut.width / 2 : 0.5
  const [at, setAt] = useTyped(middle)
  const keep = (): void => {
    if (!shape || at === middle) return
    const about = movedCut(WIDE, shape, { x: at - 0.5, y: 0, width: 1, height: 1 }, {})
    void attempt(() => fillClip(post.id, index, true, about))
  }
  return (
    <Box mt="2">
      <Segments
        label="The film in its clip"
        choices={['framed', 'filled'] as const}
        value={filled ? 'filled' : 'framed'}
        words={(how) => (how === 'framed' ? 'Whole, in the brand’s frame' : 'Fills it')}
        onChange={(how) => void attempt(() => fillClip(post.id, index, how === 'filled', null))}
      />
      {filled && (
        <Box mt="2">
          <Labelled label="What is shown of it, from left to right">
            {(id) => (
              <chakra.input
                id={id}
                type="range"
                w="full"
                min={0}
                max={1}
                step={0.02}
                value={at}
                onChange={(e) => setAt(Number(e.target.value))}
                onPointerUp={keep}
                onKeyUp={keep}
                onBlur={keep}
                css={{ accentColor: 'var(--chakra-colors-water)' }}
              />
            )}
          </Labelled>
        </Box>
      )}
    </Box>
  )
}

/** When a part of a film begins and ends, in seconds of the film. */
function Ends({ post, index, part: { start, end } }: { post: Post; index: number; part: FilmPart }) {
  const [from, setFrom] = useTyped(start)
  const [to, setTo] = useTyped(end)
  const keep = (): void => {
    if (from === start && to === end) return
    void attempt(() => moveClip(post.id, index, from, to))
  }
  return (
    <Flex gap="3" mt="2">
      {(
        [
          ['Begins at, in seconds of the film', from, setFrom],
          ['Ends at', to, setTo],
        ] as const
      ).map(([label, value, set]) => (
        <Labelled key={label} label={label}>
          {(id) => (
            <TextField
              id={id}
              type="number"
              w="100px"
              min={0}
              step={0.1}
              value={value}
              onChange={(e) => set(Number(e.target.value))}
              onBlur={keep}
            />
          )}
        </Labelled>
      ))}
    </Flex>
  )
}

/** What is said below a film: to be changed, and to be taken beside the clip. */
function Subtitles({ post, index, part, name }: { post: Post; index: number; part: FilmPart; name: string }) {
  const kept = part.subtitles.map((s) => s.text).join('\n')
  const [lines, setLines] = useTyped(kept)
  const take = (format: 'vtt' | 'srt'): void =>
    download(new Blob([subtitleFile(part, format)], { type: 'text/plain' }), `${fileName(name)}.${format}`)
  if (part.subtitles.length === 0) return null
  return (
    <Box mt="2">
      <Labelled label="Subtitles, a line each; an empty line shows nothing">
        {(id) => (
          <TextArea
            id={id}
            rows={Math.min(6, part.subtitles.length)}
            fontSize="13px"
            value={lines}
            onChange={(e) => setLines(e.target.value)}
            onBlur={() =>
              lines !== kept && void attempt(() => changeSubtitles(post.id, index, lines.split('\n')))
            }
          />
        )}
      </Labelled>
      <Flex gap="1.5" mt="1" align="center" wrap="wrap" fontSize="13px" color="soft">
        To be taken beside the clip:
        <Button size="sm" look="quiet" onClick={() => take('vtt')}>
          WebVTT
        </Button>
        <Button size="sm" look="quiet" onClick={() => take('srt')}>
          SubRip
        </Button>
      </Flex>
    </Box>
  )
}
