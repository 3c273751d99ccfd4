import { z } from 'zod'
import { linkPage, linksAt } from '../../core/formats'
import { Id, PageLink } from '../../core/model'
import type { App, Context } from '../context'
import { typed } from './typed'
import { mustOwn } from './workspace'

/** The pages of current links that brands publish through this server, for a link in a profile. */
export function pageRoutes(app: App, context: Context): void {
  typed(app).put(
    '/api/pages/:brand',
    {
      schema: {
        summary:
          'Publish a brand’s page of links; each stands there from its moment on, also while the app is closed',
        params: z.object({ brand: Id }),
        body: z.object({ name: z.string().min(1).max(80), links: z.array(PageLink).max(5000) }),
        response: { 200: z.object({ url: z.string() }) },
      },
    },
    async (request) => {
      await mustOwn(request, context)
      const { brand } = request.params
      const { name, links } = request.body
      await context.parts().linkPages.publish(brand, name, links)
      return { url: `${context.origin}/links/${encodeURIComponent(brand)}` }
    },
  )

  typed(app).delete(
    '/api/pages/:brand',
    {
      schema: {
        summary: 'Take a brand’s page of links away',
        params: z.object({ brand: Id }),
        response: { 200: z.object({ brand: Id }) },
      },
    },
    async (request) => {
      await mustOwn(request, context)
      const { brand } = request.params
      await context.parts().linkPages.end(brand)
      return { brand }
    },
  )

  typed(app).get(
    '/links/:brand',
    { schema: { summary: 'A brand’s page of current links', params: z.object({ brand: Id }) } },
    async (request, reply) => {
      const page = await context.parts().linkPages.of(request.params.brand)
      const now = new Date(context.clock.now()).toISOString()
      const links = page?.links ?? []
      return reply
        .status(page ? 200 : 404)
        .type('text/html; charset=utf-8')
        .send(linkPage(page?.name ?? 'Nobody has a page here', linksAt(links, now)))
    },
  )
}
