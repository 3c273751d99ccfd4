import type { FastifyInstance } from 'fastify'
import { SERVED } from '../../core/networks'
import { micropubLinks, micropubRoutes } from './micropub'
import { pageRoutes } from './pages'
import type { NetworkParts } from './parts'
import { permissionRoutes } from './permissions'
import { standInRoutes } from './standIn'

/** The stand-in networks: for each profile its interface, by the family that it names, and its public pages. */
export function networkRoutes(app: FastifyInstance, parts: NetworkParts): void {
  for (const profile of SERVED) {
    const permissions = permissionRoutes(app, profile, parts)
    if (profile.service.connector === 'micropub') {
      micropubRoutes(app, profile, parts, permissions)
      pageRoutes(app, profile, parts, micropubLinks(profile, parts.origin))
    } else {
      standInRoutes(app, profile, parts, permissions)
      pageRoutes(app, profile, parts)
    }
  }
}
