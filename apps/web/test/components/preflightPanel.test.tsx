/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { expect, it } from '@jest/globals'
import { screen, waitFor } from '@testing-library/react'
import { DestinationDocument, type Preflight } from '@upper-field/contract'
import { Link } from 'react-router'
import brassbell from '../../../server/destinations/brassbell.json' with { type: 'json' }
import { PreflightPanel } from '../../src/send/PreflightPanel'
import { OPERATOR, Refusal, type Rendered, rendered } from './rendered'

const FLIGHT: Preflight = {
  destination: 'brassbell',
  name: 'Brassbell',
  takes: 'people',
  lookedAt: null,
  chosen: 1200,
  ready: 1100,
  suppressed: 20,
  missing: [{ field: 'country', n: 30 }],
  nothingToMatch: 50,
  countryFromNumber: 4,
  leftBlank: [{ fields: ['given-name', 'family-name'], n: 7 }],
  unreadable: [{ field: 'number', n: 3 }],
  codeMended: 0,
  identifiers: [{ field: 'email', n: 900 }],
  byCount: [700, 300, 100],
  workAddresses: 400,
  personalAddresses: 500,
  toldFrom: 500,
  fewest: 2000,
  fewestMatched: null,
}
const shown = (of: (exact: string | null) => Preflight, role: 'operator' | 'viewer' = 'operator'): Rendered =>
  rendered(<PreflightPanel />, {
    readMe: { ...OPERATOR, role },
    readDestinations: [DestinationDocument.parse(brassbell)],
    preflight: ({ search }) => of(search.get('exact')),
    readFileLayouts: [],
  })

it('tells of each rule how many break it, and opens only counts that there are', async () => {
  shown(() => FLIGHT)
  await screen.findByText(/1,200 contacts chosen; parked ones are never sent/)
  for (const name of ['Ready to send', 'Without a country', 'Nothing to match by', 'Suppressed for ads'])
    expect(screen.getByRole('button', { name: new RegExp(`^${name}: show `) })).toBeTruthy()
  expect(screen.queryByText('Numbers without a country code')).toBeNull()
  expect(screen.getByText('Brassbell takes no file of fewer than 2,000 rows.')).toBeTruthy()
  expect(screen.queryByRole('button', { name: 'Count everybody' })).toBeNull()
})

it('prepares nothing on a count of others: first those who are chosen now are counted', async () => {
  let answer: (flight: Preflight) => void = () => {}
  const { user, sent } = rendered(
    <>
      <Link to="?q=country:GB">Narrow</Link>
      <PreflightPanel />
    </>,
    {
      readMe: OPERATOR,
      readDestinations: [DestinationDocument.parse(brassbell)],
      preflight: ({ search }) =>
        !search.get('filter')
          ? FLIGHT
          : new Promise<Preflight>((resolve) => {
              answer = resolve
            }),
      readFileLayouts: [],
      makeEdition: () => new Refusal(409, 'list-busy', 'The list is busy.'),
    },
  )
  const prepare = (n: string) => screen.findByRole('button', { name: `Prepare ${n} for Brassbell` })
  expect(await prepare('1,100 people')).toHaveProperty('disabled', false)
  await user.click(screen.getByRole('link', { name: 'Narrow' }))
  await waitFor(async () => expect(await prepare('1,100 people')).toHaveProperty('disabled', true))
  answer({ ...FLIGHT, chosen: 40, ready: 31 })
  await user.click(await prepare('31 people'))
  expect(sent.find(({ name }) => name === 'makeEdition')?.body).toMatchObject({ filter: 'country:GB' })
  expect(await screen.findByText('The list is busy.')).toBeTruthy()
})

it('says what is estimated, and counts everybody when asked to', async () => {
  const { user } = shown((exact) =>
    exact === 'yes' ? { ...FLIGHT, ready: 1087 } : { ...FLIGHT, lookedAt: 300, ready: 1100, nothingToMatch: 0 },
  )
  await screen.findByText(/Estimated from 300 of them/)
  expect(screen.getByRole('button', { name: /^Prepare ≈\u202f1,100 people/ })).toBeTruthy()
  expect(screen.getByRole('button', { name: 'Ready to send: show 1,100' }).textContent).toBe('≈\u202f1,100')
  expect(screen.getByText('none seen')).toBeTruthy()
  await user.click(screen.getByRole('button', { name: 'Count everybody' }))
  expect(await screen.findByRole('button', { name: /^Prepare 1,087 people/ })).toBeTruthy()
  expect(screen.queryByText(/Estimated from/)).toBeNull()
})

it('leaves preparing to operators', async () => {
  shown(() => FLIGHT, 'viewer')
  await screen.findByText('Viewers see what would be sent; operators prepare and download it.')
  expect(screen.queryByRole('button', { name: /^Prepare/ })).toBeNull()
})
