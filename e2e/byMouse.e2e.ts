import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { enterDemo, expectAccessible, stepCount } from './steps'

const plainNumber = (text: string): number => Number(text.replaceAll(',', ''))

test('from the sign-in to a downloaded audience, by mouse', async ({ page }) => {
  await enterDemo(page)
  await page.getByRole('button', { name: 'Make a list' }).click()
  await page.getByLabel('Name', { exact: true }).fill('Quotations')
  await page.getByRole('dialog').getByRole('button', { name: 'Make the list' }).click()

  // Bring in: the file is looked at before anything is sent.
  const sent: string[] = []
  page.on('request', (request) => request.method() === 'PUT' && sent.push(request.url()))
  await page
    .getByLabel('Files', { exact: true })
    .setInputFiles(join(process.env.DEMO_FILES ?? '', 'quotation-requests.csv'))
  await expect(page.getByRole('heading', { name: 'quotation-requests.csv' })).toBeVisible()
  await expect(page.getByLabel('Encoding')).toHaveValue('utf-8')
  await expect(page.getByLabel('Delimiter')).toHaveValue(',')
  await expect(page.getByLabel('Phone becomes')).toHaveValue('number')
  await expect(page.getByLabel('Wish becomes')).toHaveValue('')
  expect(sent).toEqual([])
  await page.getByLabel('Source').selectOption('asked-us')
  await page.getByLabel('Lawful basis').selectOption('consent')
  await page.getByRole('button', { name: /^Bring in/ }).click()
  await expect(page.getByText('900', { exact: true }).first()).toBeVisible()

  // Tidy and pair.
  const stages = page.getByRole('navigation', { name: 'Stages' })
  await stages.getByRole('link', { name: /^Tidy/ }).click()
  await expect(page.getByRole('row').nth(3)).toBeVisible()
  await expect.poll(() => stepCount(page, 'Tidy')).toBe(900)
  await page.getByRole('link', { name: 'Next: who stands here twice' }).click()
  await page.getByRole('button', { name: 'Contacts', exact: true }).click()
  const rows = page.getByRole('table', { name: 'Contacts' }).getByRole('row')
  await rows.nth(1).click()
  const story = page.getByRole('region', { name: /^Story of/ })
  await expect(story.getByText(/Joined with row/).first()).toBeVisible()
  const before = await stepCount(page, 'Pair')
  await story.getByRole('button', { name: 'Take apart' }).first().click()
  await expect.poll(() => stepCount(page, 'Pair')).toBe(before + 1)

  // Check: the price is said before, the charge afterwards.
  await stages.getByRole('link', { name: /^Check/ }).click()
  await page.getByRole('button', { name: /^Check [\d,]+ numbers · at most €/ }).click()
  await expect(page.getByText(/numbers asked about, .* charged\./)).toBeVisible()
  await expect(page.getByRole('button', { name: /^Check|Every answer is fresh/ })).toBeVisible()

  // Split: the lanes add up.
  await stages.getByRole('link', { name: /^Split/ }).click()
  const sum = await page.getByText('Everybody').locator('..').locator('dd').innerText()
  const parts = await Promise.all(
    ['Text', 'Call', 'Ads only', 'Parked'].map((lane) =>
      page.locator('dl').getByText(lane, { exact: true }).locator('..').locator('dd').innerText(),
    ),
  )
  expect(parts.reduce((all, n) => all + plainNumber(n), 0)).toBe(plainNumber(sum))

  // Send.
  await stages.getByRole('link', { name: /^Send/ }).click()
  await page.getByRole('navigation', { name: 'Parts of Send' }).getByRole('button', { name: 'Files' }).click()
  await page.getByRole('button', { name: /^Prepare [\d,]+ people for Brassbell/ }).click()
  const link = page.getByRole('link', { name: /^Download/ })
  await expect(link).toBeVisible()
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
  const earlier = page.getByRole('button', { name: 'Ask Brindle earlier' })
  while (await earlier.isEnabled()) await earlier.click()
  await page.getByLabel('Budget in euros').fill('8')
  await page.getByRole('button', { name: /^Fill [\d,]+ contacts · at most €8.00/ }).click()
  const before = page.getByRole('dialog', { name: 'Before the fill' })
  await expectAccessible(page)
  await before.getByRole('button', { name: 'Start · at most €8.00' }).click()
  await expect(page.getByText('The budget was reached; the others were not asked about.')).toBeVisible()
  const spent = await page.getByText(/of €8.00 spent/).innerText()
  expect(Number(/€([\d.]+) of/.exec(spent)?.[1])).toBeLessThanOrEqual(8)
  await expect(
    page
      .getByRole('list')
      .getByText(/usable/)
      .first(),
  ).toBeVisible()
  await page.goto(page.url().replace(/\/lists\/.*/, '/spend'))
  // It stands there by our books, and by its own statement once that has come.
  await expect(page.getByRole('cell', { name: 'Brindle', exact: true }).last()).toBeVisible()
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
    ['photo.csv', Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 1, 2, 3]), 'This is no table'],
    ['book.csv', Buffer.from([0x50, 0x4b, 3, 4, 0, 0]), 'The file is damaged'],
    ['page.xls', Buffer.from('<html><table></table></html>'), 'This is a web page'],
  ] as const) {
    await page.getByLabel('Files', { exact: true }).setInputFiles({ name, mimeType: 'text/csv', buffer })
    await expect(page.getByRole('alert')).toContainText(sentence)
    await page.getByRole('button', { name: 'Put it aside' }).click()
  }
  await page.getByRole('button', { name: 'Paste' }).click()
  await page.getByLabel('Rows, with their headings').fill('colour,shape\nred,round\n')
  await page.getByRole('button', { name: 'Look at it' }).click()
  await expect(page.getByText('No column becomes a number or an e-mail.')).toBeVisible()
  await expect(page.getByRole('button', { name: /^Bring in/ })).toBeDisabled()
})

test('several files at once, each with its own mapping; a held row is mended; a batch is taken back', async ({
  page,
}) => {
  await enterDemo(page)
  await page.getByRole('button', { name: 'Make a list' }).click()
  await page.getByLabel('Name', { exact: true }).fill('Several')
  await page.getByRole('dialog').getByRole('button', { name: 'Make the list' }).click()
  const files = ['fair-badges.xlsx', 'customers.txt', 'opt-outs.json'].map((name) =>
    join(process.env.DEMO_FILES ?? '', name),
  )
  await page.getByLabel('Files', { exact: true }).setInputFiles(files)
  const bench = page.getByRole('navigation', { name: 'Files on the bench' })
  await expect(bench.getByText('ready to bring in')).toHaveCount(3)

  // The workbook: its title and hidden sheet are named, its headings found in row 4.
  await expect(page.getByLabel('Headings').first()).toHaveValue('4')
  await expect(page.getByText('1 hidden sheet, not taken unless you choose it: “Test scans”.')).toBeVisible()
  await page.getByRole('button', { name: 'Take Stands as a batch of its own too' }).click()
  await expect(bench.getByRole('button')).toHaveCount(4)
  await page.getByRole('button', { name: 'Cancel' }).last().click()

  // A field is dragged onto a column, and set by the keyboard on another.
  await bench.getByRole('button', { name: /customers.txt/ }).click()
  const shown = page.getByRole('main').filter({ visible: true })
  await expect(shown.getByLabel('Encoding')).toHaveValue('utf-16le')
  await shown.getByLabel('Street becomes').scrollIntoViewIfNeeded()
  const chip = shown.getByRole('list', { name: 'Fields to drag onto a column' }).getByText('Region')
  await chip.scrollIntoViewIfNeeded()
  const from = await chip.boundingBox()
  const to = await shown.getByText('Customer no.', { exact: true }).boundingBox()
  if (!from || !to) throw new Error('the chip or the column is not in sight')
  await page.mouse.move(from.x + 5, from.y + 5)
  await page.mouse.down()
  await page.mouse.move(to.x + 20, to.y + 10, { steps: 8 })
  await page.mouse.up()
  await expect(shown.getByLabel('Customer no. becomes')).toHaveValue('region')
  await shown.getByLabel('Customer no. becomes').selectOption('')
  await page
    .getByRole('button', { name: /^Bring in [\d,]+ rows/ })
    .filter({ visible: true })
    .click()
  await bench.getByRole('button', { name: /fair-badges/ }).click()
  await expect(page.getByText('This very file was brought in before')).toBeVisible()
  await page.getByRole('button', { name: 'Cancel' }).filter({ visible: true }).click()
  await expect(bench.getByRole('button', { name: /fair-badges/ })).toHaveCount(0)
  await page.getByRole('button', { name: 'Cancel' }).filter({ visible: true }).click()
  await expect(page.getByRole('heading', { name: 'customers', exact: true })).toBeVisible()
  await expect.poll(() => stepCount(page, 'Bring in')).toBe(390)

  // A row that cannot be read is mended in place and let in.
  await page.getByRole('button', { name: 'Paste' }).click()
  await page
    .getByLabel('Rows, with their headings')
    .fill(
      'Name,Phone,E-mail\nTess Garside,07911 233441,t@heron.example\nRhys,too,many,cells\nNia,07911 233443,n@heron.example\n',
    )
  await page.getByRole('button', { name: 'Look at it' }).click()
  await page.getByLabel('Default country').selectOption('GB')
  await page.getByRole('button', { name: /^Bring in/ }).click()
  await expect(page.getByText('1 row held').first()).toBeVisible()
  // A row is let in once its batch has been read.
  await expect.poll(() => stepCount(page, 'Bring in')).toBe(393)
  await page.getByRole('button', { name: 'Mend row 3' }).click()
  await page.getByLabel('Phone → Number').fill('07911 233442')
  await page.getByLabel('E-mail → E-mail').fill('r@heron.example')
  await page.keyboard.press('Enter')
  await expect(page.getByText('1 row held')).toHaveCount(0)
  await expect.poll(() => stepCount(page, 'Tidy')).toBeGreaterThan(380)
  const before = await stepCount(page, 'Bring in')

  // Side by side, then one batch taken back whole, and brought back.
  await page.getByRole('button', { name: 'Side by side' }).click()
  await expect(page.getByRole('region', { name: 'Batches side by side' }).getByRole('row')).toHaveCount(3)
  await page.getByRole('button', { name: 'customers', exact: true }).click()
  await page.getByRole('button', { name: 'Take back 390 rows' }).click()
  await expect.poll(() => stepCount(page, 'Bring in')).toBe(before - 390)
  await page.getByRole('button', { name: 'Bring back 390 rows' }).click()
  await expect.poll(() => stepCount(page, 'Bring in')).toBe(before)
})
