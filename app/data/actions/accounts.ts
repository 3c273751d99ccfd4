import type { Account, LinkedAccount } from '../../../core/model'
import { network, proposedLimits } from '../../../core/networks'
import { get } from '../api'
import { nowIso } from '../clock'
import { all, commit, must, patch, put } from '../store'
import { commitRecalled } from './life'
import { writesOf, type Move } from './plan'

/** Takes a newly linked account into a brand with sensible slots, or renews one that is there. */
export async function adoptAccount(brandId: string, id: string): Promise<Account | null> {
  const { accounts } = await get<{ accounts: LinkedAccount[] }>('/api/accounts')
  const linked = accounts.find((a) => a.id === id)
  if (!linked) return null
  const brand = await must('brands', brandId)
  const known = (await all('accounts')).find((a) => a.id === id)
  const now = nowIso()
  if (known) {
    await commit('machine', [
      patch('accounts', id, (a) => ({
        ...a,
        health: { state: 'linked', since: now, message: 'Linked.' },
      })),
    ])
    return known
  }
  const profile = network(linked.network)
  const account: Account = {
    id,
    brand: brand.id,
    network: linked.network,
    connector: linked.connector,
    remoteId: linked.remoteId,
    target: linked.target,
    handle: linked.target ? `${linked.handle} · ${linked.target.name}` : linked.handle,
    name: linked.name,
    profileUrl: linked.profileUrl,
    groups: [],
    zone: brand.zone,
    ...proposedLimits(profile),
    ...(brand.slots.length ? { slots: brand.slots } : {}),
    quiet: [],
    openedOn: profile.warmUp.length ? now.slice(0, 10) : null,
    warmUp: null,
    health: { state: 'linked', since: now, message: 'Linked.' },
    held: null,
    endedAt: null,
    linkedAt: now,
  }
  await commit({ brand: brand.id, label: `Link @${account.handle}` }, [put('accounts', account)])
  return account
}

/** When an account may post: what its sheet changes, and nothing else of it. */
export type AccountTimes = Pick<
  Account,
  | 'id'
  | 'groups'
  | 'zone'
  | 'slots'
  | 'quiet'
  | 'maxPerDay'
  | 'maxPerWeek'
  | 'gapMinutes'
  | 'openedOn'
  | 'warmUp'
>

/** The part of an account that says when it may post. */
export function timesOf(account: Account): AccountTimes {
  const { id, groups, zone, slots, quiet, maxPerDay, maxPerWeek, gapMinutes, openedOn, warmUp } = account
  return { id, groups, zone, slots, quiet, maxPerDay, maxPerWeek, gapMinutes, openedOn, warmUp }
}

/** Changes when accounts may post, and moves the posts that have to; both in one action. */
export async function saveTimes(
  brand: string,
  times: readonly AccountTimes[],
  moves: readonly Move[],
  label: string,
): Promise<void> {
  const posts = moves.map((m) => m.post)
  await commitRecalled({ brand, label }, posts, [
    ...times.map((t) => patch('accounts', t.id, (a) => ({ ...a, ...t }))),
    ...writesOf(moves),
  ])
}
