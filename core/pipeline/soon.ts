import type { Post } from '../model'
import { placeAsked, planChecked, planOf, withPlaces, type PlaceRequest } from '../planning'

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
    const beside = { ...request, standing: [...request.standing, ...placed.filter((p) => p !== post)] }
    const at = firstMoment(post, beside, last)
    if (at !== null)
      placed[index] = {
        ...post,
        at,
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

function firstMoment(post: Post, around: PlaceRequest, last: number): string | null {
  const plan = planOf({ ...around, moving: [post] })
  for (let at = Date.parse(around.now) + STEP * MINUTE; at <= last; at += STEP * MINUTE) {
    const moment = new Date(at).toISOString()
    if (placeAsked(plan, [{ id: post.id, at: moment }])[0]?.at) return moment
  }
  return null
}
