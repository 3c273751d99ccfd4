import { parseFeed } from '../core/feeds'
import { guessReading, mergeRows, parseSheet, readSheet } from '../core/formats'
import {
  freshSource,
  quotable,
  TABLE_NAMES,
  type Brand,
  type Passage,
  type Rows,
  type Source,
  type WholePiece,
} from '../core/model'
import { carriesFullText, finishPiece, takePiece, takeWriting, type TakenPiece } from '../core/pipeline'
import { seededRandom } from '../core/planning'
import { blockPrints, readOwn } from '../core/reading'
import { findDoubles, nearDoubles } from '../core/sieve'
import {
  baseOf,
  channelFeed,
  FEED_PATHS,
  feedOf,
  recordingsOf,
  pageOf,
  sharesOf,
  webvtt,
  type Site,
} from '../world'
import { handbook, readingList } from './content'
import { idMaker, seen } from './records'

const HOUR = 3_600_000

export interface SeedRequest {
  seed: string
  bornAt: number
  now: number
  port: number
  sites: readonly Site[]
}

/** What the demo's sites have out, taken in as the application does: pieces with their passages, by source. */
export class TakenIn {
  protected readonly request: SeedRequest
  protected readonly newId = idMaker(seededRandom(20))
  protected readonly now: string
  protected readonly origin: string
  protected readonly rows = Object.fromEntries(TABLE_NAMES.map((t) => [t, []])) as unknown as Rows
  protected taken: TakenPiece[] = []
  protected readonly passages = new Map<string, Passage[]>()

  constructor(request: SeedRequest) {
    this.request = request
    this.now = new Date(request.now).toISOString()
    this.origin = `http://localhost:${request.port}`
  }

  /** A site's own feed, with all that is out taken in. */
  feed(brand: Brand, id: string, host: string, group: string | null): Source {
    const site = this.site(host)
    const { bornAt, now } = this.request
    const base = baseOf(site, this.origin)
    const url = `${base}${FEED_PATHS[site.feed.kind]}`
    const source = this.source(brand, {
      id,
      kind: 'feed',
      title: site.title,
      url,
      siteUrl: `${base}/`,
      group,
    })
    const read = parseFeed(feedOf(site, bornAt, now, this.origin), url).items.map((item) => {
      const slug = (item.url ?? '').split('/').pop() ?? ''
      const page = carriesFullText(item) ? null : pageOf(site, slug, bornAt, now)
      return takePiece(
        item,
        {
          page: page === null ? null : { text: page, url: item.url ?? '' },
          transcript: null,
          chapters: null,
        },
        this.owner(source),
      )
    })
    this.finish(source, read)
    return source
  }

  /** A site's channel of films, each with the transcript that its feed names. */
  films(brand: Brand, id: string, host: string): Source {
    const site = this.site(host)
    const base = baseOf(site, this.origin)
    const url = `${base}/films/feed.xml`
    const films = recordingsOf(site.films, this.request.bornAt, this.request.now)
    const feed = parseFeed(channelFeed(site.title, films, base), url)
    const source = this.source(brand, {
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
      return takePiece(item, { page: null, transcript, chapters: null }, this.owner(source))
    })
    this.finish(source, read)
    return source
  }

  /** The huts' handbook, chapter by chapter, from Markdown and from a Word document. */
  async manuscript(brand: Brand, id: string, title: string): Promise<void> {
    const source = this.source(brand, { id, kind: 'writing', title })
    const { markdown, docx } = handbook()
    const parts = [
      ...(await readOwn(new TextEncoder().encode(markdown), 'handbook.md')).chapters,
      ...(await readOwn(docx, 'handbook-winter.docx')).chapters,
    ]
    this.finish(
      source,
      parts.map((c) =>
        takeWriting(c, this.owner(source), { kind: 'manuscript', itemId: `${title} › ${c.title}` }),
      ),
    )
  }

  sheet(brand: Brand, id: string, title: string): void {
    const table = parseSheet(new TextEncoder().encode(readingList(this.origin)))
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
    const source = this.source(brand, {
      id,
      kind: 'sheet',
      title,
      sheet: reading,
      visitEveryMinutes: 1440,
      nextVisitAt: new Date(this.request.now + 20 * HOUR).toISOString(),
    })
    const { added } = mergeRows([], readSheet(table, reading).rows, {
      brand: brand.id,
      source: source.id,
      newId: this.newId,
    })
    this.rows.sheetRows.push(...added)
  }

  wordList(brand: Brand, id: string, name: string, words: string[]): string {
    this.rows.wordLists.push({ id, brand: brand.id, name, words })
    return id
  }

  /** Folds the doubles among what a brand has taken in. */
  fold(brand: Brand): void {
    const mine = this.taken.filter((t) => t.piece.brand === brand.id)
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

  protected site(host: string): Site {
    const site = this.request.sites.find((s) => s.host === host)
    if (!site) throw new Error(`There is no site ${host}.`)
    return site
  }

  private owner(source: Source) {
    return { id: this.newId(), brand: source.brand, source: source.id, now: this.now }
  }

  /** Reads pieces of one source to the end, as a visit does, and notes how the visit went. */
  private finish(source: Source, read: readonly WholePiece[]): void {
    const prints = read.map((p) => ({ id: p.id, set: new Set(blockPrints(p)) }))
    const taken = read.map((p) =>
      finishPiece(
        p,
        prints.filter((x) => x.id !== p.id).map((x) => x.set),
        this.now,
        this.newId,
      ),
    )
    for (const t of taken) {
      const at = Date.parse(t.piece.publishedAt ?? this.now)
      t.piece.images = t.piece.images.map(seen)
      if (t.piece.url) t.piece.counts = { ...t.piece.counts, ...sharesOf(t.piece.url, at, this.request.now) }
      this.passages.set(t.piece.id, t.passages)
    }
    this.taken = [...this.taken, ...taken]
    if (source.url !== null)
      source.lastVisit = {
        at: this.now,
        ok: true,
        message: `${taken.length} pieces, all taken in.`,
        newPieces: taken.length,
        notes: [],
      }
  }

  private source(brand: Brand, of: Pick<Source, 'id' | 'kind' | 'title'> & Partial<Source>): Source {
    const source = freshSource({ brand: brand.id, createdAt: this.now, ...of })
    this.rows.sources.push(source)
    return source
  }
}
