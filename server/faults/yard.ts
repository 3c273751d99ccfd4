import type { ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { existsSync, readFileSync } from 'node:fs'
import { caller, handOver, spawnServer, type Page } from '../../e2e/servers'
import { freePort } from '../../e2e/ports'
import type { Receipt } from '../../core/model'
import { layFreshSpool } from '../testing/freshSpool'
import type { CountingNetwork } from './network'

const NETWORKS = ['murmur', 'guildhall', 'courier', 'shutterleaf', 'longwave']

/** Servers against a counting network, with accounts linked: what the load and fault tests begin with. */
export class Yard {
  readonly network: CountingNetwork
  readonly accounts: readonly string[]
  readonly folder: string
  readonly url: string | undefined
  port = 0
  networkPort = 0
  servers: ChildProcess[] = []

  constructor(options: { folder: string; accounts: number; network: CountingNetwork; databaseUrl?: string }) {
    this.network = options.network
    this.folder = options.folder
    this.url = options.databaseUrl
    this.accounts = Array.from({ length: options.accounts }, (_, n) => `account-${n}`)
  }

  call<T = Record<string, unknown>>(method: string, path: string, body?: unknown) {
    return caller(this.port)<T>(method, path, body)
  }

  async open(): Promise<void> {
    this.port = await freePort()
    this.networkPort = await freePort()
    await this.network.listen(this.networkPort)
    if (this.url === undefined) await layFreshSpool(this.folder)
    await this.start()
    await this.call('POST', '/api/workspace/claim', { id: 'ws' })
    await this.link(this.accounts)
  }

  async link(accounts: readonly string[]): Promise<void> {
    const linked = await this.call('POST', '/api/demo/link', {
      accounts: accounts.map((id) => ({
        id,
        network: NETWORKS[this.accounts.indexOf(id) % NETWORKS.length],
        remoteId: id,
      })),
    })
    if (linked.status !== 200) throw new Error(`Not linked: ${JSON.stringify(linked.body)}`)
  }

  /** Starts a server: the first at the yard's port, others, which share its database, at ports of their own. */
  async start(): Promise<ChildProcess> {
    const port = this.servers.some((s) => s.exitCode === null && s.signalCode === null)
      ? await freePort()
      : this.port
    const server = await spawnServer({
      port,
      worldPort: this.networkPort,
      dataDir: this.folder,
      databaseUrl: this.url,
    })
    this.servers.push(server)
    return server
  }

  async kill(server: ChildProcess, signal: NodeJS.Signals = 'SIGKILL'): Promise<void> {
    if (server.exitCode !== null || server.signalCode !== null) return
    server.kill(signal)
    await once(server, 'exit')
  }

  async close(): Promise<void> {
    for (const server of this.servers) await this.kill(server)
    await this.network.close()
  }

  async now(): Promise<number> {
    return Date.parse((await this.call<{ now: string }>('GET', '/api/clock')).body.now)
  }

  /** Hands posts over, spread evenly over the accounts, each account's in their order over a span from a moment on. */
  async handOver(posts: number, from: number, span: number): Promise<void> {
    const batch = 100
    for (let at = 0; at < posts; at += batch) {
      const entries = Array.from({ length: Math.min(batch, posts - at) }, (_, i) => {
        const n = at + i
        const due = new Date(from + Math.floor((n * span) / posts)).toISOString()
        return handOver(`p${String(n).padStart(6, '0')}`, due, {
          account: this.accounts[n % this.accounts.length] as string,
        })
      })
      const { body } = await this.call<{ answers: { result: string }[] }>('POST', '/api/spool/posts', {
        posts: entries,
      })
      const refused = body.answers?.find((a) => a.result !== 'taken')
      if (!body.answers || refused) throw new Error(`Not taken: ${JSON.stringify(refused ?? body)}`)
    }
  }

  /** Moves the clock from event to event until every post has its receipt, and gives the receipts. */
  async receipts(posts: number, patience = 600_000): Promise<Receipt[]> {
    const found: Receipt[] = []
    const end = Date.now() + patience
    let after = 0
    while (found.length < posts && Date.now() < end) {
      const { body } = await this.call<Page>('GET', `/api/spool/receipts?after=${after}`)
      found.push(...body.receipts)
      after = body.cursor
      if (body.receipts.length > 0) continue
      const before = this.network.taken.length
      await new Promise((resolve) => setTimeout(resolve, 300))
      if (this.network.taken.length > before) continue
      await this.call('POST', '/api/clock/advance', {
        to: new Date((await this.now()) + 30_000).toISOString(),
      })
    }
    return found
  }

  /** The largest memory that the first server took, in MB; null where the system does not tell. */
  memory(): number | null {
    const path = `/proc/${this.servers[0]?.pid}/status`
    if (!existsSync(path)) return null
    const status = readFileSync(path, 'utf8')
    return Math.round(Number(/VmHWM:\s*(\d+)/.exec(status)?.[1]) / 1024)
  }

  /** How often a post of an account was taken after one that is due later. */
  inversions(): number {
    const last = new Map<string, string>()
    let inversions = 0
    for (const { account, key } of this.network.taken) {
      if (key < (last.get(account) ?? '')) inversions++
      else last.set(account, key)
    }
    return inversions
  }
}
