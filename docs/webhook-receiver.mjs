// A receiver for Dripline's signed webhook: node docs/webhook-receiver.mjs SECRET [PORT]
import { createHmac, timingSafeEqual } from 'node:crypto'
import { createServer } from 'node:http'
import { text } from 'node:stream/consumers'

const [, , secret, port = '4700'] = process.argv
const posts = new Map()
createServer(async (request, response) => {
  const body = await text(request)
  const time = request.headers['dripline-time'] ?? ''
  const right = Buffer.from(`sha256=${createHmac('sha256', secret).update(`${time}.${body}`).digest('hex')}`)
  const given = Buffer.from(request.headers['dripline-signature'] ?? '')
  const fresh = Math.abs(Date.now() / 1000 - Number(time)) < 300
  const signed = given.length === right.length && timingSafeEqual(given, right)
  const answer = (status, words) =>
    response.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(words))
  if (!signed || !fresh) return answer(401, { reason: 'The signature is wrong or old.' })
  const { event, key, post, id } = JSON.parse(body)
  if (event === 'publish') posts.set(key, post)
  if (event === 'take down') posts.delete(id)
  answer(200, { id: key, url: null })
}).listen(Number(port), '127.0.0.1')
