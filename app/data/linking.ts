import useSWR, { mutate } from 'swr'
import type { Account, Linkable, LinkedAccount } from '../../core/model'
import { get, post } from './api'

const LINKABLE = '/api/networks'
const LINKED = '/api/accounts'

/** The networks on whose own page an account is allowed; undefined while that is not known. */
export function useLinkable(): readonly Linkable[] | undefined {
  return useSWR(LINKABLE, () => get<{ linkable: Linkable[] }>(LINKABLE), { revalidateOnFocus: false }).data
    ?.linkable
}

/** An account as the server knows it: what can be done with it, and the places of its login. */
export function useLinked(id: string): LinkedAccount | undefined {
  const { data } = useSWR(LINKED, () => get<{ accounts: LinkedAccount[] }>(LINKED), {
    revalidateOnFocus: false,
  })
  return data?.accounts.find((a) => a.id === id)
}

/** Where the browser goes to link an account, or to link it again; `site` is a person's own site, by Micropub. */
export function linkPath(network: string, brand: string, site: string | null = null): string {
  const query = new URLSearchParams({ brand, ...(site === null ? {} : { site }) })
  return `/api/link/${network}/start?${query.toString()}`
}

/** Where an account is linked again: on its network's page, or on its own site. */
export function linkAgainPath({ network, brand, connector, remoteId }: Account): string {
  return linkPath(network, brand, connector === 'micropub' ? remoteId : null)
}

const WEEK = 7 * 86_400_000

/** Whether an account's permission ends within a week of a moment, in milliseconds. */
export function endsSoon({ health }: Pick<Account, 'health'>, now: number): boolean {
  return health.state === 'linked' && health.endsAt !== null && Date.parse(health.endsAt) < now + WEEK
}

/** Asks the network now how a login is. Throws `unreachable` where nobody answers. */
export async function checkAccount(id: string): Promise<LinkedAccount> {
  const account = await post<LinkedAccount>(`/api/accounts/${encodeURIComponent(id)}/check`, {})
  await mutate(LINKED)
  return account
}
