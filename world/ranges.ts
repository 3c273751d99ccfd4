import type { FastifyReply, FastifyRequest } from 'fastify'

/** Sends bytes, or the part of them that is asked for (RFC 9110, 14): one range; of several all are sent. */
export function sendRanged(
  request: FastifyRequest,
  reply: FastifyReply,
  bytes: Buffer,
  type: string,
): FastifyReply {
  void reply.header('content-type', type).header('accept-ranges', 'bytes')
  const [, first = '', last = ''] = /^bytes=(\d*)-(\d*)$/.exec(request.headers.range ?? '') ?? []
  if (first === '' && last === '') return reply.send(bytes)
  const from = first === '' ? Math.max(0, bytes.length - Number(last)) : Number(first)
  const to = first === '' || last === '' ? bytes.length - 1 : Math.min(Number(last), bytes.length - 1)
  if (from > to || from >= bytes.length)
    return reply.status(416).header('content-range', `bytes */${bytes.length}`).send()
  return reply
    .status(206)
    .header('content-range', `bytes ${from}-${to}/${bytes.length}`)
    .send(bytes.subarray(from, to + 1))
}
