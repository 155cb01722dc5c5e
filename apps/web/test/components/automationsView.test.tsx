/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { expect, it } from '@jest/globals'
import { screen, within } from '@testing-library/react'
import type { Automation, AutomationRun, Me } from '@upper-field/contract'
import { AutomationsView } from '../../src/automations/AutomationsView'
import { listOf } from './lists'
import { type Answers, OPERATOR, Refusal, rendered } from './rendered'

const DAILY: Automation = {
  id: '5f1c2a9e-7d1b-4f0e-9a53-0b6a5f7a2c11',
  start: 'day',
  hour: 7,
  steps: [
    { work: 'pair', amount: 0, audienceId: null },
    { work: 'check', amount: 2_000_000, audienceId: null },
  ],
  isOn: true,
  madeBy: 'Maren Oldershaw',
  madeAt: '2026-11-28T09:00:00Z',
}
const RUN: AutomationRun = {
  id: '6f1c2a9e-7d1b-4f0e-9a53-0b6a5f7a2c11',
  automationId: DAILY.id,
  start: 'batch-ready',
  batchId: '7f1c2a9e-7d1b-4f0e-9a53-0b6a5f7a2c11',
  state: 'running',
  working: 'check',
  done: [{ work: 'pair', outcome: 'refused', reason: 'Somebody works on the list.', spent: 0 }],
  startedAt: '2026-11-28T09:10:00Z',
  finishedAt: null,
}
const shown = (more: Answers = {}, me: Me = OPERATOR) =>
  rendered(
    <AutomationsView />,
    { readMe: me, readAutomations: [DAILY], readAutomationRuns: [RUN], readAudiences: [], ...more },
    '',
    { list: listOf() },
  )

it('tells what begins when, in which order, and what became of it', async () => {
  shown()
  expect(await screen.findByText('Every day at 07:00 UTC')).toBeTruthy()
  const [first, second] = within((await screen.findAllByRole('list'))[1] as HTMLElement).getAllByRole('listitem')
  expect(first?.textContent).toBe('look for who is one person')
  expect(second?.textContent).toBe('then check numbers for at most €2.00')
  expect(await screen.findByText(/refused: Somebody works on the list\./)).toBeTruthy()
  expect(screen.getByText('· a batch')).toBeTruthy()
})

it('says that there are no automations only where that is known', async () => {
  const refused = () => new Refusal(503, 'busy', 'The database is being started.')
  shown({ readAutomations: refused, readAutomationRuns: [] })
  expect((await screen.findByRole('alert')).textContent).toMatch(/^The database is being started\./)
  expect(await screen.findByText('Nothing yet.')).toBeTruthy()
  expect(screen.queryByText('No automations yet.')).toBeNull()
})

it.each<[RegExp, string | null, Answers]>([
  [/^Switch off:/, null, { switchAutomation: () => new Refusal(404, 'gone', 'Somebody has removed it.') }],
  [/^Remove:/, 'Remove it', { removeAutomation: () => new Refusal(404, 'gone', 'Somebody has removed it.') }],
])('tells why %s was refused', async (name, does, answers) => {
  const { user } = shown(answers)
  await user.click(await screen.findByRole('button', { name }))
  if (does) await user.click(screen.getByRole('button', { name: does }))
  expect((await screen.findByRole('alert')).textContent).toBe('Somebody has removed it.')
})

it('lets a viewer read, and change nothing', async () => {
  shown({}, { ...OPERATOR, role: 'viewer' })
  await screen.findByText('Every day at 07:00 UTC')
  expect(screen.queryByRole('button', { name: /Switch|Remove|Add an automation/ })).toBeNull()
})
