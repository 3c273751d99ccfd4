import { expect, type Page } from './test'

/** Moves the demo's time, and waits until all that was due then is done. */
export async function moveTime(page: Page, step: '+1 hour' | '+1 day' | '+1 week'): Promise<void> {
  const before = await page.getByTestId('clock').getAttribute('datetime')
  await page.getByRole('button', { name: 'Move the demo’s time' }).click()
  await page.getByRole('button', { name: step }).click()
  const hours = { '+1 hour': 1, '+1 day': 24, '+1 week': 168 }[step]
  await expect
    .poll(async () => Date.parse((await page.getByTestId('clock').getAttribute('datetime')) ?? ''), {
      timeout: 240_000,
    })
    .toBeGreaterThanOrEqual(Date.parse(before ?? '') + hours * 3_600_000 - 5000)
  await expect(page.getByText('Moving the demo’s time')).toBeHidden({ timeout: 240_000 })
}
