import type { FastifyReply } from 'fastify'
import type { WorldClock } from '../clock'
import type { Store, WorldAccount } from '../state'

/** What every network is made with. */
export interface NetworkParts {
  store: Store
  clock: WorldClock
  accounts: readonly WorldAccount[]
  origin: string
}

/** Sends a refusal as the networks send it: a code, the field where there is one, and the reason. */
export function refuse(
  reply: FastifyReply,
  status: number,
  error: string,
  reason: string,
  field?: string,
): FastifyReply {
  return reply.status(status).send(field ? { error, field, reason } : { error, reason })
}

export function html(reply: FastifyReply, body: string): FastifyReply {
  return reply.header('content-type', 'text/html; charset=utf-8').send(body)
}
