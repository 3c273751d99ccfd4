import { parseFeed } from '../core/feeds'
import { guessReading, mergeRows, parseSheet, readSheet, writeBundle } from '../core/formats'
import {
  HouseStyle,
  usualLook,
  type Look,
  NO_LIMITS,
  partPiece,
  PLAIN_MAKE,
  quotable,
  TABLE_NAMES,
  type Account,
  type Brand,
  type Passage,
  type Pipeline,
  type Post,
  type Rows,
  type Source,
  type WholePiece,
  USUAL_NOTICES,
  USUAL_WEIGHTS,
} from '../core/model'
import { network, proposedLimits, servicePath } from '../core/networks'
import {
  carriesFullText,
  finishPiece,
  makeDrip,
  takePiece,
  takeWriting,
  type TakenPiece,
} from '../core/pipeline'
import { addDays, RHYTHMS, toWall, TRICKLE, type Random, seededRandom } from '../core/planning'
import { blockPrints, readOwn } from '../core/reading'
import { findDoubles, judge, nearDoubles, sieveContext } from '../core/sieve'
import {
  baseOf,
  channelFeed,
  FEED_PATHS,
  feedOf,
  filmsOf,
  pageOf,
  sharesOf,
  webvtt,
  type Site,
  type WorldLogin,
} from '../world'
import { ACCOUNTS, handbook, readingList } from './content'
import { picturePrint } from './pictures'

const HOUR = 3_600_000

export interface SeedRequest {
  seed: string
  bornAt: number
  now: number
  port: number
  sites: readonly Site[]
}

/**
 * The demo's workspace, made by the product's own code from what its sites have out: two brands
 * with their accounts, sources of every kind and pieces, drips under way and some that wait for
 * review, and pipelines that take in whatever is written next.
 */
export async function makeSeed(request: SeedRequest): Promise<Uint8Array> {
  const house = new House(request)
  await yard(house)
  await huts(house)
  return house.bundle()
}

/** Oakum Yard: a blog with whole articles and a channel of films. */
async function yard(house: House): Promise<void> {
  const brand = house.brand({
    id: 'oakum-yard',
    name: 'Oakum Yard',
    zone: 'Europe/Lisbon',
    neverSay: ['cheap', 'hack', 'effortless'],
    look: { ground: '#efe7d6', ink: '#22302e', accent: '#a8432d', sign: 'Oakum Yard · wooden boats' },
  })
  const accounts = house.accounts(brand, ACCOUNTS['oakum-yard'])
  const journal = house.feed(brand, 'yard-journal', 'oakum-yard', null)
  house.films(brand, 'yard-films', 'oakum-yard')
  house.fold(brand)
  const pipeline = house.pipeline(brand, {
    id: 'journal-long',
    name: 'Journal, long and thin',
    hue: 'sky',
    sources: [journal.id],
    sieve: [{ kind: 'keeps', atLeast: 'about a year' }],
    accounts: accounts.filter((a) => a.remoteId !== 'mu-rita').map((a) => a.id),
    gate: 'what is flagged',
  })
  const three = accounts.filter((a) => a.remoteId !== 'mu-rita')
  house.drip(brand, 'steaming-a-frame', {
    day: 0,
    rhythm: 0,
    gate: 'what is flagged',
    accounts: three,
    pipeline,
  })
  house.drip(brand, 'reading-rot', { day: 1, rhythm: 2, gate: 'what is flagged', accounts })
  house.drip(brand, 'seven-tools', { day: 3, rhythm: 1, gate: 'everything', accounts: three })
  house.drip(brand, 'larch-or-oak', { day: 2, rhythm: 0, gate: 'what is flagged', accounts: three })
  house.drip(brand, 'caulking-a-seam', {
    day: 5,
    rhythm: 1,
    gate: 'what is flagged',
    accounts,
  })
}

/** Fernhollow Huts: a blog with summaries only, a partner's letter, a handbook, a content sheet. */
async function huts(house: House): Promise<void> {
  const brand = house.brand({
    id: 'fernhollow',
    name: 'Fernhollow Huts',
    zone: 'Europe/Dublin',
    neverSay: ['hidden gem', 'bucket list'],
    look: {
      ground: '#e6ecdd',
      ink: '#24331f',
      accent: '#c46f46',
      words: 'Schibsted Grotesk',
      sign: 'Fernhollow Huts',
    },
  })
  const accounts = house.accounts(brand, ACCOUNTS.fernhollow)
  const journal = house.feed(brand, 'huts-journal', 'fernhollow', 'Walking')
  const letter = house.feed(brand, 'partner-letter', 'partner', 'Walking')
  await house.manuscript(brand, 'huts-handbook', 'The hut handbook')
  house.sheet(brand, 'reading-list', 'Reading list')
  house.fold(brand)
  const list = house.wordList(brand, 'shop-words', 'Shop and village', [
    'shop*',
    'offer*',
    'choir',
    'concert',
  ])
  house.pipeline(brand, {
    id: 'huts-pipeline',
    name: 'On the path',
    hue: 'jade',
    sources: [journal.id, letter.id],
    sieve: [
      { kind: 'words', need: 'none', words: [], lists: [list], where: 'the title' },
      { kind: 'tags', take: false, tags: ['kitchen', 'village', 'shop'] },
      { kind: 'length', least: 200, most: null },
      { kind: 'keeps', atLeast: 'months' },
    ],
    accounts: accounts.map((a) => a.id),
    gate: 'everything',
  })
  house.drip(brand, 'blisters', { day: 1, rhythm: 2, gate: 'what is flagged', accounts })
}

/** Gathers the rows of the seed; ids and chance are the same for the same request. */
class House {
  readonly #request: SeedRequest
  readonly #newId = idMaker(seededRandom(20))
  readonly #now: string
  readonly #origin: string
  readonly #rows = Object.fromEntries(TABLE_NAMES.map((t) => [t, []])) as unknown as Rows
  #taken: TakenPiece[] = []
  readonly #passages = new Map<string, Passage[]>()
  readonly #posts: Post[] = []

  constructor(request: SeedRequest) {
    this.#request = request
    this.#now = new Date(request.now).toISOString()
    this.#origin = `http://localhost:${request.port}`
  }

  brand(of: { id: string; name: string; zone: string; neverSay: string[]; look: Partial<Look> }): Brand {
    const { neverSay, look, ...rest } = of
    const brand: Brand = {
      ...rest,
      quiet: [{ yearly: '12-25' }, { yearly: '01-01' }],
      slots: [],
      weights: USUAL_WEIGHTS,
      houseStyle: HouseStyle.parse({ neverSay }),
      look: { ...usualLook(of.name), ...look },
      briefs: [],
      held: null,
      endedAt: null,
      createdAt: new Date(this.#request.now + this.#rows.brands.length).toISOString(),
    }
    this.#rows.brands.push(brand)
    return brand
  }

  accounts(brand: Brand, logins: readonly WorldLogin[]): Account[] {
    const accounts = logins.map((a) => accountOf(a, brand, this.#now, this.#request.port))
    this.#rows.accounts.push(...accounts)
    return accounts
  }

  /** A site's own feed, with all that is out taken in. */
  feed(brand: Brand, id: string, host: string, group: string | null): Source {
    const site = this.#site(host)
    const { bornAt, now } = this.#request
    const base = baseOf(site, this.#origin)
    const url = `${base}${FEED_PATHS[site.feed.kind]}`
    const source = this.#source(brand, {
      id,
      kind: 'feed',
      title: site.title,
      url,
      siteUrl: `${base}/`,
      group,
    })
    const read = parseFeed(feedOf(site, bornAt, now, this.#origin), url).items.map((item) => {
      const slug = (item.url ?? '').split('/').pop() ?? ''
      const page = carriesFullText(item) ? null : pageOf(site, slug, bornAt, now)
      return takePiece(
        item,
        {
          page: page === null ? null : { text: page, url: item.url ?? '' },
          transcript: null,
          chapters: null,
        },
        this.#owner(source),
      )
    })
    this.#finish(source, read)
    return source
  }

  /** A site's channel of films, each with the transcript that its feed names. */
  films(brand: Brand, id: string, host: string): Source {
    const site = this.#site(host)
    const base = baseOf(site, this.#origin)
    const url = `${base}/films/feed.xml`
    const films = filmsOf(site, this.#request.bornAt, this.#request.now)
    const feed = parseFeed(channelFeed(site.title, films, base), url)
    const source = this.#source(brand, {
      id,
      kind: 'feed',
      title: feed.title,
      url,
      siteUrl: `${base}/films`,
      visitEveryMinutes: 1440,
    })
    const read = feed.items.map((item) => {
      const film = films.find((f) => item.url?.endsWith(`/${f.slug}`))
      const named = item.video?.transcripts[0]
      const transcript = film && named ? { text: webvtt(film), url: named.url } : null
      return takePiece(item, { page: null, transcript, chapters: null }, this.#owner(source))
    })
    this.#finish(source, read)
    return source
  }

  /** The huts' handbook, chapter by chapter, from Markdown and from a Word document. */
  async manuscript(brand: Brand, id: string, title: string): Promise<void> {
    const source = this.#source(brand, { id, kind: 'writing', title })
    const { markdown, docx } = handbook()
    const parts = [
      ...(await readOwn(new TextEncoder().encode(markdown), 'handbook.md')).chapters,
      ...(await readOwn(docx, 'handbook-winter.docx')).chapters,
    ]
    this.#finish(
      source,
      parts.map((c) =>
        takeWriting(c, this.#owner(source), { kind: 'manuscript', itemId: `${title} › ${c.title}` }),
      ),
    )
  }

  sheet(brand: Brand, id: string, title: string): void {
    const table = parseSheet(new TextEncoder().encode(readingList(this.#origin)))
    const guessed = guessReading(table)
    const reading = {
      ...guessed,
      columns: {
        ...guessed.columns,
        title: 'Headline',
        status: 'Stage',
        categories: 'Topic',
        notes: 'Remark',
      },
      ready: ['ready'],
    }
    const source = this.#source(brand, {
      id,
      kind: 'sheet',
      title,
      sheet: reading,
      visitEveryMinutes: 1440,
      nextVisitAt: new Date(this.#request.now + 20 * HOUR).toISOString(),
    })
    const { added } = mergeRows([], readSheet(table, reading).rows, {
      brand: brand.id,
      source: source.id,
      newId: this.#newId,
    })
    this.#rows.sheetRows.push(...added)
  }

  wordList(brand: Brand, id: string, name: string, words: string[]): string {
    this.#rows.wordLists.push({ id, brand: brand.id, name, words })
    return id
  }

  /** Folds the doubles among what a brand has taken in. */
  fold(brand: Brand): void {
    const mine = this.#taken.filter((t) => t.piece.brand === brand.id)
    const told = new Map(mine.map((t) => [t.piece.id, { title: t.piece.title, text: quotable(t.piece) }]))
    const doubles = findDoubles(
      mine.map((t) => ({ ...t.piece, ...(told.get(t.piece.id) ?? { title: '', text: '' }) })),
      [],
      nearDoubles(
        [],
        mine.map((t) => t.sketch),
      ),
      (id) => told.get(id),
    )
    for (const t of mine) t.piece.double = doubles.get(t.piece.id) ?? null
  }

  /** A pipeline that is on, with what its sieve says of the pieces that are there. */
  pipeline(
    brand: Brand,
    of: Pick<Pipeline, 'id' | 'name' | 'hue' | 'gate'> &
      Pick<Pipeline['takeIn'], 'sources' | 'sieve'> & { accounts: string[] },
  ): Pipeline {
    const now = this.#now
    const pipeline: Pipeline = {
      id: of.id,
      brand: brand.id,
      name: of.name,
      hue: of.hue,
      on: true,
      takeIn: {
        sources: of.sources,
        groups: [],
        sieve: of.sieve,
        since: now,
        aRun: null,
        aWeek: null,
        changed: false,
      },
      make: PLAIN_MAKE,
      release: [
        {
          id: 'row-1',
          pieces: { kind: 'all' },
          format: null,
          accounts: of.accounts,
          groups: [],
          by: { kind: 'rhythm', rhythm: TRICKLE },
          again: null,
        },
      ],
      gate: of.gate,
      limits: NO_LIMITS,
      follows: [],
      priority: 0,
      held: null,
      endedAt: null,
      draft: null,
      versions: [],
      version: 1,
      savedAt: now,
      createdAt: now,
    }
    this.#rows.pipelines.push(pipeline)
    const pieces = this.#taken.map((t) => t.piece)
    const context = sieveContext({ now, lists: this.#rows.wordLists, sources: this.#rows.sources, pieces })
    for (const piece of pieces.filter((p) => of.sources.includes(p.source) && p.double === null)) {
      const { passed, reason } = judge(piece, of.sieve, context)
      piece.verdicts = [{ pipeline: pipeline.id, version: 1, passed, reason }]
    }
    return pipeline
  }

  drip(
    brand: Brand,
    slug: string,
    of: { day: number; rhythm: number; gate: Pipeline['gate']; accounts: Account[]; pipeline?: Pipeline },
  ): void {
    const piece = this.#taken.find((t) => t.piece.itemId.endsWith(`/${slug}`))?.piece
    if (!piece) return
    const today = toWall(this.#request.now, brand.zone).date
    const result = makeDrip({
      now: this.#now,
      newId: this.#newId,
      brand,
      piece,
      passages: this.#passages.get(piece.id) ?? [],
      accounts: of.accounts,
      rhythm: RHYTHMS[of.rhythm] ?? TRICKLE,
      startDay: addDays(today, of.day),
      seed: 7,
      pipeline: of.pipeline ?? null,
      row: of.pipeline?.release[0] ?? null,
      gate: of.gate,
      allAccounts: this.#rows.accounts,
      allBrands: this.#rows.brands,
      standing: this.#posts,
    })
    this.#rows.drips.push(result.drip)
    this.#posts.push(...result.posts)
    piece.dealt = { by: of.pipeline?.name ?? 'you', at: this.#now }
    if (of.pipeline) piece.seenBy = [of.pipeline.id]
  }

  bundle(): Uint8Array {
    const { seed } = this.#request
    const rows = this.#rows
    rows.workspace.push({
      id: seed,
      seed,
      held: null,
      lastBundleAt: null,
      weeklyBundle: 'off',
      lastVisitAt: null,
      visitBefore: null,
      notices: USUAL_NOTICES,
      aheadDays: 30,
      receiptCursor: 0,
      readingCursor: 0,
      createdAt: this.#now,
    })
    for (const t of this.#taken) {
      const { piece, text } = partPiece(t.piece)
      rows.pieces.push(piece)
      rows.texts.push(text)
      rows.sketches.push(t.sketch)
      rows.passages.push(...(this.#passages.get(piece.id) ?? []))
    }
    rows.posts.push(...this.#posts)
    return writeBundle({ workspace: seed, madeAt: this.#now, rows, media: new Map() })
  }

  #site(host: string): Site {
    const site = this.#request.sites.find((s) => s.host === host)
    if (!site) throw new Error(`There is no site ${host}.`)
    return site
  }

  #owner(source: Source) {
    return { id: this.#newId(), brand: source.brand, source: source.id, now: this.#now }
  }

  /** Reads pieces of one source to the end, as a visit does, and notes how the visit went. */
  #finish(source: Source, read: readonly WholePiece[]): void {
    const prints = read.map((p) => ({ id: p.id, set: new Set(blockPrints(p)) }))
    const taken = read.map((p) =>
      finishPiece(
        p,
        prints.filter((x) => x.id !== p.id).map((x) => x.set),
        this.#now,
        this.#newId,
      ),
    )
    for (const t of taken) {
      const at = Date.parse(t.piece.publishedAt ?? this.#now)
      t.piece.images = t.piece.images.map(seen)
      if (t.piece.url) t.piece.counts = { ...t.piece.counts, ...sharesOf(t.piece.url, at, this.#request.now) }
      this.#passages.set(t.piece.id, t.passages)
    }
    this.#taken = [...this.#taken, ...taken]
    if (source.url !== null)
      source.lastVisit = {
        at: this.#now,
        ok: true,
        message: `${taken.length} pieces, all taken in.`,
        newPieces: taken.length,
        notes: [],
      }
  }

  #source(brand: Brand, of: Pick<Source, 'id' | 'kind' | 'title'> & Partial<Source>): Source {
    const visited = of.url !== undefined
    const every = of.visitEveryMinutes ?? (visited ? 180 : null)
    const source: Source = {
      brand: brand.id,
      url: null,
      siteUrl: null,
      group: null,
      visitEveryMinutes: every,
      mostNew: 40,
      backlog: { kind: 'everything' },
      passedOver: [],
      nextVisitAt: every === null ? null : new Date(this.#request.now + every * 60_000).toISOString(),
      lastVisit: null,
      failures: 0,
      etag: null,
      lastModified: null,
      movedFrom: null,
      sheet: null,
      held: null,
      createdAt: this.#now,
      ...of,
    }
    this.#rows.sources.push(source)
    return source
  }
}

function accountOf(login: WorldLogin, brand: Brand, now: string, port: number): Account {
  const profile = network(login.network)
  return {
    id: login.id,
    brand: brand.id,
    network: login.network,
    connector: 'stand-in',
    remoteId: login.id,
    target: null,
    handle: login.handle,
    name: login.name,
    profileUrl: `http://localhost:${port}${servicePath(profile.id)}/@${login.handle}`,
    groups: [],
    zone: login.zone,
    ...proposedLimits(profile),
    quiet: [],
    openedOn: profile.warmUp.length ? now.slice(0, 10) : null,
    warmUp: null,
    health: { state: 'linked', since: now, message: 'Linked.', endsAt: null },
    held: null,
    endedAt: null,
    linkedAt: now,
  }
}

/** A picture of the demo's sites as it is when somebody has looked at it. */
function seen<I extends { url: string }>(image: I): I & { seen?: { print: string; trouble: null } } {
  const print = picturePrint(/([^/]+)\.png$/.exec(image.url)?.[1] ?? '')
  return print ? { ...image, seen: { print, trouble: null } } : image
}

/** Ids that are the same for the same seed of chance: sixteen letters of base 36. */
function idMaker(random: Random): () => string {
  return () => Array.from({ length: 16 }, () => Math.floor(random() * 36).toString(36)).join('')
}
