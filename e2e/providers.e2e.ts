import { createServer } from 'node:http'
import { expect, test } from '@playwright/test'
import { appUrl, enterDemo, expectAccessible } from './steps'

/** A service that nothing of ours knows: it tells of everybody it is asked about. */
async function startService() {
  const asked: string[] = []
  const server = createServer((request, response) => {
    asked.push(`${request.headers['x-lantern-key']} ${request.url}`)
    response.setHeader('content-type', 'application/json')
    response.end(JSON.stringify({ people: [{ tel: '+447911204499', sure: 90 }] }))
  }).listen(0, '127.0.0.1')
  await new Promise((resolve) => server.once('listening', resolve))
  const address = server.address()
  return { url: `http://127.0.0.1:${typeof address === 'object' ? address?.port : 0}`, asked, server }
}

const connectorAt = (address: string) => ({
  format: 1,
  id: 'lantern',
  name: 'Lantern',
  gives: ['mobile'],
  accepts: ['email', 'name-and-company'],
  address,
  key: { in: 'header', name: 'x-lantern-key', value: '{{ key }}' },
  one: {
    call: { method: 'GET', path: '/who?name={{ name }}' },
    answers: { how: 'at-once' },
    items: '$.people[*]',
  },
  fields: { number: '$.tel', score: '$.sure' },
  charge: { per: 'call', euros: 0.01 },
})

test('a service that no code knows is written, tried and filled from', async ({ page }) => {
  const service = await startService()
  await enterDemo(page)
  await page.getByRole('link', { name: 'Providers', exact: true }).click()
  await page.getByRole('link', { name: 'Add a service' }).click()

  // Checked as it is typed.
  const editor = page.getByLabel('Connector')
  await editor.fill(JSON.stringify({ ...connectorAt(service.url), fields: { number: 'tel' } }, null, 2))
  await expect(page.getByText('fields.number')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Add this service' })).toBeDisabled()
  await editor.fill(JSON.stringify(connectorAt(service.url), null, 2))
  await expect(page.getByText('Whole: nothing is missing')).toBeVisible()

  // Tried before it is kept, by the keyboard.
  await page.getByLabel('Full name').fill('Maren Oldershaw')
  await page.getByRole('textbox', { name: 'Key' }).fill('a key to try with')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('definition').filter({ hasText: '+447911204499' })).toBeVisible()
  await expect(page.getByText(`GET ${service.url}/who?name=Maren%20Oldershaw`)).toBeVisible()
  expect(service.asked).toEqual(['a key to try with /who?name=Maren%20Oldershaw'])

  // Kept, with its key.
  await page.getByRole('button', { name: 'Add this service' }).click()
  const dialog = page.getByRole('dialog', { name: 'Connection to Lantern' })
  await dialog.getByLabel('Key').fill('the real key')
  await dialog.getByRole('button', { name: 'Keep' }).click()
  await expect(page).toHaveURL(/\/providers\/lantern$/)

  // Filled from: the cheapest is asked first.
  await page.goto(`${appUrl()}/lists`)
  await page.getByRole('button', { name: 'Make a list' }).first().click()
  await page.getByLabel('Name', { exact: true }).fill('By lantern')
  await page.getByRole('button', { name: 'Make the list' }).click()
  await page.getByLabel('Files', { exact: true }).setInputFiles({
    name: 'two.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('Name,Company,Country\nMaren Oldershaw,Causeway,GB\n'),
  })
  await page.getByRole('button', { name: /^Bring in 1 row/ }).click()
  const stages = page.getByRole('navigation', { name: 'Stages' })
  await expect(stages.getByRole('link', { name: /^Bring in 1/ })).toBeVisible()
  await stages.getByRole('link', { name: /^Fill/ }).click()
  await expect(page.getByRole('listitem').filter({ hasText: '€0.01 per call' })).toContainText('Lantern')
  await page.getByLabel(/Check each line found/).uncheck()
  await page.getByRole('button', { name: /^Fill 1 contact/ }).click()
  const before = page.getByRole('dialog', { name: 'Before the fill' })
  await expect(before.getByRole('row').filter({ hasText: 'Lantern' })).toContainText('€0.01 per call')
  await before.getByRole('button', { name: /^Start/ }).click()
  const gave = page
    .getByRole('table', { name: 'Providers in the latest run' })
    .getByRole('row')
    .filter({ hasText: 'Lantern' })
  await expect(gave).toContainText('€0.01')
  expect(service.asked.at(-1)).toBe('the real key /who?name=Maren%20Oldershaw')

  // Forgotten again: the other tests know nothing of it.
  await page.goto(`${appUrl()}/providers/lantern`)
  await page.getByRole('button', { name: 'Forget it and its key …' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Forget it and its key' }).click()
  await expect(page.getByRole('link', { name: 'Add a service' })).toBeVisible()
  await expect(page.getByRole('link', { name: 'Lantern' })).toHaveCount(0)
  service.server.closeAllConnections()
  service.server.close()
})

test('a sample asks everybody, and teaches the plan that is taken', async ({ page }) => {
  await enterDemo(page)
  await page.getByRole('link', { name: 'Autumn terraces' }).click()
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: /^Fill/ }).click()
  await page.getByRole('button', { name: 'Sample', exact: true }).click()
  await page.getByRole('button', { name: 'Ask everybody about some anew' }).press('Enter')
  await page.getByLabel('How many contacts').fill('0')
  await expect(page.getByText('A whole number from 1 to 2,000.')).toBeVisible()
  await page.getByLabel('How many contacts').fill('25')
  await page.getByRole('button', { name: /^Ask about 25 contacts · at most €/ }).click()
  const plans = page.getByRole('group', { name: 'Plans on the curve' }).getByRole('radio')
  await expect(plans.first()).toBeVisible()
  // At random: who turns out to be suppressed by what was found is asked about no further, and not counted.
  await expect(page.getByText(/replayed on (\d|1\d|2[0-5]) who were asked of everyone$/)).toBeVisible()
  await expectAccessible(page)

  // By keyboard: a plan on the curve, with what it would cost, becomes the plan of the waterfall.
  const plan = plans.first()
  await plan.focus()
  await page.keyboard.press('Space')
  await expect(plan).toBeChecked()
  const services = (
    await page.getByRole('group', { name: 'Plans on the curve' }).locator('label').first().innerText()
  ).split('\n')[0] as string
  await expect(page.getByRole('paragraph').filter({ hasText: services }).first()).toBeVisible()
  await page.getByRole('button', { name: 'Take this as the plan' }).press('Enter')
  await expect(page.getByText(/^Not asked:/)).toBeVisible()
  const before = await page.getByRole('button', { name: /^Leave .* out$/ }).count()
  await page
    .getByRole('button', { name: /^Ask .* too$/ })
    .first()
    .click()
  await expect(page.getByRole('button', { name: /^Leave .* out$/ })).toHaveCount(before + 1)
})
