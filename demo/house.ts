import { writeBundle } from '../core/formats'
import {
  freshWorkspace,
  partPiece,
  type Account,
  type Brand,
  type Pipeline,
  type Post,
  type Rhythm,
} from '../core/model'
import { network } from '../core/networks'
import { handPosts, makeDrip } from '../core/pipeline'
import { addDays, seededRandom, toWall } from '../core/planning'
import { judge, sieveContext } from '../core/sieve'
import { baseOf, type WorldLogin, type WorldPost } from '../world'
import { historyOf, refused } from './history'
import { noteRows, readNotes } from './notes'
import { calendarOf, writeFirst } from './occasions'
import { accountsOf, brandOf, pipelineOf, type BrandGiven, type PipelineGiven } from './records'
import { TakenIn } from './takenIn'

const HOUR = 3_600_000
const DAY = 24 * HOUR
/** Days that the brands had published when the demo begins, and the last of them on which no note went out. */
const HALF_YEAR = 184
const QUIET = 4

/** Gathers the rows of the seed; ids and chance are the same for the same request. */
export class House extends TakenIn {
  readonly #posts: Post[] = []
  readonly #refused: Post[] = []
  /** The logins of the accounts in the stand-in world. */
  readonly #logins = new Map<string, WorldLogin>()

  brand(of: BrandGiven): Brand {
    const brand = brandOf(of, new Date(this.request.now + this.rows.brands.length).toISOString())
    this.rows.brands.push(brand)
    return brand
  }

  accounts(brand: Brand, logins: readonly WorldLogin[]): Account[] {
    return logins.flatMap((login) => {
      const accounts = accountsOf(login, brand, this.now, this.request.port)
      for (const { id } of accounts) this.#logins.set(id, login)
      this.rows.accounts.push(...accounts)
      return accounts
    })
  }

  /** Lets the permission of an account run out, so many days ago. */
  expires(account: Account, daysAgo: number): void {
    account.health = {
      state: 'expired',
      since: new Date(this.request.now - daysAgo * DAY).toISOString(),
      message: `${network(account.network).name}: The token has expired.`,
      endsAt: null,
    }
  }

  /** Lets a network have refused the last note of an account, yesterday, for a reason in its words and for a field of the post. */
  refuses(account: Account, field: string, reason: string): void {
    const last = this.#posts.findLastIndex((p) => p.account === account.id && (p.at ?? '') < this.now)
    const post = this.#posts[last]
    if (!post) return
    const at = new Date(this.request.now - 26 * HOUR).toISOString()
    const failed = refused({ ...post, at, wished: at }, { field, reason, origin: this.origin })
    this.#posts.splice(last, 1)
    this.#refused.push(failed.post)
    this.rows.receipts.push(failed.receipt)
  }

  /** A pipeline that is on, with what its sieve says of the pieces that are there. */
  pipeline(brand: Brand, of: PipelineGiven): Pipeline {
    const now = this.now
    const pipeline = pipelineOf(brand, of, now)
    this.rows.pipelines.push(pipeline)
    const pieces = this.taken.map((t) => t.piece)
    const { wordLists: lists, sources } = this.rows
    const context = sieveContext({ now, zone: brand.zone, lists, sources, pieces })
    for (const piece of pieces.filter((p) => of.sources.includes(p.source) && p.double === null)) {
      const { passed, reason } = judge(piece, of.sieve, context)
      piece.verdicts = [{ pipeline: pipeline.id, version: 1, passed, reason }]
    }
    return pipeline
  }

  /** A drip of before: from so many days ago on, so many beats evenly apart until two days ago. */
  past(
    brand: Brand,
    slug: string,
    of: { day: number; posts: number; accounts: Account[]; pipeline?: Pipeline },
  ): void {
    const { posts, ...rest } = of
    const list = Array.from({ length: posts }, (_, i) => Math.floor((i * (-2 - of.day)) / posts))
    this.drip(brand, slug, { ...rest, rhythm: { name: 'Past', list }, gate: 'nothing' })
  }

  /**
   * Short notes of a brand's own, one a line of a file, that went out on their accounts in the last half year, some with a picture;
   * they go on until a day from now where one is named.
   */
  notes(
    brand: Brand,
    file: string,
    accounts: readonly Account[],
    { pictures, until }: { pictures: Readonly<Record<string, string>>; until?: number },
  ): void {
    const random = seededRandom(brand.name.length)
    const notes = readNotes(file)
    const home = baseOf(this.site(brand.id), this.origin)
    const shown = Object.entries(pictures).map(([name, alt]) => ({
      url: `${home}/pictures/${name}.png`,
      alt,
    }))
    const { now } = this.request
    const words = accounts.filter((a) => network(a.network).media.pictures.least === 0 || shown.length > 0)
    for (const [i, account] of words.entries()) {
      // Places of one network say nothing twice: each has its share of the notes.
      const siblings = words.filter((a) => a.network === account.network)
      const share = notes.filter((_, line) => line % siblings.length === siblings.indexOf(account))
      const made = handPosts({
        now: new Date(now - (HALF_YEAR + 1) * DAY).toISOString(),
        newId: this.newId,
        brand,
        // Not on all accounts in the same order.
        rows: noteRows(share, account, {
          now,
          from: -HALF_YEAR,
          until: until ?? -QUIET,
          turn: i * 13,
          pictures: shown,
          home,
          random,
        }),
        when: { kind: 'next openings' },
        recurrence: null,
        accounts: this.rows.accounts,
        brands: this.rows.brands,
        drips: this.rows.drips,
        pipelines: this.rows.pipelines,
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
    const piece = this.taken.find((t) => t.piece.itemId.endsWith(`/${slug}`))?.piece
    if (!piece) return
    const today = toWall(this.request.now, brand.zone).date
    const begun = new Date(this.request.now + Math.min(0, of.day) * DAY).toISOString()
    const result = makeDrip({
      now: begun,
      newId: this.newId,
      brand,
      piece,
      passages: this.passages.get(piece.id) ?? [],
      accounts: of.accounts,
      rhythm: of.rhythm,
      startDay: addDays(today, of.day),
      seed: 7,
      pipeline: of.pipeline ?? null,
      row: of.pipeline?.release[0] ?? null,
      gate: of.gate,
      allAccounts: this.rows.accounts,
      allBrands: this.rows.brands,
      standing: this.#posts,
    })
    this.rows.drips.push(result.drip)
    this.#posts.push(...result.posts)
    piece.dealt = { by: of.pipeline?.name ?? 'you', at: begun }
    if (of.pipeline) piece.seenBy = [of.pipeline.id]
  }

  /** The days of a brand's year, and captions for the first that comes soon. */
  async occasions(brand: Brand, accounts: readonly Account[]): Promise<void> {
    const today = toWall(this.request.now, brand.zone).date
    const occasions = calendarOf(brand, today, this.now, this.newId)
    this.rows.occasions.push(...occasions)
    const pieces = this.taken.map((t) => t.piece).filter((p) => p.brand === brand.id)
    const { posts, moved } = await writeFirst(occasions, {
      now: this.now,
      today,
      brand,
      accounts,
      allAccounts: this.rows.accounts,
      allBrands: this.rows.brands,
      pieces,
      passages: pieces.flatMap((p) => this.passages.get(p.id) ?? []),
      standing: this.#posts,
      newId: this.newId,
    })
    const places = new Map(moved.map((p) => [p.id, p]))
    this.#posts.splice(0, Infinity, ...this.#posts.map((p) => places.get(p.id) ?? p), ...posts)
  }

  /** The workspace, with what had gone out by now, and the same as the stand-in networks keep it. */
  finished(): { bundle: Uint8Array; out: WorldPost[] } {
    const { seed, bornAt, now } = this.request
    const rows = this.rows
    rows.workspace.push(freshWorkspace(seed, seed, this.now))
    for (const t of this.taken) {
      const { piece, text } = partPiece(t.piece)
      rows.pieces.push(piece)
      rows.texts.push(text)
      rows.sketches.push(t.sketch)
      rows.passages.push(...(this.passages.get(piece.id) ?? []))
    }
    const isPast = (p: Post): boolean => (p.at ?? p.wished) < this.now
    const history = historyOf(this.#posts.filter(isPast), rows.accounts, this.#logins, {
      seed,
      bornAt,
      now,
      days: HALF_YEAR,
      origin: this.origin,
    })
    rows.posts.push(...history.posts, ...this.#refused, ...this.#posts.filter((p) => !isPast(p)))
    rows.readings.push(...history.readings)
    rows.followings.push(...history.followings)
    const bundle = writeBundle({ workspace: seed, madeAt: this.now, rows, media: new Map() })
    return { bundle, out: history.world }
  }
}
