import { createServer, type Server } from 'node:http'
import { once } from 'node:events'
import AxeBuilder from '@axe-core/playwright'
import { expect, test, type Page } from './test'

let site: Server
let port: number

/** A site of trouble beside the stand-in world: it is on loopback, so only the world's port is let through. */
async function openTrouble(): Promise<void> {
  site = createServer((_, response) => response.end('never reached')).listen(0, '127.0.0.1')
  await once(site, 'listening')
  const address = site.address()
  port = address !== null && typeof address === 'object' ? address.port : 0
}

async function addSource(page: Page, address: string): Promise<void> {
  await page.getByLabel('Add a source by its address').fill(address)
  await page.getByRole('button', { name: 'Look', exact: true }).click()
}

test.beforeAll(openTrouble)
test.afterAll(() => {
  site.close()
})
test('every bad address gets a sentence, and nothing already there is lost', async ({ page }) => {
  await page.goto('/intake/sources')
  await expect(page.getByText('Oakum Yard journal').first()).toBeVisible()
  const world = `http://localhost:${Number(new URL(page.url()).port) + 1}`
  const cases: [string, RegExp][] = [
    [`${world}/`, /No feed was found on this page nor in the usual places/],
    [
      `${world.replace('//', '//oakum-yard.')}/no-such-page`,
      /There is nothing at this address at .* \(404\)/,
    ],
    ['http://no-such-host.invalid/feed', /There is no site at no-such-host\.invalid/],
    ['http://192.168.1.20/feed.xml', /lies in a private network/],
    [`http://127.0.0.1:${port}/feed.xml`, /lies in a private network/],
    ['not an address', /is not a web address\. It should look like/],
  ]
  for (const [address, sentence] of cases) {
    await addSource(page, address)
    await expect(page.getByText(sentence)).toBeVisible()
    await expect(page.getByLabel('Add a source by its address')).toHaveValue(address)
    await page.getByRole('button', { name: 'Close' }).click()
  }
  await addSource(page, `${world.replace('//', '//oakum-yard.')}/feed.xml`)
  await page.getByRole('button', { name: 'Add this source' }).click()
  await expect(page.getByText('Oakum Yard journal is among your sources already.')).toBeVisible()
  await page.goto('/intake')
  await expect(page.getByText('14 pieces from 2 sources, 5 waiting.')).toBeVisible()
})

test('a broken bundle is refused with a sentence, a whole one comes back unchanged', async ({ page }) => {
  await page.goto('/settings/bundle')
  await expect(page.getByText('No bundle has been made yet.')).toBeVisible()
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Make a bundle' }).click()
  const path = await (await download).path()
  await expect(page.getByText('The last bundle was made now.')).toBeVisible()
  for (const [name, bytes] of [
    ['notes.zip', Buffer.from('these are only words')],
    ['half.zip', (await (await import('node:fs/promises')).readFile(path)).subarray(0, 5000)],
  ] as const) {
    await page
      .getByLabel('A bundle file')
      .setInputFiles({ name, mimeType: 'application/zip', buffer: Buffer.from(bytes) })
    await page.getByRole('button', { name: 'Replace everything' }).click()
    await expect(page.getByText(/not a bundle, or it was cut off.*nothing was changed/)).toBeVisible()
    await page.getByRole('button', { name: 'Close' }).click()
    await page.getByRole('button', { name: 'Leave it' }).click()
  }
  await page.goto('/intake')
  await expect(page.getByText('5 waiting')).toBeVisible()
  await page.keyboard.press('x')
  await expect(page.getByText('4 waiting')).toBeVisible()
  await page.goto('/settings/bundle')
  await page.getByLabel('A bundle file').setInputFiles(path)
  await page.getByRole('button', { name: 'Replace everything' }).click()
  await expect(page.getByText('The bundle was read in.')).toBeVisible()
  await page.goto('/intake')
  await expect(page.getByText('14 pieces from 2 sources, 5 waiting.')).toBeVisible()
})

test('a second browser is told that another owns the spool, and may take it over', async ({
  page,
  browser,
}) => {
  await page.goto('/')
  await expect(page.getByRole('navigation', { name: 'Stations' })).toBeVisible()
  // A browser of its own with another workspace: a bundle of the demo under a new id.
  const other = await browser.newContext()
  const second = await other.newPage()
  await second.goto('/')
  await expect(second.getByRole('navigation', { name: 'Stations' })).toBeVisible()
  await second.evaluate(async () => {
    const open = indexedDB.open('dripline')
    const db = await new Promise<IDBDatabase>((resolve) => (open.onsuccess = () => resolve(open.result)))
    const store = db.transaction('workspace', 'readwrite').objectStore('workspace')
    const [row] = await new Promise<Record<string, unknown>[]>((resolve) => {
      const all = store.getAll()
      all.onsuccess = () => resolve(all.result as Record<string, unknown>[])
    })
    store.clear()
    store.put({ ...row, id: 'another-browser', seed: null })
    await new Promise((resolve) => (store.transaction.oncomplete = resolve))
    db.close()
  })
  await second.reload()
  await expect(second.getByText('Another browser owns this server’s spool.')).toBeVisible()
  await second.getByRole('button', { name: 'Take it over here' }).click()
  await expect(second.getByText('Another browser owns this server’s spool.')).toBeHidden()
  await expect(page.getByText('Another browser owns this server’s spool.')).toBeVisible({ timeout: 20_000 })
  await page.getByRole('button', { name: 'Take it over here' }).click()
  await expect(page.getByText('Another browser owns this server’s spool.')).toBeHidden()
  await other.close()
})

test('without the server the work goes on, and the screen says so', async ({ page }) => {
  await page.goto('/intake')
  await expect(page.getByText('5 waiting')).toBeVisible()
  await page.route('**/api/**', (route) => route.abort())
  await expect(page.getByText(/The server does not answer/)).toBeVisible({ timeout: 20_000 })
  await page.keyboard.press('x')
  await expect(page.getByText('4 waiting')).toBeVisible()
  // A request that is being refused just then would otherwise hang.
  await page.unrouteAll({ behavior: 'wait' })
  await expect(page.getByText(/The server does not answer/)).toBeHidden({ timeout: 20_000 })
  await page.keyboard.press('Control+z')
  await expect(page.getByText('5 waiting')).toBeVisible()
})

test('an account with places, another system and one served by hand are linked', async ({ page }) => {
  await page.goto('/dispatch/accounts')
  await page.getByRole('button', { name: /Rackwell/ }).click()
  await page.getByRole('button', { name: 'Allow', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'Where its posts go' })).toBeVisible()
  await expect(page.getByText(/held: Choose where its posts go/)).toBeVisible()
  await page.getByRole('checkbox', { name: /Lamps/ }).check()
  await page.getByRole('button', { name: 'Post there' }).click()
  await expect(page.getByText('1 place chosen; each has slots and a column of its own.')).toBeVisible()
  await expect(page.getByText(/held: Choose where its posts go/)).toBeHidden()
  await expect(page.getByRole('checkbox', { name: /Lamps/ })).toBeDisabled()

  const world = `http://localhost:${Number(new URL(page.url()).port) + 1}`
  await page.getByRole('button', { name: 'Another system' }).click()
  await expect(page.getByRole('button', { name: 'Link it' })).toBeDisabled()
  await page.getByLabel('Name in lists').fill('Club board')
  await page.getByLabel('Address it is sent to').fill(`${world}/webhook`)
  expect((await new AxeBuilder({ page }).include('form').analyze()).violations).toEqual([])
  await page.getByRole('button', { name: 'Link it' }).click()
  await expect(page.getByText(/Its secret, shown this once/)).toBeVisible()
  // It is nowhere in what the browser keeps.
  const told = (await page.getByText(/Its secret, shown this once/).textContent()) ?? ''
  const secret = /with it: (\S+)/.exec(told)?.[1] ?? ''
  expect(secret.length).toBeGreaterThan(20)
  const kept = await page.evaluate(async () => {
    const open = indexedDB.open('dripline')
    const db = await new Promise<IDBDatabase>((resolve) => (open.onsuccess = () => resolve(open.result)))
    const tables = await Promise.all(
      [...db.objectStoreNames].map((name) => {
        const all = db.transaction(name).objectStore(name).getAll()
        return new Promise<unknown[]>((resolve) => (all.onsuccess = () => resolve(all.result as unknown[])))
      }),
    )
    return JSON.stringify([tables, { ...localStorage }])
  })
  expect(kept).toContain('Club board')
  expect(kept).not.toContain(secret)

  await page.getByRole('button', { name: 'By hand' }).click()
  await page.getByLabel('Name in lists').fill('Notice board')
  await page.getByRole('button', { name: 'Link it' }).click()
  await expect(page.getByText(/by hand, linked now/)).toBeVisible()
})

test('the ledger is searched, and what is shown is saved', async ({ page }) => {
  await page.goto('/dispatch')
  const search = page.getByLabel('Search deliveries')
  await search.fill('no delivery says this')
  await expect(page.getByText('No delivery is like that.')).toBeVisible()
  await expect(page.getByRole('button', { name: 'CSV' })).toBeDisabled()
  await page.getByRole('button', { name: 'Show all' }).click()
  await expect(search).toHaveValue('')
  await page.getByLabel('Of which account').selectOption({ index: 1 })
  const rows = page.getByRole('main').getByRole('button').filter({ hasText: '@' })
  await expect(rows.first()).toBeVisible()
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'CSV' }).click()
  const sheet = await (await import('node:fs/promises')).readFile(await (await download).path(), 'utf8')
  const [head = '', ...lines] = sheet.trim().split('\r\n')
  expect(head.split(',').length).toBeGreaterThan(6)
  expect(lines.length).toBeGreaterThanOrEqual(await rows.count())
})
