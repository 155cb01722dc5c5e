/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { describe, expect, it } from '@jest/globals'
import { screen, waitFor } from '@testing-library/react'
import type { HarvestPlan } from '@upper-field/contract'
import { Link } from 'react-router'
import { NewHarvestForm } from '../../src/harvest/NewHarvestForm'
import { HARVEST, HARVEST_ID } from './harvests'
import { type Answers, Refusal, rendered } from './rendered'

const PLAN: HarvestPlan = {
  addresses: 2,
  sites: 2,
  unread: [],
  unreadCount: 0,
  repeated: 0,
  beyond: 0,
  asked: 2,
  forbidden: [],
  unreachable: [],
  slow: [],
  mostPages: 14,
  mostSeconds: 14,
  mostBytes: 28_000_000,
}

function form(answers: Answers = {}) {
  const { ofSites: _, ...harvest } = HARVEST
  const shown = rendered(
    <>
      <NewHarvestForm listId="l1" />
      <Link to="?q=country:DE">Only Germany</Link>
    </>,
    { planHarvest: PLAN, startHarvest: harvest, ...answers },
  )
  const bodies = (of: 'planHarvest' | 'startHarvest') =>
    shown.sent.flatMap(({ name, body }) => (name === of ? [body] : []))
  return { ...shown, bodies }
}
const field = () => screen.getByLabelText('Addresses', { selector: 'textarea' })
const look = () => screen.getByRole('button', { name: 'Look what that comes to' })
const plan = () => screen.queryByRole('region', { name: 'Before it starts' })

describe('what is to be read', () => {
  it('is told before it begins, and begins as it was told', async () => {
    const { user, bodies, address } = form()
    expect(look()).toHaveProperty('disabled', true)
    await user.type(field(), 'larch.example{Enter}{Enter}heron.example{Enter}')
    await user.click(look())
    await user.click(await screen.findByRole('button', { name: 'Read 2 sites' }))
    await waitFor(() => expect(address()).toBe(`/lists/l1/bring/pages/${HARVEST_ID}`))
    // Blank lines are sent too: what cannot be read is told by its line.
    const source = { from: 'addresses', addresses: ['larch.example', '', 'heron.example'] }
    const meant = { source, follow: 'contact', pagesPerSite: 6, country: null }
    expect(bodies('planHarvest')).toEqual([meant])
    expect(bodies('startHarvest')).toEqual([{ ...meant, name: 'Public pages' }])
  })

  it('is looked at anew where anything of it is changed', async () => {
    const { user, bodies } = form()
    await user.type(field(), 'larch.example')
    await user.click(look())
    await waitFor(() => expect(plan()).toBeTruthy())
    await user.selectOptions(screen.getByLabelText('Links to follow'), 'none')
    expect(plan()).toBeNull()
    await user.click(look())
    await waitFor(() => expect(plan()).toBeTruthy())
    expect(bodies('planHarvest')).toHaveLength(2)
  })

  it('is looked at anew where the filter chooses other contacts', async () => {
    const { user, bodies } = form()
    await user.click(screen.getByRole('radio', { name: 'The sites of all contacts of this list' }))
    await user.click(look())
    await waitFor(() => expect(plan()).toBeTruthy())
    await user.click(screen.getByRole('link', { name: 'Only Germany' }))
    expect(plan()).toBeNull()
    await user.click(look())
    await waitFor(() => expect(plan()).toBeTruthy())
    expect(bodies('planHarvest')).toMatchObject([{ source: { filter: '' } }, { source: { filter: 'country:DE' } }])
    expect(bodies('startHarvest')).toEqual([])
  })

  it('that cannot be read says why, until something else is written', async () => {
    const { user } = form({
      planHarvest: () => new Refusal(422, 'no-addresses', 'No line is an address of a page.'),
    })
    await user.type(field(), '??')
    await user.click(look())
    expect(await screen.findByText('No line is an address of a page.')).toBeTruthy()
    await user.type(field(), 'x')
    expect(screen.queryByText('No line is an address of a page.')).toBeNull()
  })
})
