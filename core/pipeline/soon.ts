import type { Post } from '../model'
import { firstMoment, planChecked, planOf, withPlaces, type PlaceRequest } from '../planning'

const MINUTE = 60_000
/** Beside openings a moment is looked for every so many minutes. */
const STEP = 5

/**
 * Places posts as soon as possible: each in an opening within so many hours; where there is none, at the first
 * moment within them that the limits allow, pinned there, since it stands in no slot. What finds neither has no
 * place and says why.
 */
export function placeSoon(request: PlaceRequest, hours: number): Post[] {
  const last = Date.parse(request.now) + hours * 60 * MINUTE
  const moving = request.moving.map((p) => ({ ...p, wished: request.now }))
  const plan = planOf({ ...request, moving })
  const ids = new Set(moving.map((p) => p.id))
  const bounded = {
    ...plan,
    posts: plan.posts.map((p) => (ids.has(p.id) ? { ...p, latest: new Date(last).toISOString() } : p)),
  }
  const placed = withPlaces(moving, planChecked(bounded))
  for (const [index, post] of placed.entries()) {
    if (post.at !== null) continue
    const standing = [...request.standing, ...placed.filter((p) => p !== post)]
    const around = planOf({ ...request, standing, moving: [post] })
    const at = firstMoment(around, post.id, Date.parse(request.now) + STEP * MINUTE, last, STEP)
    if (at !== null)
      placed[index] = {
        ...post,
        at: new Date(at).toISOString(),
        pinned: true,
        reasons: [
          {
            code: 'soon',
            message: `No slot opens within ${hours} ${hours === 1 ? 'hour' : 'hours'}, so it goes out at the first moment that the limits allow.`,
          },
        ],
      }
  }
  return placed
}
