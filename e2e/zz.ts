import { openPage } from './demo'
const { browser, page } = await openPage()
page.on('console', (m) => { if (m.type() === 'error' || m.type()==='warning') console.log('CONSOLE', m.text().slice(0,300)) })
page.on('pageerror', (e) => console.log('PAGEERROR', e.message))
const base='http://localhost:4710'
await page.goto(base + '/writing')
await page.getByRole('link', { name: /Larch or oak/ }).click()
await page.getByRole('gridcell').nth(2).click()
await page.waitForTimeout(2500)
await page.screenshot({ path: '/tmp/s1.png' })
const t = await page.evaluate(() => [...document.images].map((i) => [i.src.slice(0, 40), i.naturalWidth, i.naturalHeight, i.complete]))
console.log(JSON.stringify(t))
await browser.close()
