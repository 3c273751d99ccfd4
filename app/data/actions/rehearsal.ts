import { Fault } from '../../../core/model'
import {
  followsRhythm,
  inRhythm,
  toAccount,
  withRhythm,
  type Change,
  type Comparison,
  type RehearsalRequest,
} from '../../../core/rehearsal'
import { heavy } from '../../workers'
import { nowIso } from '../clock'
import { passageWorth } from '../results'
import { all, newAction, patch, type Write } from '../store'
import { copyPost } from './copies'
import { commitRecalled, happensIfMay } from './life'
import { surroundings, writesOf } from './plan'

/** Plays the months to come of a brand, as they are planned and with changes; nothing is kept. */
export async function tryRehearsal(
  brand: string,
  asked: Pick<RehearsalRequest, 'from' | 'to' | 'changes' | 'arrivals'>,
): Promise<Comparison> {
  const around = await surroundings()
  const [pieces, sources, passages, worth] = await Promise.all([
    all('pieces', 'brand', brand),
    all('sources', 'brand', brand),
    all('passages', 'brand', brand),
    passageWorth(brand),
  ])
  return heavy().rehearse({
    ...around,
    ...asked,
    brand,
    now: nowIso(),
    pieces,
    sources,
    passages,
    worth,
  })
}

/**
 * Takes changes over that were rehearsed: the settings and the posts that move or go, then the posts
 * that have to be worded for another account, one by one, all of it one action. A paused pipeline is
 * held, so that its posts wait. Gives how many posts could not be worded.
 */
export async function takeOver(
  brand: string,
  changes: readonly Change[],
  played: Pick<Comparison, 'moves' | 'dropped' | 'wanted'>,
  onProgress: (done: number, all: number) => void = () => undefined,
): Promise<number> {
  const accounts = new Set((await all('accounts')).map((a) => a.id))
  const unlinked = changes.find((c) => c.kind === 'account' && !accounts.has(c.account.id))
  if (unlinked)
    throw new Fault(
      'bad-request',
      'The new account is not linked yet. Link it under Dispatch, then take the change over with it.',
    )
  const paused = new Set(changes.flatMap((c) => (c.kind === 'pause' ? [c.pipeline] : [])))
  const going = played.dropped.filter((p) => !paused.has(p.pipeline ?? ''))
  const aside = { code: 'rehearsed', message: 'Its beat fell away when the rhythm was changed.' }
  const actor = { brand, label: 'Take a rehearsal over', action: newAction() }
  const touched = [...going, ...played.moves.map((m) => m.post)]
  await commitRecalled(actor, touched, [
    ...(await settingsOf(changes)),
    ...writesOf(played.moves),
    ...going.map((p) => happensIfMay(p.id, 'set aside', (row) => ({ ...row, reasons: [aside] }))),
  ])
  let missed = 0
  for (const [index, one] of played.wanted.entries()) {
    onProgress(index, played.wanted.length)
    await copyPost(one.like, one.account, { wished: one.wished, actor }).catch(() => missed++)
  }
  return missed
}

/** The settings that changes come to. */
async function settingsOf(changes: readonly Change[]): Promise<Write[]> {
  const now = nowIso()
  const [drips, pipelines] = await Promise.all([all('drips'), all('pipelines')])
  return changes.flatMap((change): Write[] => {
    if (change.kind === 'pause')
      return [
        patch('pipelines', change.pipeline, (p) => ({
          ...p,
          held: { reason: `${p.name} is held.`, since: now },
        })),
      ]
    if (change.kind === 'slots')
      return [patch('accounts', change.account, (a) => ({ ...a, slots: change.slots }))]
    if (change.kind === 'quiet')
      return [patch('brands', change.brand, (b) => ({ ...b, quiet: [...b.quiet, ...change.days] }))]
    if (change.kind === 'account')
      return [
        patch('pipelines', change.pipeline, (p) => ({
          ...toAccount(p, change.account.id),
          draft: p.draft && toAccount(p.draft, change.account.id),
          version: p.version + 1,
          savedAt: now,
        })),
      ]
    return [
      patch('pipelines', change.pipeline, (p) => ({
        ...inRhythm(p, change.rhythm),
        draft: p.draft && inRhythm(p.draft, change.rhythm),
        version: p.version + 1,
        savedAt: now,
      })),
      ...drips
        .filter((d) => d.pipeline === change.pipeline && d.endedAt === null)
        .filter((d) =>
          followsRhythm(
            d,
            pipelines.find((p) => p.id === change.pipeline),
          ),
        )
        .map((d) => patch('drips', d.id, (row) => withRhythm(row, change.rhythm))),
    ]
  })
}
