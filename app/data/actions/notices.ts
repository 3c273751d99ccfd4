import type {
  Account,
  Brand,
  Drip,
  Occasion,
  Piece,
  Pipeline,
  Post,
  Source,
  Workspace,
} from '../../../core/model'
import { all, one } from '../store'

/** What notices are read off: of each brand what is not out yet, and what it hangs on; of what was set aside the posts of occasions. */
export interface Standing {
  workspace: Workspace
  brands: Brand[]
  of: (brand: string) => {
    posts: Post[]
    pipelines: Pipeline[]
    pieces: Piece[]
    accounts: Account[]
    sources: Source[]
    drips: Drip[]
    occasions: Occasion[]
  }
}

/** Every state in which a post is not out and not aside: of many thousands these are few. */
const UNDER_WAY = ['draft', 'for review', 'approved', 'handed over', 'failed'] as const

/** How all brands stand, without what is published; null before there is a workspace. */
export async function standing(): Promise<Standing | null> {
  const [workspace] = await all('workspace')
  if (!workspace) return null
  const [brands, accounts, sources, pipelines, drips, occasions, aside, ...posts] = await Promise.all([
    all('brands'),
    all('accounts'),
    all('sources'),
    all('pipelines'),
    all('drips'),
    all('occasions'),
    all('posts', 'state', 'set aside'),
    ...UNDER_WAY.map((state) => all('posts', 'state', state)),
  ])
  // A day of an occasion was decided against where its posts were set aside.
  const open = [...posts.flat(), ...aside.filter((p) => p.occasion)]
  const reviewed = new Set(open.flatMap((p) => (p.state === 'for review' ? (p.piece ?? []) : [])))
  const pieces = (await Promise.all([...reviewed].map((id) => one('pieces', id)))).flatMap((p) => p ?? [])
  const mine = <T extends { brand: string }>(rows: readonly T[], brand: string): T[] =>
    rows.filter((r) => r.brand === brand)
  return {
    workspace,
    brands: brands.filter((b) => b.endedAt === null),
    of: (brand) => ({
      posts: mine(open, brand),
      pipelines: mine(pipelines, brand),
      pieces: mine(pieces, brand),
      accounts: mine(accounts, brand),
      sources: mine(sources, brand),
      drips: mine(drips, brand),
      occasions: mine(occasions, brand),
    }),
  }
}

/** How many posts of a brand went out since a moment. */
export async function outSince(brand: string, since: string): Promise<number> {
  return (await all('posts', 'brand', brand)).filter(
    (p) => p.state === 'published' && (p.publishedAt ?? '') >= since,
  ).length
}
