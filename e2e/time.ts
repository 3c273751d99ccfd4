import type { Page } from '@playwright/test'
import { until } from './until'

const HOURS = { '+1 hour': 1, '+1 day': 24, '+1 week': 168 }
/** Milliseconds that a step may take on a busy machine. */
const PATIENCE = 240_000

/** The demo's time, in milliseconds. */
export async function demoTime(page: Page): Promise<number> {
  return Date.parse((await page.getByTestId('clock').getAttribute('datetime')) ?? '')
}

/** Moves the demo's time, and waits until all that was due then is done. */
export async function moveTime(page: Page, step: keyof typeof HOURS): Promise<void> {
  const before = await demoTime(page)
  await page.getByRole('button', { name: 'Move the demo’s time' }).click()
  await page.getByRole('button', { name: step }).click()
  await until(async () => (await demoTime(page)) >= before + HOURS[step] * 3_600_000 - 5000, PATIENCE)
  await page.getByText('Moving the demo’s time').waitFor({ state: 'hidden', timeout: PATIENCE })
}
