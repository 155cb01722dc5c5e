/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { expect, it } from '@jest/globals'
import { screen, waitFor, within } from '@testing-library/react'
import type { Account, AudienceDetail, DestinationDocument, SuppressionList } from '@upper-field/contract'
import { AudiencePanel } from '../../src/send/AudiencePanel'
import { Board } from '../../src/send/Board'
import { NewAudienceDialog } from '../../src/send/NewAudienceDialog'
import { audience, difference, opened } from '../madeAudience'
import { type Answers, OPERATOR, Refusal, rendered } from './rendered'

const call = { method: 'POST', path: '/x' } as const
const network = {
  address: 'https://api.brassbell.example',
  key: { in: 'header', name: 'authorization', value: '{{ key }}' },
  limit: { perSecond: null, atOnce: 1 },
  tryLater: [],
  accounts: { call, items: '$', id: '$', name: '$', lacks: '$' },
  make: { call, id: '$' },
  begin: null,
  part: { most: 10, calls: { add: call, remove: call } },
  finish: null,
  state: { call, state: '$', words: { ok: 'usable' }, size: '$', reason: null, lapsesAt: null },
  remove: null,
  refusals: {
    code: '$',
    words: { unpaid: { says: 'There is no way to pay.', remedy: 'Add a card.', takes: 'a day', stops: 'everything' } },
  },
  purposes: { aim: 'aim', exclude: 'exclude' },
  trial: null,
  similar: null,
} as const
const OPT_OUTS: SuppressionList = {
  id: '8b1f0f0e-3c1e-4d55-9f0e-5b0a3f1f2a10',
  name: 'Opt-outs',
  kind: 'opt-outs',
  scope: 'all',
  entries: 3,
  createdAt: '2026-11-01T08:00:00.000Z',
}
const BRASSBELL = {
  format: 1,
  id: 'brassbell',
  name: 'Brassbell',
  about: '',
  audiences: [
    {
      takes: 'people',
      columns: [{ heading: 'mail', field: 'email', repeats: 1, form: ['trim'], isHashed: true }],
      rules: { everyRow: [], someOf: ['email'], together: [] },
    },
  ],
  hashing: 'either',
  file: { kinds: ['csv'], mostRows: null },
  size: { fewest: null, fewestMatched: 60, toldFrom: 500 },
  lapsesAfterDays: null,
  changes: 'added-and-removed',
  network,
} as unknown as DestinationDocument
const UNPAID: Account = {
  id: 'bb-1002',
  name: 'Wrenfold old',
  lacks: [
    { code: 'unpaid', says: 'There is no way to pay.', remedy: 'Add a card.', takes: 'a day', stops: 'everything' },
  ],
}
const FIT: Account = { id: 'bb-4410', name: 'Wrenfold UK', lacks: [] }

const panel = (detail: Partial<AudienceDetail>, more: Answers = {}) =>
  rendered(<AudiencePanel audienceId={audience().id} onGone={() => {}} />, {
    readAudience: opened(detail),
    readDestinations: [BRASSBELL],
    readAccounts: [FIT, UNPAID],
    readMe: OPERATOR,
    ...more,
  })
const send = () => screen.queryByRole('button', { name: /^Send/ })

it('shows what the next edition changes, and sends it to the account it names', async () => {
  const { user, sent } = panel(
    { difference: difference({ comes: 12, leaves: 2, leavesSuppressed: 1 }) },
    { deliverEdition: () => new Refusal(409, 'account-lacks', 'Wrenfold UK: There is no way to pay.') },
  )
  const next = await screen.findByRole('region', { name: 'Next edition' })
  expect(within(next).getByText('1 of them said no')).toBeTruthy()
  expect(within(next).getByText(/60 must match/).textContent).toContain('that is not to be expected')
  await user.click(await screen.findByRole('button', { name: 'Send 12 in, 2 out to Wrenfold UK' }))
  expect(sent.find(({ name }) => name === 'deliverEdition')?.body).toEqual({
    editionId: difference().editionId,
    account: 'bb-4410',
  })
  expect((await screen.findByRole('alert')).textContent).toContain('There is no way to pay.')
})

it('offers nothing to send where the account lacks something, and says what to do', async () => {
  panel({ account: { id: 'bb-1002', name: 'Wrenfold old' }, difference: difference() })
  expect((await screen.findByRole('alert')).textContent).toMatch(
    /There is no way to pay\. Add a card\. That takes a day\./,
  )
  expect(send()).toBeNull()
  expect(screen.getByRole('link', { name: 'Download the file' })).toBeTruthy()
})

it('offers nothing to send where nothing has changed, and to a viewer nothing at all', async () => {
  panel({ difference: difference({ comes: 0 }) })
  expect(await screen.findByText('Nothing has changed since the last edition.')).toBeTruthy()
  expect(send()).toBeNull()
})

it('lets a viewer look alone', async () => {
  panel({ difference: difference() }, { readMe: { ...OPERATOR, role: 'viewer' } })
  expect(await screen.findByRole('region', { name: 'Next edition' })).toBeTruthy()
  expect(screen.queryByRole('button', { name: /^(Send|Prepare|Change|Ask)/ })).toBeNull()
})

it('says in red words who should have left, and takes them out', async () => {
  const { user, sent } = panel(
    { owedRemovals: 2, owedSince: '2026-01-01T00:00:00.000Z' },
    { deliverRemovals: () => new Refusal(409, 'x', 'y') },
  )
  expect((await screen.findByRole('alert')).textContent).toContain('This is overdue.')
  await user.click(await screen.findByRole('button', { name: 'Take 2 out now' }))
  expect(sent.some(({ name }) => name === 'deliverRemovals')).toBe(true)
})

it('holds what came back against what was foretold, by source', async () => {
  const forecast = difference().forecast
  const delivery = {
    id: audience().id,
    jobId: null,
    editionId: null,
    way: 'changes',
    state: 'done',
    added: 100,
    removed: 0,
    renewed: 0,
    refusedLines: 0,
    refusedParts: 0,
    refusal: null,
    forecast,
    matched: 20,
    startedBy: null,
    startedAt: '2026-11-01T08:00:00.000Z',
    endedAt: null,
  } as const
  panel({
    deliveries: [delivery],
    sources: [{ kind: 'batch', name: 'Fair badges', people: 60, matched: 12, cost: 6_000_000 }],
  })
  const evidence = await screen.findByRole('region', { name: 'Match evidence' })
  expect(evidence.textContent).toContain('30 to 50 were expected, 20 came: 20 % of 100, fewer than expected.')
  expect(within(evidence).getByRole('row', { name: /Fair badges/ }).textContent).toContain('€0.50')
})

it('stands on the board with its account, and opens with a press', async () => {
  const chosen: string[] = []
  const { user } = rendered(
    <Board
      audiences={[audience({ owedRemovals: 3 })]}
      destinations={[BRASSBELL]}
      chosen={null}
      onChoose={(id) => chosen.push(id)}
      now={0}
    />,
    {},
  )
  const row = screen.getByRole('row', { name: /Autumn terraces/ })
  expect(row.textContent).toContain('Wrenfold UK')
  expect(row.textContent).toContain('not told under 500')
  expect(row.textContent).toContain('3 must leave')
  await user.click(within(row).getByRole('button'))
  expect(chosen).toEqual([audience().id])
})

it('is made for an account that somebody chose, after it was said that everybody is meant', async () => {
  const made: string[] = []
  const { user, sent } = rendered(<NewAudienceDialog onClose={() => {}} onMade={(id) => made.push(id)} />, {
    readDestinations: [BRASSBELL],
    readDestinationKeys: [{ destination: 'brassbell', address: 'https://x.example', hasKey: true }],
    readAudiences: [audience()],
    readSegments: [],
    readSuppressionLists: [],
    readAccounts: [FIT, UNPAID],
    makeAudience: ({ body }) =>
      (body as { isWholeList: boolean }).isWholeList
        ? audience()
        : new Refusal(409, 'whole-list', 'This chooses everybody of the list.'),
  })
  const make = await screen.findByRole('button', { name: 'Make the audience' })
  await user.type(screen.getByLabelText('Name'), 'Terraces')
  expect((make as HTMLButtonElement).disabled).toBe(true)
  expect(screen.getByText(/used last by this list/)).toBeTruthy()
  await user.click(await screen.findByRole('radio', { name: /Wrenfold UK/ }))
  await user.click(make)
  await user.click(await screen.findByLabelText('Everybody of the list is meant'))
  await user.click(make)
  expect(made).toEqual([audience().id])
  const bodies = sent.flatMap(({ name, body }) => (name === 'makeAudience' ? [body] : []))
  expect(bodies).toMatchObject([
    { account: { id: 'bb-4410', name: 'Wrenfold UK' }, isWholeList: false },
    { isWholeList: true, name: 'Terraces', purpose: 'aim' },
  ])
})

it('is not made of what was chosen for another purpose or another network', async () => {
  const lapsing = { ...BRASSBELL, lapsesAfterDays: 30 }
  const other = { ...BRASSBELL, id: 'marlpost', name: 'Marlpost', network: { ...network, purposes: { aim: 'aim' } } }
  const { user, sent } = rendered(<NewAudienceDialog onClose={() => {}} onMade={() => {}} />, {
    readDestinations: [lapsing, other] as never,
    readDestinationKeys: ['brassbell', 'marlpost'].map((destination) => ({
      destination,
      address: 'https://x.example',
      hasKey: true,
    })),
    readAudiences: [],
    readSegments: [],
    readSuppressionLists: [OPT_OUTS],
    readAccounts: [FIT],
    makeAudience: audience(),
  })
  await user.type(await screen.findByLabelText('Name'), 'Buyers')
  await user.selectOptions(screen.getByLabelText('What it is for'), 'to exclude')
  await user.selectOptions(await screen.findByLabelText('Whom to exclude'), 'everybody on Opt-outs')
  await user.type(screen.getByLabelText('Days that somebody stays'), '14')
  expect(screen.queryByLabelText('Who is in it')).toBeNull()
  await user.selectOptions(screen.getByLabelText('Where it is kept'), 'Marlpost')
  expect(screen.getByRole<HTMLOptionElement>('option', { name: 'to aim at' }).selected).toBe(true)
  await user.type(screen.getByLabelText('Who is in it'), 'country:GB')
  await user.click(await screen.findByRole('radio', { name: /Wrenfold UK/ }))
  await user.click(screen.getByRole('button', { name: 'Make the audience' }))
  await waitFor(() => expect(sent.some(({ name }) => name === 'makeAudience')).toBe(true))
  expect(sent.find(({ name }) => name === 'makeAudience')?.body).toMatchObject({
    destination: 'marlpost',
    purpose: 'aim',
    filter: 'country:GB',
    suppressionListId: null,
    within: null,
    keepsDays: null,
  })
})

it('cannot be made before any network has a key', async () => {
  rendered(<NewAudienceDialog onClose={() => {}} onMade={() => {}} />, {
    readDestinations: [BRASSBELL],
    readDestinationKeys: [],
    readAudiences: [],
  })
  expect(await screen.findByText(/No network has a key yet/)).toBeTruthy()
})
