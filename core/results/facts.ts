import {
  AGES,
  isClip,
  type Account,
  type Age,
  type Length,
  type Measures,
  type Opening,
  type Passage,
  type PassageKind,
  type Post,
  type Reading,
  type Wording,
} from '../model'
import { lengthOf, openingOf } from '../house'
import { network } from '../networks'
import { toWall } from '../planning'

/** What a post shows. */
export const SHOWS = ['nothing', 'a picture', 'a card', 'several', 'a clip'] as const

/** A published post as its results are looked at: when and how it spoke, and what readers did. */
export interface Fact {
  post: string
  account: string
  network: string
  piece: string | null
  pipeline: string | null
  passage: string | null
  /** What the passage that it is made from is; null where it is made from none, or that is gone. */
  passageKind: PassageKind | null
  /** The address of the picture that it shows first; null where it shows none that may come again. */
  picture: string | null
  /** When it came out, in milliseconds since 1970, and the hour and the weekday (1 is Monday) of that in its account's zone. */
  at: number
  hour: number
  weekday: number
  angle: string
  format: string
  length: Length
  shows: (typeof SHOWS)[number]
  opening: Opening
  /** Whether three or more of its lines are points of a list. */
  listed: boolean
  tags: string[]
  /** What was read of it at each age; null where the reading is missing. */
  readings: Partial<Record<Age, Measures | null>>
}

/** What is looked at of a post. */
export type FactPost = Pick<
  Post,
  | 'id'
  | 'account'
  | 'network'
  | 'piece'
  | 'pipeline'
  | 'passage'
  | 'state'
  | 'publishedAt'
  | 'generation'
  | 'media'
> & { wording: Pick<Wording, 'angle' | 'format' | 'text' | 'hashtags' | 'tags'> }

/** Posts that are out, with what was read of each in its present generation; the oldest first. */
export function factsOf(
  posts: readonly FactPost[],
  readings: readonly Pick<Reading, 'post' | 'generation' | 'age' | 'measures'>[],
  accounts: readonly Pick<Account, 'id' | 'zone'>[],
  passages: readonly Pick<Passage, 'id' | 'kind'>[],
): Fact[] {
  const kinds = new Map(passages.map((p) => [p.id, p.kind]))
  const zones = new Map(accounts.map((a) => [a.id, a.zone]))
  const facts = new Map<string, { fact: Fact; generation: number }>()
  for (const post of posts) {
    const fact = factOf(post, zones.get(post.account) ?? 'UTC', kinds.get(post.passage ?? '') ?? null)
    if (fact) facts.set(post.id, { fact, generation: post.generation })
  }
  for (const { post, generation, age, measures } of readings) {
    const known = facts.get(post)
    if (known && known.generation === generation) known.fact.readings[age] = measures
  }
  return [...facts.values()].map(({ fact }) => fact).sort((a, b) => a.at - b.at)
}

/** A post as its results are looked at, with what was read of it; null where it is not out. */
export function factOf(
  post: FactPost,
  zone: string,
  passageKind: PassageKind | null,
  readings: Fact['readings'] = {},
): Fact | null {
  const { wording, publishedAt, state } = post
  if (state !== 'published' || publishedAt === null) return null
  const at = Date.parse(publishedAt)
  const { weekday, time } = toWall(at, zone)
  return {
    post: post.id,
    account: post.account,
    network: post.network,
    piece: post.piece,
    pipeline: post.pipeline,
    passage: post.passage,
    passageKind,
    picture: pictureOf(post),
    at,
    hour: Number(time.slice(0, 2)),
    weekday,
    angle: wording.angle ?? 'by hand',
    format: wording.format,
    length: lengthOf(wording.text, network(post.network)),
    shows: showsOf(post),
    opening: openingOf(wording.text),
    listed: wording.text.split('\n').filter((l) => POINT.test(l)).length >= 3,
    tags: [...new Set([...wording.hashtags, ...wording.tags].map((t) => t.replace(/^#/, '').toLowerCase()))],
    readings,
  }
}

function pictureOf({ media: [first] }: FactPost): string | null {
  return first?.source.from === 'address' ? first.source.url : null
}

const POINT = /^\s*(?:[-–•*→]|\d+[.)])\s/

function showsOf({ media }: FactPost): Fact['shows'] {
  const [first, second] = media
  if (!first) return 'nothing'
  if (isClip(first)) return 'a clip'
  if (second) return 'several'
  return first.source.from === 'card' ? 'a card' : 'a picture'
}

/** What is read of a post at an age: counted, missing, or not yet there. */
export function readAt({ readings, at }: Fact, age: Age, now: number): Measures | 'missing' | 'too young' {
  const read = readings[age]
  if (read) return read
  return read === null || now >= at + AGES[age] + WAIT ? 'missing' : 'too young'
}
/** So long after its time a reading may still be on its way, in milliseconds. */
const WAIT = 3_600_000
