import { readFileSync } from 'node:fs'
import { expect, test } from '@playwright/test'
import { enterDemo, expectAccessible, stepCount } from './steps'

async function openList(page: import('@playwright/test').Page, name: string) {
  await enterDemo(page)
  await page.getByRole('button', { name: 'Make a list' }).click()
  await page.getByLabel('Name', { exact: true }).fill(name)
  await page.getByRole('dialog').getByRole('button', { name: 'Make the list' }).click()
  await page.getByRole('button', { name: 'Paste' }).click()
  await page
    .getByLabel('Rows, with their headings')
    .fill(
      [
        'Name,Title,City,Phone,E-mail',
        'Maren Oldershaw,Head of Procurement,Kelso,07911 204481,maren@causeway.example',
        'Jonah Carnridge,Inhaber,Alnwick,07911 204482,jonah@tidewater.example',
        'Tom Kestle,Buyer,Kelso,01665 555018,',
        'Ilse Krug,Gärtnerin,Kelso,,ilse@heron.example',
      ].join('\n'),
    )
  await page.getByRole('button', { name: 'Look at it' }).click()
  await page.getByLabel('Default country').selectOption('GB')
  await page.getByRole('button', { name: /^Bring in/ }).click()
  await expect.poll(() => stepCount(page, 'Bring in')).toBe(4)
}
const stage = (page: import('@playwright/test').Page, name: RegExp) =>
  page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name }).click()

test('lanes are decided by own rules, a contact is moved by hand, a filter is saved as a segment', async ({ page }) => {
  await openList(page, 'Lanes')
  await stage(page, /^Split/)
  await page.getByRole('button', { name: 'Decide the lanes by own rules' }).click()
  const dialog = page.getByRole('dialog', { name: 'Rules of the lanes' })
  await dialog.getByRole('button', { name: 'Add a lane' }).click()
  await dialog.getByLabel('Name of New lane').fill('Buyers')
  await dialog.getByLabel('Filter of Buyers').fill('function:purchasing lane:text')
  await expect(dialog.getByText('A rule cannot ask for lanes')).toBeVisible()
  await expect(dialog.getByRole('button', { name: 'Decide by these rules' })).toBeDisabled()
  await dialog.getByLabel('Filter of Buyers').fill('function:purchasing')
  await expectAccessible(page)
  await dialog.getByRole('button', { name: 'Decide by these rules' }).click()
  await expect(dialog).toHaveCount(0)
  const lanes = page.getByRole('main').getByRole('listitem')
  await expect(lanes.filter({ hasText: 'Buyers' })).toContainText('2')

  // Typed: completed by keyboard, a mistake put right, then saved.
  await page.keyboard.press('/')
  await page.keyboard.type('leve')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Enter')
  await page.keyboard.type('head or cty:alnwick')
  await page.getByRole('button', { name: 'Did you mean “city”?' }).click()
  await expect(page.getByRole('status').filter({ hasText: '2 contacts' })).toBeVisible()
  await page.getByLabel('Save this filter as a segment').fill('Deciders')
  await page.getByRole('button', { name: 'Save the segment' }).click()
  const segments = page.getByRole('region', { name: 'Segments' })
  await expect(segments.getByRole('button', { name: /^Deciders\s*2$/ })).toBeVisible()
  await expectAccessible(page)

  await page.getByRole('table', { name: 'Contacts' }).getByRole('row').nth(2).click()
  await page.getByLabel('Move to a lane by hand').selectOption({ label: 'to Parked' })
  await expect(
    page
      .getByRole('region', { name: /^Story of/ })
      .getByText('moved by hand')
      .first(),
  ).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('definition').last()).toHaveText('4')
})

test('a call sheet is worked through by keyboard, and an outcome taken back', async ({ page }) => {
  await openList(page, 'Calls')
  await stage(page, /^Split/)
  await page.getByRole('button', { name: 'Decide the lanes by own rules' }).click()
  const dialog = page.getByRole('dialog', { name: 'Rules of the lanes' })
  await dialog.getByRole('button', { name: 'Take Text out' }).click()
  await dialog.getByRole('button', { name: 'Decide by these rules' }).click()
  await expect(dialog).toHaveCount(0)
  await page.getByRole('button', { name: 'Call sheet' }).click()
  const person = page.getByRole('region', { name: 'To be called now' })
  const next = page.getByRole('table', { name: 'Next to be called' }).getByRole('row')
  await expect(next).toHaveCount(3)
  await expectAccessible(page)
  const first = await person.getByRole('heading').innerText()
  await page.keyboard.press('3')
  await expect(next).toHaveCount(2)
  await expect(person.getByRole('heading')).not.toHaveText(first)
  await expect(page.getByRole('region', { name: 'Today' })).toContainText(/Wrong number\s*1/)
  await page.keyboard.press('z')
  await expect(next).toHaveCount(3)
  await page.keyboard.press('5')
  await page.getByRole('group', { name: 'Called again' }).getByRole('button', { name: 'tomorrow' }).press('Enter')
  await expect(next).toHaveCount(2)
  await page.keyboard.press('1')
  await expect(next).toHaveCount(0)
  await page.keyboard.press('4')
  await expect(page.getByText(/^Nobody is left to be called/)).toBeVisible()
})

test('a destination that no code knows is written and used', async ({ page }) => {
  await openList(page, 'For another network')
  const list = page.url()
  await page.getByRole('link', { name: 'Destinations' }).click()
  await page.getByRole('link', { name: 'Add a destination' }).click()
  const text = page.getByLabel('Destination', { exact: true })
  const document = JSON.parse(await text.inputValue())
  document.audiences[0].rules.everyRow = ['city']
  await text.fill(JSON.stringify(document))
  await expect(page.getByText('"city" is asked for, and no column holds it.')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Add this destination' })).toBeDisabled()
  document.id = 'lantern'
  document.name = 'Lantern'
  document.audiences[0].columns = [
    { heading: 'who', field: 'email', form: ['lower'] },
    { heading: 'ring', field: 'number', form: ['e164', 'digits'] },
    { heading: 'place', field: 'city', form: ['trim', 'lower', 'ascii'] },
  ]
  await text.fill(JSON.stringify(document))
  await expect(page.getByText('who,ring,place')).toBeVisible()
  await expectAccessible(page)
  await page.getByRole('button', { name: 'Add this destination' }).press('Enter')
  await expect(page.getByRole('heading', { name: 'Lantern' })).toBeVisible()

  await page.goto(list.replace(/\/bring.*/, '/send?show=files'))
  await page.getByLabel('Audience for').selectOption('lantern/people')
  await page.getByLabel('plain').check()
  await page.getByRole('button', { name: 'Prepare 4 people for Lantern' }).click()
  const link = page.getByRole('link', { name: /^Download/ })
  await expect(link).toBeVisible()
  const [download] = await Promise.all([page.waitForEvent('download'), link.click()])
  const lines = readFileSync(await download.path(), 'utf8')
    .trimEnd()
    .split('\r\n')
  expect(lines.slice(0, 2)).toEqual(['who,ring,place', 'maren@causeway.example,447911204481,kelso'])
  expect(lines).toHaveLength(5)
})

test('a file for people is written in a layout of its own, and the layout is kept', async ({ page }) => {
  await openList(page, 'For the phones')
  await stage(page, /^Send/)
  await page.getByRole('navigation', { name: 'Parts of Send' }).getByRole('button', { name: 'Files' }).click()
  await page.getByRole('button', { name: 'Columns and form of the file' }).click()
  const dialog = page.getByRole('dialog', { name: 'Columns and form of the file' })
  await dialog.getByLabel('Delimiter').selectOption({ label: 'semicolon' })
  await dialog.getByLabel('Heading of Company').fill('name')
  await expect(dialog.getByText('Two columns are headed “name”.')).toBeVisible()
  await expect(dialog.getByRole('button', { name: 'Write the file' })).toBeDisabled()
  await dialog.getByRole('button', { name: 'Leave Company out' }).press('Enter')
  await dialog.getByRole('button', { name: 'Put City earlier' }).press('Enter')
  await expectAccessible(page)
  await dialog.getByLabel('Keep this layout as').fill('Phones')
  await dialog.getByRole('button', { name: 'Keep', exact: true }).click()
  await dialog.getByRole('button', { name: 'Write the file' }).click()
  await expect(dialog).toHaveCount(0)
  await expect(page.getByLabel('Layout of a file for people')).toHaveValue('Phones')
  const link = page.getByRole('link', { name: /^Download/ })
  await expect(link).toBeVisible()
  const [download] = await Promise.all([page.waitForEvent('download'), link.click()])
  const [headings = '', first = ''] = readFileSync(await download.path(), 'utf8').split('\r\n')
  expect(headings).toMatch(/^Name;Title;.*;City;E-mail 3;Country;/)
  expect(first).toMatch(/^Maren Oldershaw;Head of Procurement;\+447911204481;/)
})
