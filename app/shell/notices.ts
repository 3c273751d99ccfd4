import {
  isToCome,
  waitsForReview,
  type Brand,
  type NoticeKind,
  type Notices,
  type Post,
} from '../../core/model'
import { network } from '../../core/networks'
import { addDays, fromWall, toWall, weekdayOf } from '../../core/planning'
import { postsByHand, waitingFor } from '../desk'
import { count } from '../ui'

/** Something that a person may want to hear of. The key is the same as long as it is the same thing. */
export interface Notice {
  kind: NoticeKind
  key: string
  text: string
}

type Rows = Parameters<typeof waitingFor>[0]

const DAY = 86_400_000
/** What waits longer than this is told. */
const LONG = 2 * DAY
const OPENING = 80

/** What of a brand is worth a notice now, of the kinds that are wanted. */
export function noticesOf(brand: Pick<Brand, 'name'>, rows: Rows, kinds: readonly NoticeKind[]): Notice[] {
  const lines = waitingFor(rows)
  const found: Notice[] = [
    ...rows.posts
      .filter((p) => p.state === 'failed')
      .map((p): Notice => ({
        kind: 'failed posts',
        key: `failed ${p.id} ${p.generation}`,
        text: `A post was refused. ${p.failure ?? network(p.network).name} “${opening(p)}”`,
      })),
    ...rows.accounts
      .filter((a) => a.health.state !== 'linked' && a.endedAt === null)
      .map((a): Notice => ({
        kind: 'broken accounts',
        key: `account ${a.id} ${a.health.since}`,
        text: `${network(a.network).name} lost its permission for @${a.handle}: ${a.health.message}`,
      })),
    ...lines
      .filter((l) => l.id.startsWith('dry '))
      .map((l): Notice => ({ kind: 'dry pipelines', key: l.id, text: `${l.title}. ${l.detail}` })),
    ...postsByHand(rows).map((p): Notice => ({
      kind: 'things that wait',
      key: `hand ${p.id} ${p.generation}`,
      text: `A post for ${network(p.network).name} waits to be published by hand. “${opening(p)}”`,
    })),
    ...rows.drips.flatMap((d): Notice[] => {
      const waiting = rows.posts.filter((p) => p.drip === d.id && waitsForReview(p)).length
      if (waiting === 0 || rows.now - Date.parse(d.createdAt) < LONG) return []
      const title = rows.pieces.find((p) => p.id === d.piece)?.title ?? 'a piece'
      return [
        {
          kind: 'things that wait',
          key: `waits ${d.id}`,
          text: `${count(waiting, 'caption')} of “${title}” ${waiting === 1 ? 'has' : 'have'} waited for a yes for more than two days.`,
        },
      ]
    }),
  ]
  return found.filter((n) => kinds.includes(n.kind)).map((n) => ({ ...n, text: `${brand.name}: ${n.text}` }))
}

function opening({ wording }: Post): string {
  const line = wording.text.split('\n')[0] ?? ''
  return line.length > OPENING ? `${line.slice(0, OPENING)} …` : line
}

const MORNING = '08:00'

/**
 * The last moment at or before `now` at which a summary was due: each morning at eight, or each Monday's, on the
 * wall clock of a zone; in milliseconds.
 */
export function lastSummaryDue(how: Exclude<Notices['summary'], 'none'>, now: number, zone: string): number {
  const today = toWall(now, zone).date
  for (let back = 0; ; back++) {
    const day = addDays(today, -back)
    const at = fromWall(day, MORNING, zone)
    if (at !== null && at <= now && (how === 'daily' || weekdayOf(day) === 1)) return at
  }
}

/** How a brand stands, in a line for the chat; `out` is how many posts went out since the last one. */
export function standingOf(brand: Pick<Brand, 'name'>, rows: Rows, out: number): string {
  const now = new Date(rows.now).toISOString()
  const soon = new Date(rows.now + 7 * DAY).toISOString()
  const ahead = rows.posts.filter((p) => isToCome(p) && p.at !== null && p.at >= now && p.at <= soon).length
  const waiting = waitingFor(rows)
  return `${brand.name}: ${count(out, 'post')} went out, ${count(ahead, 'post is', 'posts are')} planned for the next seven days. ${
    waiting.length === 0
      ? 'Nothing waits for you.'
      : `${count(waiting.length, 'thing waits', 'things wait')} for you: ${waiting
          .slice(0, 3)
          .map((w) => w.title)
          .join('; ')}${waiting.length > 3 ? '; …' : '.'}`
  }`
}
