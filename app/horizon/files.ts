import { readPlanSheet, writePlanSheet } from '../../core/formats'
import { momentOf, may, type Account, type Post } from '../../core/model'
import { network } from '../../core/networks'

/** The posts of some accounts as a sheet that can be changed and taken in again. */
export function planSheet(posts: readonly Post[], accounts: readonly Account[]): string {
  const known = new Map(accounts.map((a) => [a.id, a]))
  return writePlanSheet(
    posts.flatMap((post) => {
      const account = known.get(post.account)
      if (!account || post.state === 'set aside') return []
      return [
        {
          id: post.id,
          account: account.handle,
          network: network(account.network).name,
          zone: account.zone,
          at: momentOf(post),
          state: post.state,
          text: post.wording.text,
        },
      ]
    }),
  )
}

/**
 * What a changed sheet wants otherwise of these posts, and the lines that could not be taken; `monthFirst` is
 * how a person says that its dates are read.
 */
export function readChangedPlan(
  bytes: Uint8Array,
  posts: readonly Post[],
  accounts: readonly Account[],
  monthFirst: boolean | null = null,
): ReturnType<typeof readPlanSheet> {
  const zones = new Map(accounts.map((a) => [a.id, a.zone]))
  return readPlanSheet(
    bytes,
    new Map(
      posts.map((post) => [
        post.id,
        {
          at: momentOf(post),
          zone: zones.get(post.account) ?? 'UTC',
          movable: may(post, 'move'),
        },
      ]),
    ),
    monthFirst,
  )
}
