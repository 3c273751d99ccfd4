import { openPage, startDemo } from './demo'
const { base, stop } = await startDemo(4760, 4761)
const { browser, page } = await openPage()
const errors: string[] = []
page.on('pageerror', (e) => errors.push(String(e)))
page.on('console', (m) => m.type() === 'error' && errors.push(m.text()))
try {
  await page.goto(base)
  await page.getByRole('navigation', { name: 'Stations' }).waitFor()
  await page.goto(base + '/pipelines')
  await page.getByRole('link', { name: 'Journal, long and thin' }).click()
  await page.getByText('Row 1:').waitFor({ timeout: 30000 })
  await page.waitForTimeout(1500)
  await page.screenshot({ path: '/tmp/b1.png' })
  await page.getByRole('button', { name: 'Add a row' }).click()
  await page.waitForTimeout(800)
  await page.getByRole('button', { name: 'Add a row' }).scrollIntoViewIfNeeded()
  await page.screenshot({ path: '/tmp/b2.png' })
  await page.locator('main').evaluate((m) => m.scrollTo(0, 99999))
  await page.screenshot({ path: '/tmp/b3.png' })
} finally {
  console.log(errors.slice(0, 5))
  await browser.close()
  stop()
}
