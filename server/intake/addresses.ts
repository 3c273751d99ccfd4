import { lookup } from 'node:dns/promises'
import ipaddr from 'ipaddr.js'
import { Fault } from '../../core/model'

/** Where a request may go: the address to connect to, after name resolution. */
export interface Destination {
  url: URL
  address: string
  family: number
  port: number
}

/** What is allowed beyond the public internet: the stand-in world, in demo mode only. */
export interface World {
  host: string
  port: number
}

/**
 * Resolves an address and refuses what a feed has no business pointing at: other schemes,
 * credentials, and private, loopback, link-local and metadata ranges. Checked on the resolved
 * address, which is the one then connected to, so a name cannot change its mind in between.
 */
export async function destination(address: string, world: World | null): Promise<Destination> {
  const url = parseAddress(address)
  const port = Number(url.port || (url.protocol === 'https:' ? 443 : 80))
  if (world && isWorld(url, port, world)) return { url, address: '127.0.0.1', family: 4, port: world.port }
  const host = url.hostname.replace(/^\[|\]$/g, '')
  const found = ipaddr.isValid(host)
    ? [{ address: host, family: ipaddr.parse(host).kind() === 'ipv6' ? 6 : 4 }]
    : await resolve(host)
  for (const { address: ip } of found)
    if (!isPublic(ip))
      throw new Fault(
        'private-address',
        `${url.hostname} lies in a private network, where Dripline does not fetch. Give a public address.`,
        url.hostname,
      )
  const first = found[0]
  if (!first)
    throw new Fault('unreachable', `${url.hostname} has no address. Check the spelling.`, url.hostname)
  return { url, address: first.address, family: first.family, port }
}

function parseAddress(address: string): URL {
  let url: URL
  try {
    url = new URL(address)
  } catch {
    throw new Fault(
      'bad-request',
      `“${address.slice(0, 80)}” is not a web address. It should look like https://example.org/feed.`,
      'url',
    )
  }
  if (url.protocol !== 'http:' && url.protocol !== 'https:')
    throw new Fault(
      'bad-request',
      `Only http and https addresses are fetched, not ${url.protocol.replace(':', '')}.`,
      'url',
    )
  if (url.username || url.password)
    throw new Fault('bad-request', 'The address holds a user name or password. Take them out.', 'url')
  return url
}

function isWorld(url: URL, port: number, world: World): boolean {
  const name = url.hostname
  return (
    url.protocol === 'http:' && port === world.port && (name === world.host || name.endsWith('.localhost'))
  )
}

async function resolve(host: string): Promise<{ address: string; family: number }[]> {
  try {
    return await lookup(host, { all: true })
  } catch {
    throw new Fault(
      'unreachable',
      `There is no site at ${host}, or its name cannot be looked up now. Check the spelling, or try again later.`,
      host,
    )
  }
}

/** Whether an address belongs to the public internet. */
export function isPublic(ip: string): boolean {
  try {
    return ipaddr.process(ip).range() === 'unicast'
  } catch {
    return false
  }
}
