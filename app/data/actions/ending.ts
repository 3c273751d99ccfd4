import { nowIso } from '../clock'
import { isToCome, next, type Post } from '../../../core/model'
import { all, commit, newAction, patch } from '../store'
import { copyPost } from './copies'
import type { Holdable } from './holds'
import { commitRecalled, happensIfMay } from './life'
import { tryPlaces } from './plan'

/** What can be ended: it makes nothing more, and keeps what it did. */
export type Endable = Holdable & { table: 'brands' | 'accounts' | 'pipelines' | 'drips' | 'recurrences' }

/** What becomes of what was planned when something ends. */
export type Planned =
  | { kind: 'set aside' }
  /** What is planned still goes out; nothing new is made. */
  | { kind: 'leave' }
  /** Each is worded for another account and placed there anew. */
  | { kind: 'move'; account: string }

const FIELD = {
  brands: 'brand',
  accounts: 'account',
  pipelines: 'pipeline',
  drips: 'drip',
  recurrences: 'recurrence',
} as const

/** The posts of something that are still to go out. */
export async function plannedOf(what: Endable): Promise<Post[]> {
  return (await all('posts')).filter((p) => p[FIELD[what.table]] === what.id && isToCome(p))
}

/** How a post that was set aside by an ending remembers it. */
const codeOf = (what: Endable): string => `ended ${what.id}`

/** Ends something, and does with what was planned as a person says. Gives how many posts that were. */
export async function end(what: Endable, planned: Planned): Promise<number> {
  const posts = await plannedOf(what)
  const going = planned.kind === 'leave' ? [] : posts
  const actor = { brand: what.brand, label: `End ${what.name}`, action: newAction() }
  const reason = { code: codeOf(what), message: `${sentence(what.name)} was ended.` }
  await commitRecalled(actor, going, [
    patch(what.table, what.id, (row) => ({
      ...row,
      endedAt: nowIso(),
      held: null,
      ...(what.table === 'pipelines' ? { on: false } : {}),
    })),
    ...going.map((p) =>
      // What went out while this was asked stays published.
      happensIfMay(p.id, 'set aside', (row) => ({ ...row, reasons: [reason] })),
    ),
  ])
  if (planned.kind === 'move')
    // What cannot be worded for the other account stays aside with the rest.
    for (const post of posts)
      await copyPost(post.id, planned.account, { wished: post.at ?? post.wished, actor }).catch(
        () => undefined,
      )
  return posts.length
}

/** What an ending set aside and nobody touched since. */
export async function setAsideBy(what: Endable): Promise<Post[]> {
  const code = codeOf(what)
  return (await all('posts')).filter((p) => p.state === 'set aside' && p.reasons.some((r) => r.code === code))
}

/** Lets something that was ended go on; what its end set aside is placed anew for review, or left aside. */
export async function goOn(what: Endable, planned: 'place anew' | 'leave aside'): Promise<number> {
  const now = nowIso()
  const posts = planned === 'place anew' ? await setAsideBy(what) : []
  const placed = await tryPlaces(
    posts.map((p) => ({
      ...next(p, 'bring back'),
      wished: p.wished < now ? now : p.wished,
      reasons: [],
    })),
  )
  await commit({ brand: what.brand, label: `Let ${what.name} go on` }, [
    patch(what.table, what.id, (row) => ({ ...row, endedAt: null })),
    ...placed.map((p) =>
      happensIfMay(p.id, 'bring back', (row) => ({ ...row, at: p.at, wished: p.wished, reasons: p.reasons })),
    ),
  ])
  return placed.length
}

function sentence(name: string): string {
  return name.slice(0, 1).toUpperCase() + name.slice(1)
}
