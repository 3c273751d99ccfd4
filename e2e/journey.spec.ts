import { expect, test, type Page } from './test'
import { moveTime } from './time'

/** The stand-in world's address, one port above the application's. */
function world(page: Page): string {
  const url = new URL(page.url())
  return `http://localhost:${Number(url.port) + 1}`
}

async function linkAccount(page: Page, network: string): Promise<void> {
  await page.goto('/dispatch/accounts')
  await page.getByRole('button', { name: new RegExp(`^\\w\\w ${network} `) }).click()
  await expect(page.getByRole('heading', { name: `Let Dripline post for you on ${network}?` })).toBeVisible()
  await page.getByRole('radio', { name: 'Lantern & Lathe' }).check()
  await page.getByRole('button', { name: 'Allow', exact: true }).click()
  await expect(page.getByText('is linked.')).toBeVisible()
}

/** How many posts stand on the account's public page of each network. */
async function published(page: Page, site: string): Promise<number[]> {
  const pages = ['murmur', 'guildhall', 'shutterleaf'].map(async (network) =>
    (await page.request.get(`${site}/networks/${network}/@lantern.and.lathe`)).text(),
  )
  return (await Promise.all(pages)).map((text) => text.split('<article').length - 1)
}

test('a new brand goes from a feed to published posts, by hand and by a pipeline', async ({
  page,
  context,
}) => {
  test.setTimeout(600_000)
  const out = page.locator('main button', { hasText: 'The network took it.' })
  await page.goto('/')
  await expect(page.getByRole('navigation', { name: 'Stations' })).toBeVisible()

  await test.step('an empty brand is made', async () => {
    await page.getByRole('button', { name: /^Brand:/ }).click()
    await page.getByRole('link', { name: 'All brands, and a new one' }).click()
    await page.getByLabel('A new brand').fill('Slipway School')
    await page.getByRole('button', { name: 'Make the brand' }).click()
    await expect(page.getByRole('heading', { name: 'Four steps to the first post' })).toBeVisible()
  })

  await test.step('1: accounts are linked on three networks, with slots proposed and copied', async () => {
    for (const network of ['Murmur', 'Guildhall', 'Shutterleaf']) await linkAccount(page, network)
    await expect(page.getByText('3 accounts linked for Slipway School.')).toBeVisible()
    const row = page.getByText('@lantern.and.lathe').first()
    await expect(row).toBeVisible()
    await page.getByRole('button', { name: 'Slots and quiet days' }).first().click()
    await page.getByRole('group', { name: 'Quiet weekdays' }).getByRole('button', { name: 'Sun' }).click()
    await page.getByRole('button', { name: /Copy slots and quiet days to the other 2 accounts/ }).click()
    await page.getByRole('button', { name: 'Apply' }).click()
    await expect(page.getByText('Kept; no post had to move.')).toBeVisible()
  })

  await test.step('2: the blog’s address is enough; its pieces are read in full, without furniture', async () => {
    await page.goto('/intake/sources')
    await page.getByLabel('Add a source by its address').fill(world(page).replace('//', '//oakum-yard.'))
    await page.getByRole('button', { name: 'Look', exact: true }).click()
    await page.getByRole('button', { name: 'Add this source' }).click()
    await expect(page.getByText('11 pieces from 1 source, 11 waiting.')).toBeVisible({ timeout: 30_000 })
  })

  await test.step('3: the Reader marks passages; one is kept, one left out, one added by selecting', async () => {
    await page.getByRole('link', { name: 'Varnish in damp weather' }).click()
    await expect(page.getByRole('heading', { name: 'Varnish in damp weather' })).toBeVisible()
    await expect(page.getByText('(call to subscribe)')).toBeVisible()
    const rows = page.getByRole('listbox', { name: 'Passages' }).getByRole('option')
    await expect(rows.first()).toBeVisible()
    const before = await page.locator('mark').count()
    expect(before).toBeGreaterThan(5)
    const said = await page.getByText(/^\d kept, \d short\.$/).textContent()
    const at = Number(said?.charAt(0))
    const kept = (count: number) => page.getByText(`${count} kept, ${8 - count} short.`)
    await rows.first().click()
    await page.keyboard.press('x')
    await expect(kept(at - 1)).toBeVisible()
    await page.keyboard.press('Control+z')
    await expect(kept(at)).toBeVisible()
    await page.getByText('Buy one good flat brush and never let it dry.').first().click({ clickCount: 3 })
    await page.getByRole('button', { name: 'Keep the selection' }).click()
    await expect(kept(at + 1)).toBeVisible()
  })

  await test.step('4: a drip is started, a caption edited and another wording taken', async () => {
    await page.getByRole('button', { name: 'Start a drip' }).click()
    await page.getByLabel('Rhythm').last().selectOption('Shower')
    await page.getByRole('button', { name: 'Write the drip' }).click()
    await expect(page.getByRole('grid')).toBeVisible({ timeout: 30_000 })
    await expect(page.getByRole('columnheader', { name: /lantern/ })).toHaveCount(3)
    const cells = page.locator('button[data-post]')
    expect(await cells.count()).toBeGreaterThanOrEqual(5)
    await page.keyboard.press('ArrowDown')
    await page.keyboard.press('e')
    const text = (await page.getByLabel('Caption').inputValue()).replace('http', 'Worth a read: http')
    await page.getByLabel('Caption').fill('x'.repeat(400))
    await expect(page.getByText(/characters too long for/)).toBeVisible()
    await page.getByLabel('Caption').fill(text)
    await page.keyboard.press('Control+Enter')
    await expect(page.getByText('edited by hand')).toBeVisible()
    await page.keyboard.press('ArrowRight')
    const caption = page.getByTestId('caption')
    const first = await caption.innerText()
    await page.keyboard.press('w')
    await expect(caption).not.toHaveText(first)
    await page.keyboard.press('Escape')
  })

  await test.step('5: the Horizon shows where they land; they are approved', async () => {
    await page.getByRole('button', { name: /^Approve \d+ unflagged/ }).click()
    await expect(page.getByText(/captions were approved/)).toBeVisible()
    await page.keyboard.press('5')
    // Late in a week none may be left of it; the list then leads to the next.
    const listed = page.locator('[data-drop]').first()
    const next = page.getByRole('button', { name: /^To the next one, / })
    await expect(listed.or(next)).toBeVisible()
    if (await next.isVisible()) await next.click()
    await expect(listed).toBeVisible()
    await page.getByRole('button', { name: 'Year' }).click()
    await expect(page.getByRole('img', { name: /The year as drawn: [1-9]\d* posts/ })).toBeVisible()
  })

  await test.step('6: they are published at their time, with receipts, and stand on the public page', async () => {
    await page.keyboard.press('6')
    await expect(page.getByText('safe to leave').first()).toBeVisible({ timeout: 30_000 })
    await page.getByLabel('Which deliveries').selectOption('published')
    // A day at a time, until every account has had its first post; a quiet day may lie between.
    for (let days = 0; days < 5 && (await published(page, world(page))).includes(0); days++)
      await moveTime(page, '+1 day')
    await expect(out.first()).toBeVisible()
    const delivery = page.locator('main button', { hasText: 'The network took it.' }).first()
    await expect(delivery).toBeVisible()
    await delivery.click()
    await expect(page.getByText('answered 201').first()).toBeVisible()
    const shared = await context.newPage()
    await shared.goto(`${world(page)}/networks/shutterleaf/@lantern.and.lathe`)
    await expect(shared.locator('article img').first()).toBeVisible()
    const size = await shared
      .locator('article img')
      .first()
      .evaluate((img: HTMLImageElement) => img.naturalWidth / img.naturalHeight)
    expect([1, 0.8].some((shape) => Math.abs(size - shape) < 0.02)).toBe(true)
    await shared.goto(`${world(page)}/networks/murmur/@lantern.and.lathe`)
    await expect(shared.locator('article').first()).toBeVisible()
    await shared.close()
  })

  await test.step('7: a pipeline takes the next article in and publishes it without a click', async () => {
    await page.keyboard.press('2')
    await page.getByRole('button', { name: 'Make a pipeline' }).first().click()
    await page.getByRole('button', { name: /^New article, long and thin/ }).click()
    await page.getByRole('button', { name: 'Make it, switched off' }).click()
    const example = page.getByRole('region', { name: 'Worked example' })
    await example.getByRole('button', { name: 'Test delivery' }).first().click()
    await example.getByRole('button', { name: 'Send it' }).click()
    await expect(example.getByText('It arrived, and was taken down again.')).toBeVisible()
    await example.getByRole('button', { name: /^Hold “Row 1/ }).click()
    const days = () => example.getByText(/^\w{3} \d+ \w{3} \d\d:\d\d$/).allInnerTexts()
    const held = await days()
    await page.getByRole('combobox', { name: 'Gate' }).selectOption('what is flagged')
    await page.getByRole('button', { name: 'Row 1', exact: true }).click()
    await page.getByLabel('Rhythm').selectOption('Shower')
    // What is held still is not made anew by another rhythm, and is once it is let go.
    expect(await days()).toEqual(held)
    await example.getByRole('button', { name: /^Hold “Row 1/ }).click()
    await expect.poll(days).not.toEqual(held)
    await page.getByRole('switch').click()
    await expect(page.getByRole('switch')).toHaveAttribute('aria-checked', 'true')
    await page.keyboard.press('3')
    await expect(page.getByRole('heading', { name: 'Intake' })).toBeVisible()
    const taken = page.getByText(/dripping, by New article, long and thin/)
    for (let days = 0; days < 7 && (await taken.count()) === 0; days++) await moveTime(page, '+1 day')
    await expect(taken.first()).toBeVisible()
    const title = await page
      .getByRole('listitem')
      .filter({ has: taken })
      .getByRole('link')
      .first()
      .innerText()
    await page.keyboard.press('4')
    const drip = page
      .locator('main div', { has: page.getByRole('link', { name: title }) })
      .filter({ hasText: / of \d+ out/ })
      .last()
    await expect(drip).toBeVisible()
    for (let days = 0; days < 7 && /\b0 of \d+ out/.test(await drip.innerText()); days++)
      await moveTime(page, '+1 day')
    await expect(drip).toContainText(/[1-9]\d* of \d+ out/)
    await page.keyboard.press('6')
    await page.getByLabel('Which deliveries').selectOption('published')
    await expect(out.nth(3)).toBeVisible()
    await page.keyboard.press('2')
    await page.getByRole('link', { name: /^New article, long and thin/ }).click()
    const runs = page.getByRole('region', { name: 'Runs' })
    await runs.getByRole('button').first().click()
    await expect(runs.getByRole('link', { name: title })).toBeVisible()
    await page.getByLabel('Priority').selectOption('before others')
    const changed = page.getByRole('region', { name: 'What was changed' })
    await expect(changed).toContainText('Changed since: priority.')
    await changed.getByRole('button', { name: 'Put to work …' }).click()
    await changed.getByRole('button', { name: 'Put to work', exact: true }).click()
    await expect(changed).toBeHidden()
    await expect(page.getByRole('region', { name: 'Versions' })).toContainText('priority')
  })

  await test.step('8: everything is held and lifted; a handed-over post is recalled by editing it', async () => {
    await page.keyboard.press('3')
    await page.getByRole('link', { name: 'How long a refit takes' }).click()
    await page.getByRole('button', { name: 'Start a drip' }).click()
    await page.getByRole('button', { name: 'Write the drip' }).click()
    await expect(page.getByRole('grid')).toBeVisible({ timeout: 30_000 })
    await page.getByRole('button', { name: /^Approve \d+ unflagged/ }).click()
    const handed = page.locator('button[data-post]', {
      has: page.getByTitle('handed over, safe to leave'),
    })
    await expect(handed.first()).toBeVisible({ timeout: 30_000 })
    await page.keyboard.press('1')
    await page.getByRole('button', { name: 'Hold everything' }).click()
    await expect(page.getByText('Everything is held. Nothing goes out until you lift it.')).toBeVisible()
    await page.goBack()
    await expect(handed).toHaveCount(0, { timeout: 30_000 })
    await page.keyboard.press('1')
    await page.getByRole('button', { name: 'Lift the hold' }).click()
    await page.goBack()
    await expect(handed.first()).toBeVisible({ timeout: 30_000 })
    await handed.first().click()
    await page.keyboard.press('e')
    const edited = `${await page.getByLabel('Caption').inputValue()} Mended.`
    await page.getByLabel('Caption').fill(edited)
    await page.keyboard.press('Control+Enter')
    await expect(page.getByText('edited by hand')).toBeVisible()
    await expect(page.getByText(/^handed over, safe to leave · edited by hand$/)).toBeVisible({
      timeout: 30_000,
    })
  })

  await test.step('9: with the browser closed the server publishes; the receipts are collected later', async () => {
    const origin = new URL(page.url()).origin
    const site = world(page)
    const count = async (): Promise<number> =>
      (await published(page, site)).reduce((sum, posts) => sum + posts, 0)
    const before = await count()
    await page.goto('about:blank')
    const { now } = (await (await page.request.get(`${origin}/api/clock`)).json()) as { now: string }
    const week = Date.parse(now) + 86_400_000 * 7
    // No browser is there to move the time event by event, so it is moved slot by slot.
    for (let at = Date.parse(now); at < week && (await count()) === before; at += 1_800_000)
      await page.request.post(`${origin}/api/clock/advance`, {
        data: { to: new Date(at).toISOString() },
        headers: { origin },
      })
    await expect.poll(count).toBeGreaterThan(before)
    await page.goto('/dispatch')
    await page.getByLabel('Which deliveries').selectOption('published')
    await expect(page.getByText('The network took it.').first()).toBeVisible()
  })
})
