import { mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { z } from 'zod'
import { Target } from '../core/model'
import { Journal, Posts } from './posts'

/** A login on a stand-in network. */
export const WorldAccount = z.object({
  id: z.string(),
  network: z.string(),
  handle: z.string(),
  name: z.string(),
  about: z.string(),
  zone: z.string(),
  /** Its places: pages, groups, racks. */
  targets: z.array(Target).default([]),
})
export type WorldAccount = z.infer<typeof WorldAccount>
/** A login as it is written down: one without places names none. */
export type WorldLogin = z.input<typeof WorldAccount>

const Token = z.object({
  token: z.string(),
  account: z.string(),
  expiresAt: z.number(),
  withdrawn: z.boolean(),
})

/** What can befall a publication: a network that is down stays so until it is told to be up. */
export const TROUBLES = ['fail', 'slow', 'drop', 'limit', 'down'] as const

/** Trouble that is switched on for a network or for one account of it: how many of the next publications it befalls. */
const Trouble = z.object({
  network: z.string(),
  account: z.string().nullable().default(null),
  kind: z.enum(TROUBLES),
  left: z.number(),
})
export type Trouble = z.infer<typeof Trouble>

/** What the stand-in writer can be made to do wrong. */
export const VICES = [
  'too long',
  'invented number',
  'markup fence',
  'refusal',
  'slow',
  'too many requests',
  'nonsense',
] as const
export type Vice = (typeof VICES)[number]

/** An address that the stand-in shortener made short under a key, and how often somebody came by it who is of no audience. */
const Link = z.object({ code: z.string(), url: z.string(), key: z.string().default(''), clicks: z.number() })
export type Link = z.infer<typeof Link>

/** A picture, clip or document that was uploaded to a network. */
const WorldMedia = z.object({
  id: z.string(),
  network: z.string(),
  type: z.string(),
  width: z.number(),
  height: z.number(),
  bytes: z.number(),
  /** How long a clip plays, and how many pages a document has. */
  seconds: z.number().default(0),
  pages: z.number().default(0),
})
export type WorldMedia = z.infer<typeof WorldMedia>

export type MediaKind = 'picture' | 'clip' | 'document'

/** What a file is, by its media type. */
export function kindOf(type: string): MediaKind {
  if (type.startsWith('video/')) return 'clip'
  return type === 'application/pdf' ? 'document' : 'picture'
}

const State = z.object({
  seed: z.string(),
  bornAt: z.number(),
  codes: z.array(z.object({ code: z.string(), account: z.string(), challenge: z.string().default('') })),
  tokens: z.array(Token),
  troubles: z.array(Trouble),
  /** How many of the writer's next answers each vice befalls, and how many it has given. */
  vices: z.array(z.object({ vice: z.enum(VICES), left: z.number() })).default([]),
  answers: z.number().default(0),
  links: z.array(Link).default([]),
  /** What was said in the team chat, the newest last, and how many of the next messages it refuses. */
  said: z.array(z.object({ at: z.number(), text: z.string() })).default([]),
  chatRefuses: z.number().default(0),
  /** What the webhook's receiver has, by key, and the secret that it checks signatures with. */
  received: z
    .array(z.object({ key: z.string(), at: z.number(), text: z.string(), pictures: z.number() }))
    .default([]),
  webhookSecret: z.string().default(''),
  /** Pages of sites that were taken away, as host and slug. */
  away: z.array(z.string()).default([]),
})
export type State = z.infer<typeof State>

/** Keeps the world's state in one folder, so that it outlives a restart: posts and media as they come, the rest as a whole. */
export class Store {
  readonly #folder: string
  readonly posts: Posts
  readonly media: Journal<WorldMedia>
  #state: State

  constructor(folder: string, fresh: () => State) {
    this.#folder = folder
    mkdirSync(join(folder, 'media'), { recursive: true })
    this.posts = new Posts(join(folder, 'posts.jsonl'))
    this.media = new Journal(join(folder, 'media.jsonl'), WorldMedia)
    this.#state = this.#read() ?? fresh()
    this.save()
  }

  get state(): State {
    return this.#state
  }

  /** Begins anew with a state; nothing was posted. */
  replace(state: State): void {
    this.#state = state
    this.posts.clear()
    this.media.clear()
    this.save()
  }

  save(): void {
    const path = join(this.#folder, 'world.json')
    writeFileSync(`${path}.new`, JSON.stringify(this.#state))
    renameSync(`${path}.new`, path)
  }

  /** Whether an account's network is down, for all or for this account. */
  isDown(network: string, account: string): boolean {
    return this.#state.troubles.some(
      (t) => t.network === network && (t.account ?? account) === account && t.kind === 'down',
    )
  }

  /** The trouble that befalls an account's next publication, or null. */
  takeTrouble(network: string, account: string): Trouble['kind'] | null {
    const found = this.#state.troubles.find(
      (t) => t.network === network && (t.account ?? account) === account && (t.left > 0 || t.kind === 'down'),
    )
    if (!found) return null
    if (found.kind !== 'down') {
      found.left--
      this.save()
    }
    return found.kind
  }

  /** The vice that befalls the next answer, or null. */
  takeVice(): Vice | null {
    this.#state.answers++
    const next = this.#state.vices.find((v) => v.left > 0)
    if (next) next.left--
    this.save()
    return next?.vice ?? null
  }

  /** Lets a vice befall the next answers; 0 switches it off. */
  giveVice(vice: Vice, left: number): void {
    this.#state.vices = [...this.#state.vices.filter((v) => v.vice !== vice && v.left > 0), { vice, left }]
    this.save()
  }

  /** The short link of an address under a key, always the same one. */
  shorten(url: string, key: string): Link {
    const known = this.#state.links.find((l) => l.url === url && l.key === key)
    if (known) return known
    const link = { code: this.#state.links.length.toString(36).padStart(3, '0'), url, key, clicks: 0 }
    this.#state.links.push(link)
    this.save()
    return link
  }

  putMedia(media: WorldMedia, bytes: Uint8Array): void {
    writeFileSync(join(this.#folder, 'media', media.id), bytes)
    this.media.write(media)
  }

  /** What was uploaded under an id; a picture where nothing was. */
  kindOf(id: string): MediaKind {
    return kindOf(this.media.find(id)?.type ?? '')
  }

  getMedia(id: string): Buffer {
    return readFileSync(join(this.#folder, 'media', id))
  }

  #read(): State | null {
    try {
      return State.parse(JSON.parse(readFileSync(join(this.#folder, 'world.json'), 'utf8')))
    } catch {
      return null
    }
  }
}
