import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { connectTo, emptyDatabase } from '../testing/browser'
import { openServers } from '../../../e2e/servers'
import { oakumYard } from '../../../demo/content'
import {
  aBrand,
  aDrip,
  anAccount,
  aPiece,
  aPipeline,
  aPost,
  aRow,
  aText,
  aWorkspace,
} from '../../../core/model/samples'
import { ownPicture, type Post } from '../../../core/model'
import { RHYTHMS } from '../../../core/planning'
import { addSource, findFeeds } from '../actions/sources'
import { visitSource } from '../actions/visit'
import { hold, lift } from '../actions/holds'
import {
  approve,
  anotherWording,
  bringBack,
  decideLate,
  editText,
  setAside,
  takeDown,
  tryAgain,
} from '../actions/posts'
import { addPipeline, switchOn } from '../actions/pipelines'
import { addPassage, choosePassage, stretchPassage } from '../actions/passages'
import { startDrip } from '../actions/drips'
import { end } from '../actions/ending'
import { keepPicture } from '../actions/keepPicture'
import { difference } from '../actions/plan'
import { saveTimes, timesOf } from '../actions/accounts'
import { exportBundle, importBundle } from '../bundle'
import { setWorkspace } from '../api'
import { clockNow, nowIso, readClock } from '../clock'
import { all, commit, must, patch, put, wholePiece } from '../store'
import { undo } from '../undo'
import { jump } from '.'
import { doubt } from '../actions/life'
import { tick } from './tick'

const HOUR = 3_600_000
let servers: Awaited<ReturnType<typeof openServers>>
beforeAll(async () => {
  servers = await openServers({ sites: [oakumYard()] })
  connectTo(servers.port)
  setWorkspace('ws')
})
afterAll(() => servers.close())
beforeEach(async () => {
  await emptyDatabase()
  await readClock()
  await commit('machine', [
    put('workspace', aWorkspace()),
    put('brands', aBrand()),
    put('pieces', aPiece()),
    put('texts', aText()),
    put('drips', aDrip()),
    // Without a gap, so that what an earlier test left with the server delays nothing of a later one.
    ...['murmur', 'guildhall'].map((network) => {
      const id = `${network}-one`
      return put('accounts', anAccount({ id, network, remoteId: id, gapMinutes: 0 }))
    }),
  ])
})

let serial = 0
/** An approved post due some hours from now, with words and an id of its own. */
async function approvedPost(hours: number, change: Partial<Post> = {}): Promise<string> {
  const id = `p${++serial}`
  const text = `Number ${serial}: a seam wants ${serial} strands of cotton and no more.`
  const post = aPost({
    id,
    account: 'murmur-one',
    at: new Date(clockNow() + hours * HOUR).toISOString(),
    ...change,
  })
  await commit('machine', [put('posts', { ...post, wording: { ...post.wording, text } })])
  return id
}
const state = async (id: string): Promise<Post['state']> => (await must('posts', id)).state
const onPage = async (words: string): Promise<boolean> =>
  (await (await fetch(`${servers.worldUrl}/networks/murmur/@murmur.one`)).text()).includes(words)

describe('the runner', () => {
  it('hands over what is approved, and takes the receipt in when it is out', async () => {
    const id = await approvedPost(1)
    await tick()
    expect(await state(id)).toBe('handed over')
    await jump(2 * HOUR)
    const post = await must('posts', id)
    expect(post).toMatchObject({ state: 'published', visibility: 'visible' })
    expect(await onPage(post.wording.text)).toBe(true)
    expect(await all('receipts', 'post', id)).toMatchObject([{ outcome: 'published', brand: 'brand' }])
    expect(await servers.call('GET', '/api/spool/receipts')).toMatchObject({ body: { receipts: [] } })
  })

  it('sends a picture out of a file with its post, and holds the post where the picture is gone', async () => {
    const bytes = readFileSync(join(import.meta.dirname, '../../../docs/screenshots/desk.png'))
    const { hash } = await keepPicture(new Blob([bytes], { type: 'image/png' }))
    const url = ownPicture(hash)
    const media: Post['media'] = [
      { source: { from: 'address', url }, alt: 'A desk by the window', shape: null, hash: null },
    ]
    const id = await approvedPost(1, { media })
    await jump(2 * HOUR)
    expect(await state(id)).toBe('published')
    expect(await onPage('A desk by the window')).toBe(true)
    const lost = media.map((m) => ({
      ...m,
      source: { from: 'address' as const, url: ownPicture('0'.repeat(64)) },
    }))
    const other = await approvedPost(1, { media: lost })
    await tick()
    expect((await must('posts', other)).held?.reason).toMatch(/picture could not be made: .+ any more/)
  })

  it('hands over the days ahead that are asked for, and later ones as they come near', async () => {
    await commit('machine', [patch('workspace', 'ws', (w) => ({ ...w, aheadDays: 2 }))])
    const near = await approvedPost(47)
    const far = await approvedPost(53)
    await tick()
    expect([await state(near), await state(far)]).toEqual(['handed over', 'approved'])
    // Nothing is written meanwhile: the time alone brings it near.
    await jump(4 * HOUR)
    expect(await state(far)).toBe('approved')
    await jump(2 * HOUR)
    expect(await state(far)).toBe('handed over')
  })

  it('does nothing a second time: a tick after a tick changes no record', async () => {
    await approvedPost(3)
    await tick()
    const before = JSON.stringify([await all('posts'), await all('accounts')])
    await tick()
    expect(JSON.stringify([await all('posts'), await all('accounts')])).toBe(before)
  })

  it('recalls what is held on every level, and hands it over again when that is lifted', async () => {
    const id = await approvedPost(5)
    for (const table of ['workspace', 'brands', 'accounts', 'posts'] as const) {
      await tick()
      expect([table, await state(id)]).toEqual([table, 'handed over'])
      const target = { workspace: 'ws', brands: 'brand', accounts: 'murmur-one', posts: id }[table]
      const what = { table, id: target, brand: 'brand', name: table }
      await hold(what)
      await tick()
      expect([table, await state(id)]).toEqual([table, 'approved'])
      expect(await servers.call('POST', '/api/spool/held', { posts: [id] })).toMatchObject({
        body: { held: [] },
      })
      await lift(what)
    }
  })

  it('places anew what was held over its time', async () => {
    const id = await approvedPost(1)
    const what = { table: 'brands' as const, id: 'brand', brand: 'brand', name: 'the brand' }
    await hold(what)
    await jump(4 * HOUR)
    expect(await state(id)).toBe('approved')
    expect(await lift(what)).toBe(1)
    const { at } = await must('posts', id)
    expect(Date.parse(at ?? '')).toBeGreaterThan(clockNow())
  })

  it('recalls a handed-over post that is edited, keeps its approval, and sends the new words', async () => {
    const id = await approvedPost(1)
    await tick()
    await editText(id, 'Two strands of cotton, and pay the seam the same day.')
    expect(await must('posts', id)).toMatchObject({ state: 'approved', edited: true })
    await jump(2 * HOUR)
    expect(await state(id)).toBe('published')
    expect(await onPage('Two strands of cotton, and pay the seam the same day.')).toBe(true)
  })

  it('takes an approval back that was undone, recalling it first', async () => {
    const id = await approvedPost(6, { state: 'for review' })
    await approve([id])
    await tick()
    expect(await state(id)).toBe('handed over')
    expect(await undo('brand')).toBe('Approve a caption')
    expect(await state(id)).toBe('for review')
    expect(await servers.call('POST', '/api/spool/held', { posts: [id] })).toMatchObject({
      body: { held: [] },
    })
  })

  it('leaves blocks and open flags unapproved, and says which', async () => {
    const flag = { code: 'ages', severity: 'flag' as const, message: 'It ages.', words: 'this year' }
    const fine = await approvedPost(7, { state: 'for review' })
    const flagged = await approvedPost(8, { state: 'for review', checks: [flag] })
    const { approved, left } = await approve([fine, flagged])
    expect([approved, left.map((l) => [l.post.id, l.why])]).toEqual([1, [[flagged, 'It ages.']]])
  })

  it('places anew what waited for review past its time, when it is approved', async () => {
    const lapsed = await approvedPost(-30, { state: 'for review' })
    const { approved, moved } = await approve([lapsed])
    expect([approved, moved]).toEqual([1, 1])
    const { at } = await must('posts', lapsed)
    expect(Date.parse(at ?? '')).toBeGreaterThan(clockNow())
    await undo('brand')
    expect(await must('posts', lapsed)).toMatchObject({ state: 'for review' })
  })

  it('hears of a refusal with its reason, and tries again as a new generation', async () => {
    const id = await approvedPost(1)
    const post = await must('posts', id)
    await commit('machine', [put('posts', { ...post, wording: { ...post.wording, text: 'x'.repeat(301) } })])
    await jump(2 * HOUR)
    expect(await must('posts', id)).toMatchObject({
      state: 'failed',
      failure: expect.stringContaining('Murmur takes 300'),
    })
    await tryAgain(id)
    // The words still break the rule, so it waits for a person instead of failing again.
    expect(await must('posts', id)).toMatchObject({ state: 'for review', generation: 2, failure: null })
    await editText(id, 'One strand is enough for a tight seam.')
    await approve([id])
    await jump(30 * HOUR)
    expect(await state(id)).toBe('published')
  })

  it('holds what comes more than two hours late for a decision', async () => {
    const id = await approvedPost(-3)
    await tick()
    await jump(HOUR / 60)
    const late = await must('posts', id)
    expect(late).toMatchObject({ state: 'approved', held: { reason: expect.stringContaining('two hours') } })
    await decideLate(id, 'place anew')
    const { at, held } = await must('posts', id)
    expect([held, Date.parse(at ?? '') > clockNow()]).toEqual([null, true])
    const other = await approvedPost(-3)
    await tick()
    await jump(HOUR / 60)
    await decideLate(other, 'send now')
    await jump(3 * HOUR)
    expect(await state(other)).toBe('published')
  })

  it('takes a published post down on request, and hears of it', async () => {
    const id = await approvedPost(1)
    await jump(2 * HOUR)
    await takeDown(id)
    await tick()
    expect(await must('posts', id)).toMatchObject({ state: 'set aside', visibility: 'gone', generation: 2 })
  })

  it('hands over anew what the server lost, and hears what went out while it was away', async () => {
    const lost = await approvedPost(9)
    const out = await approvedPost(1)
    await jump(2 * HOUR)
    expect(await state(out)).toBe('published')
    await servers.call('DELETE', `/api/spool/posts/${lost}`)
    // As an older state of this browser would have it: both are with the server.
    await commit('machine', [put('posts', { ...(await must('posts', out)), state: 'handed over' })])
    doubt()
    await tick()
    expect([await state(lost), await state(out)]).toEqual(['handed over', 'published'])
  })

  it('goes on without the server, and says so in a sentence', async () => {
    connectTo(null)
    await expect(tick()).rejects.toThrow(/The server does not answer.*Nothing is lost/)
    connectTo(servers.port)
    await tick()
  })
})

describe('from a blog to a drip', () => {
  /** The yard's journal taken in, read in full. */
  async function withJournal(): Promise<string> {
    const [feed] = await findFeeds(servers.worldUrl.replace('//', '//oakum-yard.'))
    if (!feed) throw new Error('no feed')
    const source = await addSource('brand', feed)
    await visitSource(source)
    return source
  }
  const piece = async (title: string) => (await all('pieces')).find((p) => p.title === title)

  it('finds the feed from the site’s address, and takes every piece in once', async () => {
    const source = await withJournal()
    const pieces = (await all('pieces')).filter((p) => p.source === source)
    expect(pieces.length).toBeGreaterThanOrEqual(8)
    for (const p of pieces) expect([p.title, p.words > 600]).toEqual([p.title, true])
    expect(await visitSource(source)).toBe(0)
    expect(await all('pieces', 'source', source)).toHaveLength(pieces.length)
    const [feed] = await findFeeds(servers.worldUrl.replace('//', '//oakum-yard.'))
    await expect(addSource('brand', feed!)).rejects.toThrow(/among your sources already/)
  })

  it('takes nothing in twice where two visits meet', async () => {
    const [feed] = await findFeeds(servers.worldUrl.replace('//', '//oakum-yard.'))
    const source = await addSource('brand', feed!)
    await Promise.all([visitSource(source), visitSource(source)])
    const ids = (await all('pieces', 'source', source)).map((p) => p.itemId)
    expect(new Set(ids).size).toBe(ids.length)
  })

  it('keeps a fault as the source’s health, visits it later, and loses nothing', async () => {
    const source = await withJournal()
    const before = (await all('pieces')).length
    const row = await must('sources', source)
    await commit('machine', [put('sources', { ...row, url: `${row.url}.gone` })])
    await visitSource(source)
    await visitSource(source)
    const health = await must('sources', source)
    expect(health).toMatchObject({
      failures: 2,
      lastVisit: { ok: false, message: expect.stringContaining('404') },
    })
    expect(Date.parse(health.nextVisitAt ?? '') - clockNow()).toBeGreaterThan(5 * HOUR)
    expect(await all('pieces')).toHaveLength(before)
  })

  it('refuses what is no feed with what to do about it', async () => {
    await expect(findFeeds(`${servers.worldUrl}/networks/murmur/@murmur.one`)).rejects.toMatchObject({
      code: 'not-a-feed',
    })
    await expect(findFeeds('http://10.1.2.3/feed')).rejects.toMatchObject({ code: 'private-address' })
  })

  it('starts a drip, gives each account each passage once, and sets aside what is ended', async () => {
    await withJournal()
    const tools = await piece('Seven tools worth buying once')
    const drip = await startDrip({
      piece: tools!.id,
      accounts: ['murmur-one', 'guildhall-one'],
      rhythm: RHYTHMS[3]!,
      startDay: nowIso().slice(0, 10),
      gate: 'everything',
      pipeline: null,
      actor: { brand: 'brand', label: 'Start a drip' },
    })
    const posts = await all('posts', 'drip', drip)
    expect(posts.length).toBeGreaterThanOrEqual(6)
    for (const account of ['murmur-one', 'guildhall-one']) {
      const mine = posts.filter((p) => p.account === account)
      expect(new Set(mine.map((p) => p.passage)).size).toBe(mine.length)
      expect(new Set(mine.map((p) => p.at?.slice(0, 10))).size).toBe(mine.length)
    }
    for (const beat of [0, 1, 2, 3, 4]) {
      const passages = posts.filter((p) => p.beat === beat).map((p) => p.passage)
      expect(new Set(passages).size).toBe(passages.length)
    }
    const first = posts.find((p) => p.others.length > 0)!
    await anotherWording(first.id)
    expect((await must('posts', first.id)).wording.text).toBe(first.others[0]?.text)
    await setAside([first.id])
    expect(await must('posts', first.id)).toMatchObject({ state: 'set aside', at: null })
    await bringBack(first.id)
    expect((await must('posts', first.id)).at).not.toBeNull()
    await end({ table: 'drips', id: drip, brand: 'brand', name: 'the drip' }, { kind: 'set aside' })
    expect(new Set((await all('posts', 'drip', drip)).map((p) => p.state))).toEqual(new Set(['set aside']))
    await undo('brand')
    expect((await all('posts', 'drip', drip)).some((p) => p.state === 'for review')).toBe(true)
  })

  it('lets a person choose, add and stretch passages', async () => {
    await withJournal()
    const varnish = await wholePiece((await piece('Varnish in damp weather'))!.id)
    const start = varnish.text.indexOf('Thin coats') + 12
    const added = await addPassage(varnish, start + 3, start + 60)
    const passage = await must('passages', added)
    expect(passage).toMatchObject({ by: 'person', choice: 'kept' })
    expect(varnish.text.slice(passage.start, passage.end)).toBe(passage.text)
    expect(passage.text).toBe(passage.text.trim())
    await stretchPassage(varnish, passage, 'end', 1)
    expect((await must('passages', added)).end).toBeGreaterThan(passage.end)
    await choosePassage(added, 'left out')
    expect((await must('passages', added)).choice).toBe('left out')
    await expect(addPassage(varnish, 5, 8)).rejects.toThrow(/at least a few words/)
  })

  it('shows what changed slots would move before anything moves', async () => {
    const id = await approvedPost(30)
    const account = await must('accounts', 'murmur-one')
    const changed = { ...account, slots: [{ weekday: 3, at: '11:11' }] }
    const moves = await difference({ accounts: [changed] })
    expect(moves.map((m) => m.post.id)).toEqual([id])
    expect((await must('posts', id)).at).toBe(moves[0]?.from)
    await saveTimes('brand', [timesOf(changed)], moves, 'Change slots')
    expect((await must('posts', id)).at).toMatch(/11:11:00/)
    await undo('brand')
    expect((await must('posts', id)).at).toBe(moves[0]?.from)
  })

  it('a pipeline takes the next article in, writes, places and publishes it without a click', async () => {
    const source = await withJournal()
    const now = nowIso()
    await addPipeline(
      aPipeline({
        id: 'pipe',
        name: 'By itself',
        on: false,
        takeIn: { ...aPipeline().takeIn, sources: [source], since: now },
        release: [
          aRow({
            accounts: ['murmur-one', 'guildhall-one'],
            by: { kind: 'rhythm', rhythm: { name: 'Echo', list: [0, 1] } },
          }),
        ],
        savedAt: now,
        createdAt: now,
      }),
    )
    await switchOn('pipe')
    const before = new Set((await all('pieces')).map((p) => p.id))
    for (let days = 0; days < 14 && !(await all('drips')).some((d) => d.pipeline === 'pipe'); days++)
      await jump(24 * HOUR)
    const fresh = (await all('pieces')).filter((p) => !before.has(p.id))
    expect(fresh[0]).toMatchObject({ dealt: { by: 'By itself' }, seenBy: ['pipe'], trouble: null })
    await jump(48 * HOUR)
    const posts = await all('posts', 'piece', fresh[0]!.id)
    expect(posts.length).toBeGreaterThanOrEqual(3)
    expect(posts.filter((p) => p.state === 'published').length).toBeGreaterThanOrEqual(2)
    for (const post of posts.filter((p) => p.state !== 'published'))
      expect(post.checks.length > 0 || (post.at ?? '') > nowIso()).toBe(true)
  }, 90_000)
})

describe('the bundle', () => {
  it('brings the whole workspace back unchanged, and sends nothing twice', async () => {
    const kept = await approvedPost(50)
    const out = await approvedPost(1)
    await tick()
    const blob = await exportBundle()
    const before = await all('posts')
    await jump(2 * HOUR)
    expect(await state(out)).toBe('published')
    await approvedPost(60)
    await tick()
    await importBundle(new Uint8Array(await blob.arrayBuffer()), 'ws')
    const after = await all('posts')
    expect(after.map((p) => ({ ...p, state: '' }))).toEqual(before.map((p) => ({ ...p, state: '' })))
    await tick()
    expect([await state(kept), await state(out)]).toEqual(['handed over', 'published'])
    const words = (await must('posts', out)).wording.text
    const page = await (await fetch(`${servers.worldUrl}/networks/murmur/@murmur.one`)).text()
    expect(page.split(words).length - 1).toBe(1)
  })

  it('that is broken changes nothing', async () => {
    const id = await approvedPost(70)
    const blob = await exportBundle()
    const bytes = new Uint8Array(await blob.arrayBuffer())
    await expect(importBundle(bytes.slice(0, 300), 'ws')).rejects.toMatchObject({ code: 'bad-bundle' })
    expect(await state(id)).toBe('approved')
    expect((await all('workspace'))[0]?.lastBundleAt).not.toBeNull()
  })
})
