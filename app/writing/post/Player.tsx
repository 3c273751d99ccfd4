import { Box } from '@chakra-ui/react'
import { useEffect, useRef, useState } from 'react'
import useSWRImmutable from 'swr/immutable'
import { linkShown, type Look, type Post, type PostMedia } from '../../../core/model'
import { useRow } from '../../data'
import { clipFrame, clipLasts, clipOrder } from '../../data/more'
import { FilmPlayer, type FilmMedia } from './FilmPlayer'
import { PlayerControls } from './PlayerControls'

type ClipMedia = PostMedia & { source: { from: 'moving' } }

/** Pixels across in which a clip is played beside a post: twice as many as it is wide there. */
const ACROSS = 540

const PLAYED = { display: 'block', margin: '0 auto', maxWidth: '100%', maxHeight: 440, cursor: 'pointer' }

/** A clip of a post, to be played as readers will see it; nothing is made for that. */
export function Player({
  post,
  media,
}: {
  post: Pick<Post, 'brand' | 'network' | 'link' | 'shortLink'>
  media: ClipMedia | FilmMedia
}) {
  const look = useRow('brands', post.brand)?.look
  if (!look) return null
  return isFilm(media) ? (
    <FilmPlayer key={JSON.stringify([media, look])} media={media} look={look} />
  ) : (
    <Played
      // What is drawn anew begins anew.
      key={JSON.stringify([media.source, media.shape, look, linkShown(post)])}
      media={media}
      look={look}
      network={post.network}
      link={linkShown(post)}
    />
  )
}

const isFilm = (media: PostMedia): media is FilmMedia => media.source.from === 'film'

function Played({
  media,
  look,
  network,
  link,
}: {
  media: ClipMedia
  look: Look
  network: string
  link: string | null
}) {
  const [order] = useState(() => clipOrder(media.source, media.shape, look, network, link))
  const { data: seconds } = useSWRImmutable(['clip lasts', order], ([, of]) => clipLasts(of))
  const [at, setAt] = useState(0)
  const [playing, setPlaying] = useState(false)
  const canvas = useRef<HTMLCanvasElement>(null)
  const { width, height } = media.shape ?? { width: 1, height: 1 }

  useEffect(() => {
    let gone = false
    void clipFrame(order, at, ACROSS).then((frame) => {
      const context = canvas.current?.getContext('bitmaprenderer')
      if (gone || !context) frame.close()
      else context.transferFromImageBitmap(frame)
    })
    return () => {
      gone = true
    }
  }, [order, at])

  useEffect(() => {
    if (!playing || seconds === undefined) return
    let next = 0
    let begun: number | null = null
    const step = (now: number): void => {
      begun ??= now - at * 1000
      const then = Math.min(seconds, (now - begun) / 1000)
      setAt(then)
      if (then < seconds) next = requestAnimationFrame(step)
      else setPlaying(false)
    }
    next = requestAnimationFrame(step)
    return () => cancelAnimationFrame(next)
    // It goes on from where it stands when it is set going, and by itself from there.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [playing, seconds])

  const toggle = (): void => {
    if (!playing && seconds !== undefined && at >= seconds) setAt(0)
    setPlaying(!playing)
  }
  return (
    <Box w="full">
      {/* A plain element: its width and height are those of its pixels, and no styles. */}
      <canvas
        ref={canvas}
        role="img"
        aria-label={media.alt}
        onClick={toggle}
        width={ACROSS}
        height={Math.round((ACROSS * height) / width)}
        style={PLAYED}
      />
      <PlayerControls
        playing={playing}
        at={at}
        seconds={seconds}
        onToggle={toggle}
        onSeek={(to) => {
          setPlaying(false)
          setAt(to)
        }}
      />
    </Box>
  )
}

/** Whether what a post shows is played rather than looked at. */
export function isPlayed(media: PostMedia): media is ClipMedia | FilmMedia {
  return media.source.from === 'moving' || media.source.from === 'film'
}
