import { nowIso } from '../clock'
import type { Post } from '../../../core/model'
import { all, commit, newAction, patch, put } from '../store'
import { copyPost } from './copies'
import type { Holdable } from './holds'
import { tryPlaces } from './plan'
import { recallAll } from './recall'

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
  const open: Post['state'][] = ['draft', 'for review', 'approved', 'handed over']
  return (await all('posts')).filter((p) => p[FIELD[what.table]] === what.id && open.includes(p.state))
}

/** How a post that was set aside by an ending remembers it. */
const codeOf = (what: Endable): string => `ended ${what.id}`

/** Ends something, and does with what was planned as a person says. Gives how many posts that were. */
export async function end(what: Endable, planned: Planned): Promise<number> {
  const posts = await plannedOf(what)
  const going = planned.kind === 'leave' ? [] : posts
  const actor = { brand: what.brand, label: `End ${what.name}`, action: newAction() }
  await recallAll(going)
  if (planned.kind === 'move')
    // What cannot be worded for the other account is set aside with the rest.
    for (const post of posts) await copyPost(post.id, planned.account, { actor }).catch(() => undefined)
  const reason = { code: codeOf(what), message: `${sentence(what.name)} was ended.` }
  await commit(actor, [
    patch(what.table, what.id, (row) => ({
      ...row,
      endedAt: nowIso(),
      held: null,
      ...(what.table === 'pipelines' ? { on: false } : {}),
    })),
    ...going.map((p) =>
      patch('posts', p.id, (row) => ({
        ...row,
        state: 'set aside',
        at: null,
        pinned: false,
        reasons: [reason],
      })),
    ),
  ])
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
      ...p,
      state: 'for review',
      at: null,
      wished: p.wished < now ? now : p.wished,
      reasons: [],
    })),
  )
  await commit({ brand: what.brand, label: `Let ${what.name} go on` }, [
    patch(what.table, what.id, (row) => ({ ...row, endedAt: null })),
    ...placed.map((p) => put('posts', p)),
  ])
  return placed.length
}

function sentence(name: string): string {
  return name.slice(0, 1).toUpperCase() + name.slice(1)
}
