import { appendFileSync, existsSync, readFileSync, writeFileSync } from 'node:fs'
import { z } from 'zod'
import { bareWords } from '../core/text'

/** A post as any of the interfaces takes it; fields that a network does not have are empty. */
export const Draft = z.object({
  format: z.string().default(''),
  target: z.string().nullable().default(null),
  title: z.string().nullable().default(null),
  summary: z.string().nullable().default(null),
  tags: z.array(z.string()).default([]),
  text: z.string(),
  parts: z.array(z.string()).default([]),
  poll: z.array(z.string()).default([]),
  firstComment: z.string().nullable().default(null),
  link: z.string().nullable().default(null),
  media: z.array(z.object({ id: z.string(), alt: z.string().default('') })).default([]),
})
export type Draft = z.infer<typeof Draft>

/** A post as a stand-in network keeps it. */
const WorldPost = Draft.extend({
  id: z.string(),
  network: z.string(),
  account: z.string(),
  key: z.string(),
  at: z.number(),
  /** Before that a moderator has it. */
  visibleFrom: z.number().default(0),
  gone: z.boolean(),
})
export type WorldPost = z.infer<typeof WorldPost>

/** Records in a file of JSON lines that only grows: of those with one id the last counts. */
export class Journal<T extends { id: string }> {
  readonly #path: string
  readonly #records = new Map<string, T>()

  constructor(path: string, schema: z.ZodType<T>) {
    this.#path = path
    for (const line of existsSync(path) ? readFileSync(path, 'utf8').split('\n') : [])
      if (line) {
        const record = schema.parse(JSON.parse(line))
        this.#records.set(record.id, record)
      }
  }

  all(): IterableIterator<T> {
    return this.#records.values()
  }

  find(id: string): T | undefined {
    return this.#records.get(id)
  }

  write(record: T): void {
    appendFileSync(this.#path, `${JSON.stringify(record)}\n`)
    this.#records.set(record.id, record)
  }

  clear(): void {
    writeFileSync(this.#path, '')
    this.#records.clear()
  }
}

/** What was posted on the stand-in networks, also what is gone; found without looking through all of it. */
export class Posts {
  readonly #journal: Journal<WorldPost>
  readonly #byKey = new Map<string, WorldPost>()
  readonly #byAccount = new Map<string, WorldPost[]>()
  readonly #byWords = new Map<string, WorldPost[]>()

  constructor(path: string) {
    this.#journal = new Journal(path, WorldPost)
    for (const post of this.#journal.all()) this.#index(post)
  }

  find(id: string): WorldPost | undefined {
    return this.#journal.find(id)
  }

  under(account: string, key: string): WorldPost | undefined {
    return this.#byKey.get(`${account} ${key}`)
  }

  /** An account's posts, the oldest first. */
  of(account: string): readonly WorldPost[] {
    return this.#byAccount.get(account) ?? []
  }

  /** Posts of a network with these bare words; one that was changed is found under its first words, too. */
  saying(network: string, words: string): readonly WorldPost[] {
    return this.#byWords.get(`${network} ${words}`) ?? []
  }

  add(post: WorldPost): void {
    this.#journal.write(post)
    this.#index(post)
  }

  change(post: WorldPost, change: Partial<WorldPost>): void {
    this.#journal.write(Object.assign(post, change))
    if (change.text !== undefined) this.#indexWords(post)
  }

  clear(): void {
    this.#journal.clear()
    for (const index of [this.#byKey, this.#byAccount, this.#byWords]) index.clear()
  }

  #index(post: WorldPost): void {
    this.#byKey.set(`${post.account} ${post.key}`, post)
    const known = this.#byAccount.get(post.account)
    if (known) known.push(post)
    else this.#byAccount.set(post.account, [post])
    this.#indexWords(post)
  }

  #indexWords(post: WorldPost): void {
    const at = `${post.network} ${bareWords(post.text)}`
    const known = this.#byWords.get(at)
    if (known) known.push(post)
    else this.#byWords.set(at, [post])
  }
}
