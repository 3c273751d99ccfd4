import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Page } from '@playwright/test'
import { partPiece } from '../core/model'
import { aBrand, aPipeline, aRow, aSource, anAccount } from '../core/model/samples'
import { takeWriting, toPassages } from '../core/pipeline'
import { readWriting } from '../core/reading'
import type { Ratio } from './intake'
import { boundLine, onTheDemo, tasksWords } from './measured'

const PIECES = 200
/** Nine accounts on the nine networks. */
const NETWORKS = [
  'murmur',
  'guildhall',
  'shutterleaf',
  'hearthside',
  'rackwell',
  'loopyard',
  'longwave',
  'courier',
  'broadside',
]
const NOW = '2026-01-01T10:00:00.000Z'

/** Two hundred articles: those that readers rated, those of the evaluation, and as many more from halves of two. */
function articles(): string[] {
  const folders = ['../train/quotable', 'corpus', '../demo/content/oakum-yard', '../demo/content/fernhollow']
  const whole = folders.flatMap((folder) => {
    const path = join(import.meta.dirname, folder)
    return readdirSync(path)
      .filter((f) => f.endsWith('.md') && f !== 'README.md')
      .map((f) => readFileSync(join(path, f), 'utf8').replace(/^---\n.*?\n---\n/s, ''))
  })
  const half = (text: string, second: boolean): string => {
    const blocks = text.split(/\n\n+/)
    const middle = Math.floor(blocks.length / 2)
    return (second ? blocks.slice(middle) : blocks.slice(0, middle)).join('\n\n')
  }
  const more = Array.from({ length: Math.max(0, PIECES - whole.length) }, (_, i) => {
    const [one, other] = [whole[i % whole.length] ?? '', whole[(i * 7 + 3) % whole.length] ?? '']
    return `${half(one, true)}\n\n${half(other, false)}`
  })
  return [...whole, ...more].slice(0, PIECES)
}

/** A brand with nine accounts and a pipeline that takes each piece to the next opening of each, as rows by table. */
function rows(): Record<string, readonly unknown[]> {
  const slots = [1, 2, 3, 4, 5, 6, 7].flatMap((weekday) =>
    ['08:00', '12:00', '17:00'].map((at) => ({ weekday, at })),
  )
  const accounts = NETWORKS.map((network) =>
    anAccount({
      id: `flood-${network}`,
      brand: 'flood',
      network,
      handle: `flood.${network}`,
      slots,
      maxPerDay: 3,
      gapMinutes: 60,
    }),
  )
  const parted = articles().map((text, i) =>
    partPiece(
      takeWriting(
        readWriting(text, `Article ${i}`),
        { id: `flood-piece-${i}`, brand: 'flood', source: 'flood-source', now: NOW },
        { itemId: `item-${i}`, kind: 'manuscript' },
      ),
    ),
  )
  return {
    brands: [aBrand({ id: 'flood', name: 'Flood', createdAt: '2020-01-01T00:00:00.000Z' })],
    accounts,
    sources: [aSource({ id: 'flood-source', brand: 'flood', nextVisitAt: null })],
    pieces: parted.map((p) => p.piece),
    texts: parted.map((p) => p.text),
    passages: parted.flatMap(({ piece, text }, i) => {
      let n = 0
      return toPassages({ ...text, ...piece }, () => `flood-passage-${i}-${n++}`)
    }),
    pipelines: [
      aPipeline({
        id: 'flood-pipeline',
        brand: 'flood',
        name: 'Flood',
        takeIn: { ...aPipeline().takeIn, sources: ['flood-source'], since: '1970-01-01T00:00:00.000Z' },
        release: [aRow({ accounts: accounts.map((a) => a.id), by: { kind: 'next openings', posts: 1 } })],
      }),
    ],
  }
}

/** Puts rows into the browser's database, beside those of the demo. */
async function fill(page: Page, tables: Record<string, readonly unknown[]>): Promise<void> {
  for (const [table, list] of Object.entries(tables))
    for (let from = 0; from < list.length; from += 500)
      await page.evaluate(
        async ([store, part]) => {
          const db = await new Promise<IDBDatabase>((resolve) => {
            const request = indexedDB.open('dripline')
            request.onsuccess = () => resolve(request.result)
          })
          const tx = db.transaction(store, 'readwrite')
          for (const row of part) tx.objectStore(store).put(row)
          await new Promise((resolve) => (tx.oncomplete = resolve))
          db.close()
        },
        [table, list.slice(from, from + 500)] as const,
      )
}

/** How many of the pieces the pipeline is done with, and how many posts it wrote. */
async function done(page: Page): Promise<{ pieces: number; posts: number }> {
  return page.evaluate(async () => {
    const db = await new Promise<IDBDatabase>((resolve) => {
      const request = indexedDB.open('dripline')
      request.onsuccess = () => resolve(request.result)
    })
    const tx = db.transaction(['pieces', 'posts'])
    const whole = <T>(request: IDBRequest<T>): Promise<T> =>
      new Promise((resolve) => {
        request.onsuccess = () => resolve(request.result)
      })
    const pieces = (await whole(tx.objectStore('pieces').index('brand').getAll('flood'))) as {
      seenBy: string[]
    }[]
    const posts = await whole(tx.objectStore('posts').index('brand').count('flood'))
    db.close()
    return { pieces: pieces.filter((p) => p.seenBy.length > 0).length, posts }
  })
}

/** Two hundred pieces through a pipeline with nine accounts: the time until all are dealt with, and the page's tasks. */
export async function flood(): Promise<Ratio[]> {
  return onTheDemo(async (page, base, tasks) => {
    await fill(page, rows())
    await page.evaluate(() => localStorage.setItem('dripline-brand', 'flood'))
    await page.goto(base)
    const started = Date.now()
    let state = await done(page)
    while (state.pieces < PIECES && Date.now() - started < 600_000) {
      await page.waitForTimeout(1_000)
      state = await done(page)
    }
    const seconds = (Date.now() - started) / 1000
    const later = (await tasks()).filter((t) => t.at > 2_000)
    const what = '200 pieces through a pipeline with 9 accounts'
    return [
      boundLine(`${what}: all ${state.pieces}, ${state.posts} posts`, `${seconds.toFixed(0)} s`, '< 60 s'),
      boundLine(`${what}: tasks over 50 ms on the page meanwhile`, tasksWords(later), '0'),
    ]
  })
}
