import { Resvg } from '@resvg/resvg-js'
import { beforeEach, describe, expect, it } from 'vitest'
import { emptyDatabase } from '../testing/browser'
import { withServers } from '../testing/servers'
import { aBrand, aPost, aWorkspace } from '../../../core/model/samples'
import {
  ownPicture,
  type Account,
  type Card,
  type LinkedAccount,
  type Post,
  type PostMedia,
} from '../../../core/model'
import { adoptAccount, chooseTargets, linkPlainly } from '../actions/accounts'
import { keepPicture } from '../actions/keepPicture'
import { asStory } from '../actions/postPictures'
import { sayItIsOut, standingOf, takeDown } from '../actions/posts'
import { clockNow, readClock } from '../clock'
import { connectShortener } from '../services'
import { all, commit, must, patch, put } from '../store'
import { jump } from '.'
import { tick } from './tick'

/* From an approved post to the public page, by every way an account can be reached. */

const HOUR = 3_600_000
const servers = withServers()
beforeEach(async () => {
  await emptyDatabase()
  await readClock()
  await commit('machine', [put('workspace', aWorkspace()), put('brands', aBrand())])
})

/** Links a login on the network's own page, as a person would, and takes it into the brand. */
async function link(network: string, login: string): Promise<Account> {
  const start = await servers().call('GET', `/api/link/${network}/start?brand=brand`)
  const page = new URL(start.headers.get('location') ?? '')
  const form = new URLSearchParams({ account: login, allow: 'yes' })
  for (const name of ['redirect_uri', 'state', 'code_challenge'])
    form.set(name, page.searchParams.get(name) ?? '')
  const allowed = await fetch(`${servers().worldUrl}${page.pathname}`, {
    method: 'POST',
    body: form,
    redirect: 'manual',
  })
  const back = await fetch(allowed.headers.get('location') ?? '', { redirect: 'manual' })
  const id = new URL(back.headers.get('location') ?? '', 'http://x').searchParams.get('linked')
  const account = await adoptAccount('brand', id ?? '')
  if (!account) throw new Error('It was not linked.')
  return account
}

let serial = 0
async function approvedPost(
  account: Account,
  hours: number,
  change: Partial<Post['wording']> = {},
): Promise<Post> {
  const base = aPost()
  const post = {
    ...base,
    id: `n${++serial}`,
    drip: null,
    account: account.id,
    network: account.network,
    at: new Date(clockNow() + hours * HOUR).toISOString(),
    wording: { ...base.wording, text: `Words number ${serial} about oak.`, format: '', ...change },
  }
  await commit('machine', [
    put('posts', post),
    patch('accounts', account.id, (a) => ({ ...a, gapMinutes: 0 })),
  ])
  return post
}
const page = async (path: string): Promise<string> => (await fetch(`${servers().worldUrl}${path}`)).text()
const state = async (id: string): Promise<Post['state']> => (await must('posts', id)).state

describe('accounts', () => {
  it('with places wait until some are chosen, and post to each', async () => {
    const login = await link('hearthside', 'hearthside-one')
    expect(login.held).toMatchObject({ reason: 'Choose where its posts go.' })
    const [one, two] = await chooseTargets(login, ['page', 'group'])
    const named = new Map([one, two].map((a) => [a?.target?.id, a]))
    expect((await all('accounts')).map((a) => [a.handle, a.held])).toEqual(
      expect.arrayContaining([
        ['hearthside.one · The page', null],
        ['hearthside.one · The group', null],
      ]),
    )
    const onPage = await approvedPost(named.get('page')!, 1)
    const inGroup = await approvedPost(named.get('group')!, 1)
    await jump(2 * HOUR)
    const at = '/networks/hearthside/@hearthside.one'
    expect(await must('posts', onPage.id)).toMatchObject({ state: 'published', visibility: 'visible' })
    expect(await page(at)).toMatch(new RegExp(`The page.*${onPage.wording.text}`, 's'))
    expect(await standingOf(onPage.id)).toEqual({
      there: true,
      same: true,
      message: 'It is there, word for word.',
    })
    // A group has a moderator: delivered is not yet visible.
    expect(await must('posts', inGroup.id)).toMatchObject({
      state: 'published',
      visibility: 'waiting for a moderator',
    })
    expect(await page(at)).not.toContain(inGroup.wording.text)
    await jump(3 * HOUR)
    expect(await page(at)).toContain(inGroup.wording.text)
  })

  it('have what readers did with their posts read at every age, also over a jump of weeks', async () => {
    const account = await link('murmur', 'murmur-one')
    const post = await approvedPost(account, 1)
    const foreign = await approvedPost(account, 2)
    await jump(40 * 24 * HOUR)
    const readings = (await all('readings', 'post', post.id)).sort((a, b) => (a.takenAt < b.takenAt ? -1 : 1))
    expect(readings.map((r) => r.age)).toEqual(['1 h', '6 h', '1 d', '3 d', '7 d', '30 d'])
    const seen = readings.map((r) => r.measures?.impressions ?? -1)
    expect(seen).toEqual([...seen].sort((a, b) => a - b))
    expect(seen.at(-1)).toBeGreaterThan(0)
    expect(readings.every((r) => r.brand === post.brand && r.reason === '')).toBe(true)
    expect(await all('readings', 'post', foreign.id)).toHaveLength(6)
    // What was collected does not come again, also where the server never heard that it was.
    expect((await all('workspace'))[0]?.readingCursor).toBeGreaterThanOrEqual(12)
    await tick()
    expect(await all('readings')).toHaveLength(12)
    // And how many follow the account, on each of those days.
    const followings = (await all('followings')).sort((a, b) => (a.day < b.day ? -1 : 1))
    const days = followings.map((f) => f.day)
    expect(days.length).toBeGreaterThanOrEqual(39)
    expect(days).toEqual([...new Set(days)])
    const span = Date.parse(days.at(-1) ?? '') - Date.parse(days[0] ?? '')
    expect(span / (24 * HOUR)).toBe(days.length - 1)
    expect(followings.every((f) => f.account === account.id && f.brand === 'brand' && f.followers > 0)).toBe(
      true,
    )
  })

  it('have the clicks on each post’s own short link counted apart', async () => {
    const account = await link('murmur', 'murmur-one')
    await connectShortener({ address: `${servers().worldUrl}/links` }, 'workshop-key')
    const brand = aBrand()
    await commit('machine', [
      put('brands', { ...brand, houseStyle: { ...brand.houseStyle, shortLinks: true } }),
    ])
    const url = 'https://oakum-yard.example/journal/caulking-a-seam-in-the-old-way'
    const linked = []
    // Enough of them that somebody clicks, at whatever hour the test runs.
    for (let i = 0; i < 24; i++) linked.push(await approvedPost(account, 1 + 2 * i))
    for (const { id, wording } of linked)
      await commit('machine', [
        patch('posts', id, (p) => ({
          ...p,
          link: url,
          wording: { ...wording, text: `${wording.text} ${url}` },
        })),
      ])
    await jump(9.5 * 24 * HOUR)
    const out = await Promise.all(linked.map((p) => must('posts', p.id)))
    expect(new Set(out.map((p) => p.shortLink)).size).toBe(24)
    expect(await page('/networks/murmur/@murmur.one')).toContain(out[0]?.shortLink)
    let clicks = 0
    for (const post of out) {
      const week = (await all('readings', 'post', post.id)).find((r) => r.age === '7 d')
      // Whoever clicks in the post follows its link; what the shortener counts is read a moment later.
      expect(week?.measures?.['link clicks']).toBe(week?.measures?.clicks)
      clicks += week?.measures?.clicks ?? 0
    }
    expect(clicks).toBeGreaterThan(0)
  })

  it('take the cards of a post as the pages of one document', async () => {
    const account = await link('guildhall', 'guildhall-one')
    const post = await approvedPost(account, 1, { format: 'post' })
    const card = (text: string): Card => ({ layout: 'words', head: '', text, items: [], speaker: '' })
    const media = ['A seam.', 'A strand.', 'A mallet.'].map((text): PostMedia => ({
      source: { from: 'card', card: card(text) },
      alt: text,
      shape: null,
      hash: null,
    }))
    await commit('machine', [patch('posts', post.id, (p) => ({ ...p, media }))])
    await jump(2 * HOUR)
    expect(await must('posts', post.id)).toMatchObject({ state: 'published', failure: null })
    const shown = await page('/networks/guildhall/@guildhall.one')
    const [, told = '', address = ''] =
      /<a href="((?:[^"]*)\/media\/[^"]+)" type="application\/pdf"/.exec(shown) ?? []
    expect([told !== '', address]).toEqual([true, ''])
    expect(shown).toContain('Page 1: A seam. Page 2: A strand. Page 3: A mallet.')
    const file = await fetch(`${servers().worldUrl}${told}`)
    expect(file.headers.get('content-type')).toBe('application/pdf')
    expect(
      Buffer.from(await file.arrayBuffer())
        .subarray(0, 5)
        .toString(),
    ).toBe('%PDF-')
  })

  it('show a story for a day, tall and without its words', async () => {
    const account = await link('shutterleaf', 'shutterleaf-one')
    const post = await approvedPost(account, 1, { format: 'feed' })
    const drawn = '<svg xmlns="http://www.w3.org/2000/svg" width="90" height="160"/>'
    const tall = new Blob([new Uint8Array(new Resvg(drawn).render().asPng())], { type: 'image/png' })
    const { hash } = await keepPicture(tall)
    const source = { from: 'address' as const, url: ownPicture(hash) }
    const picture: PostMedia = { source, alt: 'A mast', shape: { width: 1, height: 1 }, hash: null }
    await commit('machine', [
      patch('posts', post.id, (p) => ({ ...p, piece: null, media: [picture, picture] })),
    ])
    await asStory(post.id, true)
    const { wording, media } = await must('posts', post.id)
    expect([wording.format, media.map((m) => m.shape)]).toEqual(['story', [{ width: 9, height: 16 }]])
    await jump(2 * HOUR)
    expect(await must('posts', post.id)).toMatchObject({ state: 'published', failure: null })
    const shown = await page('/networks/shutterleaf/@shutterleaf.one')
    expect([shown.includes('alt="A mast"'), shown.includes(post.wording.text)]).toEqual([true, false])
    expect(await standingOf(post.id)).toMatchObject({ there: true, same: true })
    await jump(24 * HOUR)
    expect(await page('/networks/shutterleaf/@shutterleaf.one')).not.toContain('A mast')
    await expect(
      asStory((await approvedPost(await link('murmur', 'murmur-one'), 1)).id, true),
    ).rejects.toThrow('Murmur has no stories.')
  })

  it('of a site that speaks Micropub get title, summary and tags', async () => {
    const site = await link('broadside', 'broadside-two')
    expect(site).toMatchObject({ connector: 'micropub', handle: 'broadside.two' })
    const post = await approvedPost(site, 1, {
      title: 'Oak and steam',
      summary: 'In short.',
      tags: ['oak', 'steam'],
      text: 'A letter about **oak**.',
    })
    await commit('machine', [patch('posts', post.id, (p) => ({ ...p, link: 'https://a.example/oak' }))])
    await jump(2 * HOUR)
    const out = await must('posts', post.id)
    expect(out).toMatchObject({ state: 'published', failure: null })
    expect(await standingOf(post.id)).toMatchObject({ there: true, same: true })
    const shown = await (await fetch(out.publicUrl ?? '')).text()
    for (const words of [
      'Oak and steam',
      'In short.',
      'oak · steam',
      'A letter about',
      'https://a.example/oak',
    ])
      expect(shown).toContain(words)
    await takeDown(post.id)
    await tick()
    expect(await must('posts', post.id)).toMatchObject({ state: 'set aside', visibility: 'gone' })
    expect((await fetch(out.publicUrl ?? '')).status).toBe(404)
    await expect(standingOf(post.id)).rejects.toThrow(/not published by this server/)
  })

  it('fed by a webhook are sent signed posts', async () => {
    const { account, secret } = await linkPlainly('brand', {
      connector: 'webhook',
      network: 'courier',
      name: 'The intranet',
      zone: 'UTC',
      address: `${servers().worldUrl}/webhook`,
    })
    await fetch(`${servers().worldUrl}/control/webhook`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ secret }),
    })
    const post = await approvedPost(account, 1)
    await jump(2 * HOUR)
    expect(await state(post.id)).toBe('published')
    expect(await page('/webhook')).toContain(post.wording.text)
    await expect(standingOf(post.id)).rejects.toThrow(/Look at its public page/)
    await expect(
      linkPlainly('brand', {
        connector: 'webhook',
        network: 'courier',
        name: 'x',
        zone: 'UTC',
        address: 'http://a.example/',
      }),
    ).rejects.toThrow(/https/)
  })

  it('served by hand bring their posts back at their time, until a person says that they are out', async () => {
    const { account, secret } = await linkPlainly('brand', {
      connector: 'hand',
      network: 'courier',
      name: 'The noticeboard',
      zone: 'UTC',
      address: '',
    })
    expect(secret).toBeNull()
    const post = await approvedPost(account, 2)
    await tick()
    expect(await state(post.id)).toBe('handed over')
    await jump(3 * HOUR)
    expect(await must('posts', post.id)).toMatchObject({
      state: 'approved',
      held: { reason: expect.stringContaining('publish it by hand') },
    })
    await tick()
    expect(await state(post.id)).toBe('approved')
    await sayItIsOut(post.id, 'https://board.example/7')
    expect(await must('posts', post.id)).toMatchObject({
      state: 'published',
      held: null,
      publicUrl: 'https://board.example/7',
    })
    expect(await servers().call('POST', '/api/spool/held', { posts: [post.id] })).toMatchObject({
      body: { held: [] },
    })
  })

  it('that broke hold their posts, send what is due when they are back, and place anew what would be late', async () => {
    const account = await link('guildhall', 'guildhall-two')
    await fetch(`${servers().worldUrl}/control/trouble`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ network: 'guildhall', kind: 'withdraw', account: 'guildhall-two' }),
    })
    const early = await approvedPost(account, 1)
    const late = await approvedPost(account, 6)
    const later = await approvedPost(account, 30)
    await jump(7 * HOUR)
    expect((await must('accounts', account.id)).health.state).toBe('withdrawn')
    for (const p of [early, late]) expect([p.id, await state(p.id)]).toEqual([p.id, 'handed over'])
    await link('guildhall', 'guildhall-two')
    await jump(HOUR / 2)
    expect(await state(late.id)).toBe('published')
    const anew = await must('posts', early.id)
    expect([anew.held, Date.parse(anew.at ?? '') > clockNow()]).toEqual([null, true])
    expect(await state(later.id)).toBe('handed over')
  })

  it('are asked once a day how they are, and their secrets never come to the browser', async () => {
    const account = await link('courier', 'courier-one')
    await fetch(`${servers().worldUrl}/control/trouble`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ network: 'courier', kind: 'expire', account: 'courier-one' }),
    })
    await tick()
    expect((await must('accounts', account.id)).health.state).toBe('linked')
    await jump(25 * HOUR)
    expect((await must('accounts', account.id)).health).toMatchObject({
      state: 'expired',
      message: 'Courier: The token has expired.',
    })
    const told = await servers().call<{ accounts: LinkedAccount[] }>('GET', '/api/accounts')
    expect(JSON.stringify(told.body)).not.toMatch(/secret|token"/)
  })
})
