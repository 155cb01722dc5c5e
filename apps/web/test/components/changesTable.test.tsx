/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { describe, expect, it, jest } from '@jest/globals'
import { screen, waitFor, within } from '@testing-library/react'
import type { ChangedValue, Job } from '@upper-field/contract'
import { ChangesTable } from '../../src/tidy/ChangesTable'
import { jobOf } from './jobs'
import { OPERATOR, rendered } from './rendered'
import { TIDY } from './tidying'

const BATCH = '6f1c2a9e-7d1b-4f0e-9a53-0b6a5f7a2c11'
const changed = (contactId: number, who: string, column: string, was: string): ChangedValue => ({
  contactId,
  batchId: BATCH,
  who,
  country: 'GB',
  column,
  was,
  is: `+44${was}`,
})
/** Of the first two numbers were mended. */
const VALUES = [
  changed(71, 'Isla Fenwright', 'number', '7911204481'),
  changed(71, 'Isla Fenwright', 'number-2', '7911204482'),
  changed(72, 'Maren Oldershaw', 'number', '7911204483'),
]

function shown(jobs: Job[] = []) {
  const sentTo = jest.fn()
  Element.prototype.scrollIntoView = function (this: Element) {
    sentTo(this.textContent)
  }
  const view = rendered(<ChangesTable code="lost-zero" state={TIDY} />, {
    readMe: OPERATOR,
    readJobs: jobs,
    readChanges: { values: VALUES, next: null },
    leaveOut: () => new Promise(() => {}),
  })
  return { ...view, sentTo }
}

describe('the values a repair has changed', () => {
  it('are walked through by keys, contact by contact, and whoever is chosen comes into sight', async () => {
    const { user, address, sentTo } = shown()
    await screen.findAllByText('Isla Fenwright')
    const walked: string[] = []
    for (const key of ['j', 'j', 'j', 'k']) {
      await user.keyboard(key)
      walked.push(/contact=(\d+)/.exec(address())?.[1] ?? 'nobody')
    }
    expect(walked).toEqual(['71', '72', '72', '71'])
    expect(sentTo.mock.calls.map(([text]) => String(text).slice(0, 5))).toEqual(['Isla ', 'Maren', 'Isla '])
    expect(screen.getAllByRole('row', { selected: true })).toHaveLength(2)
  })

  it('are left out for the chosen contact by a key', async () => {
    const { user, sent } = shown()
    await screen.findAllByText('Isla Fenwright')
    await user.keyboard('jj')
    await user.keyboard('o')
    expect(sent.at(-1)).toMatchObject({ name: 'leaveOut', body: { code: 'lost-zero', contactId: 72 } })
    const row = screen.getByRole('row', { selected: true })
    expect(within(row).getByText('Maren Oldershaw')).toBeTruthy()
  })

  it('are left out for all unless the list is being tidied', async () => {
    const leaveAll = () => screen.findByRole('button', { name: 'Leave all 2 as they were' })
    const free = shown()
    await waitFor(async () => expect(await leaveAll()).toHaveProperty('disabled', false))
    free.unmount()
    shown([jobOf({ kind: 'tidy', unit: 'contacts', state: 'queued' })])
    await waitFor(async () => expect(await leaveAll()).toHaveProperty('disabled', true))
  })
})
