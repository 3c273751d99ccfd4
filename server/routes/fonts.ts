import decompress from 'woff2-encoder/decompress'
import { Fault } from '../../core/model'
import type { App } from '../context'
import { typed } from './typed'

const LARGEST = 5_000_000
/** The most bytes that a font may unpack to. */
const UNPACKED = 30_000_000

/** What unpacks fonts makes functions out of text, which the page's content security policy forbids in the browser. */
export function fontRoutes(app: App): void {
  typed(app).post(
    '/api/fonts/unpack',
    { bodyLimit: LARGEST, schema: { summary: 'A font packed as WOFF2, as TTF or OTF' } },
    async (request, reply) => {
      const bytes = request.body
      // WOFF2 says at byte 16 how long it is unpacked (W3C, WOFF File Format 2.0, section 4.1).
      if (!Buffer.isBuffer(bytes) || bytes.length < 48 || bytes.toString('latin1', 0, 4) !== 'wOF2')
        throw new Fault('bad-request', 'This is no WOFF2 font. Choose another file.')
      if (bytes.readUInt32BE(16) > UNPACKED)
        throw new Fault(
          'bad-request',
          `This font would unpack to more than ${UNPACKED / 1e6} MB. Choose another file.`,
        )
      const plain = await decompress(bytes).catch(() => null)
      if (!plain)
        throw new Fault(
          'bad-request',
          'This WOFF2 font cannot be unpacked: it may be cut off. Choose another file.',
        )
      return reply.header('content-type', 'font/sfnt').send(Buffer.from(plain))
    },
  )
}
