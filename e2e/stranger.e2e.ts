import { expect, test } from '@playwright/test'
import { appUrl, enterDemo, expectAccessible, stepCount } from './steps'

const FILE = `Name,Phone,Town,State,Zip
Kestle Bakery LLC,415-555-2671,San Rafael,Calif.,94901
Amy STONE (Sales Manager),(305) 555-8123,Miami,Fla,33101
"Low, Ted, Jr.",212.555.7788,Albany,N.Y.,12207
Bob and Eve Ray,6175553344,Quincy,Mass.,2169
Lee Fox | opted out,803 555 4411,Columbia,SC,29201
`

test('an ordinary list of a stranger: its country is proposed, questioned, changed afterwards; who said no is suppressed', async ({
  page,
}) => {
  await enterDemo(page)
  await page.getByRole('button', { name: 'Make a list' }).click()
  await page.keyboard.type('Of a stranger')
  await page.keyboard.press('Enter')
  await page
    .getByLabel('Files', { exact: true })
    .setInputFiles({ name: 'leads.csv', mimeType: 'text/csv', buffer: Buffer.from(FILE) })
  const country = page.getByLabel('Default country')
  await expect(country).toHaveValue('US')
  await expect(page.getByText(/5 rows, 5 numbers: all will be read/)).toBeVisible()
  await expect(page.getByText(/United States: 5 of 5 numbers are valid there/)).toBeVisible()
  // A country that reads next to nothing is questioned, and can be taken all the same.
  await country.selectOption('')
  await expect(page.getByText(/hardly any/)).toBeVisible()
  await expectAccessible(page)
  await page.getByRole('button', { name: 'Bring in 5 rows' }).click()
  await expect.poll(() => stepCount(page, 'Bring in')).toBe(5)

  // Read anew, by keyboard.
  await page.getByRole('button', { name: /^Read it otherwise/ }).focus()
  await page.keyboard.press('Enter')
  const form = page.getByRole('form', { name: 'Read it otherwise' })
  await expect(form.getByRole('button', { name: 'Read 5 rows anew' })).toBeDisabled()
  // What is typed at a list of choices has to come within a second: not so on a slow machine.
  await form.getByLabel('Default country').selectOption('US')
  await expectAccessible(page)
  await form.getByRole('button', { name: 'Read 5 rows anew' }).press('Enter')
  await expect(form).toBeHidden()
  await expect(page.getByText(/default country US/)).toBeVisible()
  await expect.poll(() => stepCount(page, 'Split')).toBe(5)
  const list = page.url().replace(/\/bring.*/, '')

  await page.goto(`${appUrl()}/suppression`)
  await page.getByRole('button', { name: 'Make a suppression list' }).click()
  await page.getByLabel('Name').fill('Remarks')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Remarks' })).toBeVisible()

  await page.goto(`${list}/tidy?code=name-company`)
  await expect(page.getByRole('row', { name: /Kestle Bakery LLC/ }).first()).toBeVisible()
  await page.goto(`${list}/tidy?code=refusal`)
  await expect(page.getByRole('row', { name: /Lee Fox \| opted out/ })).toBeVisible()
  await page.getByLabel(/must not be contacted/).selectOption({ label: 'Remarks' })
  await expect(page.getByText(/1 number or address added.*1 contact in all lists is parked now/)).toBeVisible()

  // Two people in a cell: one of them is chosen by keyboard.
  const hand = page.getByRole('region', { name: 'Cells that need a hand' })
  await expect(hand.getByText('Two people stand in this cell.')).toBeVisible()
  await hand.getByLabel('Full name as it should be').focus()
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Enter')
  await expect(hand.getByText('No cell needs a hand')).toBeVisible()
  await page.goto(`${list}/split?q=${encodeURIComponent('Bob Ray')}`)
  await expect(page.getByRole('row', { name: /Bob Ray/ })).toBeVisible()
  await page.goto(`${list}/split?q=${encodeURIComponent('contry:US')}`)
  await expect(page.getByText(/There is no field “contry”/)).toBeVisible()
  await page.getByRole('button', { name: 'Did you mean “country”?' }).click()
  await expect(page.getByText(/There is no field/)).toBeHidden()
})
