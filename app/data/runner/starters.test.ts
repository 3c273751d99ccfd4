import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { connectTo, emptyDatabase } from '../testing/browser'
import { openServers } from '../../../e2e/servers'
import { sites } from '../../../demo/content'
import { aBrand, aWorkspace } from '../../../core/model/samples'
import { matchingFor, pipelineOf, STARTERS, type PipelineFile } from '../../../core/formats'
import { waitsForReview } from '../../../core/model'
import { adoptAccount } from '../actions/accounts'
import { addPipeline } from '../actions/pipelines'
import { approveAsItIs } from '../actions/posts'
import { addSource, findFeeds } from '../actions/sources'
import { visitSource } from '../actions/visit'
import { setWorkspace } from '../api'
import { clockNow, nowIso, readClock } from '../clock'
import { all, commit, must, patch, put, remove } from '../store'
import { jump } from '.'
import { tick } from './tick'

/* Every starter pipeline, from the feed to the public page. */

const DAY = 86_400_000
const LOGINS = ['murmur-one', 'guildhall-one', 'courier-one', 'broadside-one']
/** Where each starter's pieces come from, where that is not the yard's journal. */
const SITE: Record<string, string> = { 'Partner news, reviewed': '//partner.' }

/** The piece that goes through, where it is not the one about caulking. */
const PIECE: Record<string, RegExp> = {
  'Video into threads and text': /./,
  'Partner news, reviewed': /cake/i,
}

let servers: Awaited<ReturnType<typeof openServers>>
beforeAll(async () => {
  servers = await openServers({ sites: sites() })
  connectTo(servers.port)
  setWorkspace('ws')
  await servers.call('POST', '/api/demo/link', {
    accounts: LOGINS.map((id) => ({ id, network: id.split('-')[0], remoteId: id })),
  })
})
afterAll(() => servers.close())
beforeEach(async () => {
  await emptyDatabase()
  await readClock()
  await commit('machine', [put('workspace', aWorkspace()), put('brands', aBrand())])
  for (const id of LOGINS) {
    await adoptAccount('brand', id)
    // The plan knows nothing of what an earlier starter left at the server.
    await commit('machine', [patch('accounts', id, (a) => ({ ...a, gapMinutes: 0 }))])
  }
})

/** One piece from a starter's feed: the others are taken away, and it came out today, with a date of its own to come. */
async function takeOne(name: string): Promise<void> {
  const site = servers.worldUrl.replace('//', SITE[name] ?? '//oakum-yard.')
  const [feed] = await findFeeds(name.startsWith('Video') ? `${site}/films` : site)
  if (!feed) throw new Error(`There is no feed at ${site}.`)
  const source = await addSource('brand', feed)
  await visitSource(source)
  const pieces = await all('pieces', 'source', source)
  const chosen = pieces.find((p) => p.words > 0 && (PIECE[name] ?? /caulking/i).test(p.title))
  if (!chosen) throw new Error(`There is no such piece among ${pieces.map((p) => p.title).join(', ')}.`)
  // A moment after the pipeline is made, since what came before it was made is its past.
  const soon = new Date(clockNow() + 60_000).toISOString()
  const date = new Date(clockNow() + 20 * DAY).toISOString().slice(0, 10)
  await commit('machine', [
    ...pieces.filter((p) => p !== chosen).map((p) => remove('pieces', p.id)),
    patch('pieces', chosen.id, (p) => ({ ...p, fields: { date }, publishedAt: soon })),
  ])
}

/** The starter's pipeline at work, its keys matched as the form proposes. */
async function putToWork(file: PipelineFile): Promise<void> {
  const around = { accounts: await all('accounts'), sources: await all('sources'), pipelines: [] }
  let n = 0
  const of = {
    id: 'pipeline',
    brand: 'brand',
    name: file.name,
    now: nowIso(),
    newId: () => `made-${n++}`,
    lists: [],
  }
  const { pipeline, lists } = pipelineOf(file, matchingFor(file, around), of)
  await addPipeline({ ...pipeline, on: true }, lists)
}

describe('a starter', () => {
  it.each(STARTERS.map((file) => [file.name, file] as const))(
    '“%s” goes from its feed to a public page',
    async (name, file) => {
      await takeOne(name)
      await putToWork(file)
      await tick()
      const review = (await all('posts')).filter(waitsForReview)
      for (const { id } of review.slice(0, 4)) await approveAsItIs(id)
      const [first] = (await all('posts'))
        .filter((p) => (p.state === 'approved' || p.state === 'handed over') && p.at !== null)
        .sort((a, b) => ((a.at ?? '') < (b.at ?? '') ? -1 : 1))
      if (!first) throw new Error(JSON.stringify((await all('runs')).map((r) => r.steps)))
      await jump(Date.parse(first.at ?? '') - clockNow() + DAY + 3_600_000)
      const out = await must('posts', first.id)
      expect(out).toMatchObject({ state: 'published', failure: null })
      const page = await (await fetch(out.publicUrl ?? '')).text()
      const plain = (text: string): string => text.replace(/&#39;|&quot;|&amp;|['"&]/g, '.')
      expect(plain(page)).toContain(plain((out.wording.text.split('\n')[0] ?? '').slice(0, 40)))
    },
  )
})
