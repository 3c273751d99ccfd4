import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import AxeBuilder from '@axe-core/playwright'
import { createCanvas, loadImage } from '@napi-rs/canvas'
import { imageSize } from 'image-size'
import jsQR from 'jsqr'
import JSZip from 'jszip'
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs'
import { ALL_FORMATS, BufferSource, Input } from 'mediabunny'
import { expect, test, type Locator, type Page } from './test'
import { moveTime } from './time'

/** Finds nothing on a page that keeps people from using it (axe). */
async function noneSerious(page: Page): Promise<void> {
  const { violations } = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag21aa']).analyze()
  expect(violations.filter((v) => /serious|critical/.test(v.impact ?? '')).map((v) => v.id)).toEqual([])
}

async function openSheet(page: Page): Promise<void> {
  await page.goto('/')
  await expect(page.getByRole('navigation', { name: 'Stations' })).toBeVisible()
  await page.goto('/writing')
  await page.getByRole('link', { name: 'Seven tools worth buying once' }).click()
  await expect(page.locator('button[data-post]').first()).toBeVisible()
}

test('a drip is worked through by the keyboard alone: another wording, several at once, undone', async ({
  page,
}) => {
  await openSheet(page)
  const cells = page.locator('button[data-post]')
  await page.keyboard.press('ArrowDown')
  const caption = page.getByTestId('caption')
  await expect(caption).toBeVisible()
  const before = await caption.innerText()
  await page.keyboard.press('w')
  await expect(caption).not.toHaveText(before)
  await page.keyboard.press('Control+z')
  await expect(caption).toHaveText(before)
  // Two posts are picked, and their words replaced in one action.
  await page.keyboard.press(' ')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press(' ')
  const many = page.getByRole('toolbar', { name: 'Several posts' })
  await expect(many).toContainText('2 posts selected')
  const count = await cells.filter({ hasText: 'Zebrawood' }).count()
  expect(count).toBe(0)
  await many.getByRole('button', { name: 'Find and replace …' }).click()
  await many.getByLabel('Find').fill('e ')
  await many.getByLabel('Replace with').fill('e Zebrawood ')
  await many.getByRole('button', { name: /^Replace in [12]$/ }).click()
  await expect(page.getByText(/^Replaced in [12] captions?\./)).toBeVisible()
  await expect(page.getByText(/Zebrawood/).first()).toBeVisible()
  // What is not in the piece is flagged, and a flag keeps it from being approved.
  await page.keyboard.press('ArrowUp')
  await expect(
    page.getByRole('complementary').getByText(/The name “Zebrawood” is not in the piece/),
  ).toBeVisible()
  await page.keyboard.press('a')
  await expect(page.getByText(/It is not approved: The name “Zebrawood”/)).toBeVisible()
  await page.getByRole('button', { name: 'It is fine' }).first().click()
  await expect(page.getByText(/Accepted on \d{4}-\d\d-\d\d\./)).toBeVisible()
  await page.keyboard.press('a')
  await expect(page.getByText('Approved.', { exact: true })).toBeVisible()
})

test('a wording is asked for, read whole and taken; the one before it stays', async ({ page }) => {
  await openSheet(page)
  await page.locator('button[data-post]').first().click()
  const caption = page.getByTestId('caption')
  const before = (await caption.innerText()).slice(0, 40)
  await page.getByLabel('Say it otherwise').selectOption('another passage')
  const fresh = page.getByRole('group', { name: 'Wordings: another passage' })
  await expect(fresh).toBeVisible()
  await fresh.getByRole('button', { name: 'Take it' }).click()
  await expect(caption).not.toContainText(before)
  await expect(
    page
      .getByRole('button', { expanded: false })
      .filter({ hasText: before.slice(0, 24) })
      .first(),
  ).toBeVisible()
})

test('a voice and a word swap show at once in the example; a brief stands beside another', async ({
  page,
}) => {
  await openSheet(page)
  await page.goto('/writing/house')
  const example = page.getByTestId('example')
  await expect(example.first()).toBeVisible()
  await page.getByLabel('Piece of the example').selectOption({ label: 'Why we scarf rather than butt' })
  await expect(example.filter({ hasText: /\bscarfs?\b/ }).first()).toBeVisible()
  await page.getByLabel('Word that is swapped').first().fill('scarf')
  await page.getByLabel('Word that is said instead').first().fill('long joint')
  await page.keyboard.press('Tab')
  await expect(example.filter({ hasText: 'long joint' }).first()).toBeVisible()
  await page.getByLabel('casual to formal').fill('-2')
  await expect(example.filter({ hasText: /\b\w+n’t\b/ }).first()).toBeVisible()
  // A pattern that does not work is refused with a sentence, and nothing is lost.
  await page.goto('/writing/briefs?network=murmur&beside=broadside')
  await expect(example.filter({ hasText: 'Broadside' }).first()).toBeVisible()
  await page.getByLabel('Characters, from').first().fill('900')
  await page.getByLabel('to', { exact: true }).first().fill('100')
  await page.keyboard.press('Tab')
  await expect(page.getByText(/Not kept: the shortest length lies below the longest/)).toBeVisible()
})

test('a piece stands as posts in one table, by what is asked of its passages', async ({ page }) => {
  await openSheet(page)
  await page.getByRole('link', { name: 'Seven tools worth buying once' }).click()
  await page.getByRole('button', { name: 'As posts' }).click()
  const rows = page.getByTestId('series-row')
  await expect(rows).toHaveCount(8)
  const first = await rows.first().innerText()
  await page.getByLabel('What is asked of the passages').selectOption('most debatable')
  await expect(rows.first()).not.toHaveText(first)
  await page.getByLabel('Posts').fill('3')
  await expect(rows).toHaveCount(3)
  await expect(page.getByText('its title')).toBeVisible()
})

test('a writer is connected and tried, writes a drip, and where it fails the built-in writer stands in', async ({
  page,
}) => {
  await page.goto('/')
  await expect(page.getByRole('navigation', { name: 'Stations' })).toBeVisible()
  await page.goto('/settings/services')
  const writer = page.getByRole('region', { name: 'A connected writer' })
  await writer.getByRole('button', { name: 'Connect the demo’s stand-in' }).click()
  await writer.getByRole('button', { name: 'Keep and try' }).click()
  await expect(writer.getByText(/It answered: “Yes, I am ready.”/)).toBeVisible()
  await expect(writer.getByText(/today: \d+ questions?, [\d,]+ words used/)).toBeVisible()
  // A key that is not known is said so, in words.
  await writer.getByLabel(/^Key/).fill('no such key')
  await writer.getByRole('button', { name: 'Keep and try' }).click()
  await expect(page.getByText(/does not accept the key: The key is not known here\./)).toBeVisible()
  await writer.getByLabel(/^Key/).fill('workshop-key')
  await writer.getByRole('button', { name: 'Keep and try' }).click()
  await expect(writer.getByText(/It answered/)).toBeVisible()
  await page.goto('/writing/house')
  await page.getByLabel('Captions are written by').selectOption('connected')
  await expect(page.getByText(/workshop-1: what it writes is fitted and checked/)).toBeVisible()
  await page.goto('/intake')
  await page.getByRole('link', { name: 'How long a refit takes' }).click()
  await page.getByRole('button', { name: 'Start a drip' }).click()
  await page.getByRole('button', { name: 'Write the drip' }).click()
  await expect(page).toHaveURL(/\/writing\//, { timeout: 60_000 })
  const cells = page.locator('button[data-post]')
  await expect(cells.first()).toBeVisible()
  await page
    .getByLabel(/^Move @/)
    .first()
    .click()
  await page.getByText('Shown:').waitFor()
  const written: string[] = []
  for (let i = 0; i < 4; i++) {
    await cells.nth(i).click()
    written.push(await page.getByRole('complementary').innerText())
  }
  for (const text of written)
    expect(text).toMatch(/by the connected writer|The built-in writer wrote this\. The connected writer/)
})

test('captions are read, approved and rejected on a page of their own, without Dripline', async ({
  page,
  context,
}, info) => {
  await page.goto('/writing')
  await page.getByRole('button', { name: 'Review by others' }).click()
  await page.getByLabel('A line to whoever reads it').fill('By Friday, please.')
  const packet = page.waitForEvent('download')
  await page.getByRole('button', { name: /^Save a packet of \d+ captions/ }).click()
  const file = info.outputPath('packet.html')
  await (await packet).saveAs(file)

  const review = await context.newPage()
  await context.setOffline(true)
  await review.goto(`file://${file}`)
  await expect(review.getByText('By Friday, please.')).toBeVisible()
  const cards = review.getByRole('article')
  await cards
    .nth(0)
    .getByRole('radio', { name: /^Approve/ })
    .check()
  await cards.nth(1).getByLabel('Reject').check()
  await cards.nth(1).getByLabel('Comment').fill('We never say this.')
  await review.getByLabel('Your name').fill('Ada')
  await expect(review.getByText(/1 approved, 1 rejected/)).toBeVisible()
  // What was decided is still there when the page is opened again.
  await review.reload()
  await expect(cards.nth(1).getByLabel('Comment')).toHaveValue('We never say this.')
  const saved = review.waitForEvent('download')
  await review.getByRole('button', { name: 'Save the decisions' }).click()
  const decisions = info.outputPath('decisions.json')
  await (await saved).saveAs(decisions)
  await context.setOffline(false)
  await review.close()

  await page.getByLabel('A file of decisions').setInputFiles(decisions)
  await expect(page.getByText(/1 rejected and set aside/)).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(page.getByText(/Ada’s decisions/)).toBeVisible()
})

test('a picture is changed with p, a card by its words, and the drip’s pictures stand in order', async ({
  page,
}) => {
  await openSheet(page)
  await page.getByRole('button', { name: 'Pictures', exact: true }).click()
  const strip = page.getByRole('group', { name: 'Pictures in the order in which readers meet them' })
  await expect(strip.getByRole('button').first()).toBeVisible()
  // The card of Shutterleaf's first post, reached from the strip.
  await strip.getByRole('button').filter({ hasText: 'Sh' }).first().click()
  const picture = page.getByRole('region', { name: 'Picture', exact: true })
  const chosen = picture
    .getByRole('group', { name: 'Pictures to choose from' })
    .locator('[aria-pressed=true]')
  const before = await chosen.getAttribute('aria-label')
  await page.keyboard.press('p')
  await expect(chosen).not.toHaveAttribute('aria-label', before ?? '')
  await page.keyboard.press('Control+z')
  await expect(chosen).toHaveAttribute('aria-label', before ?? '')
  // By hand: another layout and other words, kept when the field is left; what it lacks is said.
  await picture.getByLabel('Layout').selectOption('number')
  await expect(picture.getByText('“Number with its unit” is empty.').first()).toBeVisible()
  await picture.getByLabel('Number with its unit').fill('7 tools')
  await picture.getByLabel('What it counts').fill('Worth buying once.')
  await picture.getByLabel('What it counts').blur()
  await expect(picture.getByLabel('Alternative text, for those who cannot see it')).toHaveValue(
    '7 tools. Worth buying once.',
  )
  // It is drawn: the picture that readers see has the shape of the network.
  const shown = page
    .getByRole('complementary')
    .getByRole('img', { name: '7 tools. Worth buying once.' })
    .first()
  await expect
    .poll(() => shown.evaluate((i: HTMLImageElement) => `${i.naturalWidth}x${i.naturalHeight}`))
    .toBe('1080x1350')

  // Some of its words stand out, and do so no longer.
  const plain = await shown.getAttribute('src')
  await picture.getByLabel('What it counts').focus()
  await page.keyboard.press('Shift+Home')
  await picture.getByRole('button', { name: 'Mark what is selected' }).click()
  const chip = picture.getByRole('button', { name: 'Take “Worth buying once.” out' })
  await expect(chip).toBeVisible()
  await expect(shown).not.toHaveAttribute('src', plain ?? '')
  await picture.getByLabel('What it counts').fill('Worth having.')
  await expect(picture.getByText('“Worth buying once.” stands nowhere on this card.')).toBeVisible()
  await chip.click()
  await expect(chip).toBeHidden()
  // Words that are typed before a change of layout was kept are not lost.
  await picture.getByLabel('Layout').selectOption('words')
  await picture.getByLabel('Words', { exact: true }).fill('Bought once, kept for good.')
  await picture.getByLabel('Words', { exact: true }).blur()
  const alternative = picture.getByLabel('Alternative text, for those who cannot see it')
  await expect(alternative).toHaveValue('Bought once, kept for good.')
  await expect(picture.getByLabel('Words', { exact: true })).toHaveValue('Bought once, kept for good.')

  // With a code in its corner, which another program reads from what is shown.
  await picture.getByRole('checkbox', { name: 'The link as a code in its corner' }).check()
  const coded = page.getByRole('complementary').getByRole('img', { name: /With the link as a QR code/ })
  await expect(coded.first()).toBeVisible()
  await expect.poll(() => readCode(coded.first())).toMatch(/^http:\/\/\S+seven-tools/)
})

/** What the QR code in a picture of a page says. It leaves the page as a PNG: as numbers it takes seconds. */
async function readCode(picture: Locator): Promise<string | null> {
  const png = await picture.evaluate((img: HTMLImageElement) => {
    const canvas = document.createElement('canvas')
    canvas.width = 540
    canvas.height = Math.round((540 * img.naturalHeight) / Math.max(1, img.naturalWidth)) || 1
    canvas.getContext('2d')?.drawImage(img, 0, 0, canvas.width, canvas.height)
    return canvas.toDataURL('image/png')
  })
  const image = await loadImage(png)
  const context = createCanvas(image.width, image.height).getContext('2d')
  context.drawImage(image, 0, 0)
  const { data } = context.getImageData(0, 0, image.width, image.height)
  return jsQR(data, image.width, image.height)?.data ?? null
}

test('a colour of the look is kept, and cards are drawn in it; what is hard to read is told', async ({
  page,
}) => {
  await page.goto('/')
  await expect(page.getByRole('navigation', { name: 'Stations' })).toBeVisible()
  await page.goto('/writing/look')
  const cards = page.getByRole('group', { name: 'Cards of three passages' }).getByRole('img')
  await expect(cards).toHaveCount(3)
  const first = await cards.first().getAttribute('src')
  await page.getByLabel('Ground', { exact: true }).fill('#33403e')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/hard to read on this ground, so cards stand on #[0-9a-f]{6}/)).toBeVisible()
  await expect(cards.first()).not.toHaveAttribute('src', first ?? '')
  await page.getByLabel('Ground', { exact: true }).blur()
  await page.keyboard.press('Control+z')
  await expect(page.getByLabel('Ground', { exact: true })).toHaveValue('#efe7d6')
  // Those of the yard's own page, as its style sheet writes them: #fdfcf8 about all of it, #2d3b3a at its head.
  const world = Number(new URL(page.url()).port) + 1
  await page.getByLabel('Or from a page of the brand').fill(`http://oakum-yard.localhost:${world}/`)
  await page.keyboard.press('Enter')
  await expect(page.getByLabel('Ground', { exact: true })).toHaveValue('#fdfcf8')
  await expect(page.getByLabel('Accent', { exact: true })).toHaveValue('#2d3b3a')
  await page.getByRole('checkbox', { name: 'title' }).click()
  await expect(page.getByRole('checkbox', { name: 'title' })).not.toBeChecked()
  await page.reload()
  await expect(page.getByRole('checkbox', { name: 'title' })).not.toBeChecked()
})

test('a typeface and a mark of the brand’s own are drawn on cards, also after a reload, and taken out again', async ({
  page,
}) => {
  await page.goto('/')
  await expect(page.getByRole('navigation', { name: 'Stations' })).toBeVisible()
  await page.goto('/writing/look')
  const card = page.getByRole('group', { name: 'Cards of three passages' }).getByRole('img').first()
  /** How many pixels of the card have a red that nothing else here has. */
  const reds = () =>
    card.evaluate((img: HTMLImageElement) => {
      const canvas = new OffscreenCanvas(540, 675)
      const context = canvas.getContext('2d')
      context?.drawImage(img, 0, 0, 540, 675)
      const data = context?.getImageData(0, 0, 540, 675).data ?? []
      let red = 0
      for (let at = 0; at < data.length; at += 4)
        if ((data[at] ?? 0) > 250 && (data[at + 1] ?? 9) < 5 && (data[at + 2] ?? 9) < 5) red++
      return red
    })
  await expect(card).toHaveAttribute('src', /^blob:/)
  const first = await card.getAttribute('src')

  // What is no font is refused with a sentence; a packed one is unpacked by the server, and words are set in it.
  const face = page.getByLabel('A typeface of the brand’s own')
  await face.setInputFiles('package.json')
  await expect(page.getByText(/cannot be read as a font/)).toBeVisible()
  await face.setInputFiles(
    'node_modules/@fontsource/spline-sans-mono/files/spline-sans-mono-latin-500-normal.woff2',
  )
  await page.getByLabel('What is said').selectOption('Spline Sans Mono (own)')
  await expect(card).not.toHaveAttribute('src', first ?? '')

  // An SVG as a mark: two to one, red.
  expect(await reds()).toBe(0)
  const svg =
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 20 10"><script>alert(1)</script><rect width="20" height="10" fill="#ff0000"/></svg>'
  await page
    .getByLabel('The brand’s mark')
    .setInputFiles({ name: 'mark.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(svg) })
  // Five hundredths of the shorter side high: 27 by 54 pixels here.
  await expect.poll(reds).toBeGreaterThan(1300)
  expect(await reds()).toBeLessThan(1600)
  await noneSerious(page)

  await page.reload()
  await expect.poll(reds).toBeGreaterThan(1300)
  await expect(page.getByLabel('What is said')).toHaveValue('Spline Sans Mono (own)')
  await page.getByRole('button', { name: 'Take it off' }).click()
  await expect.poll(reds).toBe(0)
  await page.getByRole('button', { name: 'Take out Spline Sans Mono (own)' }).click()
  await expect(page.getByLabel('What is said')).toHaveValue('Literata')
})

test('a picture comes from the stock with its credit, is cropped by keys, and goes into the library', async ({
  page,
}) => {
  await openSheet(page)
  await page.goto('/settings/services')
  for (const name of ['A stock of pictures', 'Pictures made to order']) {
    const service = page.getByRole('region', { name })
    await service.getByRole('button', { name: /stand-in/ }).click()
    await expect(service.getByRole('button', { name: 'Disconnect' })).toBeVisible()
  }
  await openSheet(page)
  await page.getByRole('button', { name: 'Pictures', exact: true }).click()
  const strip = page.getByRole('group', { name: 'Pictures in the order in which readers meet them' })
  await strip.getByRole('button').filter({ hasText: 'Sh' }).first().click()
  const picture = page.getByRole('region', { name: 'Picture', exact: true })
  await picture.getByRole('button', { name: 'Stock', exact: true }).click()
  await picture.getByRole('searchbox', { name: 'Search the stock' }).fill('tools in winter')
  const offered = picture.getByRole('button', { name: /^Hand tools in a row in winter\. Picture: / })
  await expect(offered).toHaveAccessibleName(/has to be named/)
  await noneSerious(page)
  const line = /Picture: [^.]+/.exec((await offered.getAttribute('aria-label')) ?? '')?.[0] ?? ''
  await offered.click()
  await expect(page.getByTestId('caption')).toContainText(line)

  // The part that is shown: closer, to the right, kept; then as it was.
  await picture.getByRole('button', { name: 'Crop' }).click()
  const frame = picture.getByRole('application')
  await expect(frame).toBeFocused()
  await expect(frame).toHaveAccessibleName(/67 per cent of its width/)
  await noneSerious(page)
  await page.keyboard.press('+')
  await page.keyboard.press('Shift+ArrowLeft')
  await expect(frame).toHaveAccessibleName(/60 per cent of its width/)
  await page.keyboard.press('Enter')
  await expect(frame).toBeHidden()
  const shown = page.getByTestId('caption').locator('xpath=..').getByRole('img').first()
  const width = (): Promise<string> => shown.evaluate((i: HTMLElement) => i.style.width)
  expect(parseFloat(await width())).toBeCloseTo(100 / 0.6, 0)
  await page.keyboard.press('Control+z')
  await expect.poll(async () => Math.round(parseFloat(await width()))).toBe(150)

  // Made to order: what is proposed may be changed, it takes a while, and it wants to be described.
  await picture.getByRole('button', { name: 'To order' }).click()
  await expect(picture.getByLabel('What is ordered')).toHaveValue(/It shows what this says: “/)
  await noneSerious(page)
  await picture.getByLabel('What is ordered').fill('A kettle on the stove, at dawn')
  await picture.getByRole('button', { name: 'Order', exact: true }).click()
  await expect(picture.getByText(/Being made, \d+ s/)).toBeVisible()
  await expect(page.getByText(/Look for letters in it/)).toBeVisible({ timeout: 20_000 })
  await expect(page.getByRole('complementary').getByText(/A picture has no alternative text/)).toBeVisible()
  await expect(page.getByTestId('caption')).not.toContainText(line)

  // In a post that is written by hand it names its author too.
  await page.goto('/horizon?zoom=season')
  await expect(page.getByRole('option').first()).toBeVisible()
  await page.keyboard.press('n')
  await page.getByLabel('The words').fill('The kettle is on from ten.')
  const byHand = page.getByRole('group', { name: 'Picture', exact: true })
  await byHand.getByRole('button', { name: 'Library', exact: true }).click()
  await byHand.getByRole('searchbox', { name: 'Search the library' }).fill('tools winter')
  await byHand.getByRole('button', { name: /^Hand tools in a row in winter; / }).click()
  await expect(byHand.getByText(`The caption will say “${line}”.`)).toBeVisible()
  await noneSerious(page)

  await page.goto('/writing/pictures')
  const library = page.getByRole('group', { name: 'Pictures of the library' })
  await expect(library.getByRole('button').first()).toBeVisible()
  await page.keyboard.press('/')
  await page.keyboard.type('tools winter')
  await expect(library.getByRole('button')).toHaveCount(1)
  await library.getByRole('button').click()
  await expect(page.getByText('No post shows it')).toBeVisible()
  await expect(page.getByLabel('Its maker has to be named in every post that shows it')).toBeChecked()
  await page.getByRole('searchbox', { name: 'Search the pictures' }).fill('kettle dawn')
  await expect(library.getByRole('button', { name: /1 post/ })).toHaveCount(1)
  // What no post shows is cleared, after it is said how much that is.
  await page.getByRole('button', { name: 'Clear …' }).click()
  await expect(page.getByText(/^1 picture of your own that no post shows/)).toBeVisible()
  await page.getByRole('button', { name: 'Clear them' }).click()
  await page.getByRole('searchbox', { name: 'Search the pictures' }).fill('tools winter')
  await expect(page.getByText('No picture is like that.')).toBeVisible()
})

test('a drip is taken away as a zip with its captions and pictures', async ({ page }, info) => {
  await openSheet(page)
  // A list goes out to Guildhall as a document, a card to Shutterleaf as a story.
  await page.locator('button[data-post]').nth(1).click()
  const beside = page.getByRole('complementary')
  await beside.getByRole('group', { name: 'Pictures to choose from' }).getByRole('button').first().click()
  await beside.getByLabel('Layout').selectOption('list')
  await beside.getByLabel('What the list is of').fill('Worth buying once')
  await beside.getByLabel('Points, one a line').fill('A story stick.\nTwo chisels.')
  await beside.getByLabel('Points, one a line').blur()
  await beside.getByRole('button', { name: 'As slides' }).click()
  await expect(beside.getByRole('heading', { name: 'Document of 4 pages' })).toBeVisible()
  await page.locator('button[data-post]').nth(2).click()
  await beside.getByRole('button', { name: 'Story', exact: true }).click()
  await expect(beside.getByText('A story: readers see the picture alone')).toBeVisible()
  const saved = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Take away' }).click()
  const file = info.outputPath('away.zip')
  await (await saved).saveAs(file)
  const zip = await JSZip.loadAsync(readFileSync(file), { checkCRC32: true })
  const names = Object.keys(zip.files)
  expect(names).toContain('captions.csv')
  expect(names.filter((n) => n.endsWith('.txt')).length).toBeGreaterThan(3)
  expect(names).not.toContain('missing pictures.txt')
  const shapes = await Promise.all(
    names
      .filter((n) => /^shutterleaf-.*\.(png|jpg)$/.test(n))
      .map(async (name) => imageSize(new Uint8Array((await zip.file(name)?.async('nodebuffer')) ?? []))),
  )
  // The story is tall, the others have one of the shapes that the network takes.
  const ratios = shapes.map(({ width, height }) => width / height)
  expect(ratios.filter((r) => Math.abs(r - 9 / 16) < 0.01)).toHaveLength(1)
  expect(ratios.filter((r) => r === 1 || r === 0.8)).toHaveLength(ratios.length - 1)
  const [pdf = ''] = names.filter((n) => /^guildhall-.*\.pdf$/.test(n))
  const document = await getDocument({ data: (await zip.file(pdf)?.async('uint8array')) ?? new Uint8Array() })
    .promise
  expect(document.numPages).toBe(4)
  expect(((await document.getMetadata()).info as { Title?: string }).Title).toBe('Worth buying once')
})

test('a passage of a film is cut out as a clip and goes out; a card of its words moves in its place', async ({
  page,
}, info) => {
  test.setTimeout(360_000)
  await page.goto('/')
  await expect(page.getByRole('navigation', { name: 'Stations' })).toBeVisible()
  await page.goto('/intake')
  await page.getByRole('link', { name: 'Sharpening a plane iron in six minutes' }).click()
  await expect(page.getByRole('heading', { name: /Sharpening a plane iron/ })).toBeVisible()
  await page.keyboard.press('d')
  for (const name of [
    /Murmur/,
    /Guildhall/,
    /Shutterleaf/,
    /Hearthside/,
    /Rackwell/,
    /Longwave/,
    /Broadside/,
  ])
    for (const box of await page.getByRole('checkbox', { name }).all()) await box.uncheck()
  await page.getByRole('button', { name: 'Write the drip' }).click()
  const cells = page.locator('button[data-post]')
  await expect(cells).toHaveCount(2, { timeout: 60_000 })

  // It is played from where it lies, with what is said over it, and stands in the brand's frame or fills the clip.
  await cells.first().click()
  const beside = page.getByRole('complementary')
  const film = beside.locator('video')
  await expect.poll(() => film.evaluate((v: HTMLVideoElement) => v.videoWidth)).toBe(640)
  await beside.getByRole('button', { name: 'Play the clip' }).focus()
  await page.keyboard.press('Enter')
  const place = beside.getByLabel('Place in the clip')
  await expect.poll(async () => Number(await place.inputValue())).toBeGreaterThan(0.5)
  await page.keyboard.press('Enter')
  await beside.getByRole('button', { name: 'Fills it' }).click()
  const side = beside.getByLabel('What is shown of it, from left to right')
  await side.focus()
  await page.keyboard.press('End')
  await side.blur()
  await expect.poll(() => film.evaluate((v) => v.style.objectPosition)).toBe('100% 50%')

  // Tomas was recorded with a pause from 17.08 to 17.88 s, of which a breath of 0.3 s stays.
  await beside.getByLabel('Begins at, in seconds of the film').fill('11.8')
  await beside.getByLabel('Ends at').fill('24.8')
  await beside.getByLabel('Ends at').blur()
  await beside.getByRole('button', { name: 'Leave pauses and ums out' }).click()
  await expect(beside.getByText(/^1 place, 0\.5 s; the clip has 12\.5 s$/)).toBeVisible()

  // The subtitles are changed a line each, and everybody can use what stands there.
  await beside.getByLabel(/^Subtitles/).fill('Only one line')
  await beside.getByLabel(/^Subtitles/).blur()
  await expect(page.getByText(/Leave one empty that is not to be shown/)).toBeVisible()
  await noneSerious(page)

  // The other post lets a card of its words move instead.
  await cells.nth(1).click()
  const choice = beside.getByRole('group', { name: 'Pictures to choose from' })
  await choice.getByRole('button').nth(1).click()
  await expect(beside.locator('canvas')).toBeVisible()

  // Its file is made beforehand: what is cancelled leaves nothing, and what is made is saved, and again without making it.
  const make = beside.getByRole('button', { name: 'Make the file now' })
  await make.click()
  await beside.getByRole('button', { name: 'Cancel' }).click()
  await expect(page.getByText('It was cancelled; the post is as it was.')).toBeVisible()
  const own = page.waitForEvent('download')
  await make.click()
  await expect(beside.getByRole('progressbar', { name: 'How much of the clip is made' })).toBeVisible()
  const alone = readFileSync(await (await own).path())
  await expect(beside.getByText(/^720 × 1280, \d+\.\d MB$/)).toBeVisible()
  const again = page.waitForEvent('download')
  await beside.getByRole('button', { name: 'Save the file' }).click()
  expect(readFileSync(await (await again).path()).equals(alone)).toBe(true)

  const saved = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Take away' }).click()
  const file = info.outputPath('away.zip')
  await (await saved).saveAs(file)
  const zip = await JSZip.loadAsync(readFileSync(file), { checkCRC32: true })
  const clips = Object.values(zip.files).filter((f) => /^loopyard-.*\.(mp4|webm)$/.test(f.name))
  expect(clips).toHaveLength(2)
  const told = await Promise.all(clips.map(async (f) => readClip(await f.async('uint8array'))))
  for (const { width, height, seconds } of told) {
    expect([width, height]).toEqual([720, 1280])
    expect(seconds).toBeGreaterThan(5)
    expect(seconds).toBeLessThan(90)
  }
  expect(told[0]?.seconds).toBeCloseTo(12.5, 1)
  // The film speaks, the card is silent.
  expect(told.map((t) => t.sound)).toEqual([true, false])

  await page.getByRole('button', { name: /^Approve 2/ }).click()
  await moveTime(page, '+1 day')
  await moveTime(page, '+1 day')
  const world = `http://localhost:${Number(new URL(page.url()).port) + 1}`
  await page.goto(`${world}/networks/loopyard/@yard.loops`)
  const out = page.locator('video').first()
  await expect.poll(() => out.evaluate((v: HTMLVideoElement) => v.videoHeight)).toBe(1280)
  expect(await out.evaluate((v: HTMLVideoElement) => v.duration)).toBeCloseTo(told[0]?.seconds ?? 0, 0)
})

test('a talk that is only heard becomes a clip, from its feed and from a file', async ({ page }) => {
  await page.goto('/')
  await expect(page.getByRole('navigation', { name: 'Stations' })).toBeVisible()
  await page.goto('/intake/sources')
  const world = Number(new URL(page.url()).port) + 1
  await page.getByLabel(/^Add a source by its address/).fill(`http://fernhollow.localhost:${world}/talks`)
  await page.getByRole('button', { name: 'Look', exact: true }).click()
  await page.getByRole('button', { name: 'Add this source' }).click()
  await page.getByRole('link', { name: 'What forty years of weather books say' }).click()
  await expect(page.getByText('A recording without pictures, 2:05 long.')).toBeVisible()
  // The file lies in this browser from now on, and is what the clip is cut from.
  await page
    .getByLabel('The film of this piece')
    .setInputFiles(join(import.meta.dirname, '../demo/talks/weather-books.mp3'))
  await expect(page.getByText('Its clips are cut from a file that lies in this browser.')).toBeVisible()
  await page.keyboard.press('d')
  const dialog = page.getByRole('form', { name: 'Start a drip' }).or(page.getByRole('complementary'))
  for (const box of await dialog.getByRole('checkbox').all()) await box.uncheck()
  await dialog.getByRole('checkbox', { name: /Loopyard/ }).check()
  await page.getByRole('button', { name: 'Write the drip' }).click()
  await page.locator('button[data-post]').first().click()
  const beside = page.getByRole('complementary')
  await expect(beside.getByLabel('Stands over the wave; may be empty')).toHaveValue(/weather books/)
  await expect(beside.getByRole('button', { name: 'Fills it' })).toHaveCount(0)
  await expect
    .poll(() => beside.locator('video').evaluate((v: HTMLVideoElement) => v.duration))
    .toBeGreaterThan(120)
  const saved = page.waitForEvent('download')
  await beside.getByRole('button', { name: 'Make the file now' }).click()
  const clip = await readClip(readFileSync(await (await saved).path()))
  expect([clip.width, clip.height, clip.sound]).toEqual([720, 1280, true])
  const from = Number(await beside.getByLabel('Begins at, in seconds of the film').inputValue())
  const to = Number(await beside.getByLabel('Ends at').inputValue())
  expect(clip.seconds).toBeCloseTo(to - from, 0)
})

/** What a clip's file says of it, as a library for films reads it. */
async function readClip(bytes: Uint8Array) {
  const input = new Input({ formats: ALL_FORMATS, source: new BufferSource(bytes) })
  const track = await input.getPrimaryVideoTrack()
  return {
    width: track?.displayWidth,
    height: track?.displayHeight,
    seconds: await input.computeDuration(),
    sound: (await input.getPrimaryAudioTrack()) !== null,
  }
}

/** Whether something waited for came. */
const WHETHER = [(): boolean => true, (): boolean => false] as const

test('the shelf drips what has rested, and a passage is taken off it by a key', async ({ page }) => {
  test.setTimeout(300_000)
  await page.goto('/')
  await expect(page.getByRole('navigation', { name: 'Stations' })).toBeVisible()
  await page.goto('/writing/shelf')
  const passages = page.getByRole('list', { name: 'Passages' }).getByRole('listitem')
  await expect(page.getByText('drips from the shelf, 2 a week')).toBeVisible()
  // The runner fills the coming week by itself; where the drips have all its openings, as on some days of a week, the next one.
  const comes = passages.filter({ hasText: /comes \d/ }).first()
  for (let days = 0; days < 4; days++) {
    if (await comes.waitFor({ timeout: 15_000 }).then(...WHETHER)) break
    await moveTime(page, '+1 day')
  }
  await expect(comes).toBeVisible()
  const last = passages.last()
  const words = (await last.innerText()).split('\n')[0] ?? ''
  await last.click()
  await page.keyboard.press('x')
  await expect(passages.filter({ hasText: words })).toHaveCount(0)
  await page.getByRole('button', { name: 'Off it' }).click()
  await expect(passages).toHaveCount(1)
  await expect(passages.first()).toContainText('You took it off.')
  await page.keyboard.press('Control+z')
  await expect(passages).toHaveCount(0)
  // Sayings of one's own stand beside them, each as it was written.
  await page.getByRole('button', { name: 'Add short texts' }).click()
  await page.getByLabel('Name of the collection').fill('Sayings')
  await page
    .getByLabel('One a line')
    .fill('Tie the ladder first.\nTie the ladder first.\nOil the hinge twice.')
  await expect(page.getByText('2 texts; 1 came twice and is left out.')).toBeVisible()
  await page.getByRole('button', { name: 'Put on the shelf' }).click()
  await page.getByRole('button', { name: 'On it' }).click()
  await page.getByLabel('Search the shelf').fill('sayings')
  await expect(passages).toHaveText([/Tie the ladder first\./, /Oil the hinge twice\./])
  // A row that asks for a longer rest is given less at once, on the bench, in the row.
  await page.getByRole('link', { name: 'Journal, long and thin' }).click()
  await page.getByRole('button', { name: 'Row 2' }).click()
  const given = page.getByRole('group', { name: 'What the shelf would give' })
  await expect(given).toContainText(/may come; first “|nothing/)
  const restingLess = await given.innerText()
  await page.getByLabel('Days of rest').fill('400')
  await page.keyboard.press('Tab')
  await expect(given).not.toHaveText(restingLess.replace(/\s+/g, ' '))
})

test('a day is put on the calendar, its captions are written and read with the keyboard, and it comes in and goes out as a file', async ({
  page,
}) => {
  await page.goto('/')
  await expect(page.getByRole('navigation', { name: 'Stations' })).toBeVisible()
  await page.goto('/writing/occasions')
  const year = page.getByRole('grid', { name: 'The year, day by day' })
  const row = (name: string) =>
    year.getByRole('row').filter({ has: page.getByRole('button', { name, exact: true }) })
  await expect(row('First Caulking Day')).toBeVisible()
  // The mouse: a day in words, and captions for it.
  await page.getByRole('button', { name: 'Add a day' }).click()
  await page.getByLabel('What the day is called').fill('Sharp Iron Day')
  await page.getByLabel('When, in words').fill('first Tuesday of Octember')
  await expect(page.getByText(/is no day that can be read/)).toBeVisible()
  await page.getByLabel('When, in words').fill('first Tuesday of February')
  await expect(page.getByText(/next on Tue \d+ February/)).toBeVisible()
  await page.getByRole('button', { name: 'Put on the calendar' }).click()
  await row('Sharp Iron Day').getByRole('button', { name: 'Sharp Iron Day' }).click()
  const beside = page.getByRole('complementary', { name: 'Beside' })
  await expect(beside.getByText('Near it')).toBeVisible()
  await beside.getByRole('textbox', { name: 'Words', exact: true }).fill('blunt, sharpen')
  await page.keyboard.press('Enter')
  await expect(beside.getByText(/^(?:blunt|sharpen)/).first()).toBeVisible()
  await beside.getByLabel('Lines that name the day').fill('Today is Sharp Iron Day.')
  await beside.getByRole('button', { name: 'Write captions' }).click()
  await beside.getByRole('button', { name: /^Write for 1 day on \d+ accounts/ }).click()
  const cells = row('Sharp Iron Day').locator('[data-post]:not([data-post=""])')
  await expect(cells.first()).toContainText('Tue', { timeout: 30_000 })
  // The keyboard: to the caption, another wording that keeps the line, approved.
  await page.keyboard.press('ArrowRight')
  await expect(beside.getByText('For an occasion')).toBeVisible()
  await expect(beside.getByText('Today is Sharp Iron Day.').first()).toBeVisible()
  const before = await cells.first().innerText()
  await page.keyboard.press('w')
  await expect(cells.first()).not.toHaveText(before.replace(/\s+/g, ' '))
  await expect(beside.getByText('Today is Sharp Iron Day.').first()).toBeVisible()
  await page.keyboard.press('a')
  await expect(beside.getByText('approved').first()).toBeVisible()
  // Out as a sheet, and days in from a calendar.
  await page.keyboard.press('Escape')
  const saved = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save as CSV' }).click()
  const sheet = readFileSync(await (await saved).path(), 'utf8')
  expect(sheet).toMatch(
    /Sharp Iron Day,first Tuesday of February,\d{4}-02-\d\d,"blunt, sharpen",Today is Sharp Iron Day\./,
  )
  const calendar = [
    'BEGIN:VCALENDAR',
    'BEGIN:VEVENT',
    'SUMMARY:Regatta',
    'DTSTART;VALUE=DATE:20200606',
    'RRULE:FREQ=YEARLY;BYMONTH=6;BYDAY=1SA',
    'END:VEVENT',
    'END:VCALENDAR',
  ].join('\r\n')
  await page
    .getByLabel('A file of days')
    .setInputFiles({ name: 'days.ics', mimeType: 'text/calendar', buffer: Buffer.from(calendar) })
  await expect(row('Regatta')).toContainText('first Saturday of June')
  // Several at once, with the keyboard alone: they are taken off, and come back.
  await row('Regatta').getByRole('button', { name: 'Regatta' }).click()
  await page.keyboard.press('Space')
  await expect(page.getByRole('toolbar', { name: 'Several days' })).toContainText('1 day selected')
  await page.getByRole('button', { name: 'Take off the calendar' }).first().click()
  await expect(row('Regatta')).toHaveCount(0)
  await page.keyboard.press('Control+z')
  await expect(row('Regatta')).toBeVisible()
})
