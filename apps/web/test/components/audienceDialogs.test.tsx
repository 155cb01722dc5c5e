/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { expect, it } from '@jest/globals'
import { screen, waitFor } from '@testing-library/react'
import type { DestinationDocument, Preflight, Trial } from '@upper-field/contract'
import { AudienceSettings } from '../../src/send/AudienceSettings'
import { FindingDialog } from '../../src/send/FindingDialog'
import { Trials } from '../../src/send/Trials'
import { audience, opened } from '../madeAudience'
import { Refusal, rendered } from './rendered'

const NETWORK = { trial: {}, similar: {} } as unknown as DestinationDocument['network']
const TRIAL: Trial = {
  id: audience().id,
  state: 'over',
  exclude: [],
  daily: 8,
  days: 1,
  reach: 160,
  spent: 8,
  inferred: { low: 165, high: 200 },
  startedAt: '2026-11-01T08:00:00.000Z',
}

it('runs a trial within an amount that is said, and leaves out only what is usable', async () => {
  const other = audience({ id: '6f1c1b8e-6f0b-4c55-9d7e-0a4c7c9a1d09', name: 'Customers' })
  const waiting = audience({ id: '6f1c1b8e-6f0b-4c55-9d7e-0a4c7c9a1d08', name: 'New', state: 'matching' })
  const { user, sent } = rendered(<Trials audience={opened()} network={NETWORK} mayChange />, {
    readAudiences: [audience(), other, waiting],
    startTrial: opened({ trials: [TRIAL] }),
  })
  await user.click(screen.getByRole('button', { name: 'Run a trial' }))
  expect(((await screen.findByLabelText(/^New/)) as HTMLInputElement).disabled).toBe(true)
  await user.click(screen.getByLabelText('Customers'))
  await user.clear(screen.getByLabelText('Euros a day'))
  await user.type(screen.getByLabelText('Euros a day'), '20')
  await user.click(screen.getByRole('button', { name: 'Run it · at most €60' }))
  expect(sent.find(({ name }) => name === 'startTrial')?.body).toEqual({ daily: 20, days: 3, exclude: [other.id] })
})

it('tells what a trial has reached, and what is inferred from that', () => {
  rendered(<Trials audience={opened({ trials: [TRIAL] })} network={NETWORK} mayChange={false} />, {})
  expect(screen.getByRole('listitem').textContent).toContain(
    'reached 160 people for €8: 165 to 200 are matched, inferred from that',
  )
  expect(screen.queryByRole('button')).toBeNull()
})

it.each([
  ['on', /^On: €/],
  ['over', /^Over: €/],
  ['failed', /^No longer known there: €/],
] as const)('tells how a trial stands that is %s', (state, text) => {
  rendered(<Trials audience={opened({ trials: [{ ...TRIAL, state }] })} network={NETWORK} mayChange={false} />, {})
  expect(screen.getByText(text)).toBeTruthy()
})

it('says when a trial can be run, where an audience is not usable yet', () => {
  rendered(<Trials audience={opened({ state: 'matching' })} network={NETWORK} mayChange />, {})
  expect(screen.getByText('A trial can be run once it is usable.')).toBeTruthy()
})

it('has similar people found in a country', async () => {
  const { user, sent } = rendered(<Trials audience={opened()} network={NETWORK} mayChange />, {
    makeSimilar: () => new Refusal(409, 'not-usable', 'Only an audience that is usable can be the seed.'),
  })
  await user.click(screen.getByRole('button', { name: 'Find similar people' }))
  await user.clear(screen.getByLabelText('Country'))
  await user.type(screen.getByLabelText('Country'), 'fr')
  await user.click(screen.getByRole('button', { name: 'Have them found' }))
  expect(sent[0]?.body).toEqual({ country: 'FR', closeness: 3, name: 'Like Autumn terraces, FR' })
  expect((await screen.findByRole('alert')).textContent).toContain('can be the seed')
})

it('keeps what was changed of an audience, and asks where everybody is meant', async () => {
  let closed = 0
  const { user, sent } = rendered(
    <AudienceSettings audience={opened({ filter: 'country:GB' })} onClose={() => closed++} onGone={() => {}} />,
    {
      changeAudience: ({ body }) =>
        (body as { isWholeList?: boolean }).isWholeList
          ? audience()
          : new Refusal(409, 'whole-list', 'This chooses everybody of the list.'),
    },
  )
  await user.clear(screen.getByLabelText('Who is in it'))
  await user.click(screen.getByRole('button', { name: 'Keep' }))
  await user.click(await screen.findByLabelText('Everybody of the list is meant'))
  await user.click(screen.getByRole('button', { name: 'Keep' }))
  await waitFor(() => expect(closed).toBe(1))
  expect(sent.map(({ body }) => (body as { filter: string; isWholeList: boolean }).isWholeList)).toEqual([false, true])
})

it('takes an audience away only after it was said what leaves', async () => {
  const gone: string[] = []
  const { user } = rendered(
    <AudienceSettings audience={opened()} onClose={() => gone.push('closed')} onGone={() => gone.push('gone')} />,
    { removeAudience: {} },
  )
  await user.click(screen.getByRole('button', { name: 'Take it away, at the network too' }))
  expect(screen.getByText(/^100 leave Wrenfold UK with it\./)).toBeTruthy()
  await user.click(screen.getByRole('button', { name: 'Take the audience away' }))
  await waitFor(() => expect(gone).toEqual(['closed', 'gone']))
})

it('shows whom a count of the preflight counts, page by page', async () => {
  const flight = { destination: 'brassbell', takes: 'people' } as Preflight
  const { user, sent } = rendered(
    <FindingDialog flight={flight} finding="nothing-to-match" name="Nothing to match by" onClose={() => {}} />,
    { readFinding: ({ search }) => ({ contacts: [], next: search.get('after') === '0' ? 50 : null }) },
    'q=city:kelso',
  )
  await user.click(await screen.findByRole('button', { name: 'More' }))
  await waitFor(() => expect(screen.queryByRole('button', { name: 'More' })).toBeNull())
  await user.click(screen.getByRole('button', { name: 'Back' }))
  expect(sent.map(({ search }) => [search.get('finding'), search.get('filter'), search.get('after')])).toEqual([
    ['nothing-to-match', 'city:kelso', '0'],
    ['nothing-to-match', 'city:kelso', '50'],
  ])
})
