import { Book, type Task } from './book'
import { Lane } from './lane'
import { taskOf } from './plan'
import type { Plan, PlanPost } from './rules'

/** The posts of a plan that stand, in a book, with what makes a task of one more. */
export interface Around {
  lanes: ReadonlyMap<string, Lane>
  book: Book
  /** A post as the planner's task; null where its account is not of the plan. */
  taskFor: (post: PlanPost) => Task | null
}

/** Puts every post of a plan that has a place into a book, apart from some that are only asked about. */
export function aroundOf(input: Plan, asked: ReadonlySet<string>): Around {
  const lanes = new Map(input.accounts.map((a, i) => [a.id, new Lane(a, i, input.weights)]))
  const networks = input.accounts.map((a) => a.network)
  const siblings = new Set(networks.filter((n) => networks.indexOf(n) !== networks.lastIndexOf(n)))
  const limits = new Map(input.limits.map((l) => [l.id, l]))
  const book = new Book(input.siblingDays)
  const taskFor = (post: PlanPost): Task | null => {
    const lane = lanes.get(post.account)
    const limit = limits.get(post.pipeline ?? '') ?? null
    return lane ? taskOf(post, lane, siblings.has(lane.account.network), limit) : null
  }
  for (const post of input.posts) {
    const at = post.pinnedAt ?? post.at
    const task = at && !asked.has(post.id) ? taskFor(post) : null
    if (task && at) book.add(task, Date.parse(at))
  }
  return { lanes, book, taskFor }
}
