import type { Account, Age, Passage, Reading } from '../model'
import { eachOf, toColumns, type Columns } from './columns'
import { factOf, type Fact, type FactPost } from './facts'

/** What is read of a reading. */
export type KnownReading = Pick<Reading, 'post' | 'generation' | 'age' | 'measures'>

/**
 * What is known of a brand's published posts, brought up to date by what changed instead of being told anew: a workspace may have
 * 50,000 posts with 400,000 readings. Posts and readings may come in any order. Of the same, `factsOf` is the plain form.
 */
export class FactBase {
  readonly #facts = new Map<string, Fact>()
  /** By post and generation, what was read at each age. */
  readonly #readings = new Map<string, Fact['readings']>()
  /** The facts in their order; null where that has to be found anew. */
  #list: Fact[] | null = null

  /** Tells of published posts that are new or changed, and of those that are gone. */
  posts(changed: readonly FactPost[], gone: readonly string[], around: Around): void {
    const zones = new Map(around.accounts.map((a) => [a.id, a.zone]))
    const kinds = new Map(around.passages.map((p) => [p.id, p.kind]))
    for (const id of gone) this.#facts.delete(id)
    for (const post of changed) {
      const fact = factOf(
        post,
        zones.get(post.account) ?? 'UTC',
        kinds.get(post.passage ?? '') ?? null,
        this.#of(post.id, post.generation),
      )
      if (fact) this.#facts.set(post.id, fact)
      else this.#facts.delete(post.id)
    }
    this.#list = null
  }

  /** Tells of readings that are new; one of a post and age that is known takes its place. */
  read(readings: readonly KnownReading[]): void {
    for (const { post, generation, age, measures } of readings) this.#of(post, generation)[age] = measures
  }

  /** Forgets all readings, before they are told anew. */
  forgetReadings(): void {
    for (const known of this.#readings.values())
      for (const age of Object.keys(known) as Age[]) delete known[age]
  }

  /** All readings, to be kept. */
  columns(): Columns {
    return toColumns(this.#readings)
  }

  /** Takes the readings that were kept, in place of those that are known. */
  restore(columns: Columns): void {
    this.forgetReadings()
    eachOf(columns, (key, age, measures) => (this.#at(key)[age] = measures))
  }

  /** The posts, the oldest first. */
  facts(): readonly Fact[] {
    return (this.#list ??= [...this.#facts.values()].sort((a, b) => a.at - b.at))
  }

  /** What was read of a post's generation, shared with its fact. */
  #of(post: string, generation: number): Fact['readings'] {
    return this.#at(`${post}:${generation}`)
  }

  #at(key: string): Fact['readings'] {
    let known = this.#readings.get(key)
    if (!known) this.#readings.set(key, (known = {}))
    return known
  }
}

/** What is around posts: the zones of their accounts, and what their passages are. */
interface Around {
  accounts: readonly Pick<Account, 'id' | 'zone'>[]
  passages: readonly Pick<Passage, 'id' | 'kind'>[]
}
