import { execFileSync } from 'node:child_process'
import type { Page } from '@playwright/test'
import { LAYOUTS, usualLook, type Card } from '../core/model'
import type { Ratio } from './intake'
import { boundLine, onTheDemo } from './measured'

/** How many cards are painted one after the other. */
const CARDS = 500
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

/** Paints cards in the app's own worker, as PNGs of 1080 pixels a side, and gives the milliseconds of each. */
function painted(page: Page, worker: string, of: readonly Card[]): Promise<number[]> {
  const look = usualLook('A brand')
  return page.evaluate(
    async ([url, list, style]) => {
      const port = new Worker(url, { type: 'module' })
      // The worker is asked in comlink's words.
      const paint = (card: unknown): Promise<unknown> =>
        new Promise((done) => {
          const id = crypto.randomUUID()
          const heard = ({ data }: MessageEvent<{ id: string }>): void => {
            if (data.id !== id) return
            port.removeEventListener('message', heard as EventListener)
            done(data)
          }
          port.addEventListener('message', heard as EventListener)
          const argumentList = [card, style, { width: 1, height: 1 }].map((value) => ({ type: 'RAW', value }))
          port.postMessage({ id, type: 'APPLY', path: ['paint'], argumentList })
        })
      const times: number[] = []
      for (const card of list) {
        const started = performance.now()
        await paint(card)
        times.push(performance.now() - started)
      }
      port.terminate()
      return times
    },
    [worker, of, look] as const,
  )
}

/** How fast cards are painted in the browser, and what that leaves in memory. */
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
    await painted(page, worker, cards(50))
    const before = rendererMegabytes()
    const times = await painted(page, worker, cards(CARDS))
    const after = rendererMegabytes()
    const mean = times.reduce((a, b) => a + b, 0) / times.length
    return [
      boundLine('cards a second, painted as PNG of 1080 by 1080', (1000 / mean).toFixed(1), '≥ 20'),
      boundLine(
        `memory of the pages before and after ${CARDS} cards`,
        `${before.toFixed(0)} → ${after.toFixed(0)} MB`,
        'flat',
      ),
    ]
  })
}
