import { briefOf, houseOf, linkOf, taggedLink } from '../house'
import { checkCaption } from '../judging'
import { tagsIn, withoutAddresses } from '../text'
import {
  withCredits,
  type Account,
  type Brand,
  type Drip,
  type HandWords,
  type Pipeline,
  type Post,
  type PostMedia,
  type Wording,
} from '../model'
import { graphemes, network } from '../networks'
import {
  clockTime,
  fromWall,
  placeAsked,
  placePosts,
  planOf,
  spreadOver,
  startOfDay,
  addDays,
  type Ask,
} from '../planning'
import { blankPost, mediaOf } from './blank'
import { gateState } from './drip'
import { contextFor } from './recheck'

/** A post as a person writes it, for one account or several. */
export interface HandRow {
  words: HandWords
  accounts: readonly string[]
  /**
   * Its day, on each account's own clock, with a time where a very moment is meant, or a moment
   * that is the same everywhere; null where it has none of its own.
   */
  on: { date: string; time: string | null } | { at: string } | null
  /** The days between which it may go out, both included. */
  earliest: string | null
  latest: string | null
}

/** Where the posts go that have no day of their own. */
export type When =
  | { kind: 'now' }
  | { kind: 'next openings' }
  /** Each account's next openings after the last post that waits there. */
  | { kind: 'behind what waits' }
  /** Evenly over days, both included. */
  | { kind: 'spread'; from: string; to: string }

export interface HandRequest {
  now: string
  newId: () => string
  brand: Brand
  rows: readonly HandRow[]
  when: When
  recurrence: string | null
  accounts: readonly Account[]
  brands: readonly Brand[]
  drips: readonly Drip[]
  pipelines: readonly Pipeline[]
  standing: readonly Post[]
}

/** A post made of a row, by the row's index. */
export interface HandPost {
  row: number
  post: Post
}

/**
 * Makes posts of what a person wrote and gives them their places; nothing is kept. A very moment is
 * kept to and pinned where no hard rule forbids it; otherwise the post takes the nearest legal place
 * and its reasons say which rule stood in the way. What has neither blocks nor flags is approved,
 * since a person wrote it; the rest waits for review.
 */
export function handPosts(request: HandRequest): HandPost[] {
  const known = new Map(request.accounts.map((a) => [a.id, a]))
  const made = request.rows.flatMap((row, index) =>
    [...new Set(row.accounts)].flatMap((id) => {
      const account = known.get(id)
      return account ? [{ row: index, post: draftOf(row, account, request), account }] : []
    }),
  )
  const placed = placesOf(made, request)
  const all = [...request.standing, ...placed.values()]
  return made.map(({ row, post }) => {
    const stands = placed.get(post.id) ?? post
    const context = contextFor(stands, request.brand, null, all)
    const checks = checkCaption(stands.wording.text, context)
    return { row, post: { ...stands, checks, state: gateState(checks, 'what is flagged') } }
  })
}

interface Made {
  row: number
  post: Post
  account: Account
}

function placesOf(made: readonly Made[], request: HandRequest): Map<string, Post> {
  const { now, when } = request
  const placed = new Map<string, Post>()
  const around = {
    now,
    accounts: request.accounts,
    brands: request.brands,
    drips: request.drips,
    pipelines: request.pipelines,
  }
  const ask = (posts: readonly Post[], asks: readonly Ask[]) =>
    placeAsked(
      planOf({ ...around, standing: [...request.standing, ...placed.values()], moving: posts }),
      asks,
    )
  const exact = made.flatMap((m): { made: Made; ask: Ask }[] => {
    const on = request.rows[m.row]?.on ?? null
    if (on === null)
      return when.kind === 'now' ? [{ made: m, ask: { id: m.post.id, at: now, quietDays: true } }] : []
    const at =
      'at' in on ? Date.parse(on.at) : on.time === null ? null : fromWall(on.date, on.time, m.account.zone)
    return at === null ? [] : [{ made: m, ask: { id: m.post.id, at: new Date(at).toISOString() } }]
  })
  const refused = new Map<string, Post['reasons']>()
  const nowWords = { code: 'now', message: 'A person sent it at once.' }
  const moments = ask(
    exact.map((e) => e.made.post),
    exact.map((e) => e.ask),
  )
  const byId = new Map(made.map((m) => [m.post.id, m]))
  for (const { id, at, reasons } of moments) {
    const of = byId.get(id)
    if (!of) continue
    if (at === null) refused.set(id, reasons)
    else {
      const own = request.rows[of.row]?.on !== null
      placed.set(id, { ...of.post, wished: at, at, pinned: true, reasons: own ? reasons : [nowWords] })
    }
  }
  const rest = made.filter((m) => !placed.has(m.post.id))
  const queued = rest.filter((m) => request.rows[m.row]?.on === null && when.kind !== 'spread')
  const spread = when.kind === 'spread' ? spreadWishes(rest, request, when) : new Map<string, string>()
  const wishing = rest.filter((m) => !queued.includes(m))
  const wished = placePosts({
    ...around,
    standing: [...request.standing, ...placed.values()],
    moving: wishing.map((m) => ({ ...m.post, wished: spread.get(m.post.id) ?? m.post.wished })),
  })
  for (const post of wished)
    placed.set(post.id, { ...post, reasons: [...(refused.get(post.id) ?? []), ...post.reasons] })
  const last =
    when.kind === 'behind what waits' ? lastWaiting(request.standing, now) : new Map<string, string>()
  const places = ask(
    queued.map((m) => m.post),
    queued.map((m) => ({ id: m.post.id, after: last.get(m.account.id) ?? now })),
  )
  for (const { id, at, reasons } of places) {
    const of = byId.get(id)
    if (of)
      placed.set(id, {
        ...of.post,
        wished: at ?? of.post.wished,
        at,
        reasons: [...(refused.get(id) ?? []), ...reasons],
      })
  }
  return placed
}

/** The moment of the last post that waits on each account. */
function lastWaiting(standing: readonly Post[], now: string): Map<string, string> {
  const last = new Map<string, string>()
  for (const post of standing)
    if (post.at !== null && post.at > now && post.state !== 'set aside' && post.publishedAt === null)
      if (post.at > (last.get(post.account) ?? '')) last.set(post.account, post.at)
  return last
}

/** The posts of each account that have no day of their own, evenly over the days. */
function spreadWishes(
  made: readonly Made[],
  request: HandRequest,
  days: { from: string; to: string },
): Map<string, string> {
  const wishes = new Map<string, string>()
  for (const account of request.accounts) {
    const own = made.filter((m) => m.account.id === account.id && request.rows[m.row]?.on === null)
    const from = Math.max(startOfDay(days.from, account.zone), Date.parse(request.now))
    const to = startOfDay(addDays(days.to, 1), account.zone)
    spreadOver(from, Math.max(from, to), own.length).forEach((at, i) => {
      const id = own[i]?.post.id
      if (id) wishes.set(id, new Date(at).toISOString())
    })
  }
  return wishes
}

const NOON = 720

function draftOf(row: HandRow, account: Account, request: HandRequest): Post {
  const { on } = row
  const { picture } = row.words
  // What nobody has looked at yet has no size that is known.
  const media = picture ? [pictureOf(picture, account.network)] : []
  const written = wordingOf(row.words, account, request.brand)
  const wording = { ...written, text: withCredits(written.text, [], media) }
  const wished =
    on === null
      ? Date.parse(request.now)
      : 'at' in on
        ? Date.parse(on.at)
        : (fromWall(on.date, on.time ?? clockTime(NOON), account.zone) ?? startOfDay(on.date, account.zone))
  return blankPost(account, {
    id: request.newId(),
    brand: request.brand.id,
    recurrence: request.recurrence,
    occurrence: request.recurrence && on && 'date' in on ? on.date : null,
    wording,
    link: linkOf(wording, row.words.link),
    media,
    wished: new Date(wished).toISOString(),
    earliest: row.earliest,
    latest: row.latest,
  })
}

/** The picture of a post that a person wrote, with whose it is. */
function pictureOf({ url, alt, credit }: NonNullable<HandWords['picture']>, networkId: string): PostMedia {
  const media = mediaOf({ url, alt, caption: '', width: null, height: null }, '', networkId)
  return credit ? { ...media, credit } : media
}

/**
 * A person's words as one network takes them: the link where the brand's brief has it, with the
 * house's link tags, and a title where the network wants one: its own, or the first line where
 * that is short enough.
 */
function wordingOf(words: HandWords, account: Account, brand: Brand): Wording {
  const profile = network(account.network)
  const brief = briefOf(profile, houseOf(brand))
  const link = words.link
    ? taggedLink(words.link, brand.houseStyle.linkTags, {
        brand: brand.name,
        network: profile.name,
        pipeline: '',
        angle: 'by hand',
        account: account.handle,
        beat: 0,
      })
    : null
  const said = words.link !== null && words.text.includes(words.link)
  const text = said ? words.text.replace(words.link ?? '', link ?? '') : words.text
  const [firstLine = ''] = words.text.trim().split('\n')
  return {
    by: 'person',
    angle: null,
    format: profile.formats[0] ?? 'post',
    title: profile.title
      ? (words.title ?? (graphemes(firstLine) <= profile.title.limit ? firstLine : null))
      : null,
    summary: null,
    text: link && !said && brief.link === 'text' ? `${text.trimEnd()}\n\n${link}` : text,
    parts: [],
    tags: [],
    poll: [],
    firstComment: link && !said && brief.link === 'first comment' ? link : null,
    hashtags: tagsIn(withoutAddresses(text)),
    spans: [],
    closing: null,
    score: 0,
  }
}

/** The words of a post that was written by hand, without what one network made of them. */
export function wordsOf(post: Post): HandWords {
  const { title } = post.wording
  const text = withCredits(post.wording.text, post.media, [])
  return {
    title,
    text: post.link ? text.replace(post.link, '').trim() || text : text,
    link: post.link,
    picture: addressedPicture(post),
  }
}

/** The post's picture where it has one with an address. */
function addressedPicture({ media: [first] }: Post): HandWords['picture'] {
  if (first?.source.from !== 'address') return null
  return { url: first.source.url, alt: first.alt, ...(first.credit ? { credit: first.credit } : {}) }
}
