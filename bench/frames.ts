import type { Page } from '@playwright/test'
import { openPage, startDemo } from '../e2e/demo'
import { freePort } from '../e2e/house'
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
