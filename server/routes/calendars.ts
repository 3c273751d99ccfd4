import { randomBytes } from 'node:crypto'
import { z } from 'zod'
import { writeCalendar } from '../../core/formats'
import { CalendarEntry, Fault, Id } from '../../core/model'
import type { App, Context } from '../context'
import { typed } from './typed'
import { mustOwn } from './workspace'

/** So many posts a calendar shows at most; the app sends those around today. */
const MOST = 3000
const BODY = 8 * 1024 * 1024

/**
 * The addresses under which calendar programs subscribe to a brand's posts. Whoever has the secret in
 * the address may read; it is minted here, never leaves in a bundle, and a new one ends the old.
 */
export function calendarRoutes(app: App, context: Context): void {
  const calendars = () => context.parts().calendars
  const addressOf = (secret: string | null): string | null =>
    secret === null ? null : `${context.origin}/calendar/${secret}.ics`
  const Params = z.object({ brand: Id })
  const Address = z.object({ url: z.string().nullable() })

  typed(app).get(
    '/api/calendars/:brand',
    {
      schema: {
        summary: 'The address of a brand’s calendar, or null where it has none',
        params: Params,
        response: { 200: Address },
      },
    },
    async (request) => {
      await mustOwn(request, context)
      return { url: addressOf(await calendars().secretOf(request.params.brand)) }
    },
  )

  typed(app).post(
    '/api/calendars/:brand/secret',
    {
      schema: {
        summary: 'Give a brand’s calendar an address, or another one; the old one answers no more',
        params: Params,
        response: { 200: Address },
      },
    },
    async (request) => {
      await mustOwn(request, context)
      const secret = randomBytes(24).toString('base64url')
      await calendars().give(request.params.brand, secret)
      return { url: addressOf(secret) }
    },
  )

  typed(app).delete(
    '/api/calendars/:brand',
    {
      schema: {
        summary: 'End the address of a brand’s calendar',
        params: Params,
        response: { 200: Address },
      },
    },
    async (request) => {
      await mustOwn(request, context)
      await calendars().end(request.params.brand)
      return { url: null }
    },
  )

  typed(app).put(
    '/api/calendars/:brand',
    {
      bodyLimit: BODY,
      schema: {
        summary: 'Put what a brand’s calendar shows in the place of what it showed',
        params: Params,
        body: z.object({ name: z.string().min(1).max(80), entries: z.array(CalendarEntry).max(MOST) }),
        response: { 200: Address },
      },
    },
    async (request) => {
      await mustOwn(request, context)
      const { name, entries } = request.body
      return { url: addressOf(await calendars().show(request.params.brand, name, entries)) }
    },
  )

  typed(app).get(
    '/calendar/:file',
    {
      schema: {
        summary: 'A brand’s posts as a calendar (RFC 5545), all of them or one account’s',
        params: z.object({ file: z.string().max(80) }),
        querystring: z.object({ account: Id.optional() }),
      },
    },
    async (request, reply) => {
      const secret = request.params.file.replace(/\.ics$/, '')
      const calendar = await calendars().under(secret)
      if (!calendar)
        throw new Fault(
          'not-found',
          'There is no calendar at this address. It may have been given another one: copy it anew from the Horizon.',
        )
      const { account } = request.query
      const entries = calendar.entries.filter((e) => account === undefined || e.account === account)
      const now = new Date(context.clock.now()).toISOString()
      return reply
        .type('text/calendar; charset=utf-8')
        .header('cache-control', 'private, max-age=300')
        .send(writeCalendar(calendar.name, entries, now))
    },
  )
}
