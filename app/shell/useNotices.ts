import { useEffect, useRef } from 'react'
import type { Brand } from '../../core/model'
import { claimNotices, claimSummary, clockNow, nowIso, sayLines, useTable } from '../data'
import { say } from '../ui'
import { lastSummaryDue, noticesOf, standingOf, type Notice } from './notices'
import type { Work } from './work'

const MINUTE = 60_000

/**
 * Tells a person what went wrong, once each: in the app what comes about while it is open, as a notification of the
 * system and in the team chat where that is wanted. Several tabs tell a thing once between them.
 */
export function useNotices({ workspace, brands }: Work, active: boolean): void {
  const posts = useTable('posts')
  const pipelines = useTable('pipelines')
  const pieces = useTable('pieces')
  const accounts = useTable('accounts')
  const sources = useTable('sources')
  const drips = useTable('drips')
  const looked = useRef(false)
  const minute = Math.floor(clockNow() / MINUTE)
  useEffect(() => {
    if (!active || !posts || !pipelines || !pieces || !accounts || !sources || !drips) return
    const { notices } = workspace
    const now = minute * MINUTE
    const rowsOf = (brand: Brand) => {
      const mine = <T extends { brand: string }>(rows: readonly T[]): T[] =>
        rows.filter((r) => r.brand === brand.id)
      return {
        posts: mine(posts),
        pipelines: mine(pipelines),
        pieces: mine(pieces),
        accounts: mine(accounts),
        sources: mine(sources),
        drips: mine(drips),
        now,
        zone: brand.zone,
      }
    }
    const open = brands.filter((b) => b.endedAt === null)
    const found = open.flatMap((b) => noticesOf(b, rowsOf(b), notices.kinds))
    const first = !looked.current
    looked.current = true
    if (
      found.some((n) => !notices.told.includes(n.key)) ||
      notices.told.some((k) => !found.some((n) => n.key === k))
    )
      void claimNotices(workspace.id, found)
        .then((fresh) => tell(fresh, first, notices))
        .catch(() => undefined)
    const zone = open[0]?.zone ?? 'UTC'
    if (notices.summary !== 'none' && notices.chat) {
      const due = new Date(lastSummaryDue(notices.summary, now, zone)).toISOString()
      const since = notices.summedUpAt ?? nowIso()
      if (since < due)
        void claimSummary(workspace.id, due)
          .then((mine) =>
            mine
              ? sayLines([
                  {
                    key: `summary ${due}`,
                    text: open.map((b) => standingOf(b, rowsOf(b), since)).join('\n'),
                  },
                ])
              : undefined,
          )
          .catch(() => undefined)
    }
  }, [active, posts, pipelines, pieces, accounts, sources, drips, brands, workspace, minute])
}

async function tell(
  fresh: readonly Notice[],
  first: boolean,
  notices: Work['workspace']['notices'],
): Promise<void> {
  const [one] = fresh
  if (!one) return
  const more = fresh.length > 1 ? ` And ${fresh.length - 1} more, on the Desk.` : ''
  // What stood before the app was opened stands on the Desk.
  if (!first) say(`${one.text}${more}`)
  if (notices.system && 'Notification' in window && Notification.permission === 'granted')
    new Notification('Dripline', { body: `${one.text}${more}`, tag: one.key })
  if (notices.chat) await sayLines(fresh.map((n) => ({ key: `notice ${n.key}`, text: n.text })))
}
