import type { NetworkMeasure, Measures } from '../core/model'
import type { NetworkProfile } from '../core/networks'
import { toWall } from '../core/planning'
import { addressesIn, bareWords, wordsIn } from '../core/text'
import { hash } from './hash'
import type { WorldPost } from './posts'
import type { WorldAccount } from './state'

const HOUR = 3_600_000
const DAY = 24 * HOUR
const WEEK_HOURS = 168
/** Posts of so long ago still tire an audience. */
const REMEMBERS = 60 * DAY
/** Words of a post that stand in a row, by which another is known to say the same. */
const ROW = 3

/** What an audience can like or dislike about a post; all of it can be seen by whoever reads it. */
export const TRAITS = [
  'question',
  'number',
  'quotation',
  'list',
  'picture',
  'clip',
  'long',
  'many tags',
  'thread',
  'poll',
] as const
export type Trait = (typeof TRAITS)[number]

/** Who reads an account: drawn from the world's seed, the same for the same seed and account. */
export interface Audience {
  seed: string
  /** How many follow when the world begins. */
  size: number
  /** How much of its size leaves in a year, and comes without having seen a post; and how many of a post's impressions make a follower. */
  moves: { leave: number; come: number; win: number }
  zone: string
  /** How much of it is awake in each hour of its week from Monday 0:00; 1 on average. */
  awake: readonly number[]
  /** How many more see a post with a trait: 1.2 is a fifth more. */
  likes: Readonly<Record<Trait, number>>
  /** A word that it likes to read of, by a number that the word's own has to be near. */
  subject: number
  /** The share of it that sees a post of no particular merit. */
  reach: number
  /** For each measure, how many of those who see a post do that. */
  rates: Readonly<Record<NetworkMeasure, number>>
}

/** In hours, how long posts go on being seen (the mean age at which one is). */
const LIVES: Readonly<Record<string, number>> = {
  murmur: 5,
  guildhall: 22,
  shutterleaf: 14,
  hearthside: 12,
  rackwell: 700,
  loopyard: 40,
  longwave: 400,
  courier: 4,
  broadside: 70,
}
const lifeOf = (network: string): number => LIVES[network] ?? 12

const RATES: Readonly<Record<NetworkMeasure, number>> = {
  impressions: 1,
  reactions: 0.03,
  comments: 0.004,
  shares: 0.006,
  saves: 0.008,
  clicks: 0.012,
}

/** What a trait makes readers do more often, whoever they are. */
const STIRS: Partial<Record<Trait, NetworkMeasure>> = {
  question: 'comments',
  quotation: 'shares',
  number: 'saves',
  list: 'saves',
}

export function audienceOf(seed: string, { id, network, zone }: WorldAccount): Audience {
  const draw = (...what: string[]): number => unit(seed, id, ...what)
  const spread = (of: number, ...what: string[]): number => Math.exp(of * normal(seed, id, ...what))
  const morning = { at: 6.5 + 2.5 * draw('morning'), height: 0.4 + 0.8 * draw('mornings') }
  const evening = { at: 18 + 3 * draw('evening'), height: 0.6 + 0.9 * draw('evenings') }
  const weekend = 0.6 + 0.7 * draw('weekend')
  const raw = Array.from({ length: WEEK_HOURS }, (_, h) => {
    const hour = (h % 24) + 0.5
    const bump = ({ at, height }: { at: number; height: number }): number =>
      height * Math.exp(-(((hour - at) / 2.2) ** 2))
    const day = hour > 7 && hour < 23 ? 0.35 : 0.06
    return (day + bump(morning) + bump(evening)) * (h >= 120 ? weekend : 1)
  })
  const mean = raw.reduce((sum, a) => sum + a, 0) / WEEK_HOURS
  const likes = Object.fromEntries(
    TRAITS.map((trait) => {
      const usual = trait === 'picture' || trait === 'clip' ? 0.12 : 0
      const shared = 0.15 * normal(seed, network, 'likes', trait)
      const own = 0.08 * normal(seed, id, 'likes', trait)
      return [trait, Math.exp(Math.max(-0.4, Math.min(0.4, usual + shared + own)))]
    }),
  ) as Record<Trait, number>
  return {
    seed: `${seed} ${id}`,
    size: Math.round(1800 * spread(0.8, 'size')),
    zone,
    awake: raw.map((a) => a / mean),
    likes,
    subject: draw('subject'),
    moves: {
      leave: 0.06 + 0.1 * draw('leave'),
      come: 0.05 + 0.1 * draw('come'),
      win: 0.004 * spread(0.4, 'win'),
    },
    reach: 0.2 * spread(0.3, 'reach'),
    rates: Object.fromEntries(
      Object.entries(RATES).map(([m, rate]) => [m, m === 'impressions' ? 1 : rate * spread(0.25, 'rate', m)]),
    ) as Record<NetworkMeasure, number>,
  }
}

/** Which traits a post has, as a reader would say; `isClip` says of its media which of the two they are. */
export function traitsOf(
  post: WorldPost,
  profile: NetworkProfile,
  isClip: (media: string) => boolean,
): Trait[] {
  const opening = bare(post.text).slice(0, 160)
  const first = /^[^.!?]*[.!?]?/.exec(opening)?.[0] ?? ''
  const lines = post.text.split('\n').filter((l) => /^\s*(?:[-–•*→]|\d+[.)])\s/.test(l)).length
  const { length } = profile.brief
  const characters = [...bare(post.text)].length
  const tags = post.tags.length + (post.text.match(/(?:^|\s)#\p{L}/gu)?.length ?? 0)
  const has: Record<Trait, boolean> = {
    question: first.endsWith('?'),
    number: /\d/.test(first),
    quotation: /^["“‘«]/.test(opening),
    list: lines >= 3,
    picture: post.media.some((m) => !isClip(m.id)),
    clip: post.media.some((m) => isClip(m.id)),
    long: characters > (length.least + length.most) / 2,
    'many tags': tags > profile.hashtags.sensible,
    thread: post.parts.length > 0,
    poll: post.poll.length > 0,
  }
  return TRAITS.filter((t) => has[t])
}

/**
 * What a network counts of a post until a moment. `earlier` are the account's posts before it, the oldest first. A
 * figure never falls. Counted by the same audience twice, a post gives the same figures.
 */
export function measuresOf(
  audience: Audience,
  profile: NetworkProfile,
  post: WorldPost,
  earlier: readonly WorldPost[],
  isClip: (media: string) => boolean,
  now: number,
): Measures {
  const from = Math.max(post.at, post.visibleFrom)
  const until = post.format === 'story' ? Math.min(now, post.at + DAY) : now
  const seen = shareSeen(audience, lifeOf(profile.id), from, until)
  const traits = traitsOf(post, profile, isClip)
  const noise = (of: number, what: string): number =>
    Math.exp(of * normal(audience.seed, String(post.at), bareWords(post.text), what))
  const all =
    audience.size *
    audience.reach *
    timeliness(audience, from) *
    traits.reduce((factor, t) => factor * audience.likes[t], 1) *
    (isOn(audience.subject, post) ? 1.3 : 1) *
    (profile.link.place === 'first comment' && addressesIn(post.text).length > 0 ? 0.7 : 1) *
    tiredness(post, earlier) *
    noise(0.3, 'impressions')
  const linked = profile.link.live && (post.link !== null || addressesIn(post.text).length > 0)
  return Object.fromEntries(
    profile.measures.map((measure) => {
      const stirred = traits.filter((t) => STIRS[t] === measure).length
      const rate =
        measure === 'impressions'
          ? 1
          : audience.rates[measure] *
            1.5 ** stirred *
            noise(0.25, measure) *
            (measure === 'clicks' && !linked ? 0 : 1)
      return [measure, Math.floor(all * rate * seen)]
    }),
  )
}

/** How much of its final attention a post has had, from 0 to 1: those awake see it, and fewer the older it is. */
export function shareSeen(audience: Audience, life: number, from: number, until: number): number {
  const hours = (until - from) / HOUR
  if (hours <= 0) return 0
  const sums = weekFrom(audience, life, hourOfWeek(from, audience.zone))
  /** What the first week brings, up to some hours of it. */
  const within = (end: number): number => {
    const whole = Math.floor(end)
    const before = sums[whole] ?? 0
    return before + (end - whole) * ((sums[whole + 1] ?? before) - before)
  }
  // The weeks are alike but for what age takes: a geometric series of the first.
  const week = within(WEEK_HOURS)
  const weeks = Math.floor(hours / WEEK_HOURS)
  const decay = Math.exp(-WEEK_HOURS / life)
  const all = week / (1 - decay)
  return ((week * (1 - decay ** weeks)) / (1 - decay) + decay ** weeks * within(hours % WEEK_HOURS)) / all
}

/** For each audience, by a post's life and the hour of the week at which it came out: what the hours until each hour bring. */
const known = new WeakMap<Audience, Map<string, Float64Array>>()

function weekFrom(audience: Audience, life: number, start: number): Float64Array {
  const own = known.get(audience) ?? new Map<string, Float64Array>()
  known.set(audience, own)
  const key = `${life} ${start}`
  let sums = own.get(key)
  if (!sums) {
    sums = new Float64Array(WEEK_HOURS + 1)
    for (let h = 0; h < WEEK_HOURS; h++)
      sums[h + 1] = (sums[h] ?? 0) + (audience.awake[(start + h) % WEEK_HOURS] ?? 0) * Math.exp(-h / life)
    own.set(key, sums)
  }
  return sums
}

/**
 * How many follow an account, or one of its places, at a moment: some leave and come in any case, and some of those who see a
 * post stay. `posts` are the account's, `bornAt` is when the world began, at which its size is what it was drawn as.
 */
export function followersAt(
  audience: Audience,
  profile: NetworkProfile,
  place: string | null,
  posts: readonly Pick<WorldPost, 'at' | 'target'>[],
  bornAt: number,
  now: number,
): number {
  const { size, reach, moves } = audience
  // Which part of the followers stands at a place is drawn; those of an account without one are all there are.
  const part = place === null ? 1 : 0.2 + 0.7 * unit(audience.seed, 'place', place)
  const YEAR = 365 * DAY
  const drift = (1 + moves.come - moves.leave) ** ((now - bornAt) / YEAR)
  const life = lifeOf(profile.id)
  // After so many of its lives next to nobody is left to see a post.
  const seenBy = (at: number, until: number): number =>
    until - at > 12 * life * HOUR ? 1 : shareSeen(audience, life, at, until)
  let won = 0
  for (const { at, target } of posts)
    if (place === null || target === place || target === null) {
      won += size * reach * moves.win * (seenBy(at, now) - seenBy(at, bornAt))
    }
  return Math.max(0, Math.round(part * (size * drift + won)))
}

/** How well a post's time is chosen: how many are awake in the three hours that decide how far it is passed on. */
function timeliness({ awake, zone }: Audience, from: number): number {
  const start = hourOfWeek(from, zone)
  const near = [0, 1, 2].map((h) => awake[(start + h) % WEEK_HOURS] ?? 0)
  return 0.5 + 0.5 * (near.reduce((sum, a) => sum + a, 0) / near.length)
}

/** What repeats and a crowded day take from a post: 1 where nothing tires. */
export function tiredness(post: WorldPost, earlier: readonly WorldPost[]): number {
  let words = 1
  let pictures = 1
  let crowd = 0
  const rows = rowsOf(post)
  const media = new Set(post.media.map((m) => m.id))
  for (let i = earlier.length - 1; i >= 0; i--) {
    const before = earlier[i] as WorldPost
    const ago = post.at - before.at
    if (ago > REMEMBERS) break
    if (ago < 0 || before.id === post.id) continue
    if (ago < DAY) crowd++
    const faded = Math.exp(-ago / (20 * DAY))
    const theirs = rowsOf(before)
    const shared = [...rows].filter((r) => theirs.has(r)).length
    if (rows.size > 0 && shared / Math.min(rows.size, Math.max(1, theirs.size)) > 0.4)
      words = Math.min(words, 1 - 0.6 * faded)
    if (before.media.some((m) => media.has(m.id))) pictures = Math.min(pictures, 1 - 0.25 * faded)
  }
  return (words * pictures) / (1 + 0.2 * crowd)
}

function rowsOf(post: WorldPost): Set<string> {
  const words = wordsIn(bare(post.text))
  return new Set(words.slice(ROW - 1).map((_, i) => words.slice(i, i + ROW).join(' ')))
}

/** Whether a post speaks of what an audience likes: one of its long words is near the audience's number. */
function isOn(subject: number, post: WorldPost): boolean {
  const words = wordsIn(post.text).filter((w) => w.length > 5)
  return words.some((w) => Math.abs(unit('subject', w) - subject) < 0.002)
}

function hourOfWeek(at: number, zone: string): number {
  const { weekday, time } = toWall(at, zone)
  return (weekday - 1) * 24 + Number(time.slice(0, 2))
}

const bare = (text: string): string => text.replace(/https?:\/\/\S+/g, '').trim()

/** A number from 0 to 1 that stands for names: alike names give numbers that have nothing in common. */
function unit(...names: string[]): number {
  let h = hash(names.join('\u0001'))
  // The last steps of MurmurHash3 (Appleby 2011), so that every bit hangs on every sign.
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b)
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35)
  return ((h ^ (h >>> 16)) >>> 0) / 2 ** 32
}

/** A number of the normal distribution that stands for names (Box and Muller 1958). */
function normal(...names: string[]): number {
  const radius = Math.sqrt(-2 * Math.log(1 - unit(...names, 'radius')))
  return radius * Math.cos(2 * Math.PI * unit(...names, 'angle'))
}
