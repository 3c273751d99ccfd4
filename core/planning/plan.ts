import { Fault } from '../model'
import { Book, NEARNESS, type Task } from './book'
import { explain, whyNowhere } from './explain'
import { Lane } from './lane'
import { bestPlace, EPSILON, placesOf, type Place } from './places'
import { PlanInput, type Plan, type Placement, type PlanLimit, type PlanOutput, type PlanPost } from './rules'
import { bareWords } from '../text'
import { addDays, dayNumber, localDay, momentAt, startOfDay } from './zone'

const DAY = 86_400_000

/** The price of a post without a place, so high that no displacement outweighs it. */
const UNPLACED = 1_000_000
/** The price of moving a post that stood legally, paid only to make room for one that has no place. */
const DISTURBED = 50
/** How many posts are placed anew together, and how often all are gone through. */
const TOGETHER = 6
const ROUNDS = 6
/** How many look-ups the bettering may spend: so many at least, and so many a post. */
const EFFORT = { least: 4_000, perPost: 1 }
/** How many look-ups one group may spend, and how many of its places a post tries there. */
const GROUP_EFFORT = 600
const PLACES_TRIED = 12
/** How often a plan is gone on with at most; each time fewer posts are without a place, or it costs less. */
const SETTLES = 40
/** How far around a wish, in days, other posts are thought to be in the way. */
const AROUND = 21

/**
 * Gives every post a moment in its account's slots, or says which rule stands in its way and what
 * would make room.
 *
 * Method. Posts that a person pinned or that went out are fixed; those that stand legally stay.
 * The others are placed one by one, by falling priority and rising wish, each at the opening of
 * least price (list scheduling, Graham 1966; the price is the sum of the soft rules). Then a
 * search over neighbourhoods betters what was placed: a post that does not stand as it would like
 * is taken out together with up to five in its way, and they are put back in the best way there
 * is, found by branch and bound (large neighbourhood search, Shaw 1998). A post that still has
 * no place may so move those that stood, as few as make room; that is gone on with until it changes
 * nothing, so that planning twice changes nothing either. Deterministic, and the order of the input does
 * not matter: ties go to the earlier moment, then by id.
 *
 * Refuses (`bad-plan`) input of another shape, doubled ids and unknown accounts.
 */
export function plan(raw: PlanInput): PlanOutput {
  const parsed = PlanInput.safeParse(raw)
  if (!parsed.success) {
    const issue = parsed.error.issues[0]
    throw new Fault(
      'bad-plan',
      issue?.message ?? 'The plan has the wrong shape.',
      issue?.path.join('.') ?? null,
    )
  }
  return planChecked(parsed.data)
}

/** The same for input that is known to have the right shape. */
export function planChecked(input: Plan): PlanOutput {
  let output = new Planner(input).run()
  // A post without a place may find one as the others stand now: gone on until planning again would change nothing.
  for (let round = 0; round < SETTLES && output.posts.some((p) => p.at === null); round++) {
    const stood = output.posts
    const again = new Planner({
      ...input,
      posts: input.posts.map((post, i) => ({ ...post, at: stood[i]?.at ?? null })),
    }).run()
    if (again.posts.every((p, i) => p.at === stood[i]?.at)) break
    // What stays keeps the reasons for which it came there.
    output = {
      posts: again.posts.map((p, i) => {
        const before = stood[i]
        return before && p.at !== null && p.at === before.at ? before : p
      }),
    }
  }
  return output
}

/** The price of a plan's placements by the soft rules, and how many posts, by urgency, have no place; for measuring. */
export function priceOf(
  input: Plan,
  placements: readonly Pick<Placement, 'id' | 'at'>[],
): { price: number; unplaced: number } {
  return new Planner(input).price(placements)
}

class Planner {
  readonly now: number
  readonly book: Book
  readonly tasks: Task[]
  /** Posts that stand legally: they stay. */
  readonly #stays = new Set<Task>()

  constructor(input: Plan) {
    this.now = Date.parse(input.now)
    this.book = new Book(input.siblingDays)
    const lanes = new Map(input.accounts.map((a, index) => [a.id, new Lane(a, index, input.weights)]))
    if (lanes.size !== input.accounts.length)
      throw new Fault('bad-plan', 'Two accounts have the same id.', 'accounts')
    const siblings = new Map<string, number>()
    for (const a of input.accounts) siblings.set(a.network, (siblings.get(a.network) ?? 0) + 1)
    const limits = new Map(input.limits.map((l) => [l.id, l]))
    const seen = new Set<string>()
    this.tasks = input.posts.map((post) => {
      if (seen.has(post.id)) throw new Fault('bad-plan', `Two posts have the id ${post.id}.`, 'posts')
      seen.add(post.id)
      const lane = lanes.get(post.account)
      if (!lane)
        throw new Fault(
          'bad-plan',
          `Post ${post.id} names an account that is not in the plan: ${post.account}.`,
          'posts',
        )
      const hasSiblings = input.siblingDays > 0 && (siblings.get(lane.account.network) ?? 0) > 1
      return taskOf(post, lane, hasSiblings, limits.get(post.pipeline ?? '') ?? null)
    })
  }

  run(): PlanOutput {
    const stays = this.#stays
    const order = this.tasks.filter((t) => t.pinned === null).sort(byUrgency)
    const lively = new Set(order.map((t) => t.lane))
    for (const task of this.tasks)
      if (task.pinned !== null)
        if (lively.has(task.lane)) this.book.add(task, task.pinned)
        else this.book.note(task, task.pinned)
    const free = order.filter((task) => {
      if (task.stood === null || !this.#legal(task, task.stood)) return true
      this.book.add(task, task.stood)
      stays.add(task)
      return false
    })
    for (const task of free) {
      const place = bestPlace(task, this.now, this.book)
      if (place) this.book.add(task, place.at)
    }
    this.#better(free)
    return { posts: this.tasks.map((task) => this.#placement(task)) }
  }

  price(placements: readonly Pick<Placement, 'id' | 'at'>[]): { price: number; unplaced: number } {
    const at = new Map(placements.map((p) => [p.id, p.at]))
    let price = 0
    let unplaced = 0
    for (const task of this.tasks) {
      const moment = at.get(task.id)
      if (!moment) {
        unplaced += task.factor
        continue
      }
      const ms = Date.parse(moment)
      price += this.book.cost(task, ms, localDay(ms, task.lane.account.zone))
      this.book.add(task, ms)
    }
    return { price, unplaced }
  }

  /** Whether a post may stand at a moment, as the others stand. */
  #legal(task: Task, at: number): boolean {
    const day = localDay(at, task.lane.account.zone)
    if (at < this.now || at < task.from || at > task.to || task.lane.isQuiet(day)) return false
    const opening = task.lane.openingAt(at, day)
    return opening !== null && this.book.obstacle(task, at, day, opening) === null
  }

  /** Betters what was placed until nothing changes, all rounds are over or the effort is spent. */
  #better(free: readonly Task[]): void {
    this.#effort = Math.max(EFFORT.least, EFFORT.perPost * free.length)
    this.#rounds(free, new Set(free))
    const homeless = free.filter((t) => !this.book.placeOf(t))
    if (homeless.length && this.#stays.size) {
      this.#effort = Math.max(EFFORT.least, EFFORT.perPost * homeless.length)
      this.#rounds(homeless, new Set([...free, ...this.#stays]))
    }
  }

  #rounds(tasks: readonly Task[], may: ReadonlySet<Task>): void {
    for (let round = 0; round < ROUNDS; round++) {
      let changed = false
      const dearest = tasks
        .map((task) => ({ task, over: this.#priceNow(task) - this.#floor(task) }))
        .filter(({ over }) => over > EPSILON)
        .sort((a, b) => b.over - a.over || (a.task.id < b.task.id ? -1 : 1))
      for (const { task } of dearest) {
        if (this.#effort <= 0) return
        if (this.#regroup([task])) changed = true
        const near = this.#inTheWay(task, may)
        for (let size = 1; size < Math.min(TOGETHER, near.length + 1); size++)
          if (
            this.#priceNow(task) > this.#floor(task) + EPSILON &&
            this.#regroup([task, ...near.slice(0, size)])
          )
            changed = true
      }
      if (!changed) return
    }
  }

  #effort = 0

  /** What a post costs where it stands. */
  #priceNow(task: Task): number {
    const standing = this.book.placeOf(task)
    if (!standing) return UNPLACED * task.factor
    return this.#cost(task, standing.at, standing.day)
  }

  /** The soft rules' price, and what it costs to move a post that stood legally. */
  #cost(task: Task, at: number, day: number): number {
    return this.book.cost(task, at, day) + this.#disturbance(task, at)
  }

  #disturbance(task: Task, at: number): number {
    return this.#stays.has(task) && at !== task.stood ? DISTURBED : 0
  }

  /** A price under which no post can come: nothing but its own nearness to the wish. */
  #floor(task: Task): number {
    return task.factor * task.lane.weights.distance * NEARNESS
  }

  /** Takes some posts out and puts them back in the best way there is; whether the price fell. */
  #regroup(group: readonly Task[]): boolean {
    const was = group.map((task) => this.book.placeOf(task)?.at ?? null)
    let before = 0
    for (const task of group) {
      before += this.#priceNow(task)
      if (this.book.placeOf(task)) this.book.remove(task)
    }
    // What each would cost at least, were the others of the group not there.
    const least = group.map((task) => {
      this.#effort--
      return bestPlace(task, this.now, this.book)?.cost ?? UNPLACED * task.factor
    })
    const rest = least.map((_, i) => least.slice(i).reduce((a, b) => a + b, 0))
    let best = { price: before - EPSILON, places: null as (number | null)[] | null }
    let nodes = 0
    const places: (number | null)[] = []
    const search = (index: number, price: number): void => {
      const task = group[index]
      if (!task) {
        best = { price, places: [...places] }
        return
      }
      if (nodes++ >= GROUP_EFFORT) return
      this.#effort--
      const room = (): number => best.price - price - (rest[index + 1] ?? 0)
      const found: Place[] = []
      placesOf(task, this.now, this.book, room(), (place) => {
        found.push({ ...place, cost: place.cost + this.#disturbance(task, place.at) })
        return room()
      })
      found.sort((a, b) => a.cost - b.cost || a.at - b.at)
      for (const place of found.slice(0, PLACES_TRIED)) {
        if (place.cost >= room()) break
        places.push(place.at)
        this.book.add(task, place.at)
        search(index + 1, price + place.cost)
        this.book.remove(task)
        places.pop()
      }
      const nowhere = UNPLACED * task.factor
      if (nowhere < room()) {
        places.push(null)
        search(index + 1, price + nowhere)
        places.pop()
      }
    }
    search(0, 0)
    const chosen = best.places ?? was
    group.forEach((task, i) => {
      const at = chosen[i]
      if (at !== null && at !== undefined) this.book.add(task, at)
    })
    return best.places !== null
  }

  /** The movable posts that stand around a post's wish or may not stand with it, the nearest first. */
  #inTheWay(task: Task, may: ReadonlySet<Task>): Task[] {
    const reach = AROUND
    const first = Math.max(task.wishDay, localDay(Math.max(task.from, this.now), task.lane.account.zone))
    const centre = task.to === Infinity ? first : Math.min(first, localDay(task.to, task.lane.account.zone))
    const near = new Map<Task, number>()
    for (let day = centre - reach; day <= centre + reach; day++)
      for (const s of this.book.on(task.lane, day)) near.set(s.task, Math.abs(s.at - task.wished))
    for (const s of this.book.related(task)) near.set(s.task, Math.abs(s.at - task.wished))
    return [...near]
      .filter(([t]) => t !== task && may.has(t))
      .sort(([a, x], [b, y]) => x - y || (a.id < b.id ? -1 : 1))
      .slice(0, TOGETHER - 1)
      .map(([t]) => t)
  }

  #placement(task: Task): Placement {
    if (task.pinned !== null)
      return {
        id: task.id,
        at: new Date(task.pinned).toISOString(),
        reasons: [{ code: 'pinned', message: 'A person put it there.' }],
      }
    const standing = this.book.placeOf(task)
    if (!standing) return { id: task.id, at: null, reasons: whyNowhere(task, this.now, this.book) }
    const at = new Date(standing.at).toISOString()
    if (this.#stays.has(task) && standing.at === task.stood)
      return { id: task.id, at, reasons: [{ code: 'stays', message: 'It stays where it stood.' }] }
    return {
      id: task.id,
      at,
      reasons: explain(task, standing.at, standing.day, this.now, this.book),
    }
  }
}

/** The order in which posts choose: what stands, then by urgency, then by wish, then by id. */
function byUrgency(a: Task, b: Task): number {
  return (
    Number(b.stood !== null) - Number(a.stood !== null) ||
    b.factor - a.factor ||
    a.wished - b.wished ||
    (a.id < b.id ? -1 : 1)
  )
}

/** A post made ready for the planner. */
export function taskOf(post: PlanPost, lane: Lane, hasSiblings: boolean, limit: PlanLimit | null): Task {
  const { zone, network } = lane.account
  // Of a post that is never moved nobody asks what it wished.
  const fixed = post.pinnedAt !== null && post.pinnedAt !== undefined
  const wished = fixed ? 0 : momentOf(post.wished, zone)
  const bare = hasSiblings && post.text ? bareWords(post.text) : ''
  return {
    id: post.id,
    lane,
    piece: post.piece ?? null,
    passage: post.passage ? `${lane.account.id} ${post.passage}` : null,
    picture: post.picture ? `${lane.account.id} ${post.picture}` : null,
    pipeline: post.pipeline ? `${lane.account.id} ${post.pipeline}` : null,
    limit,
    beat: post.beat ?? null,
    words: bare && `${network} ${bare}`,
    wished,
    wishDay: fixed ? 0 : localDay(wished, zone),
    from: !post.earliest
      ? -Infinity
      : post.earliest.length === 10
        ? startOfDay(post.earliest, zone)
        : Date.parse(post.earliest),
    to: !post.latest
      ? Infinity
      : post.latest.length === 10
        ? startOfDay(addDays(post.latest, 1), zone) - 1
        : Date.parse(post.latest),
    factor: post.priority >= 0 ? 1 + post.priority : 1 / (1 - post.priority),
    pinned: post.pinnedAt ? Date.parse(post.pinnedAt) : null,
    stood: post.at ? Date.parse(post.at) : null,
  }
}

/** A wished moment; a bare day means its noon, so that nearness to a day has no side. */
function momentOf(moment: string, zone: string): number {
  if (moment.length > 10) return Date.parse(moment)
  return momentAt(dayNumber(moment), 720, zone) ?? startOfDay(moment, zone) + DAY / 2
}
