import {
  AGES,
  isClip,
  pictureKey,
  type Account,
  type Age,
  type Following,
  type Post,
  type Reading,
} from '../core/model'
import { network, servicePath } from '../core/networks'
import { toWall } from '../core/planning'
import { audienceOf, followersAt, measuresOf, type WorldPost } from '../world'

/** What the demo's brands had out before it began: the posts, what was read of them, and how the stand-in networks keep them. */
export interface History {
  posts: Post[]
  readings: (Reading & { brand: string })[]
  followings: (Following & { brand: string })[]
  world: WorldPost[]
}

/** So long after its time a reading is taken, in milliseconds: the server looks each half minute. */
const LOOK = 20_000
const DAY = 86_400_000

/**
 * Makes posts whose time has come published, each as its audience took it until now. Posts that could not have gone out are
 * left away. `origin` is the address of the stand-in world, `seed` and `bornAt` are those of its audiences; how many followed is told of
 * so many days.
 */
export function historyOf(
  posts: readonly Post[],
  accounts: readonly Account[],
  {
    seed,
    bornAt,
    now,
    days,
    origin,
  }: { seed: string; bornAt: number; now: number; days: number; origin: string },
): History {
  const history: History = { posts: [], readings: [], followings: [], world: [] }
  for (const account of accounts) {
    const profile = network(account.network)
    const audience = audienceOf(seed, { ...account, id: account.remoteId, about: '', targets: [] })
    const out: WorldPost[] = []
    const mine = posts
      .filter(
        (p) => p.account === account.id && p.at !== null && p.checks.every((c) => c.severity !== 'block'),
      )
      .sort((a, b) => ((a.at ?? '') < (b.at ?? '') ? -1 : 1))
    for (const post of mine) {
      const at = Date.parse(post.at ?? '') + LOOK
      if (at > now) continue
      const shown = worldPost(post, account, at)
      const published: Post = {
        ...post,
        state: 'published',
        revision: 1,
        publishedAt: new Date(at).toISOString(),
        publicUrl: `${origin}${servicePath(profile.id)}/posts/${post.id}/page`,
        visibility: 'visible',
      }
      const clips = new Set(post.media.filter(isClip).map((m) => pictureKey(m.source)))
      for (const [age, after] of Object.entries(AGES) as [Age, number][]) {
        const takenAt = at + after + LOOK
        if (takenAt > now) break
        history.readings.push({
          id: `${post.id}:1:${age}`,
          brand: post.brand,
          post: post.id,
          generation: 1,
          account: account.id,
          age,
          takenAt: new Date(takenAt).toISOString(),
          measures: measuresOf(audience, profile, shown, out, (m) => clips.has(m), takenAt),
          reason: '',
        })
      }
      out.push(shown)
      history.posts.push(published)
    }
    for (let takenAt = now; takenAt > now - days * DAY; takenAt -= DAY) {
      const day = toWall(takenAt, account.zone).date
      history.followings.push({
        id: `${account.id}:${day}`,
        brand: account.brand,
        account: account.id,
        day,
        takenAt: new Date(takenAt).toISOString(),
        followers: followersAt(audience, profile, null, out, bornAt, takenAt),
      })
    }
    // Their pages show words only: pictures of before the demo began were never sent.
    history.world.push(...out.map((p) => ({ ...p, media: [] })))
  }
  return history
}

/** A post as a stand-in network keeps it. */
function worldPost({ id, wording, link, media }: Post, account: Account, at: number): WorldPost {
  const { format, title, summary, tags, text, parts, poll, firstComment } = wording
  return {
    id,
    network: account.network,
    account: account.remoteId,
    key: `${id}:1`,
    at,
    visibleFrom: 0,
    gone: false,
    format,
    target: null,
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
