import { expect, test } from '@playwright/test'
import { appUrl, enterDemo, expectAccessible, stepCount } from './steps'

test('a program gets a key, adds somebody, and what the list does by itself follows', async ({ page, request }) => {
  await enterDemo(page)
  await page.getByRole('button', { name: 'Make a list' }).click()
  await page.getByLabel('Name', { exact: true }).fill('From a form')
  await page.getByRole('button', { name: 'Make the list' }).click()
  await page.getByRole('navigation', { name: 'Parts of Bring in' }).getByRole('button', { name: 'Automations' }).click()
  await page.getByRole('button', { name: 'Add an automation' }).click()
  const dialog = page.getByRole('dialog', { name: 'A new automation' })
  await dialog.getByLabel('It begins').selectOption('contact-added')
  await dialog.getByRole('checkbox', { name: /check numbers/i }).check()
  await dialog.getByRole('button', { name: 'Switch it on' }).click()
  // What costs money is not begun without an amount.
  await expect(dialog.getByRole('alert')).toContainText('say how much they may spend')
  await dialog.getByLabel(/“check numbers” may spend/).fill('1')
  await expectAccessible(page)
  await dialog.getByRole('button', { name: 'Switch it on' }).click()
  await expect(page.getByText('check numbers for at most €1.00')).toBeVisible()
  const listId = /lists\/([\w-]+)/.exec(page.url())?.[1] ?? ''

  await page.goto(`${appUrl()}/programs`)
  await page.getByRole('button', { name: 'Make a key' }).press('Enter')
  const key = page.getByRole('dialog', { name: 'A key for a program' })
  await key.getByLabel('Name').fill('Quotation form')
  await key.getByRole('checkbox', { name: /^Add/ }).press('Space')
  await key.getByLabel('Name').press('Enter')
  const secret = (await page.getByLabel('The secret').textContent()) ?? ''
  await page.getByRole('button', { name: 'I have it' }).press('Enter')
  const added = await request.post(`${appUrl()}/api/v1/lists/${listId}/contacts`, {
    headers: { authorization: `Bearer ${secret}` },
    data: { contacts: [{ id: 'f1', fields: { 'full-name': 'Maren Oldershaw', number: '+44 7911 204481' } }] },
  })
  expect(added.status()).toBe(200)

  await page.goto(`${appUrl()}/lists/${listId}/bring/automations`)
  await expect(page.getByText(/^check numbers: done/)).toBeVisible()
  expect(await stepCount(page, 'Bring in')).toBe(1)
  await page.getByRole('button', { name: /^Switch off: When a program/ }).click()
  await expect(page.getByRole('button', { name: /^Switch on: When a program/ })).toBeVisible()

  await page.goto(`${appUrl()}/programs`)
  await page.getByRole('button', { name: 'Withdraw Quotation form' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Withdraw it' }).click()
  await expect(page.getByText(/^withdrawn/)).toBeVisible()
  const refused = await request.post(`${appUrl()}/api/v1/judge`, {
    headers: { authorization: `Bearer ${secret}` },
    data: { value: '+44 7911 204481' },
  })
  expect(refused.status()).toBe(401)
})

test('every call is shown readably, from files of our own', async ({ page }) => {
  const outside: string[] = []
  page.on('request', (one) => {
    if (!one.url().startsWith(appUrl()) && !one.url().startsWith('data:')) outside.push(one.url())
  })
  await page.goto(`${appUrl()}/api/docs`)
  await page.getByText('/api/v1/judge').first().click()
  await expect(page.getByText(/07911 204481/).first()).toBeVisible()
  expect(outside).toEqual([])
})
