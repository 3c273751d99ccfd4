import {
  isShelfRow,
  isToCome,
  waitsForReview,
  type Account,
  type Drip,
  type Occasion,
  type Piece,
  type Pipeline,
  type Post,
  type Source,
  openFlagsOf,
} from '../../core/model'
import { network } from '../../core/networks'
import { daysOfOccasion } from '../../core/occasions'
import { endsSoon, linkAgainPath } from '../data'
import { addDays, beatCount, daysBetween, toWall } from '../../core/planning'
import { inWords } from '../../core/text'
import { count, longDay, moment, postPath } from '../ui'

/** One line of what waits for a person, with its one action. */
export interface Waiting {
  id: string
  tone: 'plum' | 'clay' | 'amber'
  title: string
  detail: string
  action: string
  /** Where the action leads, or where more of it is seen. */
  to: string
  /** What is done here, without leaving the Desk: with some posts, for a network's permission, or by a visit. */
  here?:
    { do: 'posts'; posts: readonly Post[] } | { do: 'link'; path: string } | { do: 'visit'; source: string }
}

/** What says what waits, of one brand. */
export interface Rows {
  posts: readonly Post[]
  pipelines: readonly Pipeline[]
  pieces: readonly Piece[]
  accounts: readonly Account[]
  sources: readonly Source[]
  drips: readonly Drip[]
  occasions: readonly Occasion[]
  now: number
  zone: string
}

const DAY = 86_400_000
const DRY_DAYS = 21
/** For so many days it is told that a piece no longer keeps. */
const AGED_DAYS = 14
/** So many days ahead a day of the calendar is near. */
const NEAR_DAYS = 14

/** What waits for a person, in order of urgency. */
export function waitingFor(rows: Rows): Waiting[] {
  return [
    ...brokenAccounts(rows),
    ...failedPosts(rows),
    ...handLine(rows),
    ...latePosts(rows),
    ...endingAccounts(rows),
    ...failingSources(rows),
    ...captions(rows),
    ...homelessPosts(rows),
    ...troubledPieces(rows),
    ...thinDrips(rows),
    ...dryPipelines(rows),
    ...nearDays(rows),
    ...agedPieces(rows),
  ]
}

function brokenAccounts({ accounts, posts }: Rows): Waiting[] {
  return accounts
    .filter((a) => a.health.state !== 'linked' && a.endedAt === null)
    .map((a) => {
      const stuck = posts.filter(
        (p) => p.account === a.id && (p.state === 'approved' || p.state === 'handed over'),
      ).length
      return {
        id: `account ${a.id}`,
        tone: 'plum' as const,
        title: `${network(a.network).name} lost its permission`,
        detail: `@${a.handle}: ${a.health.message.replace(/\.$/, '')}. ${stuck ? `${count(stuck, 'post is', 'posts are')} held back, nothing is lost.` : 'Nothing is waiting to go out there.'}`,
        action: 'Link again',
        to: '/dispatch/accounts',
        here: { do: 'link', path: linkAgainPath(a) },
      }
    })
}

function failedPosts({ posts }: Rows): Waiting[] {
  const failed = posts.filter((p) => p.state === 'failed')
  const first = failed[0]
  if (!first) return []
  return [
    {
      id: 'failed',
      tone: 'plum',
      title: failed.length === 1 ? 'One post was refused' : `${failed.length} posts were refused`,
      detail: first.failure ?? 'The network gave no reason.',
      action: 'See why',
      to: `/dispatch?post=${first.id}`,
      here: { do: 'posts', posts: failed },
    },
  ]
}

/** Posts of accounts that a person serves, whose time has come. */
export function postsByHand({ posts, accounts }: Pick<Rows, 'posts' | 'accounts'>): Post[] {
  return posts.filter((p) => p.held !== null && p.state === 'approved' && isByHand(p, accounts))
}

function handLine(rows: Rows): Waiting[] {
  const due = postsByHand(rows)
  const [first] = due
  if (!first) return []
  return [
    {
      id: 'by hand',
      tone: 'amber',
      title: `${count(due.length, 'post waits', 'posts wait')} to be published by hand`,
      detail: `${network(first.network).name}: “${first.wording.text.split('\n')[0] ?? ''}”`,
      action: 'Publish',
      to: postPath(first),
      here: { do: 'posts', posts: due },
    },
  ]
}

function isByHand(post: Post, accounts: readonly Account[]): boolean {
  return accounts.find((a) => a.id === post.account)?.connector === 'hand'
}

/** Accounts whose permission ends within a week. */
function endingAccounts({ accounts, now }: Rows): Waiting[] {
  return accounts
    .filter((a) => a.endedAt === null && endsSoon(a, now))
    .map((a) => ({
      id: `ending ${a.id}`,
      tone: 'amber',
      title: `The permission for ${network(a.network).name} ends on ${moment(a.health.endsAt ?? '', a.zone)}`,
      detail: `@${a.handle}: link it again before that, and nothing has to wait.`,
      action: 'Link again',
      to: '/dispatch/accounts',
      here: { do: 'link', path: linkAgainPath(a) },
    }))
}

function latePosts({ posts, accounts }: Rows): Waiting[] {
  const late = posts.filter((p) => p.held !== null && p.state === 'approved' && !isByHand(p, accounts))
  const first = late[0]
  if (!first) return []
  return [
    {
      id: 'held',
      tone: 'clay',
      title: `${count(late.length, 'post waits', 'posts wait')} for a decision`,
      detail: first.held?.reason ?? '',
      action: 'Decide',
      to: `/dispatch?post=${first.id}`,
      here: { do: 'posts', posts: late },
    },
  ]
}

function failingSources({ sources }: Rows): Waiting[] {
  return sources
    .filter((s) => s.lastVisit?.ok === false)
    .map((s) => ({
      id: `source ${s.id}`,
      tone: 'clay' as const,
      title: `${s.title} could not be visited`,
      detail: s.lastVisit?.message ?? '',
      action: 'Visit again',
      to: '/intake/sources',
      here: { do: 'visit', source: s.id },
    }))
}

function captions({ posts, pieces, zone, now }: Rows): Waiting[] {
  const review = posts.filter(waitsForReview)
  const flagged = review.filter(
    (p) => openFlagsOf(p).length > 0 || p.checks.some((c) => c.severity === 'block'),
  )
  const plain = review.filter((p) => !flagged.includes(p))
  const lines: Waiting[] = []
  const title = (post: Post): string =>
    post.piece ? (pieces.find((p) => p.id === post.piece)?.title ?? 'A piece') : 'Written by hand'
  const first = flagged[0]
  if (first) {
    const why = (first.checks.find((c) => c.severity === 'block') ?? openFlagsOf(first)[0])?.message ?? ''
    lines.push({
      id: 'flagged',
      tone: 'clay',
      title: `${count(flagged.length, 'caption is', 'captions are')} flagged`,
      detail: `${title(first)}: ${why}`,
      action: 'Look',
      to: postPath(first),
      here: { do: 'posts', posts: flagged },
    })
  }
  const soonest =
    [...plain].filter((p) => p.at !== null).sort((a, b) => ((a.at ?? '') < (b.at ?? '') ? -1 : 1))[0] ??
    plain[0]
  if (soonest) {
    const origin = originOf(plain)
    lines.push({
      id: 'review',
      tone: 'clay',
      title: `${count(plain.length, 'caption waits', 'captions wait')} for a yes`,
      detail: `From ${origin}${soonest.at ? `; the first ${Date.parse(soonest.at) < now ? 'was due' : 'is due'} on ${moment(soonest.at, zone)}` : ''}.`,
      action: 'Read them',
      to: postPath(soonest),
      here: { do: 'posts', posts: plain },
    })
  }
  return lines
}

function homelessPosts({ posts }: Rows): Waiting[] {
  const homeless = posts.filter((p) => p.at === null && isToCome(p))
  const first = homeless[0]
  if (!first) return []
  return [
    {
      id: 'homeless',
      tone: 'amber',
      title: `${count(homeless.length, 'post has', 'posts have')} no place`,
      detail: first.reasons[0]?.message ?? 'No slot of the account is free for it.',
      action: 'Look',
      to: postPath(first),
    },
  ]
}

function troubledPieces({ pieces }: Rows): Waiting[] {
  return pieces
    .filter((p) => p.trouble !== null && p.dealt === null)
    .map((p) => ({
      id: `piece ${p.id}`,
      tone: 'amber' as const,
      title: `No drip could be made of “${p.title}”`,
      detail: p.trouble ?? '',
      action: 'Open it',
      to: `/intake/${p.id}`,
    }))
}

function thinDrips({ drips, pieces, posts }: Rows): Waiting[] {
  return drips
    .filter((d) => posts.some((p) => p.drip === d.id && waitsForReview(p)))
    .flatMap((drip) => {
      const beats = new Set(drip.missing.map((m) => m.beat)).size
      if (beats === 0) return []
      const piece = pieces.find((p) => p.id === drip.piece)
      return [
        {
          id: `thin ${drip.id}`,
          tone: 'amber' as const,
          title: `${piece?.title ?? 'A piece'} is thin`,
          detail: `${beats} of its ${beatCount(drip.rhythm)} beats lack a caption for some account.`,
          action: 'Add passages',
          to: `/intake/${drip.piece}`,
        },
      ]
    })
}

/** Days of the calendar that are near and have no caption, of occasions for which captions were written before. */
function nearDays({ occasions, posts, now, zone }: Rows): Waiting[] {
  const today = toWall(now, zone).date
  const wrote = new Set(posts.flatMap((p) => (p.occasion ? `${p.occasion.id} ${p.occasion.day}` : [])))
  const near = occasions
    .filter((o) => o.make !== null)
    .flatMap((occasion) =>
      daysOfOccasion(occasion.on, zone, addDays(today, 1), addDays(today, NEAR_DAYS))
        .filter((day) => !wrote.has(`${occasion.id} ${day}`))
        .map((day) => ({ occasion, day })),
    )
    .sort((a, b) => (a.day < b.day ? -1 : 1))
  const [first, ...others] = near
  if (!first) return []
  const why = first.occasion.missing.find((m) => m.day === first.day)?.message
  const until = longDay(addDays(today, NEAR_DAYS))
  const more =
    others.length === 0
      ? ''
      : ` ${count(others.length, 'more day', 'more days')} until ${until} ${others.length === 1 ? 'has' : 'have'} none.`
  return [
    {
      id: `near ${first.occasion.id} ${first.day}`,
      tone: 'amber',
      title: `“${first.occasion.name}” is on ${longDay(first.day)} and has no caption`,
      detail: `${why ?? 'Captions were written for it before; for this day there are none.'}${more}`,
      action: 'Write them',
      to: '/writing/occasions',
    },
  ]
}

/** Pieces that were out and have aged lately, so that a shelf they stood on has them no more. */
function agedPieces({ pieces, posts, pipelines, now, zone }: Rows): Waiting[] {
  if (!pipelines.some((p) => p.on && p.release.some(isShelfRow))) return []
  const today = toWall(now, zone).date
  const wasOut = new Set(posts.flatMap((p) => (p.state === 'published' ? (p.piece ?? []) : [])))
  return pieces
    .filter(({ id, keeps: { until } }) => {
      const days = until === null ? null : daysBetween(until, today)
      return days !== null && days >= 0 && days < AGED_DAYS && wasOut.has(id)
    })
    .map((p) => ({
      id: `aged ${p.id}`,
      tone: 'amber' as const,
      title: `“${p.title}” has left the shelf`,
      detail: `It kept until ${longDay(p.keeps.until ?? '')}. ${p.keeps.because ?? ''}`.trim(),
      action: 'Open it',
      to: `/intake/${p.id}`,
    }))
}

function dryPipelines({ pipelines, posts, now, zone }: Rows): Waiting[] {
  return pipelines
    .filter((p) => p.on)
    .flatMap((pipeline) => {
      const ahead = posts
        .filter(
          (p) =>
            p.pipeline === pipeline.id && p.at !== null && Date.parse(p.at) > now && p.state !== 'set aside',
        )
        .map((p) => p.at as string)
      const last = ahead.sort().pop()
      // The shelf fills a week at a time: with nothing but that, what is planned is enough.
      const fromShelf = pipeline.release.every(isShelfRow)
      if (last && (fromShelf || Date.parse(last) - now > DRY_DAYS * DAY)) return []
      return [
        {
          id: `dry ${pipeline.id}`,
          tone: 'amber' as const,
          title: last
            ? `“${pipeline.name}” runs dry on ${moment(last, zone).slice(0, -6)}`
            : `“${pipeline.name}” has run dry`,
          detail: last
            ? `${count(ahead.length, 'post')} left.`
            : fromShelf
              ? 'Nothing on the shelf has rested and can be said in words that are new there, or no opening of the coming week is free.'
              : 'It has nothing planned. It takes in the next piece its sources bring.',
          action: fromShelf ? 'Look at the shelf' : 'Feed it',
          to: fromShelf ? '/writing/shelf' : '/intake',
        },
      ]
    })
}

/** Where captions come from: "1 piece, 2 for occasions and 1 written by hand". */
function originOf(posts: readonly Post[]): string {
  const drips = new Set(posts.flatMap((p) => p.drip ?? [])).size
  const alone = posts.filter((p) => p.drip === null)
  const [days, others] = [alone.filter((p) => p.occasion), alone.filter((p) => !p.occasion)]
  const [shelved, rest] = [others.filter((p) => p.piece !== null), others.filter((p) => p.piece === null)]
  return inWords([
    ...(drips ? [count(drips, 'piece')] : []),
    ...(shelved.length ? [`${shelved.length} dripped again`] : []),
    ...(days.length ? [`${days.length} for ${days.length === 1 ? 'an occasion' : 'occasions'}`] : []),
    ...(rest.length ? [`${rest.length} written by hand`] : []),
  ])
}
