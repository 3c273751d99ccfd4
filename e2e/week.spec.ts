import { expect, test } from './test'
import { moveTime } from './time'

test('a week of a running brand takes under sixty clicks and keys', async ({ page }) => {
  test.setTimeout(480_000)
  await page.goto('/')
  // The brand of the demo that has been running since its first day.
  await expect(page.getByRole('heading', { name: /wait/ })).toBeVisible()
  let spent = 0
  const press = async (key: string): Promise<void> => {
    spent++
    await page.keyboard.press(key)
  }
  /** What waits on the Desk is read and decided there. */
  const visit = async (): Promise<void> => {
    await press('1')
    await expect(page.getByRole('heading', { name: /wait/ })).toBeVisible()
    const closed = page.getByRole('button', { name: /^(Read them|Look)$/, expanded: false })
    while ((await closed.count()) > 0 && spent < 200) {
      spent++
      await closed.first().click()
      const waiting = page.locator('[data-here]')
      await expect(waiting.first()).toBeFocused()
      for (let left = await waiting.count(); left > 0 && spent < 200; left = await waiting.count()) {
        // What breaks a rule can only be mended or set aside.
        const may = page.locator('[data-here]:focus').getByRole('button', { name: /^Approve/ })
        await press((await may.count()) > 0 ? 'a' : 'x')
        await expect.poll(() => waiting.count()).not.toBe(left)
      }
    }
  }
  await visit()
  await moveTime(page, '+1 week')
  await visit()
  await expect(page.getByRole('button', { name: /^(Read them|Look)$/, expanded: false })).toHaveCount(0)
  expect(spent).toBeLessThan(60)
})
