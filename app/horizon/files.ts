import { writeCalendar } from '../../core/formats'
import type { Account, Post } from '../../core/model'
import { network } from '../../core/networks'
import { momentOf } from './marks'

/** So much of a caption stands in a calendar entry's title. */
const TITLE = 60

/** The posts of some accounts that have a moment, as an iCalendar file. */
export function calendarFile(
  name: string,
  posts: readonly Post[],
  accounts: readonly Account[],
  now: string,
): string {
  const known = new Map(accounts.map((a) => [a.id, a]))
  const entries = posts.flatMap((post) => {
    const at = momentOf(post)
    const account = known.get(post.account)
    if (!at || !account || post.state === 'set aside') return []
    const text = post.wording.text.replace(/\s+/g, ' ')
    return [
      {
        id: post.id,
        at,
        title: `${network(account.network).name} @${account.handle}: ${text.length > TITLE ? `${text.slice(0, TITLE).replace(/\s\S*$/, '')} …` : text}`,
        text: [post.wording.text, ...post.wording.parts].join('\n\n'),
        url: post.publicUrl ?? post.link,
        certain: post.state === 'approved' || post.state === 'handed over' || post.state === 'published',
      },
    ]
  })
  return writeCalendar(name, entries, now)
}
