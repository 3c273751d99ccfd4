import type { Page } from '@playwright/test'
import { openPage, startDemo } from '../e2e/demo'
import { freePort } from '../e2e/ports'
import type { Ratio } from './intake'

const PIECES = 20_000

/** Copies one piece of the demo's brand many times into the browser's database. */
async function fill(page: Page, count: number): Promise<void> {
  await page.evaluate(async (many) => {
    const request = <T>(r: IDBRequest<T>): Promise<T> =>
      new Promise((resolve, reject) => {
        r.onsuccess = () => resolve(r.result)
        r.onerror = () => reject(new Error('The database does not answer.'))
      })
    const db = await request(indexedDB.open('dripline'))
    const tx = db.transaction(['pieces', 'brands'], 'readwrite')
    const store = tx.objectStore('pieces')
    const brands = (await request(tx.objectStore('brands').getAll())) as { id: string; name: string }[]
    const brand = brands.find((b) => b.name === 'Oakum Yard')?.id
    const all = (await request(store.getAll())) as Record<string, unknown>[]
    const samples = all.filter((p) => p['brand'] === brand)
    for (let i = 0; i < many; i++) {
      const piece = samples[i % samples.length]
      store.put({
        ...piece,
        id: `many-${i}`,
        title: `${String(piece?.['title'])} (${i})`,
        publishedAt: new Date(Date.UTC(2024, 0, 1) + i * 3_000_000).toISOString(),
        double: null,
      })
    }
    await new Promise((resolve) => (tx.oncomplete = resolve))
    db.close()
  }, count)
}

/** The time between two frames while something goes on, at the 95th percentile, in milliseconds. */
async function frames(page: Page, work: () => Promise<void>): Promise<number> {
  await page.evaluate(() => {
    const times: number[] = []
    const state = { times, going: true }
    Object.assign(window, { benchFrames: state })
    let last = performance.now()
    const next = (now: number): void => {
      times.push(now - last)
      last = now
      if (state.going) requestAnimationFrame(next)
    }
    requestAnimationFrame(next)
  })
  await work()
  const times = await page.evaluate(() => {
    const state = (window as unknown as { benchFrames: { times: number[]; going: boolean } }).benchFrames
    state.going = false
    return state.times.slice(2)
  })
  times.sort((a, b) => a - b)
  return times[Math.floor(times.length * 0.95)] ?? 0
}

/** Scrolls, searches and filters a list of 20,000 pieces in Chromium and counts its frames. */
export async function screenFrames(): Promise<Ratio[]> {
  const demo = await startDemo(await freePort(), await freePort())
  const { browser, page } = await openPage()
  const row = (what: string, time: number, bound: string): Ratio => ({
    what: `${PIECES.toLocaleString('en')} pieces: ${what}`,
    time: `${time.toFixed(1)} ms`,
    against: 'a frame, 95th percentile',
    ratio: '–',
    bound,
  })
  try {
    // The runner of this script names functions by a helper, which pages do not have.
    await page.addInitScript('globalThis.__name = (f) => f')
    await page.goto(demo.base)
    await page.getByRole('heading', { name: /wait/ }).waitFor({ timeout: 60_000 })
    await fill(page, PIECES)
    await page.goto(`${demo.base}/intake`)
    await page.getByText(/20,?\d\d\d pieces/).waitFor({ timeout: 60_000 })
    await page.waitForTimeout(8000)
    await page.mouse.move(640, 500)
    const idle = await frames(page, () => page.waitForTimeout(2000))
    const scroll = await frames(page, async () => {
      for (let i = 0; i < 150; i++) {
        await page.mouse.wheel(0, 200)
        await page.waitForTimeout(16)
      }
    })
    const search = await frames(page, async () => {
      await page.keyboard.press('/')
      for (const letter of 'varnish damp') {
        await page.keyboard.type(letter)
        await page.waitForTimeout(90)
      }
      await page.waitForTimeout(600)
    })
    const started = Date.now()
    await page.getByLabel('Which pieces').selectOption('waiting')
    await page.getByText(/^[\d,]+ pieces$/).waitFor()
    return [
      row('nothing going on', idle, '–'),
      row('scrolling, 200 px a frame', scroll, '< 20 ms'),
      row('searching, a key every 90 ms', search, '< 20 ms'),
      { ...row('choosing another view', Date.now() - started, '–'), against: 'until it is shown' },
    ]
  } finally {
    await browser.close()
    demo.stop()
  }
}

const POSTS = 10_000
const ACCOUNTS = 20

/** Fills the demo's brand with accounts and posts of two years, made from those there are. */
async function fillHorizon(page: Page): Promise<void> {
  await page.evaluate(
    async ({ posts, accounts }) => {
      const request = <T>(r: IDBRequest<T>): Promise<T> =>
        new Promise((resolve, reject) => {
          r.onsuccess = () => resolve(r.result)
          r.onerror = () => reject(new Error('The database does not answer.'))
        })
      const db = await request(indexedDB.open('dripline'))
      const tx = db.transaction(['posts', 'accounts', 'brands'], 'readwrite')
      const brands = (await request(tx.objectStore('brands').getAll())) as { id: string; name: string }[]
      const brand = brands.find((b) => b.name === 'Oakum Yard')?.id
      const mine = <T>(rows: unknown[]): T[] =>
        (rows as (T & { brand: string })[]).filter((r) => r.brand === brand)
      const account = mine<Record<string, unknown>>(await request(tx.objectStore('accounts').getAll()))[0]
      const samples = mine<Record<string, unknown>>(await request(tx.objectStore('posts').getAll()))
      for (let a = 0; a < accounts; a++)
        tx.objectStore('accounts').put({ ...account, id: `many-${a}`, handle: `account.${a}` })
      for (let i = 0; i < posts; i++)
        tx.objectStore('posts').put({
          ...samples[i % samples.length],
          id: `many-${i}`,
          account: `many-${i % accounts}`,
          state: 'for review',
          publishedAt: null,
          at: new Date(
            Date.now() + Math.floor(i / accounts) * 35 * 3_600_000 + (i % accounts) * 1_800_000,
          ).toISOString(),
        })
      await new Promise((resolve) => (tx.oncomplete = resolve))
      db.close()
    },
    { posts: POSTS, accounts: ACCOUNTS },
  )
}

/** Scrolls, pans, zooms and drags a Horizon of 10,000 posts in Chromium and counts its frames. */
export async function horizonFrames(): Promise<Ratio[]> {
  const demo = await startDemo(await freePort(), await freePort())
  const { browser, page } = await openPage()
  const rows: Ratio[] = []
  const measured = async (what: string, bound: string, work: () => Promise<void>): Promise<void> => {
    const time = await frames(page, work)
    rows.push({
      what: `a Horizon of ${POSTS.toLocaleString('en')} posts: ${what}`,
      time: `${time.toFixed(1)} ms`,
      against: 'a frame, 95th percentile',
      ratio: '–',
      bound,
    })
  }
  try {
    await page.addInitScript('globalThis.__name = (f) => f')
    await page.goto(demo.base)
    await page.getByRole('heading', { name: /wait/ }).waitFor({ timeout: 60_000 })
    await fillHorizon(page)
    await page.goto(`${demo.base}/horizon`)
    await page.getByText('@account.0', { exact: true }).waitFor({ timeout: 60_000 })
    await page.waitForTimeout(8000)
    const box = await page.locator('canvas').boundingBox()
    if (!box) throw new Error('The board is not there.')
    await page.mouse.move(box.x + 300, box.y + 200)
    await measured('nothing going on', '–', () => page.waitForTimeout(2000))
    for (const zoom of ['Week', 'Season', 'Year']) {
      await page.getByRole('button', { name: zoom }).click()
      await page.waitForTimeout(1500)
      await page.mouse.move(box.x + 300, box.y + 200)
      const wheel = async (x: number, y: number): Promise<void> => {
        for (let i = 0; i < 60; i++) {
          await page.mouse.wheel(x, y * (i < 30 ? 1 : -1))
          await page.waitForTimeout(16)
        }
      }
      await measured(`${zoom.toLowerCase()}, scrolling through the lanes`, '< 20 ms', () => wheel(0, 40))
      await measured(`${zoom.toLowerCase()}, panning in time`, '< 20 ms', () => wheel(14, 0))
    }
    await measured('zooming', '< 20 ms', async () => {
      for (const zoom of ['Season', 'Week', 'Season', 'Year', 'Week']) {
        await page.getByRole('button', { name: zoom }).click()
        await page.waitForTimeout(400)
      }
    })
    await page.getByRole('option').first().click()
    // The worker is there by now; the post's sheet has asked it something.
    await page.waitForTimeout(2000)
    const asked = Date.now()
    await page.keyboard.press('m')
    await page.getByRole('button', { name: 'Put it here' }).waitFor()
    rows.push({
      what: `a Horizon of ${POSTS.toLocaleString('en')} posts: a post taken up, all its places found`,
      time: `${Date.now() - asked} ms`,
      against: 'with reading the database, until it is shown',
      ratio: '–',
      bound: '–',
    })
    await measured('stepping through places', '< 20 ms', async () => {
      for (let i = 0; i < 40; i++) {
        await page.keyboard.press(i % 20 < 10 ? 'ArrowRight' : 'ArrowLeft')
        await page.waitForTimeout(25)
      }
    })
    await page.keyboard.press('Escape')
    await page.keyboard.press('Escape')
    await measured('dragging over the week', '< 20 ms', async () => {
      await page.mouse.move(box.x + 20, box.y + 60)
      await page.mouse.down()
      for (let i = 0; i < 90; i++) {
        await page.mouse.move(box.x + 20 + 6 * i, box.y + 60 + (i % 30))
        await page.waitForTimeout(16)
      }
      await page.mouse.up()
    })
    return rows
  } finally {
    await browser.close()
    demo.stop()
  }
}
