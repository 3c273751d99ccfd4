import { openPage } from './demo'
const { browser, page } = await openPage()
page.on('console', (m) => {
  if (m.type() === 'error' || m.type() === 'warning') console.log('CONSOLE', m.text().slice(0, 300))
})
page.on('pageerror', (e) => console.log('PAGEERROR', e.message))
const base = 'http://localhost:4710'
await page.goto(base + '/writing')
await page.getByRole('button', { name: 'Look of cards' }).click()
await page.waitForTimeout(4000)
await page.screenshot({ path: '/tmp/s1.png' })
await browser.close()
