import AxeBuilder from '@axe-core/playwright'
import { expect, type Page } from '@playwright/test'

export const appUrl = (): string => process.env.APP_URL ?? ''

export async function enterDemo(page: Page): Promise<void> {
  await page.goto(`${appUrl()}/sign-in`)
  await page.getByRole('button', { name: 'Enter as Maud Ostrander' }).click()
  await expect(page.getByRole('heading', { name: 'Lists', exact: true })).toBeVisible()
}

/**
 * Watches what the browser complains of: errors that nobody caught, and what the page's own policy forbids. Answers that
 * say no are no fault of a page.
 */
export function watchFaults(page: Page): readonly string[] {
  const faults: string[] = []
  page.on('pageerror', (error) => faults.push(error.message))
  page.on('console', (message) => {
    const text = message.text()
    if (message.type() === 'error' && !text.startsWith('Failed to load resource')) faults.push(text)
  })
  return faults
}

/**
 * No violation of WCAG 2.2 A and AA that axe can find.
 * @param only some rules alone, where the others were held against the same view before
 */
export async function expectAccessible(page: Page, only?: readonly string[]): Promise<void> {
  // What passes need not be told node by node, and no view has frames: either takes half as long again.
  const axe = new AxeBuilder({ page }).options({ resultTypes: ['violations'] }).setLegacyMode(true)
  const { violations } = await (only
    ? axe.withRules([...only])
    : axe.withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'])
  ).analyze()
  expect(
    violations.map(
      ({ id, nodes }) => `${id}: ${nodes[0]?.html.slice(0, 160)} ${nodes[0]?.failureSummary?.slice(0, 300)}`,
    ),
  ).toEqual([])
}

/** A count as it stands in the terrace. */
export async function stepCount(page: Page, stage: string): Promise<number> {
  const text = await page
    .getByRole('navigation', { name: 'Stages' })
    .getByRole('link', { name: new RegExp(`^${stage}`) })
    .innerText()
  return Number(text.split('\n').at(-1)?.replaceAll(',', ''))
}
