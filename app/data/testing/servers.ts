import { afterAll, beforeAll } from 'vitest'
import { openServers } from '../../../e2e/servers'
import { setWorkspace } from '../api'
import { connectTo } from './browser'

type Servers = Awaited<ReturnType<typeof openServers>>

/** A server and a world for all tests of a file, to which the data layer speaks as workspace "ws"; they can be asked for in tests. */
export function withServers(): () => Servers {
  let servers: Servers | undefined
  beforeAll(async () => {
    // The file before, in the same process, may have left every request failing (`setClock`).
    connectTo(null)
    servers = await openServers()
    connectTo(servers.port)
    setWorkspace('ws')
  })
  afterAll(() => servers?.close())
  return () => {
    if (!servers) throw new Error('The servers are there once the tests have begun.')
    return servers
  }
}
