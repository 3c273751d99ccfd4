import { randomUUID } from 'node:crypto'
import { imageSize } from 'image-size'
import { BufferSource, Input, MP4, WEBM } from 'mediabunny'
import { network, type NetworkProfile, type ServedNetwork } from '../../core/networks'
import type { Measures } from '../../core/model'
import { addressesIn, bareWords } from '../../core/text'
import { audienceOf, followersAt, measuresOf } from '../audience'
import type { Draft, WorldPost } from '../posts'
import { kindOf, type WorldAccount } from '../state'
import type { NetworkParts } from './parts'
import { postFaults, STORY } from './rules'

const DAY = 86_400_000
/** How long a group's moderator takes. */
const MODERATION = 2 * 3_600_000

/** What came of publishing: the post, new or there before; or a refusal. `drop` asks to break the line instead of answering. */
export type Published =
  | { ok: true; post: WorldPost; fresh: boolean; drop: boolean }
  | { ok: false; status: number; error: string; reason: string; field?: string; retryAfter?: number }

/** Takes a post under a key, by the network's rules and in whatever trouble it is in. One key is one post. */
export async function publish(
  profile: ServedNetwork,
  { store, clock }: NetworkParts,
  account: WorldAccount,
  key: string,
  draft: Draft,
): Promise<Published> {
  const known = (): WorldPost | undefined => store.posts.under(account.id, key)
  const before = known()
  if (before) return { ok: true, post: before, fresh: false, drop: false }
  const trouble = store.takeTrouble(profile.id, account.id)
  if (trouble === 'fail' || trouble === 'down')
    return refusal(503, 'unavailable', 'The service is not available right now.')
  if (trouble === 'limit')
    return { ...refusal(429, 'rate', 'Too many requests; wait two minutes.'), retryAfter: 120 }
  if (trouble === 'slow') await new Promise((resolve) => setTimeout(resolve, 4000))
  const now = await clock.now()
  const fault = faultOf(profile, { store }, account, draft, now)
  if (fault) return fault
  // Between looking and writing nothing is awaited, so a doubled request cannot slip in.
  const twin = known()
  if (twin) return { ok: true, post: twin, fresh: false, drop: false }
  const moderated = account.targets.find((t) => t.id === draft.target)?.kind === 'group'
  const post: WorldPost = {
    id: randomUUID(),
    network: profile.id,
    account: account.id,
    key,
    ...draft,
    at: now,
    visibleFrom: moderated ? now + MODERATION : now,
    gone: false,
  }
  store.posts.add(post)
  return { ok: true, post, fresh: true, drop: trouble === 'drop' }
}

function refusal(status: number, error: string, reason: string, field?: string): Published & { ok: false } {
  return { ok: false, status, error, reason, ...(field ? { field } : {}) }
}

/** Why a post is refused as it is: its media, its place, the network's rules, the day's number, words seen before. */
function faultOf(
  profile: ServedNetwork,
  { store }: Pick<NetworkParts, 'store'>,
  account: WorldAccount,
  draft: Draft,
  now: number,
): (Published & { ok: false }) | null {
  const media = draft.media
    .map(({ id }) => store.media.find(id))
    .map((m) => (m?.network === profile.id ? m : undefined))
  if (media.some((m) => m === undefined))
    return refusal(422, 'invalid', 'A picture was not uploaded here.', 'media')
  const found = media.filter((m) => m !== undefined)
  if (account.targets.length > 0 && profile.service.connector === 'stand-in') {
    if (draft.target === null)
      return refusal(422, 'invalid', `Say where: ${account.targets.map((t) => t.name).join(', ')}.`, 'target')
    if (!account.targets.some((t) => t.id === draft.target))
      return refusal(403, 'forbidden', 'The token does not reach this place.', 'target')
  }
  const fault = postFaults(profile, {
    ...draft,
    pictures: found.filter((m) => kindOf(m.type) === 'picture'),
    clips: found.filter((m) => kindOf(m.type) === 'clip'),
    documents: found.filter((m) => kindOf(m.type) === 'document'),
  })[0]
  if (fault) return refusal(422, 'invalid', fault.reason, fault.field)
  const today = store.posts.of(account.id).filter((p) => !p.gone && now - p.at < DAY)
  if (today.length >= profile.limits.postsPerDay)
    return {
      ...refusal(429, 'rate', `At most ${profile.limits.postsPerDay} posts a day.`),
      retryAfter: 3600,
    }
  const words = bareWords(draft.text)
  const doubled = store.posts
    .saying(profile.id, words)
    .some(
      (p) =>
        !p.gone &&
        p.account !== account.id &&
        now - p.at <= profile.limits.siblingDays * DAY &&
        bareWords(p.text) === words,
    )
  return doubled && words
    ? refusal(422, 'seen', 'The same words were posted by another account this week.', 'text')
    : null
}

/** Takes a picture, a clip or a document in; null where it is none of them. */
export async function takeMedia(
  profile: NetworkProfile,
  { store }: Pick<NetworkParts, 'store'>,
  bytes: Buffer,
  type: string,
): Promise<{ id: string; width: number; height: number } | null> {
  const told = await { picture: pictureSize, clip: clipSize, document: documentSize }[kindOf(type)](bytes)
  if (!told || (type === GIF && !profile.media.animated.includes(GIF))) return null
  const id = randomUUID()
  store.putMedia({ id, network: profile.id, type, ...told, bytes: bytes.length }, bytes)
  return { id, width: told.width, height: told.height }
}

/** What moves by nature, and is refused where it may not. */
const GIF = 'image/gif'

interface Told {
  width: number
  height: number
  /** How long it plays; only a clip does. */
  seconds: number
  /** How many pages it has; only a document does. */
  pages: number
}

function pictureSize(bytes: Buffer): Told | null {
  try {
    const { width, height } = imageSize(bytes)
    return { width, height, seconds: 0, pages: 0 }
  } catch {
    return null
  }
}

/** What a clip's own file says of it; null where it says nothing that can be read. */
async function clipSize(bytes: Buffer): Promise<Told | null> {
  const input = new Input({ formats: [MP4, WEBM], source: new BufferSource(bytes) })
  try {
    const track = await input.getPrimaryVideoTrack()
    const seconds = await input.computeDuration()
    return track && { width: track.displayWidth, height: track.displayHeight, seconds, pages: 0 }
  } catch {
    return null
  } finally {
    input.dispose()
  }
}

/** How many pages a PDF has, and the size of the first; null where it is none. */
async function documentSize(bytes: Buffer): Promise<Told | null> {
  try {
    const { PDFDocument } = await import('@cantoo/pdf-lib')
    const [first, ...others] = (await PDFDocument.load(bytes)).getPages()
    return first ? { ...first.getSize(), seconds: 0, pages: 1 + others.length } : null
  } catch {
    return null
  }
}

/** What the network counts of a post until now, as its audience takes it. */
export async function measure(
  post: WorldPost,
  account: WorldAccount,
  profile: NetworkProfile,
  { store, clock }: Pick<NetworkParts, 'store' | 'clock'>,
): Promise<Measures> {
  const audience = audienceOf(store.state.seed, account)
  const isClip = (id: string): boolean => store.kindOf(id) === 'clip'
  return measuresOf(audience, profile, post, store.posts.of(account.id), isClip, await clock.now())
}

/**
 * How often readers followed each of some addresses in posts of the networks: each address that a post shows counts what its
 * audience clicked there.
 */
export async function clicksOn(
  addresses: readonly string[],
  parts: Pick<NetworkParts, 'store' | 'clock' | 'accounts'>,
): Promise<Map<string, number>> {
  const clicks = new Map(addresses.map((a) => [a, 0]))
  for (const account of parts.accounts)
    for (const post of parts.store.posts.of(account.id)) {
      const shown = addressesIn([post.text, post.firstComment, post.link, ...post.parts].join(' '))
      for (const address of new Set(shown.map((a) => a.text))) {
        const before = clicks.get(address)
        if (before === undefined) continue
        const all = { ...network(account.network), measures: ['clicks' as const] }
        clicks.set(address, before + ((await measure(post, account, all, parts)).clicks ?? 0))
      }
    }
  return clicks
}

/** How many follow an account now, and each of its places. */
export async function followersOf(
  account: WorldAccount,
  profile: NetworkProfile,
  { store, clock }: Pick<NetworkParts, 'store' | 'clock'>,
): Promise<{ followers: number; targets: (WorldAccount['targets'][number] & { followers: number })[] }> {
  const audience = audienceOf(store.state.seed, account)
  const posts = store.posts.of(account.id).filter((p) => !p.gone)
  const now = await clock.now()
  const count = (place: string | null): number =>
    followersAt(audience, profile, place, posts, store.state.bornAt, now)
  return { followers: count(null), targets: account.targets.map((t) => ({ ...t, followers: count(t.id) })) }
}

/** Whether readers see a post at a moment: a group's moderator let it through, and a story is not over. */
export function isShown(post: WorldPost, now: number): boolean {
  return !post.gone && post.visibleFrom <= now && (post.format !== STORY || now - post.at < DAY)
}
