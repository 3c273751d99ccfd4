import {
  AGES,
  isClip,
  pictureKey,
  type Account,
  type Age,
  type Following,
  type Measures,
  type Post,
  type Reading,
  type Receipt,
} from '../core/model'
import { network, servicePath } from '../core/networks'
import { addDays, instantAt, toWall } from '../core/planning'
import { audienceOf, followersAt, measuresOf, type Audience, type WorldLogin, type WorldPost } from '../world'

/** What the demo's brands had out before it began: the posts, what was read of them, and how the stand-in networks keep them. */
export interface History {
  posts: Post[]
  readings: (Reading & { brand: string })[]
  followings: (Following & { brand: string })[]
  world: WorldPost[]
}

/** So long after its time a reading is taken, in milliseconds: the server looks each half minute. */
const LOOK = 20_000

/** What the history is made with. Times are in milliseconds since 1970. */
interface Around {
  /** The seed of the world's audiences, and when they had the sizes that it draws. */
  seed: string
  bornAt: number
  now: number
  /** Of so many days it is told how many followed. */
  days: number
  /** The address of the stand-in world. */
  origin: string
}

/**
 * Makes posts whose time has come published, each as its audience took it until now. Posts that could not have gone out are
 * left away. `logins` are the logins of the accounts in the world, by account; those of one login share its audience.
 */
export function historyOf(
  posts: readonly Post[],
  accounts: readonly Account[],
  logins: ReadonlyMap<string, WorldLogin>,
  around: Around,
): History {
  const history: History = { posts: [], readings: [], followings: [], world: [] }
  for (const login of new Set(logins.values())) {
    const own = accounts.filter((a) => logins.get(a.id) === login)
    const ids = new Set(own.map((a) => a.id))
    const audience = audienceOf(around.seed, { ...login, targets: login.targets ?? [] })
    const out: WorldPost[] = []
    const mine = posts
      .filter((p) => ids.has(p.account) && p.at !== null && p.checks.every((c) => c.severity !== 'block'))
      .sort((a, b) => ((a.at ?? '') < (b.at ?? '') ? -1 : 1))
    for (const post of mine) {
      const at = Date.parse(post.at ?? '') + LOOK
      if (at > around.now) continue
      const target = own.find((a) => a.id === post.account)?.target?.id ?? null
      const shown = worldPost(post, login, target, at)
      const clips = new Set(post.media.filter(isClip).map((m) => pictureKey(m.source)))
      history.posts.push(publishedOf(post, at, around.origin))
      history.readings.push(
        ...readingsOf(post, at, around.now, (takenAt) =>
          measuresOf(audience, network(login.network), shown, out, (m) => clips.has(m), takenAt),
        ),
      )
      out.push(shown)
    }
    for (const account of own) history.followings.push(...followingsOf(account, audience, out, around))
    // Their pages show words only: pictures of before the demo began were never sent.
    history.world.push(...out.map((p) => ({ ...p, media: [] })))
  }
  return history
}

function publishedOf(post: Post, at: number, origin: string): Post {
  return {
    ...post,
    state: 'published',
    revision: 1,
    publishedAt: new Date(at).toISOString(),
    publicUrl: `${origin}${servicePath(post.network)}/posts/${post.id}/page`,
    visibility: 'visible',
  }
}

/** A post that its network refused at its time, and the receipt of that. */
export function refused(
  post: Post,
  { field, reason, origin }: { field: string; reason: string; origin: string },
): { post: Post; receipt: Receipt & { brand: string } } {
  const { id, brand, account, wording } = post
  const at = post.at ?? post.wished
  const finishedAt = new Date(Date.parse(at) + LOOK).toISOString()
  const said = `${network(post.network).name}: ${reason}`
  return {
    post: { ...post, state: 'failed', failure: said, revision: 1 },
    receipt: {
      id: `${id}:1:failed`,
      brand,
      post: id,
      generation: 1,
      revision: 1,
      account,
      outcome: 'failed',
      reason: said,
      dueAt: at,
      finishedAt,
      publicUrl: null,
      visibility: null,
      attempts: [
        {
          at: finishedAt,
          request: {
            method: 'POST',
            url: `${origin}${servicePath(post.network)}/posts`,
            body: { format: wording.format, text: wording.text, link: post.link },
          },
          answer: { status: 422, body: { error: 'invalid', field, reason } },
          error: null,
          milliseconds: 84,
        },
      ],
    },
  }
}

/** What was read of a post at every age that it has by now. */
function readingsOf(
  { id, brand, account }: Post,
  at: number,
  now: number,
  measure: (takenAt: number) => Measures,
): History['readings'] {
  const readings: History['readings'] = []
  for (const [age, after] of Object.entries(AGES) as [Age, number][]) {
    const takenAt = at + after + LOOK
    if (takenAt > now) break
    readings.push({
      id: `${id}:1:${age}`,
      brand,
      post: id,
      generation: 1,
      account,
      age,
      takenAt: new Date(takenAt).toISOString(),
      measures: measure(takenAt),
      reason: '',
    })
  }
  return readings
}

/** How many followed an account on each of the days before now on which it was linked. */
function followingsOf(
  { id, brand, network: on, zone, target, linkedAt, health }: Account,
  audience: Audience,
  out: readonly WorldPost[],
  { bornAt, now, days }: Around,
): History['followings'] {
  const until = health.state === 'linked' ? now : Date.parse(health.since)
  // Days of the account's own clock, since a day on which clocks change is longer or shorter than others.
  const { date, time } = toWall(now, zone)
  const moments = Array.from({ length: days }, (_, i) => {
    const day = addDays(date, -i)
    return { day, takenAt: i === 0 ? now : Date.parse(instantAt(day, time, zone)) }
  })
  return moments
    .filter(({ takenAt }) => takenAt >= Date.parse(linkedAt) && takenAt <= until)
    .map(({ day, takenAt }) => ({
      id: `${id}:${day}`,
      brand,
      account: id,
      day,
      takenAt: new Date(takenAt).toISOString(),
      followers: followersAt(audience, network(on), target?.id ?? null, out, bornAt, takenAt),
    }))
}

/** A post as a stand-in network keeps it. */
function worldPost(
  { id, wording, link, media }: Post,
  login: WorldLogin,
  target: string | null,
  at: number,
): WorldPost {
  const { format, title, summary, tags, text, parts, poll, firstComment } = wording
  return {
    id,
    network: login.network,
    account: login.id,
    key: `${id}:1`,
    at,
    visibleFrom: 0,
    gone: false,
    format,
    target,
    title,
    summary,
    tags,
    text,
    parts,
    poll,
    firstComment,
    link,
    media: media.map((m) => ({ id: pictureKey(m.source), alt: m.alt })),
  }
}
