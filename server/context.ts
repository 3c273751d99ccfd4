import type { FastifyInstance } from 'fastify'
import type { Clock } from './clock'
import type { Doubts } from './dispatch/doubts'
import type { HealthWatch } from './dispatch/health'
import type { Measuring } from './dispatch/measuring'
import type { Spool } from './store/spool'
import type { Trials } from './dispatch/trials'
import type { Worker } from './dispatch/worker'
import type { World } from './intake/addresses'
import type { Watcher } from './intake/watch'
import type { Registry } from './networks/registry'
import type { Chat } from './services/chat'
import type { PictureMaker } from './services/maker'
import type { Shortener } from './services/shortener'
import type { Stock } from './services/stock'
import type { ConnectedWriter, Patience } from './services/writer'
import type { Accounts } from './store/accounts'
import type { Authorisations } from './store/authorisations'
import type { Database } from './store/database'
import type { Calendars } from './store/calendars'
import type { Documents } from './store/documents'
import type { LinkPages } from './store/linkPages'
import type { Media } from './store/media'
import type { Followings } from './store/followings'
import type { Readings } from './store/readings'
import type { Sessions } from './store/sessions'
import type { Settings } from './store/settings'

export interface ServerOptions {
  port: number
  host: string
  /** Folder of the spool and of everything that is kept. */
  dataDir: string
  databaseUrl?: string | undefined
  /** The key that secrets are sealed under, in base64; a file in the data folder where it is not given. */
  key?: string | undefined
  /** What who uses it has to give first; nothing where only this machine can reach it. */
  password?: string | undefined
  /** The built application, served as files. */
  appDir?: string | undefined
  /** Where the stand-in world answers; set in demo mode only. */
  worldUrl: string | null
  /** Where a share-count service answers (services/counts.ts), where there is one. */
  countsUrl?: string | undefined
  /** The address at which a proxy serves it, where one does. */
  publicUrl?: string | undefined
  /** Further origins the app may come from: the development server. */
  origins?: readonly string[]
  /** How patient the server is with a connected writer, where it is not as usual. */
  patience?: Partial<Patience>
}

/** What the routes share, there once the database is open. */
export interface Parts {
  database: Database
  accounts: Accounts
  authorisations: Authorisations
  media: Media
  sessions: Sessions
  settings: Settings
  calendars: Calendars
  documents: Documents
  linkPages: LinkPages
  spool: Spool
  readings: Readings
  followings: Followings
  doubts: Doubts
  worker: Worker
  trials: Trials
  health: HealthWatch
  measuring: Measuring
  watcher: Watcher
  services: { writer: ConnectedWriter; shortener: Shortener; stock: Stock; maker: PictureMaker; chat: Chat }
}

/** What the routes are given. `parts()` throws `not-ready` until the spool is up. */
export interface Context {
  options: ServerOptions
  clock: Clock
  registry: Registry
  /** What may be fetched beyond the public internet: the stand-in world, in the demo. */
  world: World | null
  parts: () => Parts
  isReady: () => boolean
  origin: string
}

export type App = FastifyInstance
