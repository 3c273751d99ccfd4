import { Box, Flex } from '@chakra-ui/react'
import { useEffect, useRef, useState } from 'react'
import { Link } from 'react-router'
import type { LibraryPicture, PostMedia } from '../../../core/model'
import { orderOf, orderSize, type OrderFor } from '../../../core/pictures'
import { orderPicture, useMaker } from '../../data'
import { attempt, Button, count, Labelled, Mono, say, TextArea } from '../../ui'

/** Orders a picture for a post: the order is proposed, may be changed, and is waited for. */
export function Order({
  brand,
  about,
  shape,
  onMade,
}: {
  brand: string
  about: OrderFor
  shape: PostMedia['shape']
  onMade: (picture: LibraryPicture) => Promise<void>
}) {
  const maker = useMaker()
  const [words, setWords] = useState(() => orderOf(about))
  const [since, setSince] = useState<number | null>(null)
  const [seconds, setSeconds] = useState(0)
  const stop = useRef<AbortController | null>(null)
  useEffect(() => {
    if (since === null) return
    const timer = setInterval(() => setSeconds(Math.round((performance.now() - since) / 1000)), 500)
    return () => clearInterval(timer)
  }, [since])
  // Whoever goes elsewhere waits no more.
  useEffect(() => () => stop.current?.abort(), [])
  if (!maker) return null
  if (!maker.settings)
    return (
      <Box fontSize="13px">
        No service that makes pictures is connected.{' '}
        <Link to="/settings/services" style={{ textDecoration: 'underline' }}>
          Connect one under Services
        </Link>
        .
      </Box>
    )
  const left = Math.max(0, maker.settings.dailyPictures - maker.pictures)
  const size = orderSize(shape)
  const order = (): void =>
    void attempt(async () => {
      stop.current = new AbortController()
      setSeconds(0)
      setSince(performance.now())
      try {
        await onMade(await orderPicture(brand, words.trim(), size, stop.current.signal))
        say('It is made. Look for letters in it, and say what it shows, before it is approved.')
      } finally {
        setSince(null)
      }
    })
  return (
    <Box>
      <Labelled label="What is ordered">
        {(id) => (
          <TextArea
            id={id}
            rows={8}
            fontSize="13px"
            value={words}
            onChange={(e) => setWords(e.target.value)}
          />
        )}
      </Labelled>
      <Flex mt="2" gap="2" align="center" role="status">
        <Box flex="1" fontSize="13px" color="soft">
          {since !== null ? (
            `Being made, ${seconds} s`
          ) : (
            <>
              <Mono>
                {size.width} × {size.height}
              </Mono>
              , {count(left, 'order')} left today
            </>
          )}
        </Box>
        {since !== null ? (
          <Button size="sm" look="quiet" onClick={() => stop.current?.abort()}>
            Give it up
          </Button>
        ) : (
          <>
            <Button size="sm" look="quiet" onClick={() => setWords(orderOf(about))}>
              As proposed
            </Button>
            <Button size="sm" look="water" disabled={words.trim() === '' || left === 0} onClick={order}>
              Order
            </Button>
          </>
        )}
      </Flex>
    </Box>
  )
}
