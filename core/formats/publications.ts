import { linkShown, type Account, type Piece, type Post, type Publication } from '../model'
import { network } from '../networks'

/** The posts that went out or may go out while the app is closed, as a feed or sheet has them, the newest first. */
export function publicationsOf(
  posts: readonly Post[],
  pieces: ReadonlyMap<string, Pick<Piece, 'title'>>,
  accounts: ReadonlyMap<string, Pick<Account, 'handle'>>,
): Publication[] {
  return posts
    .filter((p) => (p.state === 'published' && p.visibility !== 'gone') || p.state === 'handed over')
    .sort((a, b) => ((a.publishedAt ?? a.at ?? '') < (b.publishedAt ?? b.at ?? '') ? 1 : -1))
    .map((p) => ({
      post: p.id,
      at: p.state === 'published' ? (p.publishedAt ?? p.at) : null,
      network: network(p.network).name,
      account: accounts.get(p.account)?.handle ?? '',
      title: p.wording.title ?? pieces.get(p.piece ?? '')?.title ?? '',
      text: [p.wording.text, ...p.wording.parts].join('\n\n'),
      link: linkShown(p),
      publicUrl: p.publicUrl,
      tags: [...new Set([...p.wording.hashtags, ...p.wording.tags])].map((t) => t.replace(/^#/, '')),
    }))
}
