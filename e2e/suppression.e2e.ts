import { expect, test } from '@playwright/test'
import { appUrl, enterDemo, stepCount } from './steps'

const FILE = `Name,Phone,E-mail,Country
Maren Oldershaw,07911 277781,maren@saidno.example,GB
Priya Kestle,07911 277782,priya@saidno.example,GB
Alice Haddow,07911 277784,alice@saidno.example,GB
`

test('a file of people who said no is brought in, and taken back whole', async ({ page }) => {
  await enterDemo(page)
  await page.goto(`${appUrl()}/suppression`)
  await page.getByRole('button', { name: 'Make a suppression list' }).click()
  await page.getByLabel('Name').fill('A register')
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'Bring in a file' }).click()
  const choose = (name: string, text: string) =>
    page
      .getByLabel('Suppression file', { exact: true })
      .setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(text) })

  // A file that names nobody leaves nothing behind.
  await choose('nobody.csv', 'Name,Note\nMaren,met in May\nTom,met in June\n')
  await expect(page.getByText(/No column is used: nobody would be suppressed/)).toBeVisible()
  const add = page.getByRole('button', { name: 'Add everybody in this file' })
  await expect(add).toBeDisabled()
  await page.getByLabel('What “Note” holds').selectOption('Numbers')
  await add.click()
  await expect(page.getByText(/None of the 2 rows holds a number.* nothing of it is kept/)).toBeVisible()

  await choose('register.csv', 'Tel;Since\n07911 288881;2024\n+44 7911 288882;2025\nsoon;2025\n')
  await expect(page.getByLabel('What “Tel” holds')).toHaveValue('numbers')
  await page.getByRole('textbox', { name: 'Reason' }).fill('on the register')
  await add.click()
  await expect(page.getByText(/2 entries added.*1 row without a key: 4/)).toBeVisible()
  const files = page.getByRole('region', { name: 'Files' })
  await expect(files.getByRole('row', { name: /register\.csv/ })).toBeVisible()
  await expect(page.getByRole('row', { name: /288882.*with register\.csv/ })).toBeVisible()
  await files.getByRole('button', { name: 'Take back' }).click()
  await expect(page.getByRole('row', { name: /288882.*with register\.csv/ })).toBeHidden()
})

test('who said no is marked at once, told in the story, and let go again', async ({ page }) => {
  await enterDemo(page)
  await page.getByRole('button', { name: 'Make a list' }).click()
  await page.keyboard.type('Suppressed')
  await page.keyboard.press('Enter')
  await page
    .getByLabel('Files', { exact: true })
    .setInputFiles({ name: 'a.csv', mimeType: 'text/csv', buffer: Buffer.from(FILE) })
  await page.getByRole('button', { name: /^Bring in/ }).click()
  await expect.poll(() => stepCount(page, 'Split')).toBe(3)
  const list = page.url().replace(/\/bring.*/, '')

  await page.goto(`${appUrl()}/suppression`)
  await page.getByRole('button', { name: 'Make a suppression list' }).click()
  await page.getByLabel('Name').fill('Said no')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Said no' })).toBeVisible()
  await page.getByLabel(/a line each/).fill('07911-277781\nPriya@SaidNo.example\nsoon')
  await page.getByRole('textbox', { name: 'Reason' }).fill('asked by letter')
  await page.getByRole('button', { name: 'Add 3 lines' }).click()
  await expect(
    page.getByText(/2 entries added.* 2 contacts marked in all lists\. 1 line holds no number/),
  ).toBeVisible()
  await expect(page.getByLabel(/a line each/)).toHaveValue('soon')

  // The riser opens whom it counts; the story says which list and why.
  await page.goto(`${list}/split`)
  await page.getByRole('link', { name: /2 suppressed/ }).click()
  const rows = page.getByRole('table', { name: 'Contacts' }).getByRole('row')
  await expect(rows).toHaveCount(3)
  await page.getByRole('row', { name: /Maren Oldershaw/ }).click()
  const story = page.getByRole('region', { name: /^Story of/ })
  await expect(story.getByText(/On “Said no” since .*: asked by letter/)).toBeVisible()

  // A contact is put on a list from its story.
  await page.goto(`${list}/split?q=Haddow`)
  await rows.nth(1).click()
  await story.getByLabel('Must not be contacted:').selectOption('Said no')
  await expect(story.getByText(/On “Said no”/).first()).toBeVisible()
  expect(await stepCount(page, 'Split')).toBe(0)

  // Taking an entry off lets its contact go.
  await page.goto(`${appUrl()}/suppression`)
  await page.getByRole('button', { name: /^Said no/ }).click()
  await page
    .getByRole('row', { name: /priya@saidno\.example/ })
    .getByRole('button', { name: 'Take off' })
    .press('Enter')
  await page.getByRole('dialog').getByRole('button', { name: 'Take it off' }).press('Enter')
  await expect(page.getByRole('row', { name: /priya@saidno\.example/ })).toBeHidden()
  await page.goto(`${list}/split`)
  expect(await stepCount(page, 'Split')).toBe(1)
})
