import { Fault, type Capabilities, type ConnectorId, type Linkable } from '../../core/model'
import { NETWORKS } from '../../core/networks'
import type { Connector } from './connector'
import { handConnector } from './hand'
import { micropubConnector } from './micropub'
import { standInConnector } from './standIn'
import { webhookConnector } from './webhook'

/** The connectors that this server has, and what can be linked by them. */
export interface Registry {
  of(id: ConnectorId): Connector
  capabilities(id: ConnectorId): Capabilities
  /** Networks with a page of their own on which an account is allowed. Micropub, webhook and by hand are there for all. */
  linkable: readonly Linkable[]
}

/** Makes the connectors. The stand-in's is there in the demo only; `world` is where its networks answer. */
export function makeRegistry(parts: { now: () => number; origin: string; world: string | null }): Registry {
  const { now, origin, world } = parts
  const connectors: Connector[] = [
    micropubConnector({ now, origin, world }),
    webhookConnector(now),
    handConnector(),
    ...(world ? [standInConnector(world, now)] : []),
  ]
  const of = (id: ConnectorId): Connector => {
    const found = connectors.find((c) => c.id === id)
    if (!found)
      throw new Fault(
        'not-linked',
        'The account belongs to the demo, and this server runs without it. Link another, or remove it.',
        id,
      )
    return found
  }
  return {
    of,
    capabilities: (id) => connectors.find((c) => c.id === id)?.capabilities ?? NOTHING,
    linkable: world
      ? NETWORKS.flatMap(({ id, service }) =>
          service
            ? [
                {
                  network: id,
                  connector: service.connector,
                  site: service.connector === 'micropub' ? `${world}${service.path}/` : null,
                },
              ]
            : [],
        )
      : [],
  }
}

const NOTHING: Capabilities = {
  publishes: false,
  reads: false,
  takesDown: false,
  measures: false,
  tagFigures: false,
  targets: 'required',
}
