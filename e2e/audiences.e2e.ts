import { expect, type Page, test } from '@playwright/test'
import { createWorld, DEMO_WORLD } from '@upper-field/standins/world'
import { appUrl, enterDemo, expectAccessible, stepCount } from './steps'

const world = createWorld(DEMO_WORLD.seed, DEMO_WORLD)
const HEADINGS = 'first name,last name,phone,mail,country,zip,company,web'
const HOMES = world.consumers.map(({ given, family, mobile, personalEmail, place, postalCode }) =>
  [given, family, mobile.e164, personalEmail, place.country, postalCode, '', ''].join(','),
)
const AT_WORK = world.people.map(({ given, family, company, workEmail }) =>
  [given, family, '', workEmail, company.place.country, company.postalCode, company.name, company.domain].join(','),
)

/** A list of its own with these rows, opened at Send. */
async function openSend(page: Page, name: string, rows: readonly string[]): Promise<void> {
  await enterDemo(page)
  await page.getByRole('button', { name: 'Make a list' }).click()
  await page.getByLabel('Name', { exact: true }).fill(name)
  await page.getByRole('button', { name: 'Make the list' }).click()
  const file = { name: 'people.csv', mimeType: 'text/csv', buffer: Buffer.from([HEADINGS, ...rows].join('\n')) }
  await page.getByLabel('Files', { exact: true }).setInputFiles(file)
  await page.getByRole('button', { name: /^Bring in/ }).click()
  await expect.poll(() => stepCount(page, 'Bring in')).toBe(rows.length)
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: /^Send/ }).click()
  await expect(page.getByRole('heading', { name: 'Dispatch' })).toBeVisible()
}

const panel = (page: Page) => page.getByRole('complementary', { name: 'The open audience' })

/** By the mouse: makes an audience of everybody, sends it, and waits until it is usable. */
async function makeByMouse(page: Page, { where, account, name }: Record<'where' | 'account' | 'name', string>) {
  await page.getByRole('button', { name: 'An audience' }).click()
  const dialog = page.getByRole('dialog', { name: 'An audience' })
  await dialog.getByLabel('Where it is kept').selectOption({ label: where })
  await dialog.getByRole('radio', { name: new RegExp(`^${account}`) }).check()
  await dialog.getByLabel('Name', { exact: true }).fill(name)
  await dialog.getByRole('button', { name: 'Make the audience' }).click()
  // Everybody is chosen: that has to be meant.
  await expect(dialog.getByText(/This chooses everybody of the list/)).toBeVisible()
  await dialog.getByLabel('Everybody of the list is meant').check()
  await dialog.getByRole('button', { name: 'Make the audience' }).click()
  await expect(dialog).toHaveCount(0)
}

async function becomesUsable(page: Page) {
  await panel(page).getByRole('button', { name: 'Prepare the next edition' }).click()
  await panel(page)
    .getByRole('button', { name: /^Send .* to Wrenfold/ })
    .click()
  await expect(panel(page).getByText(/usable, told/)).toBeVisible()
}

/** The four networks, by what is typed to choose each, and an account that is ready. */
const NETWORKS = [
  ['Brassbell', 'B', 'Wrenfold UK'],
  ['Tallow', 'T', 'Wrenfold UK'],
  ['Northpin', 'No', 'Wrenfold UK'],
  ['Marlpost, companies', 'Ma', 'Wrenfold EU'],
] as const

test('by mouse: from a list to usable audiences at four networks', async ({ page }) => {
  await openSend(page, 'By mouse', [...HOMES, ...AT_WORK.slice(0, 900)])
  const board = page.getByRole('table').first()
  for (const [where, , account] of NETWORKS) {
    const name = `At ${where}`
    await makeByMouse(page, { where, account, name })
    await expect(panel(page).getByRole('heading', { name })).toBeVisible()
    await becomesUsable(page)
    await expect(board.getByRole('row', { name })).toBeVisible()
  }
  await expect(board.getByRole('row')).toHaveCount(1 + NETWORKS.length)
  await expect(board.getByRole('row', { name: /At Tallow/ })).toContainText(/%/)
  await expectAccessible(page)
  await board.getByRole('row', { name: /At Brassbell/ }).click()
  await expect(panel(page).getByRole('heading', { name: 'At Brassbell' })).toBeVisible()
  await expect(panel(page).getByText(/ expected, .* came: /)).toHaveText(/came: [3-9]\d %/)
})

test('by keyboard: from a list to usable audiences at four networks', async ({ page }) => {
  await openSend(page, 'By keyboard', [...HOMES, ...AT_WORK.slice(0, 900)])
  const press = async (name: string | RegExp) => {
    await page.getByRole('button', { name }).press('Enter')
  }
  for (const [where, keys, account] of NETWORKS) {
    await press('An audience')
    const dialog = page.getByRole('dialog', { name: 'An audience' })
    // The first field has the focus; typing chooses, Tab goes on.
    await expect(dialog.getByLabel('Where it is kept')).toBeFocused()
    await page.keyboard.type(keys)
    await expect(dialog.getByLabel('Where it is kept').locator('option:checked')).toHaveText(where)
    await dialog.getByRole('radio', { name: new RegExp(`^${account}`) }).press('Space')
    const name = dialog.getByLabel('Name', { exact: true })
    await name.press('Control+a')
    await page.keyboard.type(`By keys at ${where}`)
    await name.press('Enter')
    await dialog.getByLabel('Everybody of the list is meant').press('Space')
    await name.press('Enter')
    await expect(dialog).toHaveCount(0)
    await expect(panel(page).getByRole('heading', { name: `By keys at ${where}` })).toBeVisible()
    await press('Prepare the next edition')
    await press(/^Send .* to Wrenfold/)
    await expect(panel(page).getByText(/usable, told/)).toBeVisible()
  }
})

test('an account that lacks something is told before anything is sent, with what to do', async ({ page }) => {
  await openSend(page, 'To an unpaid account', HOMES.slice(0, 40))
  await makeByMouse(page, { where: 'Brassbell', account: 'Wrenfold before 2024', name: 'Unpaid' })
  await expect(panel(page).getByText(/There is no way to pay in this account\. Add a card/)).toBeVisible()
  await panel(page).getByRole('button', { name: 'Prepare the next edition' }).click()
  await expect(panel(page).getByRole('region', { name: 'Next edition' })).toBeVisible()
  await expect(panel(page).getByRole('button', { name: /^Send/ })).toHaveCount(0)
  await expect(panel(page).getByRole('link', { name: 'Download the file' })).toBeVisible()
})

test('a network that no code knows is declared, given its key, and delivered to', async ({ page }) => {
  await enterDemo(page)
  await page.goto(`${appUrl()}/destinations/brassbell`)
  const text = page.getByLabel('Destination', { exact: true })
  const document = JSON.parse(await text.inputValue())
  await page.goto(`${appUrl()}/destinations/new`)
  await text.fill(JSON.stringify({ ...document, id: 'harbour', name: 'Harbour' }))
  await page.getByRole('button', { name: 'Add this destination' }).click()
  await expect(page.getByRole('heading', { name: 'Harbour' })).toBeVisible()
  await page.getByRole('link', { name: 'Destinations' }).first().click()
  const row = page.getByRole('row', { name: /Harbour/ })
  await row.getByRole('button', { name: 'Give the key' }).click()
  const dialog = page.getByRole('dialog', { name: 'Key of Harbour' })
  await dialog.getByLabel('Address').fill(process.env.STANDINS_URL ?? '')
  await dialog.getByLabel('Key').fill('key-brassbell')
  await dialog.getByRole('button', { name: 'Keep' }).click()
  await expect(row.getByText('delivered by us')).toBeVisible()
  await openSend(page, 'For the harbour', HOMES.slice(0, 60))
  await makeByMouse(page, { where: 'Harbour', account: 'Wrenfold EU', name: 'In the harbour' })
  await becomesUsable(page)
})

test('what wants doing is told at home, opens its place, and is gone when it is done', async ({ page }) => {
  await enterDemo(page)
  const today = page.getByRole('complementary', { name: 'To do today' })
  await expect(today.getByRole('listitem').first()).toBeVisible()
  await expectAccessible(page)
  const refused = today.getByRole('listitem').filter({ hasText: 'Buyers inside them at Marlpost' })
  await expect(refused).toContainText('An upload was refused')
  await refused.getByRole('link', { name: 'See what to do' }).click()
  await expect(panel(page).getByRole('heading', { name: 'Buyers inside them' })).toBeVisible()
  await panel(page).getByRole('button', { name: 'Change' }).click()
  const dialog = page.getByRole('dialog', { name: 'Change Buyers inside them' })
  await dialog.getByRole('button', { name: 'Take it away, at the network too' }).click()
  await dialog.getByRole('button', { name: 'Take the audience away' }).click()
  await expect(dialog).toHaveCount(0)
  await page.getByRole('link', { name: 'Lists' }).click()
  await expect(today.getByRole('listitem').first()).toBeVisible()
  await expect(refused).toHaveCount(0)
})

test('a person is found in all lists', async ({ page }) => {
  await enterDemo(page)
  await page.keyboard.press('/')
  await page.keyboard.type('wrenfold-nobody-is-called-so')
  await expect(page.getByText('Nobody in any list is found by “wrenfold-nobody-is-called-so”.')).toBeVisible()
  await page.getByLabel('Search all lists').fill('country:GB')
  await expect(page.getByRole('region', { name: 'Autumn terraces' }).getByRole('link', { name: /^all / })).toBeVisible()
  await page.getByRole('region', { name: 'Autumn terraces' }).getByRole('listitem').first().getByRole('link').click()
  await expect(page.getByRole('region', { name: /^Story of/ })).toBeVisible()
})
