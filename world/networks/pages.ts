import type { FastifyInstance } from 'fastify'
import type { ServedNetwork } from '../../core/networks'
import { escape, page } from '../html'
import { sendRanged } from '../ranges'
import type { WorldPost } from '../posts'
import type { WorldAccount } from '../state'
import { lookOf } from './looks'
import { html, type NetworkParts } from './parts'
import { isShown } from './publishing'

/** Where an account's public page stands. */
export function publicUrl(profile: ServedNetwork, account: WorldAccount, origin: string): string {
  return `${origin}${profile.service.path}/@${account.handle}`
}

/** The public pages: one an account, one a post, as readers see them. `links` are headers that every page carries. */
export function pageRoutes(
  app: FastifyInstance,
  profile: ServedNetwork,
  { store, clock, accounts, origin }: NetworkParts,
  links: Readonly<Record<string, string>> = {},
): void {
  const base = profile.service.path
  const look = lookOf(profile.id)
  const logins = (): WorldAccount[] => accounts.filter((a) => a.network === profile.id)

  app.get<{ Params: { id: string } }>(`${base}/media/:id`, async (request, reply) => {
    const media = store.media.find(request.params.id)
    return media
      ? sendRanged(request, reply, store.getMedia(media.id), media.type)
      : reply.status(404).send({ error: 'gone', reason: 'There is no such picture.' })
  })

  app.get<{ Params: { id: string } }>(`${base}/posts/:id/page`, async (request, reply) => {
    const now = await clock.now()
    const found = store.posts.find(request.params.id)
    const post = found && isShown(found, now) ? found : undefined
    const account = logins().find((a) => a.id === post?.account)
    if (!post || !account)
      return html(
        reply.status(404),
        page('Gone', `<header>${profile.name}</header><main><h1>This post is gone.</h1></main>`, look),
      )
    const home = publicUrl(profile, account, origin)
    return html(
      reply.headers(links),
      page(
        `${account.name} on ${profile.name}`,
        `<header><a href="${home}">${profile.name}</a></header><main>${show(post, account, profile, store)}</main>`,
        look,
      ),
    )
  })

  app.get<{ Params: { handle: string } }>(`${base}/@:handle`, async (request, reply) => {
    const now = await clock.now()
    const account = logins().find((a) => a.handle === request.params.handle)
    if (!account)
      return html(
        reply.status(404),
        page(
          'Nobody',
          `<header>${profile.name}</header><main><h1>Nobody has this name here.</h1></main>`,
          look,
        ),
      )
    const posts = store.posts
      .of(account.id)
      .filter((p) => isShown(p, now))
      .sort((a, b) => b.at - a.at)
    const shown = posts.map((p) => show(p, account, profile, store)).join('')
    return html(
      reply.headers(links),
      page(
        `${account.name} on ${profile.name}`,
        `<header>${profile.name}</header><main><h1>${escape(account.name)} <span class="small">@${escape(account.handle)}</span></h1><p>${escape(account.about)}</p><p class="small">${posts.length} ${posts.length === 1 ? 'post' : 'posts'}</p><div class="posts">${shown || '<p>Nothing has been posted yet.</p>'}</div></main>`,
        look,
      ),
    )
  })
}

function show(
  post: WorldPost,
  account: WorldAccount,
  profile: ServedNetwork,
  store: Pick<NetworkParts['store'], 'kindOf'>,
): string {
  const base = profile.service.path
  const target = account.targets.find((t) => t.id === post.target)
  const words = [post.text, ...post.parts].map((p) => `<p>${linked(p, profile)}</p>`).join('')
  const media = post.media
    .map(
      ({ id, alt }) =>
        ({
          clip: `<video controls playsinline src="${base}/media/${id}" aria-label="${escape(alt)}"></video>`,
          document: `<p><a href="${base}/media/${id}" type="application/pdf" title="${escape(alt)}">The document, to be leafed through</a></p>`,
          picture: `<img src="${base}/media/${id}" alt="${escape(alt)}">`,
        })[store.kindOf(id)],
    )
    .join('')
  const link =
    post.link && profile.link.place === 'field'
      ? `<p class="small">From <a href="${escape(post.link)}">${escape(post.link)}</a></p>`
      : ''
  return `<article id="${post.id}"><b>${escape(account.name)}</b> <span class="small">@${escape(account.handle)}${target ? ` in ${escape(target.name)}` : ''} · <time>${new Date(post.at).toISOString().slice(0, 16).replace('T', ' ')} UTC</time></span>
${media}${post.title ? `<h2>${escape(post.title)}</h2>` : ''}${post.summary ? `<p><i>${escape(post.summary)}</i></p>` : ''}${words}${post.poll.length ? `<ul>${post.poll.map((o) => `<li>${escape(o)}</li>`).join('')}</ul>` : ''}${post.tags.length ? `<p class="small">${post.tags.map(escape).join(' · ')}</p>` : ''}${link}${post.firstComment ? `<p class="small">First comment: ${linked(post.firstComment, profile)}</p>` : ''}</article>`
}

/** Links are live only where the profile says so. */
function linked(text: string, profile: ServedNetwork): string {
  const safe = escape(text)
  return !profile.link.live
    ? safe
    : safe.replace(/https?:\/\/[^\s<]+/g, (url) => `<a href="${url}">${url}</a>`)
}
