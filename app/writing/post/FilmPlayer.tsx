import { Box } from '@chakra-ui/react'
import { useEffect, useRef, useState, type CSSProperties } from 'react'
import useSWRImmutable from 'swr/immutable'
import type { Cut, FilmPart, Look, PostMedia } from '../../../core/model'
import { cropAboutCentre } from '../../../core/networks'
import { clipMoment, filmMoment, partSeconds } from '../../../core/pictures'
import { clipPlate, clipSaid, clipWave, filmShown } from '../../data/more'
import { Notice } from '../../ui'
import { PlayerControls } from './PlayerControls'

export type FilmMedia = PostMedia & { source: { from: 'film' } }

interface Size {
  width: number
  height: number
}

const WHOLE: CSSProperties = { position: 'absolute', inset: 0, width: '100%', height: '100%' }

/** The height of a clip beside its post, at most. */
const TALL = 440

/**
 * A film or a part of it, played from where it lies, with the brand's frame and what is said over it as they go out. It ends
 * where the part does.
 */
export function FilmPlayer({ media, look }: { media: FilmMedia; look: Look }) {
  const { url, part } = media.source
  const video = useRef<HTMLVideoElement>(null)
  const { data: address, error } = useSWRImmutable(['film', url], ([, of]) => filmShown(of))
  // What there is of it: its size in pixels, or that it has none; undefined until that is known.
  const [film, setFilm] = useState<Size | null>()
  const [length, setLength] = useState<number>()
  const [at, setAt] = useState(0)
  const [playing, setPlaying] = useState(false)
  const [failed, setFailed] = useState(false)
  const seconds = part ? partSeconds(part) : length

  useEffect(() => {
    if (!playing) return
    let next = 0
    const step = (): void => {
      const moment = video.current?.currentTime ?? 0
      const gone = part?.leftOut?.find((g) => g.from <= moment && moment < g.to)
      if (gone && video.current) video.current.currentTime = gone.to
      const now = part ? clipMoment(part, moment) : moment
      setAt(Math.min(now, seconds ?? now))
      if (video.current?.ended || moment >= (part?.end ?? Infinity)) {
        video.current?.pause()
        setPlaying(false)
      } else next = requestAnimationFrame(step)
    }
    next = requestAnimationFrame(step)
    return () => cancelAnimationFrame(next)
  }, [playing, part, seconds])

  const seek = (to: number): void => {
    setAt(to)
    if (video.current) video.current.currentTime = part ? filmMoment(part, to) : to
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
      <Framed part={part} media={media} look={look} film={film} at={at} onClick={toggle}>
        {(style) => (
          <video
            ref={video}
            src={address}
            preload="metadata"
            playsInline
            aria-label={media.alt}
            style={style}
            onLoadedMetadata={(e) => {
              const { videoWidth, videoHeight, duration } = e.currentTarget
              setFilm(videoWidth > 0 ? { width: videoWidth, height: videoHeight } : null)
              setLength(duration)
              e.currentTarget.currentTime = part?.start ?? 0
            }}
            onError={() => setFailed(true)}
          />
        )}
      </Framed>
      {(failed || error) && (
        <Notice tone="amber">
          {error instanceof Error
            ? error.message
            : 'The film cannot be played from its address. Look whether it is still there, choose it from a file at its piece, or let a card of the words move instead.'}
        </Notice>
      )}
      <PlayerControls playing={playing} at={at} seconds={seconds} onToggle={toggle} onSeek={seek} />
    </Box>
  )
}

/** A film in its frame; without a part of it, as it is. Of a recording without pictures it shows how loud it is. */
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
  film: Size | null | undefined
  /** How far it has played, in seconds. */
  at: number
  onClick: () => void
  children: (style: CSSProperties) => React.ReactNode
}) {
  const ask =
    part && film !== undefined ? (['plate', part.hook, look, media.shape, film, part.filled] as const) : null
  const { data } = useSWRImmutable(ask, ([, ...of]) => clipPlate(...of))
  const moment = part ? filmMoment(part, at) : at
  const words = part?.subtitles.find((s) => s.from <= moment && moment < s.to)?.text
  const { data: said } = useSWRImmutable(
    data && words ? (['said', words, data.plate, look] as const) : null,
    ([, ...of]) => clipSaid(...of),
  )
  const { width, height } = media.shape ?? film ?? { width: 16, height: 9 }
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
      {data && <img src={data.url} alt="" style={WHOLE} />}
      {data && part && film === null && (
        <Wave url={media.source.url} part={part} plate={data.plate} look={look} at={at} />
      )}
      {children(data && film ? placed(data.plate, film, media.cut) : part ? { ...WHOLE, opacity: 0 } : WHOLE)}
      {data && words && said && <img src={said} alt="" style={WHOLE} />}
    </div>
  )
}

type Plated = Awaited<ReturnType<typeof clipPlate>>['plate']

/** How loud a part of a recording is, uncovered as far as it has played. */
function Wave({
  url,
  part,
  plate,
  look,
  at,
}: {
  url: string
  part: FilmPart
  plate: Plated
  look: Look
  at: number
}) {
  const { data } = useSWRImmutable(['wave', url, part, plate, look] as const, ([, ...of]) => clipWave(...of))
  if (!data) return null
  const played = plate.said.x + (at / partSeconds(part)) * plate.said.width
  const rest = (1 - played / plate.drawing.width) * 100
  return (
    <>
      <img src={data.toCome} alt="" style={WHOLE} />
      <img src={data.heard} alt="" style={{ ...WHOLE, clipPath: `inset(0 ${rest}% 0 0)` }} />
    </>
  )
}

/** Where the film stands in its frame, cut to what is shown of it. */
function placed(plate: Plated, film: Size, cut: Cut | undefined) {
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
