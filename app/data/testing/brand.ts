import type { Account } from '../../../core/model'
import { aBrand, aWorkspace } from '../../../core/model/samples'
import { setWorkspace } from '../api'
import { commit, put } from '../store'
import { connectTo, emptyDatabase, setClock } from './browser'

/** A workspace with one brand in UTC and some accounts, at a moment, without a server. */
export async function oneBrand(now: string, accounts: readonly Account[]): Promise<void> {
  connectTo(null)
  setWorkspace('ws')
  await emptyDatabase()
  await setClock(now)
  await commit('machine', [
    put('workspace', aWorkspace()),
    put('brands', aBrand({ zone: 'UTC' })),
    ...accounts.map((account) => put('accounts', account)),
  ])
}

/** A slot at noon of every day. */
export const NOONS = [1, 2, 3, 4, 5, 6, 7].map((weekday) => ({ weekday, at: '12:00' }))
