import { execFileSync } from 'node:child_process'
import type { Page } from '@playwright/test'
import { LAYOUTS, usualLook, type Card } from '../core/model'
import type { Ratio } from './intake'
import { boundLine, onTheDemo } from './measured'

/** How many cards are painted one after the other. */
const CARDS = 500
const BATCH = 100
const WORDS =
  'A plank at eighteen per cent moisture will swell a little when it meets the river and close itself; a dry one crushes the edge of its neighbour.'

/** A card of each layout in turn, no two with the same words. */
function cards(count: number): Card[] {
  return Array.from({ length: count }, (_, i) => ({
    layout: LAYOUTS[i % LAYOUTS.length] ?? 'words',
    head: `${i} days`,
    text: `${WORDS} ${i}`,
    items: ['Look at it twice.', `Ask somebody who was there ${i} times.`, 'Begin.'].slice(
      0,
      LAYOUTS[i % LAYOUTS.length] === 'contrast' ? 2 : 3,
    ),
    speaker: 'Somebody',
  }))
}

/** The memory of the processes that draw pages, all together, in megabytes. */
function rendererMegabytes(): number {
  const lines = execFileSync('ps', ['-eo', 'rss=,args=']).toString().split('\n')
  const mine = lines.filter((l) => l.includes('--type=renderer') && l.includes('chromium'))
  return mine.reduce((sum, l) => sum + Number(l.trim().split(/\s+/)[0]), 0) / 1024
}

/** What painting told: the milliseconds of each card, and the hashes of their bytes. */
interface Painted {
  times: number[]
  hashes: string[]
}

/** Starts a worker of the app's own that draws cards, in the page. */
async function startWorker(page: Page, url: string): Promise<void> {
  await page.evaluate((of) => {
    const kept = globalThis as unknown as { drawing?: Worker }
    kept.drawing?.terminate()
    kept.drawing = new Worker(of, { type: 'module' })
  }, url)
}

/** Paints cards in the worker that was started, as PNGs of 1080 pixels a side. */
function painted(page: Page, of: readonly Card[]): Promise<Painted> {
  return page.evaluate(
    async ([list, style]) => {
      const port = (globalThis as unknown as { drawing: Worker }).drawing
      // The worker is asked in comlink's words.
      const paint = (card: unknown): Promise<{ hash: string }> =>
        new Promise((done) => {
          const id = crypto.randomUUID()
          const heard = ({ data }: MessageEvent<{ id: string; value: { hash: string } }>): void => {
            if (data.id !== id) return
            port.removeEventListener('message', heard as EventListener)
            done(data.value)
          }
          port.addEventListener('message', heard as EventListener)
          const argumentList = [card, style, { width: 1, height: 1 }, null].map((value) => ({
            type: 'RAW',
            value,
          }))
          port.postMessage({ id, type: 'APPLY', path: ['paint'], argumentList })
        })
      const told: Painted = { times: [], hashes: [] }
      for (const card of list) {
        const started = performance.now()
        const { hash } = await paint(card)
        told.times.push(performance.now() - started)
        told.hashes.push(hash)
      }
      return told
    },
    [of, usualLook('A brand')] as const,
  )
}

/** How fast cards are painted in the browser, whether twice alike, and what that leaves in memory. */
export function cardSpeed(): Promise<Ratio[]> {
  return onTheDemo(async (page, base) => {
    await page.goto(`${base}/writing/look`)
    await page.getByRole('group', { name: 'Cards of three passages' }).getByRole('img').first().waitFor()
    await page.waitForTimeout(3000)
    const worker = page
      .workers()
      .find((w) => /\/cards-/.test(w.url()))
      ?.url()
    if (!worker) throw new Error('No worker draws the cards.')
    await startWorker(page, worker)
    const memory: string[] = []
    const told: Painted = { times: [], hashes: [] }
    const all = cards(CARDS)
    for (let at = 0; at < CARDS; at += BATCH) {
      const { times, hashes } = await painted(page, all.slice(at, at + BATCH))
      told.times.push(...times)
      told.hashes.push(...hashes)
      memory.push(rendererMegabytes().toFixed(0))
    }
    await startWorker(page, worker)
    const again = await painted(page, all.slice(0, BATCH))
    const alike = again.hashes.filter((hash, i) => hash === told.hashes[i]).length
    const mean = told.times.reduce((a, b) => a + b, 0) / told.times.length
    return [
      boundLine('cards a second, painted as PNG of 1080 by 1080', (1000 / mean).toFixed(1), '≥ 20'),
      boundLine(`memory of the pages after each ${BATCH} cards`, `${memory.join(' → ')} MB`, 'flat'),
      boundLine(`cards of ${BATCH} painted alike by another worker`, String(alike), `= ${BATCH}`),
    ]
  })
}
