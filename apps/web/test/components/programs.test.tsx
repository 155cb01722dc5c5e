/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { expect, it } from '@jest/globals'
import { screen, within } from '@testing-library/react'
import type { MachineKey, WebhookLine, WebhookMessage } from '@upper-field/contract'
import { ProgramsView } from '../../src/programs/ProgramsView'
import { budgetText, keyState, messageText } from '../../src/programs/programText'
import { type Answers, OPERATOR, Refusal, rendered, type Sent } from './rendered'

const OWNER = { ...OPERATOR, role: 'owner' as const }
const KEY: MachineKey = {
  id: '4f1c2a9e-7d1b-4f0e-9a53-0b6a5f7a2c11',
  name: 'Quotation form',
  scopes: ['check', 'add'],
  start: 'ufk_abcdef',
  perMinute: 600,
  budget: 5_000_000,
  spent: 250_000,
  expiresAt: null,
  lastUsedAt: null,
  withdrawnAt: null,
  madeBy: 'Maren Oldershaw',
  madeAt: '2026-11-28T09:00:00Z',
  callsToday: 12,
}
const WEBHOOK: WebhookLine = {
  id: '5f1c2a9e-7d1b-4f0e-9a53-0b6a5f7a2c11',
  url: 'https://forms.wrenfold.example/told',
  events: ['batch.ready'],
  listId: null,
  isOn: true,
  madeBy: 'Maren Oldershaw',
  madeAt: '2026-11-28T09:00:00Z',
  waiting: 0,
  failed: 1,
  lastSentAt: null,
}
const MESSAGE: WebhookMessage = {
  id: '6f1c2a9e-7d1b-4f0e-9a53-0b6a5f7a2c11',
  event: 'batch.ready',
  state: 'failed',
  tries: 11,
  status: 500,
  problem: 'not-taken',
  answer: 'not now',
  payload: { batchId: 'b1' },
  madeAt: '2026-11-28T09:00:00Z',
  nextAt: '2026-11-28T09:00:00Z',
  sentAt: null,
}
const shown = (me: typeof OWNER | typeof OPERATOR, more: Answers = {}) =>
  rendered(<ProgramsView />, {
    readMe: me,
    readLists: [],
    readMachineKeys: [KEY],
    readMachineCalls: [{ call: 'judge', status: 403, milliseconds: 4, at: '2026-11-28T09:10:00Z' }],
    readWebhooks: [WEBHOOK],
    readWebhookMessages: [MESSAGE],
    ...more,
  })

it('tells what each key may do and has spent, and its latest calls', async () => {
  const { user } = shown(OPERATOR)
  await screen.findByText('Quotation form')
  expect(screen.getByText('Check, Add')).toBeTruthy()
  expect(screen.getByText(/€0\.25 of €5\.00 this month/)).toBeTruthy()
  await user.click(screen.getByRole('button', { name: 'latest calls' }))
  expect((await screen.findByRole('cell', { name: '403' })).className).toContain('beet')
  // Who is no owner makes and withdraws none.
  expect(screen.queryByRole('button', { name: /^(?:Make a key|Withdraw)/ })).toBeNull()
})

it('makes a key, and shows its secret once', async () => {
  const { user, sent } = shown(OWNER, { makeMachineKey: { key: KEY, secret: 'ufk_the_secret' } })
  await user.click(await screen.findByRole('button', { name: 'Make a key' }))
  const dialog = within(screen.getByRole('dialog'))
  await user.type(dialog.getByLabelText('Name'), 'Quotation form')
  await user.click(dialog.getByRole('checkbox', { name: /^Add/ }))
  await user.clear(dialog.getByLabelText(/^May spend/))
  await user.type(dialog.getByLabelText(/^May spend/), '2.5')
  await user.click(dialog.getByRole('button', { name: 'Make the key' }))
  expect((await screen.findByLabelText('The secret')).textContent).toBe('ufk_the_secret')
  expect(sent.find(({ name }) => name === 'makeMachineKey')?.body).toEqual({
    name: 'Quotation form',
    scopes: ['check', 'add'],
    perMinute: 600,
    budget: 2_500_000,
    expiresOn: null,
  })
  await user.click(screen.getByRole('button', { name: 'I have it' }))
  expect(screen.queryByText('ufk_the_secret')).toBeNull()
})

it('tells why a key could not be made', async () => {
  const refused = () => new Refusal(422, 'ended-already', 'A key cannot end before it begins.')
  const { user } = shown(OWNER, { makeMachineKey: refused })
  await user.click(await screen.findByRole('button', { name: 'Make a key' }))
  await user.type(screen.getByLabelText('Name'), 'x')
  await user.click(screen.getByRole('button', { name: 'Make the key' }))
  expect((await screen.findByRole('alert')).textContent).toBe('A key cannot end before it begins.')
})

it('withdraws a key, and switches a webhook off', async () => {
  const { user, sent } = shown(OWNER, { withdrawMachineKey: KEY, changeWebhook: { ...WEBHOOK, isOn: false } })
  await user.click(await screen.findByRole('button', { name: 'Withdraw Quotation form' }))
  const asked = within(screen.getByRole('dialog', { name: 'Withdraw Quotation form?' }))
  expect(asked.getByText(/is refused from that moment on/)).toBeTruthy()
  await user.click(asked.getByRole('button', { name: 'Cancel' }))
  expect(sent.some(({ name }) => name === 'withdrawMachineKey')).toBe(false)
  await user.click(screen.getByRole('button', { name: 'Withdraw Quotation form' }))
  await user.click(screen.getByRole('button', { name: 'Withdraw it' }))
  await user.click(screen.getByRole('button', { name: 'switch off' }))
  const acts = sent.filter(({ name }: Sent) => name === 'withdrawMachineKey' || name === 'changeWebhook')
  expect(acts.map(({ name, body }) => [name, body])).toEqual([
    ['withdrawMachineKey', null],
    ['changeWebhook', { isOn: false }],
  ])
})

it('shows what a webhook was told, and sends it again', async () => {
  const { user, sent } = shown(OPERATOR, { sendWebhookAgain: { ...MESSAGE, state: 'waiting', tries: 0 } })
  expect(await screen.findByText('1 given up')).toBeTruthy()
  await user.click(screen.getByRole('button', { name: 'messages' }))
  expect(await screen.findByText(/given up after 11 tries · was not taken \(500\)/)).toBeTruthy()
  expect(screen.getByText('“not now”')).toBeTruthy()
  await user.click(screen.getByRole('button', { name: 'send again' }))
  expect(sent.some(({ name }) => name === 'sendWebhookAgain')).toBe(true)
})

it('says that there is none only where that is known', async () => {
  let answer: (keys: MachineKey[]) => void = () => {}
  const slow = () =>
    new Promise<MachineKey[]>((resolve) => {
      answer = resolve
    })
  shown(OWNER, {
    readMachineKeys: slow,
    readWebhooks: () => new Refusal(503, 'busy', 'The database is being started.'),
  })
  expect(await screen.findByText('Reading the keys …')).toBeTruthy()
  expect((await screen.findByRole('alert')).textContent).toMatch(/^The database is being started\./)
  expect(screen.queryByText(/^No program/)).toBeNull()
  answer([])
  expect(await screen.findByText('No program has a key.')).toBeTruthy()
  expect(screen.queryByText('No program is told anything.')).toBeNull()
})

const NO = new Refusal(409, 'changed-meanwhile', 'Somebody else has removed it.')
it.each<[string, string | null, Answers]>([
  ['New secret for Quotation form', 'Make a new secret', { rotateMachineKey: () => NO }],
  ['Withdraw Quotation form', 'Withdraw it', { withdrawMachineKey: () => NO }],
  ['switch off', null, { changeWebhook: () => NO }],
  ['remove', 'Remove it', { removeWebhook: () => NO }],
])('why “%s” was refused is told, and everything stands as it did', async (name, does, answers) => {
  const { user } = shown(OWNER, answers)
  await user.click(await screen.findByRole('button', { name }))
  if (does) await user.click(screen.getByRole('button', { name: does }))
  expect((await screen.findByRole('alert')).textContent).toBe('Somebody else has removed it.')
  expect(screen.getByText('Quotation form')).toBeTruthy()
  expect(screen.getByText(WEBHOOK.url)).toBeTruthy()
})

it('says of a message why it could not be sent again', async () => {
  const { user } = shown(OPERATOR, { sendWebhookAgain: () => NO })
  await user.click(await screen.findByRole('button', { name: 'messages' }))
  await user.click(await screen.findByRole('button', { name: 'send again' }))
  expect((await screen.findByRole('alert')).textContent).toBe('Somebody else has removed it.')
})

it.each<[Partial<WebhookMessage>, string]>([
  [{ state: 'sent', status: 204, problem: null, tries: 1 }, 'taken (204)'],
  [{ state: 'waiting', tries: 0, status: null, problem: null }, 'waiting'],
  [{ state: 'waiting', tries: 1, status: null, problem: 'too-slow' }, 'tried once · took too long, again later'],
  [{ state: 'waiting', tries: 3, status: 502 }, 'tried 3 times · was not taken (502), again later'],
])('a message of %j is told as “%s”', (more, text) => expect(messageText({ ...MESSAGE, ...more })).toBe(text))

it.each<[Partial<MachineKey>, string, boolean]>([
  [{}, 'without an end', false],
  [{ expiresAt: '2026-12-31T23:59:59Z' }, 'until 31 Dec 2026', false],
  [{ expiresAt: '2026-11-01T23:59:59Z' }, 'ended 1 Nov 2026', true],
  [{ withdrawnAt: '2026-11-02T10:00:00Z' }, 'withdrawn 2 Nov 2026', true],
])('a key of %j stands as “%s”', (more, text, isOver) => {
  expect(keyState({ ...KEY, ...more }, Date.parse('2026-11-28T00:00:00Z'))).toEqual({ text, isOver })
})

it('a key without a budget says so', () => expect(budgetText({ budget: 0, spent: 0 })).toBe('may spend nothing'))
