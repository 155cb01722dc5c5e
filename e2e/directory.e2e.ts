import { expect, test } from '@playwright/test'
import { enterDemo, expectAccessible, stepCount } from './steps'

test('businesses of a trade at a place are counted, agreed to and fetched', async ({ page }) => {
  await enterDemo(page)
  await page.getByRole('button', { name: 'Make a list' }).click()
  await page.getByLabel('Name', { exact: true }).fill('From a directory')
  await page.getByRole('button', { name: 'Make the list' }).click()
  await page.getByRole('navigation', { name: 'Parts of Bring in' }).getByRole('button', { name: 'Directory' }).click()
  await page.getByLabel('Trade', { exact: true }).fill('zz')
  await expect(page.getByText('The directory knows no “zz”.')).toBeVisible()
  await page.getByLabel('Trade', { exact: true }).fill('lido')
  await page.getByRole('option', { name: 'Lidos and bathing places' }).click()
  await page.getByLabel('Place', { exact: true }).fill('irel')
  await expect(page.getByRole('option', { name: 'Ireland', exact: true })).toHaveAttribute('aria-selected', 'true')
  await page.keyboard.press('Enter')
  const before = page.getByRole('region', { name: 'Before it starts' })
  await expect(before).toContainText('€0.06 for each business it tells of.')
  await expectAccessible(page)
  await before.getByRole('button', { name: /^Fetch \d+ businesses$/ }).click()
  const became = page.getByRole('complementary', { name: 'What became of them' })
  await expect(became).toContainText(/\d+ business(?:es)? told of/)
  await expectAccessible(page)
  const taken = Number(
    await became
      .getByRole('button', { name: /^in the batch/ })
      .locator('.num')
      .textContent(),
  )
  expect(taken).toBeGreaterThan(0)
  await expect(page.getByRole('main').getByRole('row')).toHaveCount(taken + 1)
  await became.getByRole('link', { name: 'Tidy' }).click()
  await expect.poll(() => stepCount(page, 'Bring in')).toBe(taken)
})
