import { expect, test } from '@playwright/test'
import { appUrl, enterDemo, stepCount } from './steps'

/** Two people written twice without a key in common, and strangers around them. */
const FILE = `First name,Last name,Company,Town,Country,Phone,E-mail
Maren,Oldershaw,Heron Lodge,Oxford,GB,07911 204482,
Maren,Oldershaw,Heron Lodge,Oxford,GB,,maren@heron.example
Tom,Garside,Fernhill,Bamburgh,GB,07911 204484,
Tom,Garside,Fernhill,Bamburgh,GB,,tom@fernhill.example
${Array.from({ length: 30 }, (_, i) => `Given${String.fromCharCode(97 + (i % 26))},Stranger${i},House ${i},Town ${i % 9},GB,07911 2${10_000 + i},`).join('\n')}
`

test('who is one person is looked for, decided by keyboard, and taken back', async ({ page }) => {
  await enterDemo(page)
  await page.goto(`${appUrl()}/lists`)
  await page.getByRole('button', { name: 'Make a list' }).click()
  await page.keyboard.type('Paired')
  await page.keyboard.press('Enter')
  await page
    .getByLabel('Files', { exact: true })
    .setInputFiles({ name: 'a.csv', mimeType: 'text/csv', buffer: Buffer.from(FILE) })
  await page.getByRole('button', { name: /^Bring in/ }).click()
  await expect.poll(() => stepCount(page, 'Bring in')).toBe(34)
  await page.keyboard.press('g')
  await page.keyboard.press('p')
  await expect(page.getByRole('heading', { name: 'Nobody has looked for likeness yet' })).toBeVisible()
  // The upper line is drawn so high that nobody is joined without a person.
  const line = page.getByRole('slider', { name: /^Joined by themselves from/ })
  await line.focus()
  for (let i = 0; i < 8; i++) await page.keyboard.press('ArrowRight')
  await expect(line).toHaveValue('15')
  await page.getByRole('button', { name: 'Look for one person in several contacts' }).click()
  await expect(page.getByText('2 to decide, likeliest first')).toBeVisible()

  // Side by side: the weights are told, and add up to the sentence's score.
  const pair = page.getByRole('region', { name: 'Contacts side by side' })
  await expect(pair.getByText(/^The same name and one company\./)).toBeVisible()
  const first = await pair.getByRole('row', { name: /^Name/ }).innerText()
  expect(await stepCount(page, 'Pair')).toBe(34)

  // Later shows the other one; joining takes one contact away; taking back gives it again.
  await page.keyboard.press('s')
  await expect(pair.getByRole('row', { name: /^Name/ })).not.toHaveText(first)
  await page.keyboard.press('m')
  await expect.poll(() => stepCount(page, 'Pair')).toBe(33)
  await page.getByRole('button', { name: 'show them again' }).click()
  await expect(pair.getByRole('row', { name: /^Name/ })).toBeVisible()
  await page.keyboard.press('x')
  await expect(page.getByRole('heading', { name: 'Nothing is left to decide' })).toBeVisible()
  const last = page.getByRole('region', { name: 'Decided last' })
  await expect(last.getByText('1 pair kept apart')).toBeVisible()
  await page.keyboard.press('z')
  await expect(last.getByText('1 pair kept apart')).toBeHidden()
  await last.getByRole('button', { name: 'Take back' }).click()
  await expect.poll(() => stepCount(page, 'Pair')).toBe(34)
  await expect(page.getByText('2 to decide, likeliest first')).toBeVisible()
})

test('all pairs that look alike are decided at once', async ({ page }) => {
  await enterDemo(page)
  await page.getByRole('link', { name: 'Paired' }).click()
  const stages = page.getByRole('navigation', { name: 'Stages' })
  await stages.getByRole('link', { name: /^Pair/ }).click()
  await page.getByRole('button', { name: 'Join all 2' }).click()
  await expect.poll(() => stepCount(page, 'Pair')).toBe(32)
  await expect(page.getByRole('heading', { name: 'Nothing is left to decide' })).toBeVisible()
  await page.getByRole('button', { name: 'Contacts', exact: true }).click()
  await page.getByRole('table', { name: 'Contacts' }).getByRole('row').nth(1).click()
  const story = page.getByRole('region', { name: /^Story of/ })
  await expect(story.getByText(/said that they are one person/)).toBeVisible()
})

test('who shares a line and who is in another list too is told, and each count opens whom it counts', async ({
  page,
}) => {
  await enterDemo(page)
  const bring = async (list: string, text: string, rows: number) => {
    await page.goto(`${appUrl()}/lists`)
    await page.getByRole('button', { name: 'Make a list' }).click()
    await page.keyboard.type(list)
    await page.keyboard.press('Enter')
    await page
      .getByLabel('Files', { exact: true })
      .setInputFiles({ name: 'a.csv', mimeType: 'text/csv', buffer: Buffer.from(text) })
    await page.getByRole('button', { name: /^Bring in/ }).click()
    await expect.poll(() => stepCount(page, 'Bring in')).toBe(rows)
  }
  const head = 'Name,Company,Phone,E-mail,Country\n'
  await bring('Beside one', `${head}Ada Vole,Vole House,07911 266601,ada@vole.example,GB\n`, 1)
  await bring(
    'Beside two',
    `${head}Ada Vole,Vole House,,ada@vole.example,GB\nBo Vole,Vole House,01665 555777,bo@vole.example,GB\nCy Hare,Vole House,01665 555777,,GB\n`,
    3,
  )
  await page.keyboard.press('g')
  await page.keyboard.press('p')
  await page.getByRole('button', { name: 'Shared lines' }).click()
  const line = page.getByRole('table', { name: 'Shared lines' }).getByRole('row').nth(1)
  await expect(line).toContainText(/1665 555777.*switchboard.*Vole House.*2.*Bo Vole.*Cy Hare/)
  await line.getByRole('button', { name: 'Cy Hare' }).click()
  await expect(page.getByRole('region', { name: /^Story of/ })).toBeVisible()
  await page.keyboard.press('Escape')

  await page.getByRole('button', { name: 'Other lists' }).click()
  const beside = page.getByRole('table', { name: 'Other lists' }).getByRole('row', { name: /^Beside one/ })
  await expect(beside).toContainText(/^Beside one2110$/)
  await beside.getByRole('link').nth(0).click()
  const contacts = page.getByRole('table', { name: 'Contacts' }).getByRole('row')
  await expect(contacts).toHaveCount(3)
  await page.getByRole('button', { name: 'Show everyone' }).click()
  await page.getByRole('button', { name: /^Beside one/ }).click()
  await expect(contacts).toHaveCount(2)
})
