import { gzipSync } from 'node:zlib'
import AxeBuilder from '@axe-core/playwright'
import { expect, test, type Page } from './test'

/** The demo opened, with its accounts linked and its posts handed over. */
async function openDemo(page: Page): Promise<void> {
  await page.goto('/')
  await expect(page.getByRole('navigation', { name: 'Stations' })).toBeVisible()
}

/** Goes to another screen as a link does, without loading the application again. */
async function go(page: Page, path: string): Promise<void> {
  await page.evaluate((to) => {
    history.pushState(null, '', to)
    dispatchEvent(new PopStateEvent('popstate'))
  }, path)
}

/** No serious or critical fault of accessibility on what is shown now; in the dark theme, which differs in colours alone, of contrast. */
async function expectNoFaults(page: Page, screen: string): Promise<void> {
  // The line across the top is the same on every screen: it is looked at on the Desk.
  const axe = (): AxeBuilder => {
    const builder = new AxeBuilder({ page }).options({ resultTypes: ['violations'], iframes: false })
    // The page of a report runs no script, not even that of a test.
    if (screen === 'Report') return builder.setLegacyMode().exclude('header').exclude('iframe')
    return screen === 'Desk' ? builder : builder.exclude('header')
  }
  await noneSerious(axe().withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa']), screen)
  if (IN_LIGHT_ALONE.has(screen)) return
  await setDark(page, true)
  await noneSerious(axe().withRules(['color-contrast']), `${screen}, dark`)
  await setDark(page, false)
}

async function setDark(page: Page, dark: boolean): Promise<void> {
  await page.evaluate((on) => {
    document.documentElement.classList.toggle('dark', on)
    document.documentElement.classList.toggle('light', !on)
  }, dark)
}

async function noneSerious(axe: AxeBuilder, screen: string): Promise<void> {
  const { violations } = await axe.analyze()
  const serious = violations
    .filter((v) => v.impact === 'serious' || v.impact === 'critical')
    .map(
      (v) =>
        `${screen}: ${v.id} at ${v.nodes.map((n) => `${n.html.slice(0, 120)} (${n.any[0]?.message ?? ''})`).join('; ')}`,
    )
  expect(serious).toEqual([])
}

const SCREENS: readonly [string, string, (page: Page) => Promise<unknown>][] = [
  ['Desk', '/', (p) => p.getByRole('heading', { name: /wait/ }).first().waitFor()],
  ['Pipelines', '/pipelines', (p) => p.getByRole('link', { name: 'Journal, long and thin' }).waitFor()],
  ['Intake', '/intake', (p) => p.getByRole('link', { name: 'Varnish in damp weather' }).waitFor()],
  ['Sources', '/intake/sources', (p) => p.getByText('Oakum Yard journal').first().waitFor()],
  ['Writing', '/writing', (p) => p.getByRole('link', { name: 'Seven tools worth buying once' }).waitFor()],
  ['House style', '/writing/house', (p) => p.getByTestId('example').first().waitFor()],
  [
    'Look of cards',
    '/writing/look',
    (p) => p.getByRole('group', { name: 'Cards of three passages' }).getByRole('img').first().waitFor(),
  ],
  [
    'Pictures',
    '/writing/pictures',
    (p) => p.getByRole('group', { name: 'Pictures of the library' }).locator('img').first().waitFor(),
  ],
  ['Shelf', '/writing/shelf', (p) => p.getByRole('list', { name: 'Passages' }).waitFor()],
  ['Occasions', '/writing/occasions', (p) => p.getByRole('grid', { name: 'The year, day by day' }).waitFor()],
  ['Briefs', '/writing/briefs', (p) => p.getByTestId('example').first().waitFor()],
  ['Horizon, week', '/horizon', (p) => p.getByRole('img', { name: /week as drawn/ }).waitFor()],
  [
    'Horizon, year',
    '/horizon?zoom=year',
    (p) => p.getByRole('img', { name: /The year as drawn: [1-9]/ }).waitFor(),
  ],
  [
    'Rehearsal',
    '/horizon/rehearsal',
    (p) =>
      p
        .getByRole('img', { name: /^Posts a week of/ })
        .first()
        .waitFor(),
  ],
  ['By hand', '/horizon/write', (p) => p.getByLabel('The words').waitFor()],
  ['Deliveries', '/dispatch', (p) => p.getByRole('heading', { name: 'Deliveries', exact: true }).waitFor()],
  [
    'Accounts',
    '/dispatch/accounts',
    (p) => p.getByRole('button', { name: 'Slots and quiet days' }).first().waitFor(),
  ],
  ['Results', '/results?account=gu-yard&span=182', (p) => p.getByText('By hour and weekday').waitFor()],
  [
    'Report',
    '/results/report',
    (p) => p.frameLocator('iframe[title="The report"]').getByText('In short').waitFor(),
  ],
  ['Brands', '/settings', (p) => p.getByRole('button', { name: 'Make the brand' }).waitFor()],
  ['Notices', '/settings/notices', (p) => p.getByText('Tell me of').waitFor()],
  ['Services', '/settings/services', (p) => p.getByRole('region', { name: 'A shortener' }).waitFor()],
  ['Workspace', '/settings/bundle', (p) => p.getByRole('button', { name: 'Make a bundle' }).waitFor()],
]

/** Made of the colours of the others. */
const IN_LIGHT_ALONE = new Set([
  'Pipelines',
  'Intake',
  'Sources',
  'House style',
  'Briefs',
  'Shelf',
  'Rehearsal',
  'By hand',
  'Accounts',
  'Report',
  'Brands',
  'Notices',
  'Services',
  'Workspace',
])

test('axe finds no serious fault on any screen, light or dark', async ({ page }) => {
  test.setTimeout(480_000)
  await page.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' })
  await openDemo(page)
  // A colour on its way from light to dark is neither.
  await page.addStyleTag({ content: '*, *::before, *::after { transition: none !important }' })
  for (const [screen, path, ready] of SCREENS) {
    await go(page, path)
    await ready(page)
    await expectNoFaults(page, screen)
  }
  await go(page, '/intake')
  await page.getByRole('link', { name: 'Varnish in damp weather' }).click()
  await page.getByRole('listbox', { name: 'Passages' }).getByRole('option').first().click()
  await expectNoFaults(page, 'Reader')
  await page.keyboard.press('d')
  await expect(page.getByRole('heading', { name: 'Start a drip' })).toBeVisible()
  await expectNoFaults(page, 'Start a drip')
  await go(page, '/writing')
  await page.getByRole('link', { name: 'Seven tools worth buying once' }).click()
  await expect(page.getByRole('grid')).toBeVisible()
  await page.keyboard.press('ArrowDown')
  await expect(page.getByTestId('caption')).toBeVisible()
  await expectNoFaults(page, 'Drip sheet')
  const picture = page.getByRole('region', { name: 'Picture', exact: true })
  await picture.getByRole('button', { name: 'Library' }).click()
  await expect(picture.getByRole('searchbox')).toBeVisible()
  await expectNoFaults(page, 'Library beside a post')
  await page.keyboard.press('e')
  await expect(page.getByLabel('Caption')).toBeVisible()
  await expectNoFaults(page, 'Editor')
  await go(page, '/pipelines')
  await page.getByRole('link', { name: 'Journal, long and thin' }).click()
  await expect(page.getByRole('heading', { name: /^Row 1: \d+ posts$/ })).toBeVisible({ timeout: 30_000 })
  await page.getByRole('button', { name: 'Row 1', exact: true }).click()
  await page.getByRole('button', { name: /^Data of “Row 1/ }).click()
  await expectNoFaults(page, 'Bench')
  await go(page, '/pipelines/new')
  await page.getByRole('button', { name: /^News at once/ }).click()
  await expectNoFaults(page, 'New pipeline')
  await go(page, '/dispatch/accounts')
  await page.getByRole('button', { name: 'Slots and quiet days' }).first().click()
  await expect(page.getByRole('heading', { name: 'Quiet days' })).toBeVisible()
  await expectNoFaults(page, 'Account sheet')
})

test('the first screen needs at most 250 kB of script', async ({ page }) => {
  const sizes: Promise<number>[] = []
  page.on('response', (response) => {
    const type = response.headers()['content-type'] ?? ''
    // What workers load, the typefaces of cards among it, keeps no screen waiting; nor does what runs in rounds after it.
    const comesLater =
      /\/(heavy|resultsWorker|tick|pictures|cards|literata|schibsted-grotesk|spline-sans-mono)-/.test(
        response.url(),
      )
    if (!type.includes('javascript') || comesLater) return
    sizes.push(response.body().then((body) => gzipSync(body).length))
  })
  await openDemo(page)
  await page.waitForLoadState('networkidle')
  const compressed = (await Promise.all(sizes)).reduce((sum, n) => sum + n, 0)
  expect(compressed).toBeGreaterThan(50_000)
  expect(compressed).toBeLessThan(250_000)
})

test('fonts come with the application and nothing is asked of any other host', async ({ page }) => {
  const hosts = new Set<string>()
  page.on('request', (request) => hosts.add(new URL(request.url()).host))
  await openDemo(page)
  await page.goto('/intake')
  await page.getByRole('link', { name: 'Varnish in damp weather' }).click()
  await page.getByRole('heading', { name: 'Varnish in damp weather' }).waitFor()
  const own = new URL(page.url())
  // The piece's own pictures come from the stand-in world.
  const worldHosts = [...hosts].filter((h) => h.endsWith(`localhost:${Number(own.port) + 1}`))
  expect([...hosts].filter((h) => h !== own.host && !worldHosts.includes(h))).toEqual([])
  const loaded = await page.evaluate(async () => {
    await document.fonts.ready
    return [...document.fonts].filter((f) => f.status === 'loaded').map((f) => f.family.replace(/"/g, ''))
  })
  expect(loaded).toEqual(
    expect.arrayContaining(['Schibsted Grotesk Variable', 'Literata Variable', 'Spline Sans Mono']),
  )
})

test('the keyboard goes to every station and names its keys', async ({ page }) => {
  await openDemo(page)
  for (const [key, path] of [
    ['2', '/pipelines'],
    ['3', '/intake'],
    ['4', '/writing'],
    ['5', '/horizon'],
    ['6', '/dispatch'],
    ['7', '/results'],
    ['1', '/'],
  ] as const) {
    await page.keyboard.press(key)
    await expect(page).toHaveURL((url) => url.pathname === path)
  }
  await page.keyboard.press('?')
  await expect(page.getByRole('heading', { name: 'Keys' })).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('heading', { name: 'Keys' })).toBeHidden()
})

test('what one tab changes the other shows, and a change is undone after a reload', async ({
  page,
  context,
}) => {
  await openDemo(page)
  await page.goto('/intake')
  const other = await context.newPage()
  await other.goto('/intake')
  await expect(other.getByText('5 waiting')).toBeVisible()
  await page.keyboard.press('x')
  await expect(page.getByText('4 waiting')).toBeVisible()
  await expect(other.getByText('4 waiting')).toBeVisible()
  await other.close()
  await page.reload()
  await expect(page.getByText('4 waiting')).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(page.getByText('5 waiting')).toBeVisible()
  await expect(page.getByText(/^Undone: set aside “/i)).toBeVisible()
})

test('words that were not kept are there again when the browser comes back', async ({ page }) => {
  await openDemo(page)
  await page.goto('/writing')
  await page.getByRole('link', { name: 'Seven tools worth buying once' }).click()
  await page.locator('button[data-post]').first().click()
  await page.keyboard.press('e')
  await page.getByLabel('Caption').fill('Half a thought about chisels')
  await page.reload()
  await expect(page.getByTestId('caption')).toBeVisible()
  await page.keyboard.press('e')
  await expect(page.getByLabel('Caption')).toHaveValue('Half a thought about chisels')
  // Going on to another post keeps what was written.
  await page.locator('button[data-post]').nth(1).click()
  await expect(page.locator('button[data-post]').first()).toContainText('Half a thought about chisels')
  await page.keyboard.press('Control+z')
  await expect(page.locator('button[data-post]').first()).not.toContainText('Half a thought')
})
