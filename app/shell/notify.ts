import type { Notices } from '../../core/model'
import { claimNotices, claimSummary, clockNow, nowIso, outSince, sayLines, standing } from '../data'
import { say } from '../ui'
import { lastSummaryDue, noticesOf, standingOf, type Notice } from './notices'

/** How often it is looked whether there is something to tell, in real milliseconds. */
const PAUSE = 15_000
let looked: number | null = null

/**
 * Tells a person what went wrong, once each: in the app what comes about while it is open, as a notification of the
 * system and in the team chat where that is wanted; and how everything stands, each morning or week. Called after
 * each round of the runner, so that of several tabs one tells.
 */
export async function notify(): Promise<void> {
  if (looked !== null && Date.now() - looked < PAUSE) return
  const first = looked === null
  looked = Date.now()
  const all = await standing()
  if (!all) return
  const { workspace, brands, of } = all
  const { notices } = workspace
  const now = clockNow()
  const rowsOf = (id: string, zone: string) => ({ ...of(id), now, zone })
  const found = brands.flatMap((b) => noticesOf(b, rowsOf(b.id, b.zone), notices.kinds))
  const told = new Set(notices.told)
  if (found.length !== told.size || found.some((n) => !told.has(n.key)))
    await tell(await claimNotices(workspace.id, found), first, notices)
  if (notices.summary === 'none' || !notices.chat) return
  const due = new Date(lastSummaryDue(notices.summary, now, brands[0]?.zone ?? 'UTC')).toISOString()
  const since = notices.summedUpAt ?? nowIso()
  if (since >= due || !(await claimSummary(workspace.id, due))) return
  const lines = await Promise.all(
    brands.map(async (b) => standingOf(b, rowsOf(b.id, b.zone), await outSince(b.id, since))),
  )
  await sayLines([{ key: `summary ${due}`, text: lines.join('\n') }])
}

async function tell(fresh: readonly Notice[], first: boolean, notices: Notices): Promise<void> {
  const [one] = fresh
  if (!one) return
  const more = fresh.length > 1 ? ` And ${fresh.length - 1} more, on the Desk.` : ''
  // What stood before the app was opened stands on the Desk.
  if (!first) say(`${one.text}${more}`)
  if (notices.system && 'Notification' in window && Notification.permission === 'granted')
    new Notification('Dripline', { body: `${one.text}${more}`, tag: one.key })
  if (notices.chat) await sayLines(fresh.map((n) => ({ key: `notice ${n.key}`, text: n.text })))
}
