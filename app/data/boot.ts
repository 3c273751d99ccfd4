import { nanoid } from 'nanoid'
import { asFault, freshWorkspace, type Workspace } from '../../core/model'
import { bytes, get, post, setWorkspace } from './api'
import { importBundle } from './bundle'
import { nowIso, readClock } from './clock'
import { all, commit, put } from './store'

/** How the start went, and what a person may have to decide. */
export interface Boot {
  workspace: Workspace
  /** Another browser owns the server's spool. */
  owned: 'here' | 'elsewhere' | 'unknown'
  /** The world plays another demo than this browser holds. */
  otherDemo: boolean
  trouble: string | null
}

/**
 * Opens the workspace: the one in this browser, else the demo's seed, else an empty one; then
 * claims the server's spool for it. Without the server it opens all the same.
 */
export async function boot(): Promise<Boot> {
  // Two tabs that open at once make one workspace between them.
  return navigator.locks.request('dripline-boot', open)
}

async function open(): Promise<Boot> {
  let trouble: string | null = null
  let demo = false
  try {
    demo = (await readClock()).demo
  } catch (error) {
    trouble = asFault(error).message
  }
  let [workspace] = await all('workspace')
  if (!workspace && demo) {
    await seed()
    ;[workspace] = await all('workspace')
  }
  if (!workspace) {
    workspace = freshWorkspace(nanoid(), null, nowIso())
    await commit('machine', [put('workspace', workspace)])
  }
  setWorkspace(workspace.id)
  const owned = trouble ? 'unknown' : await claim(workspace.id, false)
  let otherDemo = false
  if (demo && workspace.seed) {
    const world = await get<{ seed: string }>('/api/demo').catch(() => null)
    otherDemo = world !== null && world.seed !== workspace.seed
  }
  void navigator.storage?.persist?.()
  return { workspace, owned, otherDemo, trouble }
}

/** Claims the spool, or takes it over from another browser. */
export async function claim(id: string, takeOver: boolean): Promise<'here' | 'elsewhere' | 'unknown'> {
  for (let tries = 0; tries < 60; tries++) {
    try {
      await post('/api/workspace/claim', { id, takeOver })
      if (await isFreshDemo(id)) await linkDemoAccounts()
      return 'here'
    } catch (error) {
      const fault = asFault(error)
      if (fault.code === 'wrong-workspace') return 'elsewhere'
      if (fault.code !== 'not-ready') return 'unknown'
      await new Promise((resolve) => setTimeout(resolve, 300))
    }
  }
  return 'unknown'
}

async function seed(): Promise<void> {
  const blob = await bytes('GET', '/api/demo/seed')
  await importBundle(new Uint8Array(await blob.arrayBuffer()), null)
}

/** Whether this is the demo's own workspace and the server has not got its accounts yet. */
async function isFreshDemo(id: string): Promise<boolean> {
  const [workspace] = await all('workspace')
  if (workspace?.seed !== id) return false
  const { accounts } = await get<{ accounts: unknown[] }>('/api/accounts')
  return accounts.length === 0
}

async function linkDemoAccounts(): Promise<void> {
  const accounts = await all('accounts')
  await post('/api/demo/link', {
    accounts: accounts.map(({ id, network, remoteId, target, health }) => ({
      id,
      network,
      remoteId,
      target: target?.id ?? null,
      expired: health.state === 'expired',
    })),
  })
}

/** Starts the demo again from its first day: server, world and this browser. */
export async function restartDemo(): Promise<void> {
  await post('/api/demo/restart', {})
  const [workspace] = await all('workspace')
  await seed()
  const [fresh] = await all('workspace')
  if (fresh) {
    setWorkspace(fresh.id)
    await claim(fresh.id, true)
  }
  if (workspace) window.location.assign('/')
}
