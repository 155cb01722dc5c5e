/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { expect, it } from '@jest/globals'
import { screen, within } from '@testing-library/react'
import { outcomeText, startText, stepText } from '../../src/automations/automationText'
import { NewAutomationDialog } from '../../src/automations/NewAutomationDialog'
import { Refusal, rendered } from './rendered'

const AUDIENCE = { id: '4f1c2a9e-7d1b-4f0e-9a53-0b6a5f7a2c11', name: 'Home owners' }
const MADE = {
  id: '5f1c2a9e-7d1b-4f0e-9a53-0b6a5f7a2c11',
  start: 'day' as const,
  hour: 7,
  steps: [{ work: 'pair' as const, amount: 0, audienceId: null }],
  isOn: true,
  madeBy: 'Maren',
  madeAt: '2026-11-28T09:00:00Z',
}

it('is made of its start, and of work in the order of the stages, each with its amount', async () => {
  let isClosed = false
  const { user, sent } = rendered(
    <NewAutomationDialog
      listId={MADE.id}
      audiences={[AUDIENCE]}
      onClose={() => {
        isClosed = true
      }}
    />,
    { makeAutomation: MADE },
  )
  const dialog = within(screen.getByRole('dialog'))
  await user.selectOptions(dialog.getByLabelText('It begins'), 'day')
  await user.clear(dialog.getByLabelText('Hour, UTC'))
  await user.type(dialog.getByLabelText('Hour, UTC'), '7')
  await user.click(dialog.getByRole('checkbox', { name: /send an audience/ }))
  await user.click(dialog.getByRole('checkbox', { name: /check numbers/ }))
  await user.type(dialog.getByLabelText(/“check numbers” may spend/), '2.5')
  await user.click(dialog.getByRole('button', { name: 'Switch it on' }))
  expect(sent.find(({ name }) => name === 'makeAutomation')?.body).toEqual({
    start: 'day',
    hour: 7,
    steps: [
      { work: 'pair', amount: 0, audienceId: null },
      { work: 'check', amount: 2_500_000, audienceId: null },
      { work: 'send', amount: 0, audienceId: AUDIENCE.id },
    ],
  })
  expect(isClosed).toBe(true)
})

it('tells why it could not be made, and cannot send where there is no audience', async () => {
  const refused = () => new Refusal(422, 'not-valid', 'Say how much they may spend at a time.')
  const { user } = rendered(<NewAutomationDialog listId={MADE.id} audiences={[]} onClose={() => {}} />, {
    makeAutomation: refused,
  })
  expect((screen.getByRole('checkbox', { name: /send an audience/ }) as HTMLInputElement).disabled).toBe(true)
  await user.click(screen.getByRole('button', { name: 'Switch it on' }))
  expect((await screen.findByRole('alert')).textContent).toMatch(/how much/)
})

it('is told in words', () => {
  expect(startText({ start: 'day', hour: 6 })).toBe('Every day at 06:00 UTC')
  expect(startText({ start: 'batch-ready', hour: 6 })).toBe('When a batch is ready')
  const names = new Map([[AUDIENCE.id, AUDIENCE.name]])
  expect(stepText({ work: 'send', amount: 0, audienceId: AUDIENCE.id }, names)).toBe('send “Home owners”')
  expect(stepText({ work: 'check', amount: 2_000_000, audienceId: null }, names)).toBe(
    'check numbers for at most €2.00',
  )
  expect(outcomeText({ work: 'check', outcome: 'done', reason: null, spent: 120_000 })).toBe('done, €0.12')
  expect(outcomeText({ work: 'fill', outcome: 'refused', reason: 'No plan.', spent: 0 })).toBe('refused: No plan.')
})
