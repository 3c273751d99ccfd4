import { Box } from '@chakra-ui/react'
import { useEffect, useRef, useState, type CSSProperties } from 'react'
import useSWRImmutable from 'swr/immutable'
import type { Cut, FilmPart, Look, PostMedia } from '../../../core/model'
import { cropAboutCentre } from '../../../core/networks'
import { clipPlate, clipSaid, filmAddress } from '../../data/more'
import { Notice } from '../../ui'
import { PlayerControls } from './PlayerControls'

export type FilmMedia = PostMedia & { source: { from: 'film' } }

interface Size {
  width: number
  height: number
}

/** The height of a clip beside its post, at most. */
const TALL = 440

/**
 * A film or a part of it, played from where it lies, with the brand's frame and what is said over it as they go out. It ends
 * where the part does.
 */
export function FilmPlayer({ media, look }: { media: FilmMedia; look: Look }) {
  const { url, part } = media.source
  const video = useRef<HTMLVideoElement>(null)
  const [film, setFilm] = useState<Size | null>(null)
  const [length, setLength] = useState<number>()
  const [at, setAt] = useState(0)
  const [playing, setPlaying] = useState(false)
  const [failed, setFailed] = useState(false)
  const start = part?.start ?? 0
  const seconds = part ? part.end - part.start : length

  useEffect(() => {
    if (!playing) return
    let next = 0
    const step = (): void => {
      const now = (video.current?.currentTime ?? 0) - start
      setAt(Math.min(now, seconds ?? now))
      if (seconds !== undefined && now >= seconds) {
        video.current?.pause()
        setPlaying(false)
      } else next = requestAnimationFrame(step)
    }
    next = requestAnimationFrame(step)
    return () => cancelAnimationFrame(next)
  }, [playing, start, seconds])

  const seek = (to: number): void => {
    setAt(to)
    if (video.current) video.current.currentTime = start + to
  }
  const toggle = (): void => {
    if (playing) video.current?.pause()
    else {
      if (seconds !== undefined && at >= seconds - 0.05) seek(0)
      void video.current?.play().catch(() => setFailed(true))
    }
    setPlaying(!playing)
  }
  return (
    <Box w="full">
      <Framed part={part} media={media} look={look} film={film} at={start + at} onClick={toggle}>
        {(style) => (
          <video
            ref={video}
            src={filmAddress(url)}
            preload="metadata"
            playsInline
            aria-label={media.alt}
            style={style}
            onLoadedMetadata={(e) => {
              const { videoWidth, videoHeight, duration } = e.currentTarget
              setFilm({ width: videoWidth, height: videoHeight })
              setLength(duration)
              e.currentTarget.currentTime = start
            }}
            onError={() => setFailed(true)}
          />
        )}
      </Framed>
      {failed && (
        <Notice tone="amber">
          The film cannot be played from its address. Look whether it is still there, or let a card of the
          words move instead.
        </Notice>
      )}
      <PlayerControls playing={playing} at={at} seconds={seconds} onToggle={toggle} onSeek={seek} />
    </Box>
  )
}

/** A film in its frame; without a part of it, as it is. */
function Framed({
  part,
  media,
  look,
  film,
  at,
  onClick,
  children,
}: {
  part: FilmPart | null
  media: FilmMedia
  look: Look
  film: Size | null
  /** The place in the film, in seconds. */
  at: number
  onClick: () => void
  children: (style: CSSProperties) => React.ReactNode
}) {
  const ask = part && film ? (['plate', part.hook, look, media.shape, film, part.filled] as const) : null
  const { data } = useSWRImmutable(ask, ([, ...of]) => clipPlate(...of))
  const words = part?.subtitles.find((s) => s.from <= at && at < s.to)?.text
  const { data: said } = useSWRImmutable(
    data && words ? (['said', words, data.plate, look] as const) : null,
    ([, ...of]) => clipSaid(...of),
  )
  const { width, height } = media.shape ?? film ?? { width: 16, height: 9 }
  const whole: CSSProperties = { position: 'absolute', inset: 0, width: '100%', height: '100%' }
  return (
    <div
      onClick={onClick}
      style={{
        position: 'relative',
        overflow: 'hidden',
        cursor: 'pointer',
        margin: '0 auto',
        aspectRatio: `${width} / ${height}`,
        width: `min(100%, ${(TALL * width) / height}px)`,
        background: look.ground,
      }}
    >
      {data && <img src={data.url} alt="" style={whole} />}
      {children(data && film ? placed(data.plate, film, media.cut) : part ? { ...whole, opacity: 0 } : whole)}
      {data && words && said && <img src={said} alt="" style={whole} />}
    </div>
  )
}

/** Where the film stands in its frame, cut to what is shown of it. */
function placed(plate: Awaited<ReturnType<typeof clipPlate>>['plate'], film: Size, cut: Cut | undefined) {
  const { drawing, film: area } = plate
  const part = (n: number, of: number): string => `${(n / of) * 100}%`
  const style: CSSProperties = {
    position: 'absolute',
    left: part(area.x, drawing.width),
    top: part(area.y, drawing.height),
    width: part(area.width, drawing.width),
    height: part(area.height, drawing.height),
  }
  if (area.height < drawing.height) return style
  const middle = cut ? cut.x + cut.width / 2 : 0.5
  // What is cut off at both sides, as the style counts it: the place of the film along what is too much of it.
  const shown = cropAboutCentre(film, drawing).width / film.width
  const along = shown >= 1 ? 0.5 : Math.min(1, Math.max(0, (middle - shown / 2) / (1 - shown)))
  return { ...style, objectFit: 'cover' as const, objectPosition: `${along * 100}% 50%` }
}
