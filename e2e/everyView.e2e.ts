import { expect, type Page, test } from '@playwright/test'
import { appUrl, enterDemo, expectAccessible, watchFaults } from './steps'

const STAGES = ['bring', 'tidy', 'pair', 'check', 'fill', 'split', 'send'] as const

/** In either theme: they differ in their colours alone. */
async function isAccessible(page: Page): Promise<void> {
  await expectAccessible(page)
  await showIn(page, 'dark')
  await expectAccessible(page, ['color-contrast'])
  await showIn(page, 'light')
}

async function showIn(page: Page, theme: 'light' | 'dark'): Promise<void> {
  await page.emulateMedia({ colorScheme: theme })
  await expect(page.locator('html')).toHaveAttribute('data-theme', theme)
}

test('every view passes axe, in light and in dark, and the browser complains of none', async ({ page }) => {
  // Axe looks at every view twice: slow on a busy machine.
  const faults = watchFaults(page)
  await page.goto(`${appUrl()}/sign-in`)
  await expect(page.getByRole('button', { name: /Enter as/ })).toBeVisible()
  await showIn(page, 'light')
  await isAccessible(page)
  await enterDemo(page)
  await isAccessible(page)
  await page.getByRole('link', { name: 'Autumn terraces' }).click()
  await expect(page.getByRole('heading', { name: /need a hand/ })).toBeVisible()
  const list = page.url().replace(/\/tidy.*/, '')
  for (const view of [
    ...STAGES,
    'check?show=countries',
    'check?show=addresses',
    'fill?show=trail',
    'fill?show=sample',
    'send?show=files',
    'bring/pages',
    'bring/automations',
  ]) {
    await page.goto(`${list}/${view}`)
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
    await expect(page.getByText(/^Reading /)).toHaveCount(0)
    await isAccessible(page)
  }
  await page.goto(`${list}/tidy?step=names`)
  await page.getByRole('checkbox', { name: 'Mend capitals' }).uncheck()
  await expect(page.getByText(/of the sample would come out otherwise/)).toBeVisible()
  await isAccessible(page)
  await page.goto(`${list}/tidy?show=contacts`)
  await page.getByRole('table', { name: 'Contacts' }).getByRole('row').nth(2).click()
  await expect(page.getByRole('region', { name: /^Story of/ })).toBeVisible()
  await isAccessible(page)
  await page.goto(`${list}/pair?show=contacts`)
  await expect(page.getByRole('table', { name: 'Contacts' }).getByRole('row').nth(2)).toBeVisible()
  await isAccessible(page)
  await page.goto(`${list}/bring`)
  await page
    .getByLabel('Files', { exact: true })
    .setInputFiles({ name: 'a.csv', mimeType: 'text/csv', buffer: Buffer.from('name,phone\nMaren,07911 204481\n') })
  await expect(page.getByRole('heading', { name: 'a.csv' })).toBeVisible()
  await isAccessible(page)
  for (const room of [
    'providers',
    'providers/new',
    'providers/pellow',
    'destinations',
    'destinations/new',
    'suppression',
    'spend',
    'people',
    'programs',
  ]) {
    await page.goto(`${appUrl()}/${room}`)
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
    await isAccessible(page)
  }
  expect(faults).toEqual([])
})

test('a page that was opened before the application was renewed says so, and helps itself', async ({ page }) => {
  await enterDemo(page)
  // Parts have other names after a renewal, and those of before are gone.
  await page.route('**/assets/SpendView-*', (route) => route.fulfill({ status: 404, body: 'There is no such part.' }))
  await page.getByRole('link', { name: 'Spend' }).click()
  await expect(page.getByRole('heading', { name: 'This view could not be loaded' })).toBeVisible()
  await expect(page.getByRole('link', { name: 'Lists', exact: true })).toBeVisible()
  await page.unroute('**/assets/SpendView-*')
  await page.getByRole('button', { name: 'Load the page anew' }).click()
  await expect(page.getByRole('heading', { name: 'Spend' })).toBeVisible()
})

test('nothing is cut off at 1024 and at 2560', async ({ page }) => {
  await enterDemo(page)
  await page.getByRole('link', { name: 'Autumn terraces' }).click()
  await page.waitForURL(/\/tidy/)
  const list = page.url().replace(/\/tidy.*/, '')
  for (const width of [1024, 2560]) {
    await page.setViewportSize({ width, height: 800 })
    for (const stage of STAGES) {
      await page.goto(`${list}/${stage}`)
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
      const overflow = await page.evaluate<number>('document.documentElement.scrollWidth - window.innerWidth')
      expect([stage, width, overflow <= 0]).toEqual([stage, width, true])
    }
  }
})

test('an address that leads nowhere says so', async ({ page }) => {
  await enterDemo(page)
  for (const address of ['/nowhere', `/lists/${crypto.randomUUID()}/tidy`]) {
    await page.goto(appUrl() + address)
    await expect(page.getByRole('heading', { name: 'There is nothing at this address' })).toBeVisible()
  }
})

test('the bare address leads to the door, and what it asked for is opened behind it', async ({ page }) => {
  await page.goto(`${appUrl()}/`)
  await expect(page).toHaveURL(/sign-in/)
  await page.goto(`${appUrl()}/spend`)
  await page.getByRole('button', { name: /^Enter as/ }).click()
  await expect(page.getByRole('heading', { name: 'Spend' })).toBeVisible()
})

test('signing out closes the door', async ({ page }) => {
  await enterDemo(page)
  await page.getByRole('button', { name: /^Account of/ }).click()
  await page.getByRole('menuitem', { name: 'Sign out' }).click()
  await expect(page).toHaveURL(/sign-in/)
  await page.goto(`${appUrl()}/lists`)
  await expect(page).toHaveURL(/sign-in\?then=/)
})
