import type { Page } from '@playwright/test'
import { openPage, startDemo } from '../e2e/demo'
import { freePort } from '../e2e/ports'
import type { Ratio } from './intake'

/** A task of the page that took over 50 ms: when it began after the page's start, and how long it took, in milliseconds. */
export interface LongTask {
  at: number
  length: number
}

/**
 * Works on the demo in a page that notes its long tasks, and closes both in the end. `work` is given the demo's address,
 * the Desk open, and a way to read the tasks since the page was last loaded.
 */
export async function onTheDemo<T>(
  work: (page: Page, base: string, tasks: () => Promise<LongTask[]>) => Promise<T>,
): Promise<T> {
  const demo = await startDemo(await freePort(), await freePort())
  const { browser, page } = await openPage()
  try {
    await page.addInitScript('globalThis.__name = (f) => f')
    await page.addInitScript(`globalThis.longTasks = []
      new PerformanceObserver((list) => {
        for (const e of list.getEntries()) longTasks.push({ at: e.startTime, length: e.duration })
      }).observe({ type: 'longtask', buffered: true })`)
    await page.goto(demo.base)
    await page.getByRole('heading', { name: /wait/ }).waitFor({ timeout: 60_000 })
    return await work(page, demo.base, () =>
      page.evaluate(() => (globalThis as unknown as { longTasks: LongTask[] }).longTasks),
    )
  } finally {
    await browser.close()
    demo.stop()
  }
}

/** A line of figures that are held against a bound alone. */
export function boundLine(what: string, time: string, bound: string): Ratio {
  return { what, time, against: '–', ratio: '–', bound }
}

/** How many tasks there were, and how long the longest. */
export function tasksWords(tasks: readonly LongTask[]): string {
  return `${tasks.length}, the longest ${Math.max(0, ...tasks.map((t) => t.length)).toFixed(0)} ms`
}
