import { once } from 'node:events'
import { createServer, type Server } from 'node:net'

async function listening(port: number): Promise<Server | null> {
  const server = createServer().listen(port, '127.0.0.1')
  const up = await Promise.race([
    once(server, 'listening').then(() => true),
    once(server, 'error').then(() => false),
  ])
  return up ? server : null
}

function portOf(server: Server): number {
  const address = server.address()
  return address !== null && typeof address === 'object' ? address.port : 0
}

function closed(servers: readonly Server[]): Promise<unknown> {
  return Promise.all(servers.map((s) => new Promise((resolve) => s.close(resolve))))
}

/** A port nobody listens on now. */
export async function freePort(): Promise<number> {
  const server = await listening(0)
  if (!server) throw new Error('No port is free.')
  const port = portOf(server)
  await closed([server])
  return port
}

/**
 * Below the ports that systems give to outgoing connections (from 32768 on Linux, from 49152
 * elsewhere): what is free here stays free until its server starts, minutes later.
 */
const LOWEST = 20_000
const HIGHEST = 32_000

/** The first of two ports side by side, for a server and its world: nobody listens on either now. */
export async function freePairs(count: number): Promise<number[]> {
  const held: Server[] = []
  const firsts: number[] = []
  while (firsts.length < count) {
    const first = LOWEST + Math.floor((Math.random() * (HIGHEST - LOWEST)) / 2) * 2
    const one = await listening(first)
    const beside = await listening(first + 1)
    if (one) held.push(one)
    if (beside) held.push(beside)
    if (one && beside) firsts.push(first)
  }
  await closed(held)
  return firsts
}
