import { z } from 'zod'
import { Id, Instant, LocalDate } from './primitives'

/** How many follow an account, as its network said on a day; a day without one was not asked, or nobody answered. */
export const Following = z.object({
  /** Account and day, parted by a colon. */
  id: Id,
  account: Id,
  /** In the account's zone. */
  day: LocalDate,
  takenAt: Instant,
  followers: z.int().min(0),
})
export type Following = z.infer<typeof Following>

/** Followings after a cursor, the oldest first. */
export const FollowingPage = z.object({ cursor: z.int().min(0), followings: z.array(Following) })
export type FollowingPage = z.infer<typeof FollowingPage>
