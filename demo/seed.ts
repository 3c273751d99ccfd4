import { writeBundle } from '../core/formats'
import {
  partPiece,
  TABLE_NAMES,
  type Account,
  type Brand,
  type Passage,
  type Pipeline,
  type Post,
  type Rows,
  type Source,
  type WholePiece,
} from '../core/model'
import { network, proposedLimits } from '../core/networks'
import { finishPiece, makeDrip, takePiece, type TakenPiece } from '../core/pipeline'
import { blockPrints } from '../core/reading'
import { addDays, RHYTHMS, toWall, TRICKLE, type Random, seededRandom } from '../core/planning'
import { feedBody, type Site, type SiteArticle } from '../world'
import { ACCOUNTS } from './content'

const DAY = 86_400_000
const ZONE = 'Europe/Lisbon'

export interface SeedRequest {
  seed: string
  bornAt: number
  now: number
  port: number
  site: Site
}

/**
 * The demo's workspace, made by the product's own code from the articles that are out: the brand
 * with four accounts, its source and pieces, two drips under way and one that waits for review,
 * and a pipeline that takes in whatever the yard writes next.
 */
export async function makeSeed(request: SeedRequest): Promise<Uint8Array> {
  const { seed, site, bornAt } = request
  const random = seededRandom(20)
  const newId = idMaker(random)
  const now = new Date(request.now).toISOString()
  const brand: Brand = {
    id: 'oakum-yard',
    name: 'Oakum Yard',
    zone: ZONE,
    quiet: [{ yearly: '12-25' }, { yearly: '01-01' }],
    houseStyle: { hashtags: [], neverSay: ['cheap', 'hack', 'effortless'], closingLines: [] },
    held: null,
    createdAt: now,
  }
  const accounts = ACCOUNTS.map((a) => accountOf(a, brand, now, request.port))
  const base = `http://${site.host}.localhost:${request.port}`
  const source = sourceOf({
    id: 'yard-journal',
    brand: brand.id,
    title: site.title,
    url: `${base}/feed.xml`,
    siteUrl: `${base}/`,
    now: request.now,
  })
  const articles = site.articles.filter((a) => a.day < 0).sort((a, b) => b.day - a.day)
  const taken = finished(
    articles.map((a) => pieceOf(site, a, base, bornAt, brand, source, now)),
    now,
    newId,
  )
  const pieces = taken.map((t) => t.piece)
  source.lastVisit = {
    at: now,
    ok: true,
    message: `${pieces.length} pieces, all taken in.`,
    newPieces: pieces.length,
    notes: [],
  }
  const passages = new Map<string, Passage[]>(taken.map((t) => [t.piece.id, t.passages]))
  const pipeline: Pipeline = {
    id: 'journal-long',
    brand: brand.id,
    name: 'Journal, long and thin',
    hue: 'sky',
    on: true,
    sources: [source.id],
    groups: [],
    sieve: [],
    since: now,
    accounts: accounts.filter((a) => a.remoteId !== 'mu-rita').map((a) => a.id),
    rhythm: TRICKLE,
    gate: 'what is flagged',
    held: null,
    version: 1,
    savedAt: now,
    createdAt: now,
  }

  const rows = Object.fromEntries(TABLE_NAMES.map((t) => [t, []])) as unknown as Rows
  const posts: Post[] = []
  const today = toWall(request.now, ZONE).date
  const start = (
    slug: string,
    startDay: string,
    options: { rhythm: number; gate: Pipeline['gate']; accounts: Account[]; pipeline: Pipeline | null },
  ): void => {
    const piece = pieces.find((p) => p.itemId.endsWith(`/${slug}`))
    if (!piece) return
    const result = makeDrip({
      now,
      newId,
      brand,
      piece,
      passages: passages.get(piece.id) ?? [],
      accounts: options.accounts,
      rhythm: RHYTHMS[options.rhythm] as Pipeline['rhythm'],
      startDay,
      seed: 7,
      pipeline: options.pipeline,
      gate: options.gate,
      allAccounts: accounts,
      allBrands: [brand],
      standing: posts,
    })
    rows.drips.push(result.drip)
    posts.push(...result.posts)
    piece.dealt = { by: options.pipeline ? options.pipeline.name : 'you', at: now }
    if (options.pipeline) piece.seenBy = [options.pipeline.id]
  }
  const three = accounts.filter((a) => a.remoteId !== 'mu-rita')
  start('steaming-a-frame', today, { rhythm: 0, gate: 'what is flagged', accounts: three, pipeline })
  start('reading-rot', addDays(today, 1), { rhythm: 2, gate: 'what is flagged', accounts, pipeline: null })
  start('seven-tools', addDays(today, 3), { rhythm: 1, gate: 'everything', accounts: three, pipeline: null })

  rows.workspace.push({
    id: seed,
    seed,
    held: null,
    lastBundleAt: null,
    weeklyBundle: 'off',
    lastVisitAt: null,
    receiptCursor: 0,
    createdAt: now,
  })
  rows.brands.push(brand)
  rows.accounts.push(...accounts)
  rows.sources.push(source)
  for (const t of taken) {
    const { piece, text } = partPiece(t.piece)
    rows.pieces.push(piece)
    rows.texts.push(text)
    rows.sketches.push(t.sketch)
  }
  rows.passages.push(...[...passages.values()].flat())
  rows.pipelines.push(pipeline)
  rows.posts.push(...posts)
  return writeBundle({ workspace: seed, madeAt: now, rows, media: new Map() })
}

function accountOf(login: (typeof ACCOUNTS)[number], brand: Brand, now: string, port: number): Account {
  const profile = network(login.network)
  return {
    id: login.id,
    brand: brand.id,
    network: login.network,
    remoteId: login.id,
    handle: login.handle,
    name: login.name,
    profileUrl: `http://localhost:${port}${profile.service.path}/@${login.handle}`,
    zone: login.zone,
    ...proposedLimits(profile),
    quiet: [],
    health: { state: 'linked', since: now, message: 'Linked.' },
    held: null,
    linkedAt: now,
  }
}

function pieceOf(
  site: Site,
  article: SiteArticle,
  base: string,
  bornAt: number,
  brand: Brand,
  source: Source,
  now: string,
): WholePiece {
  const url = `${base}/${article.slug}`
  const published = Math.floor(bornAt / DAY) * DAY + article.day * DAY + 9 * 3_600_000
  return takePiece(
    {
      title: article.title,
      url,
      id: url,
      publishedAt: new Date(published).toISOString(),
      author: article.author,
      categories: article.categories,
      summary: article.summary,
      html: feedBody(site, article, base),
      language: 'en',
      base: `${base}/`,
      video: null,
      counts: {},
      place: null,
      fields: {},
      images: [
        { url: `${base}/pictures/${article.picture}.png`, alt: article.pictureAlt, width: 1200, height: 800 },
      ],
    },
    { page: null, transcript: null, chapters: null },
    { id: article.slug, brand: brand.id, source: source.id, now },
  )
}

/** Pieces of one source read to the end, as a visit does. */
function finished(read: readonly WholePiece[], now: string, newId: () => string): TakenPiece[] {
  const prints = read.map((p) => ({ id: p.id, set: new Set(blockPrints(p)) }))
  return read.map((p) =>
    finishPiece(
      p,
      prints.filter((x) => x.id !== p.id).map((x) => x.set),
      now,
      newId,
    ),
  )
}

function sourceOf(of: {
  id: string
  brand: string
  title: string
  url: string
  siteUrl: string
  now: number
}): Source {
  const { now, ...rest } = of
  return {
    kind: 'feed',
    group: null,
    visitEveryMinutes: 180,
    mostNew: 40,
    backlog: { kind: 'everything' },
    passedOver: [],
    nextVisitAt: new Date(now + 3 * 3_600_000).toISOString(),
    lastVisit: null,
    failures: 0,
    etag: null,
    lastModified: null,
    movedFrom: null,
    sheet: null,
    held: null,
    createdAt: new Date(now).toISOString(),
    ...rest,
  }
}

/** Ids that are the same for the same seed of chance: sixteen letters of base 36. */
function idMaker(random: Random): () => string {
  return () => Array.from({ length: 16 }, () => Math.floor(random() * 36).toString(36)).join('')
}
