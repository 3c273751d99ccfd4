import { join } from 'node:path'
import type { Page } from '@playwright/test'
import { openPage, startDemo } from './demo'
import { until } from './servers'
import { demoTime, moveTime } from './time'

/*
 * npm run screenshots: starts the demo at its usual addresses, which must be free, and takes the
 * pictures of docs/ at 1280x800. A few days of the demo's time pass first, so that there is something to see.
 */

const root = join(import.meta.dirname, '..')
const { base, stop } = await startDemo(4600, 4601)
// A picture that could not be taken leaves no demo running.
process.once('uncaughtException', (error) => {
  console.error(error)
  void Promise.resolve(stop()).finally(() => process.exit(1))
})
const { browser, page } = await openPage()
const shot = async (name: string): Promise<void> => {
  await page.waitForTimeout(700)
  await page.screenshot({ path: join(root, 'docs/screenshots', `${name}.png`) })
}
const open = async (path: string, ready: (p: Page) => Promise<unknown>): Promise<void> => {
  await page.goto(`${base}${path}`)
  await ready(page)
}

await open('/', (p) => p.getByRole('heading', { name: /wait/ }).waitFor())
await page.waitForTimeout(5000)
for (let day = 0; day < 6; day++) await moveTime(page, '+1 day')
// At ten in the morning there is something behind and something ahead.
while (new Date(await demoTime(page)).getUTCHours() !== 10) await moveTime(page, '+1 hour')
await page.waitForTimeout(1500)
await open('/', (p) => p.getByRole('heading', { name: /wait/ }).waitFor())
await shot('desk')
await open('/pipelines', (p) => p.getByRole('link', { name: 'Journal, long and thin' }).waitFor())
await page.getByRole('link', { name: 'Journal, long and thin' }).click()
await page.getByRole('heading', { name: /^Row 1: / }).waitFor({ timeout: 60_000 })
await shot('bench')
await open('/intake', (p) => p.getByRole('link', { name: 'Varnish in damp weather' }).waitFor())
await shot('intake')
await page.getByRole('link', { name: 'Varnish in damp weather' }).click()
await page.getByRole('listbox', { name: 'Passages' }).getByRole('option').nth(2).click()
await shot('reader')
await open('/writing/shelf', (p) =>
  p
    .getByText(/comes \d/)
    .first()
    .waitFor(),
)
await shot('shelf')
await open('/writing/occasions', (p) => p.getByRole('gridcell').getByRole('button').first().waitFor())
await page.keyboard.press('ArrowDown')
await page.keyboard.press('ArrowDown')
await page.waitForTimeout(1500)
await shot('occasions')
await open('/writing', (p) => p.getByRole('link', { name: 'Seven tools worth buying once' }).waitFor())
await shot('writing')
await open('/writing/look', async (p) => {
  const cards = p.getByRole('group', { name: 'Cards of three passages' }).getByRole('img')
  await until(
    () =>
      cards.evaluateAll(
        (all) => all.length === 3 && all.every((i) => (i as HTMLImageElement).naturalWidth > 0),
      ),
    30_000,
  )
})
await shot('look')
await open('/writing/briefs?network=murmur&beside=broadside', (p) =>
  p.getByTestId('example').nth(3).waitFor(),
)
await shot('briefs')
await open('/settings/services', (p) => p.getByRole('region', { name: 'A stock of pictures' }).waitFor())
for (const name of ['A stock of pictures', 'Pictures made to order'])
  await page
    .getByRole('region', { name })
    .getByRole('button', { name: /stand-in/ })
    .click()
await open('/writing/pictures', (p) =>
  p.getByRole('group', { name: 'Pictures of the library' }).locator('img').nth(20).waitFor(),
)
await page.getByRole('button', { name: 'From the stock …' }).click()
await page.getByRole('searchbox', { name: 'Search the stock' }).fill('boat shore')
await page.getByRole('button', { name: /^A boat drawn up on the shore in winter/ }).click()
await page.getByText(/is in the library/).waitFor()
await page.getByRole('button', { name: 'Close Esc' }).click()
await page
  .getByRole('group', { name: 'Pictures of the library' })
  .getByRole('button', { name: /^A boat drawn up/ })
  .click()
await shot('pictures')
await open('/writing', (p) => p.getByRole('link', { name: 'Seven tools worth buying once' }).waitFor())
await page.getByRole('link', { name: 'Larch or oak for the planking?' }).click()
await page.locator('button[data-post]').nth(4).click()
await page.getByTestId('caption').waitFor()
await shot('drip-sheet')
await open('/horizon', (p) => p.locator('[data-drop]').first().waitFor())
// On the last day of a week all of it may have gone out: the next one has posts that can be moved.
const putHere = page.getByRole('button', { name: 'Put it here' })
const tryToMove = async (): Promise<boolean> => {
  await page.getByRole('option').last().click()
  await page.keyboard.press('m')
  return putHere.waitFor({ timeout: 5000 }).then(
    () => true,
    () => false,
  )
}
if (!(await tryToMove())) {
  const inAWeek = new Date((await demoTime(page)) + 7 * 86_400_000).toISOString().slice(0, 10)
  await open(`/horizon?from=${inAWeek}`, (p) => p.locator('[data-drop]').first().waitFor())
  if (!(await tryToMove())) throw new Error('No post of these two weeks can be moved.')
}
await shot('horizon-week')
await page.keyboard.press('Escape')
await open('/horizon?zoom=year&beside=figures', (p) =>
  p.getByRole('img', { name: /The year as drawn/ }).waitFor(),
)
await shot('horizon-year')
await open('/horizon/rehearsal', (p) =>
  p
    .getByRole('img', { name: /^Posts a week of/ })
    .first()
    .waitFor(),
)
await page.getByLabel('What if …').selectOption('slots')
await page.getByLabel(/^Slots a week/).fill('3')
await page.getByRole('button', { name: 'Try it' }).click()
await page.getByText(/^Of what stands, \d+ posts? moves?/).waitFor()
await shot('rehearsal')
await open('/results?account=gu-yard&span=182&by=opening', (p) =>
  p.getByText('By hour and weekday').waitFor(),
)
await shot('results')
await open('/dispatch', (p) => p.getByLabel('Which deliveries').waitFor())
await page.getByLabel('Which deliveries').selectOption('published')
await page.locator('main button', { hasText: 'The network took it.' }).first().click()
await page.getByText('answered 201').first().click()
await shot('dispatch')
await open('/dispatch/accounts', (p) =>
  p.getByRole('button', { name: 'Slots and quiet days' }).first().waitFor(),
)
await page.getByRole('button', { name: 'Slots and quiet days' }).first().click()
await shot('accounts')
await open('/intake', (p) => p.getByRole('link', { name: 'Varnish in damp weather' }).waitFor())
await page.getByRole('link', { name: 'Sharpening a plane iron in six minutes' }).click()
await page.getByRole('listbox', { name: 'Passages' }).waitFor()
await page.keyboard.press('d')
for (const name of [/Murmur/, /Guildhall/, /Shutterleaf/, /Hearthside/, /Rackwell/, /Longwave/, /Broadside/])
  for (const box of await page.getByRole('checkbox', { name }).all()) await box.uncheck()
await page.getByRole('button', { name: 'Write the drip' }).click()
await page.locator('button[data-post]').first().click()
const film = page.getByRole('complementary').locator('video')
await film.waitFor()
await page.getByLabel('Place in the clip').fill('4')
await page.waitForTimeout(1500)
await film.locator('xpath=..').evaluate((frame) => frame.scrollIntoView({ block: 'start' }))
await shot('clip')
await page.emulateMedia({ colorScheme: 'dark' })
await open('/settings', (p) =>
  p
    .getByText(/posts in the next seven days/)
    .nth(1)
    .waitFor(),
)
await shot('brands-dark')
await browser.close()
stop()
