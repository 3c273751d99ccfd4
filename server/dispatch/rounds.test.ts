import { describe, expect, it } from 'vitest'
import { aPayload } from '../../core/model/samples'
import type { Claim } from '../store/deliveries'
import type { Settlement } from '../store/rounds'
import type { Spool } from '../store/spool'
import { Rounds } from './rounds'

const AT = { owner: 'me', now: 0, realNow: 0 }

function claim(account: string): Claim {
  return {
    post: `post of ${account}`,
    generation: 1,
    workspace: 'ws',
    account,
    dueAt: 0,
    payload: aPayload(),
    tries: 1,
    attempts: [],
    doubt: false,
  }
}
const settlement = (account: string): Settlement => ({
  claim: claim(account),
  attempts: [],
  outcome: { kind: 'by hand', reason: account },
})

/** A spool that notes its rounds, and cannot bear one account. */
function spoolOf(unbearable: string | null = null) {
  const rounds: string[] = []
  const round: Spool['round'] = async (settlements, accounts) => {
    rounds.push([...settlements.map((s) => `-${s.claim.account}`), ...accounts].join(' '))
    await new Promise((resolve) => setTimeout(resolve, 5))
    if ([...accounts, ...settlements.map((s) => s.claim.account)].includes(unbearable ?? ''))
      throw new Error(`Not ${unbearable}.`)
    return {
      setbacks: settlements.map((s) => ({ what: 'failed' as const, reason: s.claim.account })),
      claims: new Map(accounts.filter((a) => a !== 'idle').map((a) => [a, claim(a)])),
    }
  }
  return { round, rounds }
}

describe('rounds', () => {
  it('take together what is asked while one is under way, and give each its own', async () => {
    const spool = spoolOf()
    const rounds = new Rounds(spool, () => AT)
    const first = [rounds.claim('a'), rounds.claim('b')]
    await new Promise((resolve) => setTimeout(resolve, 2))
    const second = [rounds.claim('c'), rounds.claim('idle')]
    const settled = [rounds.settle(settlement('d')), rounds.settle(settlement('e'))]
    expect((await Promise.all([...first, ...second])).map((c) => c?.account ?? null)).toEqual([
      'a',
      'b',
      'c',
      null,
    ])
    expect((await Promise.all(settled)).map((s) => s?.reason)).toEqual(['d', 'e'])
    expect(spool.rounds).toEqual(['a b', '-d -e c idle'])
    await rounds.claim('f')
    expect(spool.rounds).toHaveLength(3)
  })

  it('let one that fails stop no other', async () => {
    const spool = spoolOf('bad')
    const rounds = new Rounds(spool, () => AT)
    const asked = [rounds.claim('a'), rounds.claim('bad'), rounds.settle(settlement('b'))]
    const done = await Promise.allSettled(asked)
    expect(done.map((d) => d.status)).toEqual(['fulfilled', 'rejected', 'fulfilled'])
    expect(await rounds.claim('c')).toMatchObject({ account: 'c' })
  })
})
