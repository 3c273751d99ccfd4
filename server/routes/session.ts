import { createHash, timingSafeEqual } from 'node:crypto'
import { escapeUTF8 } from 'entities'
import type { FastifyReply, FastifyRequest } from 'fastify'
import { Fault } from '../../core/model'
import type { App, Context } from '../context'
import { SESSION } from '../store/sessions'

const COOKIE = /(?:^|;\s*)dripline-session=([\w-]{43})(?:;|$)/
/** What is there for others as well: whether the server is up, and what is published under secret addresses. */
const OPEN = /^\/(?:api\/health$|session$|calendar\/|links\/|published\/)/

/** So many wrong passwords may be given within a minute, by forms and programs together; then nobody's is looked at. */
const GUESSES = 10
const MINUTE = 60_000

/** Compares what is given with the password, a few wrong times a minute. Throws `too-many`. */
class Guard {
  readonly #hash: Buffer
  #wrong: number[] = []

  constructor(password: string) {
    this.#hash = hashOf(password)
  }

  lets(given: string): boolean {
    const now = Date.now()
    this.#wrong = this.#wrong.filter((at) => now - at < MINUTE)
    if (this.#wrong.length >= GUESSES)
      throw new Fault('too-many', 'Too many wrong passwords. Wait a minute and try again.')
    // By hashes of one length, so that the time it takes tells nothing.
    const right = timingSafeEqual(hashOf(given), this.#hash)
    if (!right) this.#wrong.push(now)
    return right
  }
}

function hashOf(text: string): Buffer {
  return createHash('sha256').update(text).digest()
}

/**
 * Lets nobody in who did not give the password: pages answer with a form that asks for it, the interface with 401. A
 * session is a cookie that scripts cannot read; programs may send the password as HTTP Basic (RFC 7617), under any name.
 */
export function sessionRoutes(app: App, context: Context, password: string): void {
  const guard = new Guard(password)
  const secure = context.origin.startsWith('https:')
  const cookie = (token: string, seconds: number): string =>
    `dripline-session=${token}; Path=/; HttpOnly; SameSite=Lax; Max-Age=${seconds}${secure ? '; Secure' : ''}`

  app.addHook('onRequest', async (request, reply) => {
    const path = request.url.split('?')[0] ?? ''
    if (OPEN.test(path) || (await isIn(request, context, guard))) return
    if (path.startsWith('/api/'))
      throw new Fault('no-session', 'You are not signed in. Load this page again and give the password.')
    return page(reply.status(401), formOf('', request.url))
  })

  void app.register(async (scope) => {
    scope.addContentTypeParser(
      'application/x-www-form-urlencoded',
      { parseAs: 'string', bodyLimit: 10_000 },
      (_request, body, done) => done(null, new URLSearchParams(String(body))),
    )
    scope.get('/session', { schema: { hide: true } }, async (request, reply) =>
      page(reply, (await isIn(request, context, guard)) ? SIGNED_IN : formOf('', '/')),
    )
    scope.post('/session', { schema: { hide: true } }, async (request, reply) => {
      const { sessions } = context.parts()
      const form = request.body as URLSearchParams
      if (form.get('end')) {
        const token = tokenOf(request)
        if (token) await sessions.end(token)
        return reply.header('set-cookie', cookie('', 0)).redirect('/session', 303)
      }
      const to = form.get('to') ?? '/'
      if (!guard.lets(form.get('password') ?? ''))
        return page(reply.status(401), formOf('This is not the password.', to))
      const token = await sessions.begin(Date.now())
      // To a place here alone, whatever the form says.
      const here = /^\/(?![/\\])/.test(to) ? to : '/'
      return reply.header('set-cookie', cookie(token, SESSION / 1000)).redirect(here, 303)
    })
  })
}

async function isIn(request: FastifyRequest, context: Context, guard: Guard): Promise<boolean> {
  const basic = /^Basic ([\w+/=]+)$/.exec(request.headers.authorization ?? '')?.[1]
  if (basic !== undefined) {
    const given = Buffer.from(basic, 'base64').toString()
    return guard.lets(given.slice(given.indexOf(':') + 1))
  }
  const token = tokenOf(request)
  return token !== null && (await context.parts().sessions.has(token, Date.now()))
}

function tokenOf(request: FastifyRequest): string | null {
  return COOKIE.exec(request.headers.cookie ?? '')?.[1] ?? null
}

const SIGNED_IN = `<h1>You are signed in</h1><p><a href="/">To the Desk</a></p>
<form method="post" action="/session"><button name="end" value="yes">Sign out</button></form>`

function formOf(wrong: string, to: string): string {
  return `<h1>Dripline</h1><form method="post" action="/session"><label for="password">Password</label>
<input id="password" name="password" type="password" autocomplete="current-password" autofocus required${wrong ? ' aria-describedby="wrong" aria-invalid="true"' : ''}>
<p id="wrong" role="alert">${wrong}</p><input type="hidden" name="to" value="${escapeUTF8(to)}"><button>Sign in</button></form>`
}

function page(reply: FastifyReply, body: string): FastifyReply {
  return reply.headers({
    'content-type': 'text/html; charset=utf-8',
    'cache-control': 'no-store',
    // Where no referrer may be told, browsers send a form without the origin that it is checked by.
    'referrer-policy': 'same-origin',
  }).send(`<!doctype html><html lang="en"><meta charset="utf-8"><title>Sign in · Dripline</title>
<meta name="viewport" content="width=device-width"><style>${STYLE}</style><main>${body}</main></html>`)
}

const STYLE = `:root{color-scheme:light dark;--paper:light-dark(#f7f5ef,#161d1b);--raised:light-dark(#fffdf8,#1e2724);--ink:light-dark(#1e2925,#e9e6dc);--soft:light-dark(#5c6862,#a3afa8);--water:light-dark(#12666b,#5fb7bb);--clay:light-dark(#a84c24,#e79b70)}
body{font:16px/1.5 system-ui,sans-serif;background:var(--paper);color:var(--ink);margin:0;display:grid;place-items:center;min-height:100vh}
main{width:20rem}h1{font:500 1.7rem/1.2 Georgia,serif;margin:0 0 1rem}label,input{display:block;width:100%;box-sizing:border-box}
input{font:inherit;margin-top:.25rem;padding:.5rem .6rem;border:1px solid var(--soft);border-radius:3px;background:var(--raised);color:inherit}
button{font:inherit;padding:.45rem 1rem;border:0;border-radius:3px;background:var(--water);color:var(--paper);cursor:pointer}
p{min-height:1.5rem;margin:.4rem 0}[role=alert]{color:var(--clay)}a{color:var(--water)}:focus-visible{outline:2px solid var(--water);outline-offset:2px}`
