import type { Account, CalendarEntry, Post } from '../model'
import { network } from '../networks'

/** So much of a caption stands in a calendar entry's title. */
const TITLE = 60
/** What is longer is cut in an entry; the post itself stands in the app. */
const LONGEST = 5000

/** The posts of some accounts that have a moment, as entries of a calendar. */
export function calendarEntries(posts: readonly Post[], accounts: readonly Account[]): CalendarEntry[] {
  const known = new Map(accounts.map((a) => [a.id, a]))
  return posts.flatMap((post) => {
    const at = post.publishedAt ?? post.at
    const account = known.get(post.account)
    if (!at || !account || post.state === 'set aside') return []
    const text = post.wording.text.replace(/\s+/g, ' ')
    return [
      {
        id: post.id,
        account: post.account,
        at,
        title: `${network(account.network).name} @${account.handle}: ${text.length > TITLE ? `${text.slice(0, TITLE).replace(/\s\S*$/, '')} …` : text}`,
        text: [post.wording.text, ...post.wording.parts].join('\n\n').slice(0, LONGEST),
        url: post.publicUrl ?? post.link,
        certain: post.state === 'approved' || post.state === 'handed over' || post.state === 'published',
      },
    ]
  })
}
