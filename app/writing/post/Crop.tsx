import { Box, chakra, Flex } from '@chakra-ui/react'
import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react'
import type { Cut, Post, PostMedia } from '../../../core/model'
import { STORY, movedCut, network, type Shape } from '../../../core/networks'
import { useCut, useMedia } from '../../data'
import { cutPicture } from '../../data/more'
import { attempt, Button, Segments } from '../../ui'

/** How far an arrow moves the frame, as a part of the picture, and with Shift; how much plus and minus change its size. */
const STEP = 0.02
const FAR = 0.1
const CLOSER = 0.9

const nameOf = ({ width, height }: Shape): string => `${width}:${height}`

/** A picture of a post with the frame of the part that is shown: pulled with the mouse, or by keys. */
export function Crop({
  post,
  index,
  media,
  onDone,
}: {
  post: Post
  index: number
  media: PostMedia
  onDone: () => void
}) {
  const { story, shapes: usual } = network(post.network).media
  const shapes = story && post.wording.format === STORY ? [story.shape] : usual
  const url = useMedia(media, post.brand)
  const [size, setSize] = useState<{ width: number; height: number } | null>(null)
  const [shape, setShape] = useState(media.shape)
  const [mine, setMine] = useState<Cut | null>(null)
  const same = shape !== null && media.shape !== null && nameOf(shape) === nameOf(media.shape)
  const proposed = useCut(same ? media : bare(media, shape))
  const cut = mine ?? proposed
  const frame = useRef<HTMLDivElement>(null)
  const there = Boolean(shape && url)
  // Whoever opens it goes on with the keyboard.
  useEffect(() => frame.current?.focus({ preventScroll: true }), [there])
  if (!shape || !url) return null
  const change = (by: Parameters<typeof movedCut>[3]): void => {
    // A pull is many small moves, each of which goes on from the one before.
    if (proposed && size) setMine((before) => movedCut(size, shape, before ?? proposed, by))
  }
  const keep = (): void =>
    void attempt(async () => {
      if (mine || !same) await cutPicture(post.id, index, shape, mine)
      onDone()
    })
  const pull = (event: PointerEvent<HTMLDivElement>): void => {
    if (event.buttons !== 1 || !frame.current) return
    const { width, height } = frame.current.getBoundingClientRect()
    change({ x: event.movementX / width, y: event.movementY / height })
  }
  const keys = (event: KeyboardEvent): void => {
    const far = event.shiftKey ? FAR : STEP
    const does: Readonly<Record<string, () => void>> = {
      ArrowLeft: () => change({ x: -far }),
      ArrowRight: () => change({ x: far }),
      ArrowUp: () => change({ y: -far }),
      ArrowDown: () => change({ y: far }),
      '+': () => change({ times: CLOSER }),
      '-': () => change({ times: 1 / CLOSER }),
      Enter: keep,
      Escape: onDone,
    }
    const act = does[event.key]
    if (!act) return
    event.preventDefault()
    event.stopPropagation()
    act()
  }
  return (
    <Box mt="2">
      <Box
        ref={frame}
        role="application"
        aria-label={`The part that is shown: ${cut ? inWords(cut) : 'not known yet'}. Arrows move it, plus and minus come closer and go back, Enter keeps it.`}
        tabIndex={0}
        onKeyDown={keys}
        onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
        onPointerMove={pull}
        position="relative"
        overflow="hidden"
        borderRadius="sm"
        cursor="move"
        touchAction="none"
        lineHeight="0"
      >
        <chakra.img
          src={url}
          alt=""
          w="full"
          draggable={false}
          onLoad={(e) =>
            setSize({ width: e.currentTarget.naturalWidth, height: e.currentTarget.naturalHeight })
          }
        />
        {cut && (
          <Box
            position="absolute"
            borderWidth="2px"
            borderColor="white"
            pointerEvents="none"
            style={{
              left: `${cut.x * 100}%`,
              top: `${cut.y * 100}%`,
              width: `${cut.width * 100}%`,
              height: `${cut.height * 100}%`,
              boxShadow: '0 0 0 2000px rgb(20 30 28 / 0.6)',
            }}
          />
        )}
      </Box>
      <Flex gap="1.5" mt="2" align="center" wrap="wrap">
        {shapes.length > 1 && (
          <Segments
            label="Shape"
            choices={shapes.map(nameOf)}
            value={nameOf(shape)}
            words={(s) => s}
            onChange={(name) => {
              setShape(shapes.find((s) => nameOf(s) === name) ?? shape)
              setMine(null)
            }}
          />
        )}
        <Button size="sm" aria-label="Come closer" onClick={() => change({ times: CLOSER })}>
          +
        </Button>
        <Button size="sm" aria-label="Go back" onClick={() => change({ times: 1 / CLOSER })}>
          −
        </Button>
      </Flex>
      <Flex gap="1.5" mt="2" justify="flex-end">
        {media.cut && (
          <Button
            size="sm"
            look="quiet"
            onClick={() =>
              void attempt(async () => {
                await cutPicture(post.id, index, shape, null)
                onDone()
              })
            }
          >
            As proposed
          </Button>
        )}
        <Button size="sm" look="quiet" hint="Esc" onClick={onDone}>
          Leave it
        </Button>
        <Button size="sm" look="water" hint="↵" onClick={keep}>
          Keep
        </Button>
      </Flex>
    </Box>
  )
}

/** A picture in another shape, of which no part was chosen. */
function bare({ cut: _, ...media }: PostMedia, shape: Shape | null): PostMedia {
  return { ...media, shape }
}

const inWords = ({ x, y, width }: Cut): string =>
  `${Math.round(width * 100)} per cent of its width, from ${Math.round(x * 100)} per cent left and ${Math.round(y * 100)} per cent top`
