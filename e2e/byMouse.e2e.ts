import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { enterDemo, stepCount } from './steps'

test('from the sign-in to a downloaded audience, by mouse', async ({ page }) => {
  await enterDemo(page)
  await page.getByRole('button', { name: 'Make a list' }).click()
  await page.getByLabel('Name', { exact: true }).fill('Quotations')
  await page.getByRole('dialog').getByRole('button', { name: 'Make the list' }).click()

  // Bring in: the file is looked at before anything is sent.
  const sent: string[] = []
  page.on('request', (request) => request.method() === 'PUT' && sent.push(request.url()))
  await page.getByLabel('CSV file').setInputFiles(join(process.env.DEMO_FILES ?? '', 'quotation-requests.csv'))
  await expect(page.getByRole('heading', { name: 'quotation-requests.csv' })).toBeVisible()
  await expect(page.getByLabel('Letters')).toHaveValue('windows-1252')
  await expect(page.getByLabel('Between cells')).toHaveValue(';')
  await expect(page.getByLabel('Telefon becomes')).toHaveValue('number')
  await expect(page.getByLabel('Wunsch becomes')).toHaveValue('')
  expect(sent).toEqual([])
  await page.getByLabel('Source').selectOption('asked-us')
  await page.getByLabel('Lawful basis').selectOption('consent')
  await page.getByRole('button', { name: /^Bring in/ }).click()
  await expect(page.getByText('140', { exact: true }).first()).toBeVisible({ timeout: 20_000 })

  // Tidy and pair.
  const stages = page.getByRole('navigation', { name: 'Stages' })
  await stages.getByRole('link', { name: /^Tidy/ }).click()
  await expect(page.getByRole('row').nth(3)).toBeVisible()
  await expect.poll(() => stepCount(page, 'Tidy')).toBe(140)
  await page.getByRole('link', { name: 'Next: who stands here twice' }).click()
  const rows = page.getByRole('table', { name: 'Contacts' }).getByRole('row')
  await rows.nth(1).click()
  const story = page.getByRole('region', { name: /^Story of/ })
  await expect(story.getByText(/Joined with row/).first()).toBeVisible()
  const before = await stepCount(page, 'Pair')
  await story.getByRole('button', { name: 'Take apart' }).first().click()
  await expect.poll(() => stepCount(page, 'Pair')).toBe(before + 1)

  // Check: the price is said before, the charge afterwards.
  await stages.getByRole('link', { name: /^Check/ }).click()
  await page.getByRole('button', { name: /^Check \d+ numbers · at most €/ }).click()
  await expect(page.getByText(/numbers asked about, .* charged\./)).toBeVisible({ timeout: 30_000 })
  await expect(page.getByRole('button', { name: /^Check|Every answer is fresh/ })).toBeVisible()

  // Split: the lanes add up.
  await stages.getByRole('link', { name: /^Split/ }).click()
  const sum = await page.getByText('Everybody').locator('..').locator('dd').innerText()
  const parts = await Promise.all(
    ['Text', 'Call', 'Ads only', 'Parked'].map((lane) =>
      page.locator('dl').getByText(lane, { exact: true }).locator('..').locator('dd').innerText(),
    ),
  )
  expect(parts.reduce((all, n) => all + Number(n), 0)).toBe(Number(sum))

  // Send.
  await stages.getByRole('link', { name: /^Send/ }).click()
  await page.getByRole('button', { name: /^Prepare \d+ people for Brassbell/ }).click()
  const link = page.getByRole('link', { name: /^Download/ })
  await expect(link).toBeVisible({ timeout: 20_000 })
  const [download] = await Promise.all([page.waitForEvent('download'), link.click()])
  expect(download.suggestedFilename()).toMatch(/^quotations-brassbell-hashed-\d{4}-\d\d-\d\d\.csv$/)
  const lines = readFileSync(await download.path(), 'utf8')
    .trimEnd()
    .split('\r\n')
  expect(lines[0]).toBe('mail,mail,mail,line,line,line,given,family,postal,country')
  expect(lines[1]).toMatch(/^[0-9a-f]{64},/)
  await expect.poll(() => stepCount(page, 'Send')).toBe(lines.length - 1)
})

test('a fill asks in the order that was set, and stays within its budget', async ({ page }) => {
  await enterDemo(page)
  await page.getByRole('link', { name: 'Autumn terraces' }).click()
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: /^Fill/ }).click()
  await page.getByRole('button', { name: 'Ask Brindle earlier' }).click()
  await page.getByLabel('Budget in euros').fill('8')
  await page.getByRole('button', { name: /^Fill \d+ contacts · at most €8.00/ }).click()
  await expect(page.getByText('The budget was reached; the others were not asked about.')).toBeVisible({
    timeout: 60_000,
  })
  const spent = await page.getByText(/of €8.00 spent/).innerText()
  expect(Number(/€([\d.]+) of/.exec(spent)?.[1])).toBeLessThanOrEqual(8)
  await expect(
    page
      .getByRole('list')
      .getByText(/usable/)
      .first(),
  ).toBeVisible()
  await page.goto(page.url().replace(/\/lists\/.*/, '/spend'))
  await expect(page.getByRole('cell', { name: 'Brindle' })).toBeVisible()
})

test('a broken file is explained before it is sent', async ({ page }) => {
  await enterDemo(page)
  await page.getByRole('link', { name: 'Autumn terraces' }).click()
  await page
    .getByRole('navigation', { name: 'Stages' })
    .getByRole('link', { name: /^Bring in/ })
    .click()
  for (const [name, buffer, sentence] of [
    ['empty.csv', Buffer.alloc(0), 'The file is empty.'],
    ['photo.csv', Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 1, 2, 3]), 'This is not a table of text'],
    ['book.csv', Buffer.from([0x50, 0x4b, 3, 4, 0, 0]), 'This is a workbook'],
  ] as const) {
    await page.getByLabel('CSV file').setInputFiles({ name, mimeType: 'text/csv', buffer })
    await expect(page.getByRole('alert')).toContainText(sentence)
    await page.getByRole('button', { name: 'Choose another file' }).click()
  }
  await page.getByRole('button', { name: 'Paste' }).click()
  await page.getByLabel('Rows, with their headings').fill('colour,shape\nred,round\n')
  await page.getByRole('button', { name: 'Look at it' }).click()
  await expect(page.getByText('No column becomes a number or an e-mail.')).toBeVisible()
  await expect(page.getByRole('button', { name: /^Bring in/ })).toBeDisabled()
})
