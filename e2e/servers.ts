import { spawn, type ChildProcess } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { FastifyInstance } from 'fastify'
import { freePort } from './ports'
import { until } from './until'
import { NETWORKS } from '../core/networks'
import type { HandOver, Receipt } from '../core/model'
import { aPayload } from '../core/model/samples'
import { createServer } from '../server/server'
import { layFreshSpool } from '../server/testing/freshSpool'
import { createWorld, type Site, type WorldLogin } from '../world'

export { until }

/** An empty folder, and its removal. */
export function temporaryFolder(): { path: string; remove: () => void } {
  const path = mkdtempSync(join(tmpdir(), 'dripline-test-'))
  return { path, remove: () => rmSync(path, { recursive: true, force: true }) }
}

/** The places that the test logins have. */
const PLACES: Record<string, readonly string[]> = {
  hearthside: ['page', 'group'],
  rackwell: ['rack', 'rack-2'],
}

/** Two logins on each network. */
export const LOGINS: readonly WorldLogin[] = NETWORKS.flatMap(({ id: network }) =>
  ['one', 'two'].map((n) => ({
    id: `${network}-${n}`,
    network,
    handle: `${network}.${n}`,
    name: `Account ${n}`,
    about: 'A login for tests.',
    zone: 'UTC',
    targets: (PLACES[network] ?? []).map((id) => ({ id, name: `The ${id}`, kind: id.replace(/-\d/, '') })),
  })),
)

/** Those that are linked when the servers open. */
const LINKED = LOGINS.filter((a) => ['murmur', 'guildhall', 'shutterleaf'].includes(a.network))

/** The stand-in world on a port of its own, reading the clock of a server that may come later. */
export async function startWorld(parts: {
  port: number
  serverPort: number
  folder: string
  sites?: Site[]
  seed?: (seed: string) => Promise<Uint8Array>
}): Promise<FastifyInstance> {
  const world = await createWorld({
    port: parts.port,
    serverUrl: `http://localhost:${parts.serverPort}`,
    dataDir: join(parts.folder, 'world'),
    sites: parts.sites ?? [],
    accounts: LOGINS,
    seed: async (seed) => ({ bundle: (await parts.seed?.(seed)) ?? new Uint8Array(), out: [] }),
  })
  await world.listen({ port: parts.port, host: '127.0.0.1' })
  return world
}

/** Calls a server as the application does: from its origin, for one workspace. */
export function caller(port: number, workspace = 'ws') {
  const origin = `http://localhost:${port}`
  return async <T = Record<string, unknown>>(
    method: string,
    path: string,
    body?: unknown,
    headers: Record<string, string> = {},
  ): Promise<{ status: number; body: T; headers: Headers }> => {
    const response = await fetch(`${origin}${path}`, {
      method,
      redirect: 'manual',
      headers: {
        origin,
        'x-dripline-workspace': workspace,
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        ...headers,
      },
      ...(body === undefined
        ? {}
        : { body: body instanceof Uint8Array ? new Uint8Array(body) : JSON.stringify(body) }),
    })
    const text = await response.text()
    return {
      status: response.status,
      headers: response.headers,
      body: (/^[[{]/.test(text) ? JSON.parse(text) : text) as T,
    }
  }
}

/** Server and world in this process, the workspace claimed and the accounts linked. */
export async function openServers({ patience, ...options }: { sites?: Site[]; patience?: object } = {}) {
  const folder = temporaryFolder()
  const [port, worldPort] = [await freePort(), await freePort()]
  const world = await startWorld({ port: worldPort, serverPort: port, folder: folder.path, ...options })
  await layFreshSpool(join(folder.path, 'data'))
  const server = await createServer({
    port,
    host: '127.0.0.1',
    dataDir: join(folder.path, 'data'),
    worldUrl: `http://localhost:${worldPort}`,
    countsUrl: `http://localhost:${worldPort}/counts`,
    ...(patience ? { patience } : {}),
  })
  await server.app.listen({ port, host: '127.0.0.1' })
  await server.ready
  const call = caller(port)
  await call('POST', '/api/workspace/claim', { id: 'ws' })
  await call('POST', '/api/demo/link', {
    accounts: LINKED.map((a) => ({ id: a.id, network: a.network, remoteId: a.id })),
  })
  return {
    port,
    worldUrl: `http://localhost:${worldPort}`,
    call,
    folder: folder.path,
    close: async () => {
      await server.close()
      await world.close()
      folder.remove()
    },
  }
}

/** The server as a process of its own, which can be killed. */
export async function spawnServer(parts: {
  port: number
  worldPort: number
  dataDir: string
  databaseUrl?: string | undefined
}): Promise<ChildProcess> {
  const child = spawn(process.execPath, ['--import', 'tsx', 'server/main.ts'], {
    cwd: join(import.meta.dirname, '..'),
    stdio: ['ignore', 'ignore', 'inherit'],
    env: {
      ...process.env,
      PORT: String(parts.port),
      WORLD_URL: `http://localhost:${parts.worldPort}`,
      DATA_DIR: parts.dataDir,
      ...(parts.databaseUrl ? { DATABASE_URL: parts.databaseUrl } : {}),
      APP_DIR: join(parts.dataDir, 'none'),
    },
  })
  await until(async () => {
    const answer = await fetch(`http://localhost:${parts.port}/api/health`).catch(() => null)
    return ((await answer?.json()) as { ready?: boolean } | undefined)?.ready === true
  }, 60_000)
  return child
}

/** A post as it is handed over, due at a moment. */
export function handOver(id: string, dueAt: string, change: Partial<HandOver> = {}): HandOver {
  return {
    id,
    generation: 1,
    revision: 1,
    account: 'murmur-one',
    dueAt,
    gapMinutes: 0,
    payload: aPayload({ text: `The words of ${id}.` }),
    shortLink: null,
    ...change,
  }
}

export type Page = { cursor: number; receipts: Receipt[] }
