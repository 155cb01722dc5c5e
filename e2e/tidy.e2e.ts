import { expect, test } from '@playwright/test'
import { appUrl, enterDemo, stepCount } from './steps'

const FILE = `name,company,phone,mail,country
"OLDERSHAW, MAREN",Causeway Camping Ltd,1665555018,maren@causeway.example,United Kingdom
Priya Hallowell,Thornbury Nurseries Ltd,07911 204481,priya@gmial.com,UK
Ellie Marsh,Seerose,07911 204490,ellie@gamil.com,UK
Tom Kestle,Seerose,079112044811,,GB
`

test('a list is tidied: repairs looked at and left out, the routine changed, cells mended by hand', async ({
  page,
}) => {
  await enterDemo(page)
  await page.goto(`${appUrl()}/lists`)
  await page.getByRole('button', { name: 'Make a list' }).click()
  await page.keyboard.type('Tidied')
  await page.keyboard.press('Enter')
  await page
    .getByLabel('Files', { exact: true })
    .setInputFiles({ name: 'a.csv', mimeType: 'text/csv', buffer: Buffer.from(FILE) })
  await page.getByRole('button', { name: /^Bring in/ }).click()
  await expect.poll(() => stepCount(page, 'Bring in')).toBe(4)
  await page.keyboard.press('g')
  await page.keyboard.press('t')

  // Was beside is; one click leaves a repair out, and the story takes it back.
  await expect(page.getByRole('heading', { name: 'Lost leading zero' })).toBeVisible()
  await page.getByRole('button', { name: /^Lost leading zero/ }).click()
  const changed = page.getByRole('region', { name: 'Lost leading zero' })
  await expect(changed.getByRole('row', { name: /1665555018 \+44 1665 555018/ })).toBeVisible()
  await changed.getByRole('button', { name: /Leave it out for/ }).click()
  await expect(changed.getByText('This repair has changed nothing')).toBeVisible()
  const done = page.getByRole('complementary', { name: 'Story and advice' })
  await expect(done.getByText('Left out · Lost leading zero')).toBeVisible()
  await page.keyboard.press('z')
  await expect(changed.getByRole('row', { name: /1665555018/ })).toBeVisible()

  // A step's effect is tried on a sample before it is applied.
  await page.getByRole('button', { name: /^\d Mend companies/ }).click()
  await page.getByRole('checkbox', { name: 'Take the legal form off' }).uncheck()
  const draft = page.getByRole('region', { name: 'Changed routine' })
  await expect(draft.getByText('2 of 4 rows of the sample would come out otherwise.')).toBeVisible()
  await expect(draft.getByRole('row', { name: 'Company Causeway Camping Causeway Camping Ltd' })).toBeVisible()
  await draft.getByRole('button', { name: 'Tidy 4 contacts' }).click()
  await expect(draft).toBeHidden()
  await expect(page.getByText('This step has changed nothing').first()).toBeVisible()

  // By hand: the same slip in all cells at once, then by keyboard with a live reading.
  const hand = page.getByRole('region', { name: 'Cells that need a hand' })
  await expect(hand.getByRole('heading')).toHaveText('3 contacts need a hand')
  await hand.getByRole('button', { name: 'Mend all 2 by their nearest reading' }).click()
  await expect(hand.getByRole('heading')).toHaveText('1 contact needs a hand')
  await page.keyboard.press('e')
  const cell = hand.getByRole('textbox')
  await expect(cell).toBeFocused()
  await cell.fill('12')
  await expect(hand.getByText('There are too few digits.')).toBeVisible()
  await expect(hand.getByRole('button', { name: /^Accept/ })).toBeDisabled()
  await page.keyboard.press('ArrowDown')
  await expect(hand.getByText(/mobile by the plan/)).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(hand.getByRole('heading')).toHaveText('No cell needs a hand')

  // All of it is still there, and can be taken back, after a reload.
  await page.reload()
  await expect(page.getByRole('heading', { name: 'No cell needs a hand' })).toBeVisible()
  await page.getByRole('button', { name: 'Close this step' }).click()
  await done.getByRole('button', { name: 'Take back' }).first().click()
  await expect(page.getByRole('heading', { name: '1 contact needs a hand' })).toBeVisible()
})

test('one value for all the chosen contacts, as one act', async ({ page }) => {
  await enterDemo(page)
  await page.getByRole('link', { name: 'Autumn terraces' }).click()
  await expect(page.getByRole('heading', { name: /need a hand/ })).toBeVisible()
  await page.keyboard.press('v')
  await page.getByLabel('Column').selectOption('city')
  await page.keyboard.press('/')
  await page.keyboard.type('lodge country:GB')
  await page.keyboard.press('Enter')
  const set = page.getByRole('button', { name: /^Set it for [1-9]/ })
  await expect(set).toBeEnabled()
  await page.getByLabel('Value').fill('Seahouses')
  await set.click()
  await expect(page.getByText('Under way: it shows among the jobs.')).toBeVisible()
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Repairs' }).click()
  await expect(page.getByText(/Set for many · City: Seahouses/)).toBeVisible()
  await page.getByRole('button', { name: 'Take back' }).first().click()
  await expect(page.getByText('taken back')).toBeVisible()
})

test('contacts are picked one by one, by mouse and by keys', async ({ page }) => {
  await enterDemo(page)
  await page.getByRole('link', { name: 'Autumn terraces' }).click()
  await expect(page.getByRole('heading', { name: /need a hand/ })).toBeVisible()
  await page.keyboard.press('v')
  const picks = page.getByRole('checkbox', { name: /^Pick / })
  await picks.nth(1).click()
  await picks.nth(3).click({ modifiers: ['Shift'] })
  await expect(page.getByText('3 contacts picked.')).toBeVisible()
  await page.keyboard.press('j')
  await expect(page.getByRole('row', { selected: true })).toBeVisible()
  await page.keyboard.press('x')
  await expect(picks.first()).toBeChecked()
  await page.keyboard.press('Escape')
  await page.getByLabel('Column').selectOption('city')
  await page.getByLabel('Value').fill('Craster')
  await page.getByRole('button', { name: 'Set it for the 4 picked' }).click()
  await page.getByRole('button', { name: 'Repairs' }).click()
  await expect(page.getByText('Set for many · City: Craster · 4 contacts')).toBeVisible()
  await page.getByRole('button', { name: 'Take back' }).first().click()
  await expect(page.getByText('taken back').first()).toBeVisible()
})
