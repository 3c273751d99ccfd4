import { useCallback, useState } from 'react'
import { refusal, type Post } from '../../core/model'
import { clockMinutes, dayNumber, toWall, type OpenPlace } from '../../core/planning'
import { placesFor, putAt } from '../data'
import { attempt, moment, say, withDays } from '../ui'
import type { BoardPlace } from './Board'

/** A post that is taken up, with the places it may be put. */
export interface Lifted {
  post: Post
  places: readonly OpenPlace[]
  /** The same as the board draws them. */
  shown: readonly BoardPlace[]
  near: number | null
}

/** A post that was put where it may not be: why, and the next place that is legal. */
export interface Refused {
  post: Post
  why: string
  next: OpenPlace | null
}

/** Taking a post up and putting it down again, by pointer or keys. */
export function useLifting(
  posts: readonly Post[] | undefined,
  from: string,
  days: number,
  zoneOf: (account: string) => string,
) {
  const [lifted, setLifted] = useState<Lifted | null>(null)
  const [refused, setRefused] = useState<Refused | null>(null)
  const lift = useCallback(
    async (id: string | null): Promise<void> => {
      setRefused(null)
      const post = id ? posts?.find((p) => p.id === id) : null
      if (!post || !id) return setLifted(null)
      const why = refusal(post, 'move')
      if (why !== null) return say(why)
      await attempt(async () => {
        const places = await placesFor(post, from, days)
        const zone = zoneOf(post.account)
        const minuteOf = (at: string): number => clockMinutes(toWall(Date.parse(at), zone).time)
        const shown = places.map((p) => ({
          day: dayNumber(p.date),
          from: minuteOf(p.from),
          to: minuteOf(p.to),
          free: p.at !== null,
        }))
        const own = places.findIndex((p) => p.at === post.at)
        setLifted({ post, places, shown, near: own < 0 ? null : own })
      })
    },
    [posts, from, days, zoneOf],
  )
  /** Goes over a place, or puts the post down there. */
  const put = useCallback(
    (index: number | null, down: boolean): void => {
      if (!lifted) {
        if (down) say('Its places were still being worked out, so it stays. Drag it once more.')
        return
      }
      if (!down) return setLifted({ ...lifted, near: index })
      setLifted(null)
      const place = index === null ? null : lifted.places[index]
      if (!place || place.at === lifted.post.at) return
      if (place.at) {
        const at = place.at
        void attempt(async () => {
          await putAt(lifted.post, at)
          say(`Moved to ${moment(at, zoneOf(lifted.post.account))} and pinned there.`)
        })
        return
      }
      const later = lifted.places.slice((index ?? 0) + 1).find((p) => p.at !== null)
      setRefused({
        post: lifted.post,
        why: withDays(`${place.date} ${place.against ?? 'is closed'}`),
        next: later ?? null,
      })
    },
    [lifted, zoneOf],
  )
  /** Goes so many places on. */
  const nudge = (by: number): void => {
    if (!lifted) return
    const near = Math.min(lifted.places.length - 1, Math.max(0, (lifted.near ?? -1) + by))
    setLifted({ ...lifted, near })
  }
  const drop = (): void => {
    setLifted(null)
    setRefused(null)
  }
  return { lifted, refused, lift, put, nudge, drop }
}
