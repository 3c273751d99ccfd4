import type { Account, Brand, LinkedAccount, PlainLink } from '../../../core/model'
import { network, proposedLimits } from '../../../core/networks'
import { get, post } from '../api'
import { nowIso } from '../clock'
import { all, commit, must, patch, put } from '../store'
import { commitRecalled } from './life'
import { writesOf, type Move } from './plan'

/** Whether an account is held since it was linked, for want of a place. */
function isPlaceless({ held, target, linkedAt }: Account): boolean {
  return target === null && held?.since === linkedAt
}

/** Takes a newly linked account into a brand with sensible slots, or renews one that is there. */
export async function adoptAccount(brandId: string, id: string): Promise<Account | null> {
  const { accounts } = await get<{ accounts: LinkedAccount[] }>('/api/accounts')
  const linked = accounts.find((a) => a.id === id)
  if (!linked) return null
  const brand = await must('brands', brandId)
  const known = (await all('accounts')).find((a) => a.id === id)
  if (known) {
    // Its login's other places have the same permission.
    const same = (await all('accounts')).filter(
      (a) =>
        a.network === linked.network && a.connector === linked.connector && a.remoteId === linked.remoteId,
    )
    await commit(
      'machine',
      same.map((one) => patch('accounts', one.id, (a) => ({ ...a, health: healthOf(linked) }))),
    )
    return known
  }
  const account = accountOf(linked, brand)
  await commit({ brand: brand.id, label: `Link @${account.handle}` }, [put('accounts', account)])
  return account
}

/**
 * Chooses places of an account's login: the account takes the first that has none yet, each other one becomes an account
 * of its own, with slots and a column. Gives the accounts of the places.
 */
export async function chooseTargets(account: Account, targets: readonly string[]): Promise<Account[]> {
  const brand = await must('brands', account.brand)
  const { accounts } = await post<{ accounts: LinkedAccount[] }>(
    `/api/accounts/${encodeURIComponent(account.id)}/targets`,
    { targets },
  )
  const known = new Map((await all('accounts')).map((a) => [a.id, a]))
  const chosen = accounts.map((linked) => {
    const before = known.get(linked.id)
    const { target, handle } = accountOf(linked, brand)
    if (!before) return accountOf(linked, brand)
    return { ...before, target, handle, held: isPlaceless(before) ? null : before.held }
  })
  await commit(
    'machine',
    chosen.map((a) => put('accounts', a)),
  )
  return chosen
}

/** Links a system by a signed webhook, or an account that is served by hand; gives the webhook's secret, told this once. */
export async function linkPlainly(
  brandId: string,
  link: PlainLink,
): Promise<{ account: Account; secret: string | null }> {
  const { account: linked, secret } = await post<{ account: LinkedAccount; secret: string | null }>(
    '/api/accounts',
    link,
  )
  const account = await adoptAccount(brandId, linked.id)
  return { account: account ?? accountOf(linked, await must('brands', brandId)), secret }
}

function healthOf(linked: LinkedAccount): Account['health'] {
  return { state: 'linked', since: nowIso(), message: 'Linked.', endsAt: linked.expiresAt }
}

/** A linked account as it begins in a brand. */
function accountOf(linked: LinkedAccount, brand: Brand): Account {
  const profile = network(linked.network)
  const now = nowIso()
  const { target, targets, capabilities } = linked
  const placeless = targets.length > 0 && target === null && capabilities.targets === 'required'
  return {
    id: linked.id,
    brand: brand.id,
    network: linked.network,
    connector: linked.connector,
    remoteId: linked.remoteId,
    target,
    handle: target ? `${linked.handle} · ${target.name}` : linked.handle,
    name: linked.name,
    profileUrl: linked.profileUrl,
    groups: [],
    zone: brand.zone,
    ...proposedLimits(profile),
    ...(brand.slots.length ? { slots: brand.slots } : {}),
    quiet: [],
    openedOn: profile.warmUp.length ? now.slice(0, 10) : null,
    warmUp: null,
    health: healthOf(linked),
    held: placeless ? { reason: 'Choose where its posts go.', since: now } : null,
    endedAt: null,
    linkedAt: now,
  }
}

/** When an account may post: what its sheet changes, and nothing else of it. */
export type AccountTimes = Pick<
  Account,
  | 'id'
  | 'groups'
  | 'zone'
  | 'slots'
  | 'hourTrials'
  | 'quiet'
  | 'maxPerDay'
  | 'maxPerWeek'
  | 'gapMinutes'
  | 'openedOn'
  | 'warmUp'
>

/** The part of an account that says when it may post. */
export function timesOf(account: Account): AccountTimes {
  const { id, groups, zone, slots, hourTrials, quiet, maxPerDay, maxPerWeek } = account
  const { gapMinutes, openedOn, warmUp } = account
  const times = { id, groups, zone, slots, quiet, maxPerDay, maxPerWeek, gapMinutes, openedOn, warmUp }
  return hourTrials ? { ...times, hourTrials } : times
}

/** An account as it is once it may post at other times. */
export function withTimes({ hourTrials: _, ...account }: Account, times: AccountTimes): Account {
  return { ...account, ...times }
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
    ...times.map((t) => patch('accounts', t.id, (a) => withTimes(a, t))),
    ...writesOf(moves),
  ])
}
