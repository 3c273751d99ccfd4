import { z } from 'zod'
import { Account, Fault, LocalDate, QuietDay, Slot, Zone } from '../model'
import { isQuiet, openingsOn } from './openings'
import { bareWords } from './sameWords'
import { addDays, daysBetween, mondayOf, startOfDay, toWall } from './zone'

const MINUTE = 60_000
const DAY = 86_400_000

const anyInstant = z.iso.datetime({ offset: true })
/** A moment, or a day in the account's zone. */
const Moment = z.union([anyInstant, LocalDate])

/** An account as the planner sees it: where it may post, and its limits. */
export const PlanAccount = Account.pick({ id: true, network: true }).extend({
  zone: Zone,
  slots: z.array(Slot),
  quiet: z.array(QuietDay).default([]),
  maxPerDay: z.int().min(1).default(24),
  maxPerWeek: z.int().min(1).default(168),
  gapMinutes: z.int().min(0).default(0),
})
export type PlanAccount = z.infer<typeof PlanAccount>

/** A post as the planner sees it. `at` is where it stands now, `pinnedAt` where a person put it. */
export const PlanPost = z.object({
  id: z.string().min(1),
  account: z.string().min(1),
  piece: z.string().nullish(),
  passage: z.string().nullish(),
  picture: z.string().nullish(),
  text: z.string().nullish(),
  wished: Moment,
  earliest: Moment.nullish(),
  latest: Moment.nullish(),
  priority: z.number().default(0),
  pinnedAt: anyInstant.nullish(),
  at: anyInstant.nullish(),
})
export type PlanPost = z.infer<typeof PlanPost>

export const PlanInput = z.object({
  now: anyInstant,
  accounts: z.array(PlanAccount),
  posts: z.array(PlanPost),
  /** Days within which sibling accounts may not carry the same words; 0 switches the rule off. */
  siblingDays: z.int().min(0).default(7),
})
export type PlanInput = z.input<typeof PlanInput>

export const PlanOutput = z.object({
  posts: z.array(
    z.object({
      id: z.string(),
      at: z.string().nullable(),
      reasons: z.array(z.object({ code: z.string(), message: z.string() })),
    }),
  ),
})
export type PlanOutput = z.infer<typeof PlanOutput>

type Rule = 'past' | 'quiet day' | 'taken' | 'gap' | 'day full' | 'week full' | 'same piece' | 'same words'

const WORDS: Record<Rule, string> = {
  past: 'lies in the past',
  'quiet day': 'is a quiet day',
  taken: 'was already taken',
  gap: 'is closer to its neighbour than the account’s smallest gap',
  'day full': 'already has as many posts as the account takes in a day',
  'week full': 'lies in a week that is full',
  'same piece': 'already has a post of this piece on this account',
  'same words': 'is within the sibling days of the same words on another account of the network',
}

interface Standing {
  post: PlanPost
  account: PlanAccount
  at: number
  date: string
  bare: string
}

/** How far from the wished day the planner looks when nothing bounds it. */
const REACH_DAYS = 400

/**
 * Gives every post a moment in its account's slots, or says which rule stands in its way.
 *
 * Method: list scheduling by priority (Graham 1966): posts that stand or are pinned first, then
 * by falling priority and rising wished day, each taking the opening of least distance to its
 * wish that breaks no hard rule. A post that already stands at a legal place stays there, so that
 * a small change moves little. Deterministic: ties go to the earlier moment, then by id.
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
  const input = parsed.data
  const now = Date.parse(input.now)
  const accounts = new Map(input.accounts.map((a) => [a.id, a]))
  if (accounts.size !== input.accounts.length)
    throw new Fault('bad-plan', 'Two accounts have the same id.', 'accounts')
  const seen = new Set<string>()
  for (const post of input.posts) {
    if (seen.has(post.id)) throw new Fault('bad-plan', `Two posts have the id ${post.id}.`, 'posts')
    seen.add(post.id)
    if (!accounts.has(post.account))
      throw new Fault(
        'bad-plan',
        `Post ${post.id} names an account that is not in the plan: ${post.account}.`,
        'posts',
      )
  }

  const book = new Book(input.siblingDays)
  const result = new Map<string, PlanOutput['posts'][number]>()
  const settle = (post: PlanPost, at: number | null, reasons: { code: string; message: string }[]): void => {
    result.set(post.id, { id: post.id, at: at === null ? null : new Date(at).toISOString(), reasons })
    const account = accounts.get(post.account)
    if (at !== null && account) book.add(post, account, at)
  }

  for (const post of input.posts)
    if (post.pinnedAt)
      settle(post, Date.parse(post.pinnedAt), [{ code: 'pinned', message: 'A person put it there.' }])

  const order = input.posts
    .filter((p) => !p.pinnedAt)
    .map((post) => ({ post, wished: momentOf(post.wished, accountOf(accounts, post).zone) }))
    .sort(
      (a, b) =>
        Number(!!b.post.at) - Number(!!a.post.at) ||
        b.post.priority - a.post.priority ||
        a.wished - b.wished ||
        (a.post.id < b.post.id ? -1 : 1),
    )

  const homeless: typeof order = []
  for (const entry of order) {
    const { post } = entry
    if (!post.at) {
      homeless.push(entry)
      continue
    }
    const at = Date.parse(post.at)
    const account = accountOf(accounts, post)
    const rule = standsLegally(post, account, at, now, book)
    if (rule === null) settle(post, at, [{ code: 'stays', message: 'It stays where it stood.' }])
    else homeless.push(entry)
  }
  for (const { post, wished } of homeless) {
    const account = accountOf(accounts, post)
    const { at, reasons } = place(post, account, wished, now, book)
    settle(post, at, reasons)
  }
  return { posts: input.posts.map((p) => result.get(p.id) as PlanOutput['posts'][number]) }
}

function accountOf(accounts: Map<string, PlanAccount>, post: PlanPost): PlanAccount {
  const account = accounts.get(post.account)
  if (!account) throw new Fault('bad-plan', `There is no account ${post.account}.`, 'posts')
  return account
}

/** A wished moment; a bare day means its noon, so that nearness to a day has no side. */
function momentOf(moment: string, zone: string): number {
  return moment.length === 10 ? startOfDay(moment, zone) + DAY / 2 : Date.parse(moment)
}

/** The span in which a post may go out: `earliest` from its first moment, `latest` inclusive. */
function bounds(post: PlanPost, zone: string): { from: number; to: number } {
  const from = !post.earliest
    ? -Infinity
    : post.earliest.length === 10
      ? startOfDay(post.earliest, zone)
      : Date.parse(post.earliest)
  const to = !post.latest
    ? Infinity
    : post.latest.length === 10
      ? startOfDay(addDays(post.latest, 1), zone) - 1
      : Date.parse(post.latest)
  return { from, to }
}

function standsLegally(
  post: PlanPost,
  account: PlanAccount,
  at: number,
  now: number,
  book: Book,
): Rule | 'no slot' | 'out of bounds' | null {
  const { date } = toWall(at, account.zone)
  const { from, to } = bounds(post, account.zone)
  if (at < from || at > to) return 'out of bounds'
  if (!openingsOn(date, account, 24 * 60).some((slot) => slot.includes(at))) return 'no slot'
  return book.obstacle(post, account, at, date, now)
}

function place(
  post: PlanPost,
  account: PlanAccount,
  wished: number,
  now: number,
  book: Book,
): { at: number | null; reasons: { code: string; message: string }[] } {
  const { from, to } = bounds(post, account.zone)
  const first = Math.max(from, now)
  if (account.slots.length === 0)
    return {
      at: null,
      reasons: [{ code: 'no-slot', message: 'The account has no slots: give it at least one.' }],
    }
  if (to < first)
    return {
      at: null,
      reasons: [
        { code: 'too-late', message: 'Its last day has passed: give it a later one or set it aside.' },
      ],
    }
  const wishedDate = toWall(Math.min(Math.max(wished, first), to), account.zone).date
  const wish = toWall(wished, account.zone).date
  const met = new Map<Rule, string>()
  if (wished < now && wish !== toWall(now, account.zone).date) met.set('past', wish)
  let openings = 0
  for (let distance = 0; distance <= REACH_DAYS; distance++) {
    const days =
      distance === 0 ? [wishedDate] : [addDays(wishedDate, distance), addDays(wishedDate, -distance)]
    const candidates = days
      .flatMap((date) =>
        openingsOn(date, account).map((slot) => ({ date, slot: nearestFirst(slot, wished) })),
      )
      .sort((a, b) => distanceTo(a.slot, wished) - distanceTo(b.slot, wished))
      .flatMap(({ date, slot }) => slot.map((at) => ({ at, date })))
      .filter((c) => c.at >= first && c.at <= to)
    for (const { at, date } of candidates) {
      openings++
      const rule = book.obstacle(post, account, at, date, now)
      if (rule === null) return { at, reasons: explain(wish, date, met) }
      if (!met.has(rule)) met.set(rule, date)
    }
  }
  if (openings === 0)
    return {
      at: null,
      reasons: [
        {
          code: 'no-opening',
          message:
            'No slot of the account opens between its first and its last day: add a slot or widen the days.',
        },
      ],
    }
  return {
    at: null,
    reasons: [...met].map(([rule, date]) => ({
      code: rule.replace(' ', '-'),
      message: `Every opening in reach is closed; the nearest, ${date}, ${WORDS[rule]}.`,
    })),
  }
}

/** A window's own order, unless the wished moment lies inside it: then the nearest minutes come first. */
function nearestFirst(slot: number[], wished: number): number[] {
  const inside = wished >= Math.min(...slot) && wished <= Math.max(...slot)
  return inside ? [...slot].sort((a, b) => Math.abs(a - wished) - Math.abs(b - wished)) : slot
}

function distanceTo(slot: readonly number[], wished: number): number {
  return Math.min(...slot.map((at) => Math.abs(at - wished)))
}

function explain(wished: string, got: string, met: Map<Rule, string>): { code: string; message: string }[] {
  const moved = daysBetween(wished, got)
  const head =
    moved === 0
      ? { code: 'as-wished', message: `It stands on its wished day, ${wished}.` }
      : {
          code: 'moved',
          message: `Wished for ${wished}, it stands ${Math.abs(moved)} ${Math.abs(moved) === 1 ? 'day' : 'days'} ${moved > 0 ? 'later' : 'earlier'}.`,
        }
  return [
    head,
    ...[...met].map(([rule, date]) => ({ code: rule.replace(' ', '-'), message: `${date} ${WORDS[rule]}.` })),
  ]
}

/** What has been placed so far, with the look-ups that the rules need. */
class Book {
  readonly #siblingDays: number
  readonly #byAccount = new Map<string, Standing[]>()
  readonly #byWords = new Map<string, Standing[]>()

  constructor(siblingDays: number) {
    this.#siblingDays = siblingDays
  }

  add(post: PlanPost, account: PlanAccount, at: number): void {
    const standing: Standing = {
      post,
      account,
      at,
      date: toWall(at, account.zone).date,
      bare: post.text ? bareWords(post.text) : '',
    }
    push(this.#byAccount, account.id, standing)
    if (standing.bare) push(this.#byWords, `${account.network} ${standing.bare}`, standing)
  }

  /** The first hard rule that a post would break at a moment, or null. */
  obstacle(post: PlanPost, account: PlanAccount, at: number, date: string, now: number): Rule | null {
    if (at < now) return 'past'
    if (isQuiet(date, account.quiet)) return 'quiet day'
    const mine = this.#byAccount.get(account.id) ?? []
    const monday = mondayOf(date)
    let day = 0
    let week = 0
    for (const other of mine) {
      if (other.at === at) return 'taken'
      if (Math.abs(other.at - at) < account.gapMinutes * MINUTE) return 'gap'
      if (other.date === date) {
        day++
        if (post.piece && other.post.piece === post.piece) return 'same piece'
      }
      if (mondayOf(other.date) === monday) week++
    }
    if (day >= account.maxPerDay) return 'day full'
    if (week >= account.maxPerWeek) return 'week full'
    if (post.text && this.#siblingDays > 0) {
      const same = this.#byWords.get(`${account.network} ${bareWords(post.text)}`) ?? []
      const near = same.some(
        (s) => s.account.id !== account.id && Math.abs(s.at - at) <= this.#siblingDays * DAY,
      )
      if (near) return 'same words'
    }
    return null
  }
}

function push<K, V>(map: Map<K, V[]>, key: K, value: V): void {
  const list = map.get(key)
  if (list) list.push(value)
  else map.set(key, [value])
}
