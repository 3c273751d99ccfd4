import { expect, test, type Page } from './test'

/** The stand-in world's address of a site, one port above the application's. */
function site(page: Page, name: string): string {
  const { port } = new URL(page.url())
  return `http://${name}.localhost:${Number(port) + 1}`
}

/** The same for requests that do not go through the browser, which alone knows such host names. */
function file(page: Page, name: string): string {
  return `http://localhost:${Number(new URL(page.url()).port) + 1}/sites/${name}`
}

async function look(page: Page, address: string): Promise<void> {
  await page.goto('/intake/sources')
  await page.getByLabel(/^Add a source by its address/).fill(address)
  await page.getByRole('button', { name: 'Look', exact: true }).click()
}

const drop = (page: Page, name: string, text: string | Buffer) =>
  page.getByLabel('Files to take in').setInputFiles({
    name,
    mimeType: 'application/octet-stream',
    buffer: Buffer.from(text),
  })

test('every kind of source comes in, is sieved, and is read', async ({ page }) => {
  test.setTimeout(300_000)
  await page.goto('/')
  await page.getByRole('button', { name: /^Brand:/ }).click()
  await page.getByRole('link', { name: 'All brands, and a new one' }).click()
  await page.getByLabel('A new brand').fill('Lamp Room')
  await page.getByRole('button', { name: 'Make the brand' }).click()
  await expect(page.getByRole('button', { name: 'Brand: Lamp Room' })).toBeVisible()

  await test.step('a site with summaries only: its page names the feed, its articles are read from their pages', async () => {
    await look(page, site(page, 'fernhollow'))
    await expect(page.getByText('One feed was found')).toBeVisible()
    await expect(page.getByText(/9 items, the newest \d+ days? ago/)).toBeVisible()
    await page.getByLabel('Of what is there already, take').selectOption('last')
    await page.getByLabel('How many of the last ones').fill('8')
    await page.getByRole('button', { name: 'Add this source' }).click()
    await expect(page.getByText('8 pieces from 1 source, 8 waiting.')).toBeVisible({ timeout: 90_000 })
  })

  await test.step('a partner’s JSON feed: what it tells again is folded under the first', async () => {
    await look(page, `${site(page, 'partner')}/feed.json`)
    await page.getByRole('button', { name: 'Add this source' }).click()
    await expect(page.getByText(/14 pieces from 2 sources, 12 waiting; 2 doubles folded\./)).toBeVisible()
    const row = page.getByRole('listitem').filter({ hasText: 'When to turn back' })
    await row.getByRole('button', { name: '+ 1 double' }).click()
    await expect(page.getByText(/the same story, 9\d % alike/)).toBeVisible()
  })

  await test.step('a channel’s films: chapters, times, and a transcript given by hand', async () => {
    await look(page, `${site(page, 'oakum-yard')}/films`)
    await page.getByRole('button', { name: 'Add this source' }).click()
    await page.getByRole('link', { name: 'Sharpening a plane iron in six minutes' }).click()
    await expect(page.getByText('The fine stone').first()).toBeVisible()
    const first = page.getByRole('listbox', { name: 'Passages' }).getByRole('option').first()
    await expect(first).toContainText(/\d:\d\d–\d:\d\d · \d+ seconds/)
    await page.getByRole('button', { name: 'Hide the ums' }).click()
    await expect(page.getByText('um,', { exact: true }).first()).toBeHidden()
    const count = await page.getByRole('option').count()
    await page.getByLabel('A transcript of this video').setInputFiles({
      name: 'own.srt',
      mimeType: 'text/plain',
      buffer: Buffer.from(
        '1\n00:00:01,000 --> 00:00:09,000\nA dull iron crushes the end grain of soft pine and leaves it white.\n\n2\n00:00:10,000 --> 00:00:18,000\nA sharp one leaves it shining like a nut, every time you look.\n',
      ),
    })
    await expect(page.getByText('This piece has another transcript')).toBeVisible()
    await expect(page.getByText('no longer in the piece').first()).toBeVisible()
    expect(count).toBeGreaterThan(8)
    await page.getByRole('button', { name: 'Seen' }).click()
  })

  await test.step('a single film by its page', async () => {
    await look(page, `${site(page, 'oakum-yard')}/films/paying-a-seam`)
    await page.getByRole('button', { name: 'Take in this page alone' }).click()
    await expect(page.getByRole('heading', { level: 1 })).toContainText(/seam/i)
    await expect(page.getByRole('listbox', { name: 'Passages' }).getByRole('option').first()).toContainText(
      /\d:\d\d–\d:\d\d · \d+ seconds/,
    )
  })

  await test.step('a manuscript chapter by chapter, Markdown and Word', async () => {
    await page.goto('/intake/sources')
    const handbook = await (await page.request.get(`${file(page, 'fernhollow')}/handbook.md`)).text()
    await drop(page, 'handbook.md', handbook)
    await expect(page.getByText('The weather book')).toBeVisible()
    await page.getByRole('checkbox', { name: /The first night/ }).uncheck()
    const word = await (await page.request.get(`${file(page, 'fernhollow')}/handbook-winter.docx`)).body()
    await drop(page, 'winter.docx', word)
    const winter = page.getByRole('group', { name: 'winter' })
    await page
      .getByRole('group', { name: 'handbook' })
      .getByRole('button', { name: /^Take in/ })
      .click()
    await expect(page.getByText(/taken in from handbook/)).toBeVisible()
    await winter.getByRole('button', { name: 'Take in this piece' }).click()
    await expect(page.getByRole('heading', { name: 'Closing a hut for winter' })).toBeVisible()
    await page.getByLabel('Search in the piece').fill('mouse')
    await expect(page.getByText(/^1\/\d+$/)).toBeVisible()
  })

  await test.step('a content sheet: columns matched, bad rows named, ready rows taken one at a time', async () => {
    await page.goto('/intake/sources')
    const list = await (await page.request.get(`${file(page, 'partner')}/reading-list.csv`)).text()
    await drop(page, 'reading-list.csv', list)
    await expect(page.getByLabel('The address of the page is in')).toHaveValue('Link')
    await page.getByLabel('The title is in').selectOption('Headline')
    await page.getByLabel('The status is in').selectOption('Stage')
    await expect(page.getByText('line 6')).toBeVisible()
    await expect(page.getByText(/“not an address” is not a web address/)).toBeVisible()
    await page.getByRole('button', { name: 'done', exact: true }).click()
    await page.getByRole('button', { name: 'Import', exact: true }).click()
    await page.getByRole('button', { name: /^reading list content sheet/ }).click()
    await page.getByRole('button', { name: 'Visit now', exact: true }).click()
    // The runner may have visited it too meanwhile: one row a visit.
    await expect(page.getByText('taken in', { exact: true }).first()).toBeVisible()
  })

  await test.step('a list of feeds is offered feed by feed', async () => {
    await drop(
      page,
      'feeds.opml',
      `<opml version="2.0"><body><outline text="Yards"><outline text="The yard" xmlUrl="${site(page, 'oakum-yard')}/feed.xml"/></outline></body></opml>`,
    )
    await page.getByRole('button', { name: 'Add 1 feed' }).click()
    await expect(page.getByRole('heading', { name: 'Yards' })).toBeVisible()
    await expect(page.getByRole('button', { name: /^The yard feed/ })).toContainText('5 new pieces', {
      timeout: 90_000,
    })
  })

  await test.step('a sieve says what it catches and by which words; a person lets one through', async () => {
    await page.keyboard.press('2')
    await page.getByRole('button', { name: 'Make a pipeline' }).first().click()
    await page.getByRole('button', { name: /^Changed article, said again/ }).click()
    await page.getByRole('button', { name: 'Make it, switched off' }).click()
    await page.getByLabel('Add a rule about').selectOption('words')
    await page.getByLabel('How many of the words').selectOption('none')
    const words = page.getByRole('group', { name: /^Words, phrases/ }).getByRole('textbox')
    await words.fill('cake, choir, shop*')
    await words.press('Enter')
    await expect(page.getByTestId('trial')).toContainText(/\d+ are caught/)
    await page.getByRole('button', { name: /^catches \d+ of the last/ }).click()
    await expect(page.getByText(/There is “choir” in the title and the text\./)).toBeVisible()
    const passed = await page.getByTestId('trial').locator('b').innerText()
    await page.getByRole('button', { name: 'Let through' }).first().click()
    await expect(page.getByTestId('trial').locator('b')).not.toHaveText(passed)
  })

  await test.step('many at once are found by a search and set aside', async () => {
    await page.goto('/intake')
    await page.keyboard.press('/')
    await page.getByLabel(/^Search in titles/).fill('joren safety')
    await expect(page.getByText('3 pieces', { exact: true })).toBeVisible()
    await page.getByRole('button', { name: 'Select these' }).click()
    await page.keyboard.press('Escape')
    await page.getByRole('button', { name: 'Select these' }).click()
    await page.getByRole('button', { name: 'Set aside' }).click()
    await page.getByLabel('Which pieces').selectOption('set aside')
    await expect(page.getByRole('listitem')).toHaveCount(3)
    await page.keyboard.press('Control+z')
    await expect(page.getByText('Nothing is like that')).toBeVisible()
  })
})
