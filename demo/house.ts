import { parseFeed } from '../core/feeds'
import { guessReading, mergeRows, parseSheet, readSheet, writeBundle } from '../core/formats'
import {
  freshSource,
  freshWorkspace,
  partPiece,
  quotable,
  TABLE_NAMES,
  type Account,
  type Brand,
  type Passage,
  type Pipeline,
  type Post,
  type Rhythm,
  type Rows,
  type Source,
  type WholePiece,
} from '../core/model'
import { network } from '../core/networks'
import {
  carriesFullText,
  finishPiece,
  handPosts,
  makeDrip,
  takePiece,
  takeWriting,
  type TakenPiece,
} from '../core/pipeline'
import { addDays, toWall, seededRandom } from '../core/planning'
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
  type WorldPost,
} from '../world'
import { handbook, readingList } from './content'
import { historyOf } from './history'
import { noteRows, readNotes } from './notes'
import { calendarOf, writeFirst } from './occasions'
import { accountOf, brandOf, idMaker, pipelineOf, seen, type BrandGiven, type PipelineGiven } from './records'

const HOUR = 3_600_000
const DAY = 24 * HOUR
/** Days that the brands had published when the demo begins. */
const HALF_YEAR = 184

export interface SeedRequest {
  seed: string
  bornAt: number
  now: number
  port: number
  sites: readonly Site[]
}

/** Gathers the rows of the seed; ids and chance are the same for the same request. */
export class House {
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

  brand(of: BrandGiven): Brand {
    const brand = brandOf(of, new Date(this.#request.now + this.#rows.brands.length).toISOString())
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
  pipeline(brand: Brand, of: PipelineGiven): Pipeline {
    const now = this.#now
    const pipeline = pipelineOf(brand, of, now)
    this.#rows.pipelines.push(pipeline)
    const pieces = this.#taken.map((t) => t.piece)
    const { wordLists: lists, sources } = this.#rows
    const context = sieveContext({ now, zone: brand.zone, lists, sources, pieces })
    for (const piece of pieces.filter((p) => of.sources.includes(p.source) && p.double === null)) {
      const { passed, reason } = judge(piece, of.sieve, context)
      piece.verdicts = [{ pipeline: pipeline.id, version: 1, passed, reason }]
    }
    return pipeline
  }

  /** A drip of before: from so many days ago on, every few days, until two days ago. */
  past(
    brand: Brand,
    slug: string,
    of: { day: number; every: number; accounts: Account[]; pipeline: Pipeline },
  ): void {
    const list: number[] = []
    for (let day = 0; of.day + day < -2; day += of.every) list.push(day)
    const { day, accounts, pipeline } = of
    this.drip(brand, slug, { day, rhythm: { name: 'Past', list }, gate: 'nothing', accounts, pipeline })
  }

  /** Short notes of a brand's own, one a line of a file, that went out on their accounts in the last half year, some with a picture. */
  notes(
    brand: Brand,
    file: string,
    accounts: readonly Account[],
    pictures: Readonly<Record<string, string>>,
  ): void {
    const random = seededRandom(brand.name.length)
    const notes = readNotes(file)
    const home = baseOf(this.#site(brand.id), this.#origin)
    const shown = Object.entries(pictures).map(([name, alt]) => ({
      url: `${home}/pictures/${name}.png`,
      alt,
    }))
    const { now } = this.#request
    const words = accounts.filter((a) => network(a.network).media.pictures.least === 0)
    for (const [i, account] of words.entries()) {
      const made = handPosts({
        now: new Date(now - (HALF_YEAR + 1) * DAY).toISOString(),
        newId: this.#newId,
        brand,
        // Not on all accounts in the same order.
        rows: noteRows(notes, account, { now, days: HALF_YEAR, turn: i * 13, pictures: shown, random }),
        when: { kind: 'next openings' },
        recurrence: null,
        accounts: this.#rows.accounts,
        brands: this.#rows.brands,
        drips: this.#rows.drips,
        pipelines: this.#rows.pipelines,
        standing: this.#posts,
      })
      this.#posts.push(...made.map(({ post }) => post))
    }
  }

  drip(
    brand: Brand,
    slug: string,
    of: {
      /** From today on; less than nought for a drip of before. */
      day: number
      rhythm: Rhythm
      gate: Pipeline['gate']
      accounts: Account[]
      pipeline?: Pipeline
    },
  ): void {
    const piece = this.#taken.find((t) => t.piece.itemId.endsWith(`/${slug}`))?.piece
    if (!piece) return
    const today = toWall(this.#request.now, brand.zone).date
    const begun = new Date(this.#request.now + Math.min(0, of.day) * DAY).toISOString()
    const result = makeDrip({
      now: begun,
      newId: this.#newId,
      brand,
      piece,
      passages: this.#passages.get(piece.id) ?? [],
      accounts: of.accounts,
      rhythm: of.rhythm,
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
    piece.dealt = { by: of.pipeline?.name ?? 'you', at: begun }
    if (of.pipeline) piece.seenBy = [of.pipeline.id]
  }

  /** The days of a brand's year, and captions for the first that comes soon. */
  async occasions(brand: Brand, accounts: readonly Account[]): Promise<void> {
    const today = toWall(this.#request.now, brand.zone).date
    const occasions = calendarOf(brand, today, this.#now, this.#newId)
    this.#rows.occasions.push(...occasions)
    const pieces = this.#taken.map((t) => t.piece).filter((p) => p.brand === brand.id)
    const { posts, moved } = await writeFirst(occasions, {
      now: this.#now,
      today,
      brand,
      accounts,
      allAccounts: this.#rows.accounts,
      allBrands: this.#rows.brands,
      pieces,
      passages: pieces.flatMap((p) => this.#passages.get(p.id) ?? []),
      standing: this.#posts,
      newId: this.#newId,
    })
    const places = new Map(moved.map((p) => [p.id, p]))
    this.#posts.splice(0, Infinity, ...this.#posts.map((p) => places.get(p.id) ?? p), ...posts)
  }

  /** The workspace, with what had gone out by now, and the same as the stand-in networks keep it. */
  finished(): { bundle: Uint8Array; out: WorldPost[] } {
    const { seed, bornAt, now } = this.#request
    const rows = this.#rows
    rows.workspace.push(freshWorkspace(seed, seed, this.#now))
    for (const t of this.#taken) {
      const { piece, text } = partPiece(t.piece)
      rows.pieces.push(piece)
      rows.texts.push(text)
      rows.sketches.push(t.sketch)
      rows.passages.push(...(this.#passages.get(piece.id) ?? []))
    }
    const isPast = (p: Post): boolean => (p.at ?? p.wished) < this.#now
    const history = historyOf(this.#posts.filter(isPast), rows.accounts, {
      seed,
      bornAt,
      now,
      days: HALF_YEAR,
      origin: this.#origin,
    })
    rows.posts.push(...history.posts, ...this.#posts.filter((p) => !isPast(p)))
    rows.readings.push(...history.readings)
    rows.followings.push(...history.followings)
    const bundle = writeBundle({ workspace: seed, madeAt: this.#now, rows, media: new Map() })
    return { bundle, out: history.world }
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
    const source = freshSource({ brand: brand.id, createdAt: this.#now, ...of })
    this.#rows.sources.push(source)
    return source
  }
}
