/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { expect, it } from '@jest/globals'
import { screen, waitFor } from '@testing-library/react'
import type { ContactLine, FillEstimate } from '@upper-field/contract'
import { SearchOne } from '../../src/fill/SearchOne'
import { contactOf } from './contacts'
import { jobOf } from './jobs'
import { type Answers, OPERATOR, Refusal, rendered } from './rendered'
import { service } from './services'

const ESTIMATE: FillEstimate = {
  wanting: 1,
  known: { 'name-and-company': 1, 'name-and-domain': 0, profile: 0, email: 0 },
  lacking: { mobile: 1 },
  leftOut: { suppressed: 0, 'no-lawful-basis': 0 },
  providers: [],
  most: 300_000,
  expected: null,
}
const WANTING: Partial<ContactLine> = { sureness: 'address-not-checked', lineType: 'unknown', number: null }
const shown = (contact: Partial<ContactLine>, more: Answers = {}) =>
  rendered(<SearchOne contact={contactOf({ ...WANTING, ...contact })} />, {
    readMe: OPERATOR,
    readConnections: [service('birch', { price: 200_000 }), service('alder', { price: 100_000 })],
    estimateFill: ESTIMATE,
    startFill: jobOf({ kind: 'fill', unit: 'contacts' }),
    ...more,
  })
const SEARCH = { name: 'Search for a mobile · at most €0.30' }

it('asks the cheapest first, within the price that was said, about this one contact', async () => {
  const { user, sent } = shown({})
  await user.click(await screen.findByRole('button', SEARCH))
  expect(sent.find(({ name }) => name === 'startFill')?.body).toMatchObject({
    order: ['alder', 'birch'],
    budget: 300_000,
    contactId: 71,
  })
  expect(await screen.findByText('Providers are being asked about this contact.')).toBeTruthy()
})

it.each<[string, Partial<ContactLine>, Answers]>([
  ['a mobile is known', { sureness: 'mobile-in-service' }, {}],
  ['it is joined to another, which is the one to be asked about', { joinedInto: 12 }, {}],
  ['nobody would be asked', {}, { estimateFill: { ...ESTIMATE, wanting: 0 } }],
  ['nobody is connected', {}, { readConnections: [] }],
  ['the person is a viewer', {}, { readMe: { ...OPERATOR, role: 'viewer' } }],
])('is not offered where %s', async (_, contact, more) => {
  const { sent, container } = shown(contact, more)
  await waitFor(() => expect(sent.length).toBeGreaterThan(1))
  expect(screen.queryByRole('button', SEARCH)).toBeNull()
  expect(container.textContent).toBe('')
  expect(sent.map(({ name }) => name)).not.toContain('startFill')
})

it('says why it was refused', async () => {
  const { user } = shown(
    {},
    { startFill: () => new Refusal(409, 'over-limit', 'The month has a limit, and this would pass it.') },
  )
  await user.click(await screen.findByRole('button', SEARCH))
  expect(await screen.findByText('The month has a limit, and this would pass it.')).toBeTruthy()
})
