import { readFileSync } from 'node:fs'
import { expect, test, type Page } from '@playwright/test'

/** The Horizon's season, which always has posts to come, whatever the day. */
async function openHorizon(page: Page): Promise<void> {
  await page.goto('/')
  await expect(page.getByRole('navigation', { name: 'Stations' })).toBeVisible()
  await page.goto('/horizon?zoom=season')
  await expect(page.getByRole('option').first()).toBeVisible()
}

const foot = (page: Page) => page.getByRole('region', { name: 'What is about to change' })

/** Chooses a post that still waits for review, so that nothing of it was handed over. */
async function chooseWaiting(page: Page): Promise<void> {
  await page
    .getByRole('option', { name: /for review/ })
    .last()
    .click()
  await expect(foot(page)).toContainText('One post')
}

test('a post is moved by keyboard: a free place takes it, a closed one names its rule', async ({ page }) => {
  await openHorizon(page)
  await chooseWaiting(page)
  const when = page
    .getByRole('complementary')
    .getByText(/^\w{3} \d+ \w{3} \d\d:\d\d$/)
    .first()
  const before = await when.innerText()
  await page.keyboard.press('m')
  await expect(foot(page)).toContainText('Moving')
  for (let i = 0; i < 40 && !/ to \w{3} /.test(await foot(page).innerText()); i++)
    await page.keyboard.press('ArrowRight')
  await page.keyboard.press('ArrowRight')
  for (let i = 0; i < 40 && !/ to \w{3} /.test(await foot(page).innerText()); i++)
    await page.keyboard.press('ArrowRight')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/^Moved to .* and pinned there\.$/)).toBeVisible()
  await expect(when).not.toHaveText(before)
  // Back to the left until a closed one is met: it says why, and the post stays.
  await page.keyboard.press('m')
  await expect(foot(page)).toContainText('Moving')
  for (let i = 0; i < 80 && !/not there/.test(await foot(page).innerText()); i++)
    await page.keyboard.press('ArrowLeft')
  await expect(foot(page)).toContainText(/not there: \w{3} \d+ \w{3}/)
  await page.keyboard.press('Enter')
  await expect(foot(page)).toContainText('It stays where it was.')
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+z')
  await expect(when).toHaveText(before)
})

test('several posts are shifted: the difference is shown, dropped, then applied and undone', async ({
  page,
}) => {
  await openHorizon(page)
  const waiting = page.getByRole('option', { name: /for review/ })
  await waiting.nth(0).click({ modifiers: ['Shift'] })
  await waiting.nth(1).click({ modifiers: ['Shift'] })
  await expect(foot(page)).toContainText('2 posts selected')
  await foot(page).getByRole('button', { name: 'A week later' }).click()
  await expect(foot(page)).toContainText('7 days later: 2 posts move')
  await foot(page).getByRole('button', { name: 'Show them' }).click()
  await expect(page.getByRole('region', { name: 'Posts that move' }).getByText('→')).toHaveCount(2)
  await page.keyboard.press('Escape')
  await expect(foot(page)).toContainText('2 posts selected')
  await foot(page).getByRole('button', { name: 'A week later' }).click()
  await foot(page).getByRole('button', { name: 'Apply' }).click()
  await expect(page.getByText('2 posts moved.')).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(page.getByText('Undone: 7 days later.')).toBeVisible()
})

test('slots are drawn by keyboard and quiet days come out of a calendar file, with the difference first', async ({
  page,
}) => {
  await openHorizon(page)
  await page.getByRole('button', { name: /^When @oakumyard on Murmur/ }).click()
  const week = page.getByRole('application', { name: /The week’s slots/ })
  const slots = page.getByRole('button', { name: /slots as a list/ })
  const before = await slots.innerText()
  await week.focus()
  await page.keyboard.press('ArrowUp')
  await page.keyboard.press('Shift+ArrowUp')
  await page.keyboard.press('Enter')
  await expect(slots).not.toHaveText(before)
  await expect(page.getByText('No post moves.')).toBeVisible()
  const year = new Date().getUTCFullYear() + 3
  await page.getByLabel('A calendar file').setInputFiles({
    name: 'closed.ics',
    mimeType: 'text/calendar',
    buffer: Buffer.from(
      `BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//x//EN\r\nBEGIN:VEVENT\r\nUID:1\r\nSUMMARY:Yard closed\r\nDTSTART;VALUE=DATE:${year}0104\r\nDTEND;VALUE=DATE:${year}0108\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n`,
    ),
  })
  await page.getByRole('button', { name: 'Take 1' }).click()
  await expect(page.getByText(`4 January ${year} to 7 January ${year}`)).toBeVisible()
  await page.getByRole('button', { name: 'Apply' }).click()
  await expect(page.getByText('Kept; no post had to move.')).toBeVisible()
})

test('the board comes down from the year, filters, weighs, and gives a calendar file', async ({ page }) => {
  await openHorizon(page)
  await page.getByRole('button', { name: 'Year' }).click()
  await expect(page.getByRole('img', { name: /The year as drawn/ })).toBeVisible()
  await page.getByRole('button', { name: 'Filter' }).click()
  await page.getByLabel('Show network').selectOption('guildhall')
  const list = page.getByRole('listbox', { name: 'Posts shown' })
  await expect(list.getByRole('option', { name: /@oakum-yard/ }).first()).toBeVisible()
  await expect(list.getByRole('option', { name: /@oakumyard|@oakum\.yard/ })).toHaveCount(0)
  await page.getByRole('button', { name: 'Files' }).click()
  const [calendar] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Calendar (.ics)' }).click(),
  ])
  expect(calendar.suggestedFilename()).toBe('oakum-yard.ics')
  const [sheet] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Plan as CSV' }).click(),
  ])
  const text = readFileSync(await sheet.path(), 'utf8')
  // The first post that still waits is wished a year later; a line of nonsense is named.
  const changed = text
    .split('\r\n')
    .map((line) => line.split(','))
    .find((cells) => cells[6] === 'for review')
  const later = `${Number(changed?.[1]?.slice(0, 4)) + 1}${changed?.[1]?.slice(4)}`
  await page.getByLabel('A changed plan').setInputFiles({
    name: 'plan.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(`post,date\n${changed?.[0]},${later}\nnobody,2027-01-01\n`),
  })
  await expect(page.getByText('Line 3: There is no post “nobody” in this brand.')).toBeVisible()
  await expect(foot(page)).toContainText('The changed sheet: 1 post moves')
  await page.keyboard.press('Escape')
  await page.getByRole('tab', { name: 'Rules' }).click()
  await page.getByLabel('The same picture again').fill('6')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(page.getByText(/^Kept\. What stands stays/)).toBeVisible()
  const canvas = page.getByRole('img', { name: /The year as drawn/ })
  const box = await canvas.boundingBox()
  await page.mouse.click((box?.x ?? 0) + 400, (box?.y ?? 0) + 50)
  await expect(page.getByRole('img', { name: /The week as drawn/ })).toBeVisible()
})
