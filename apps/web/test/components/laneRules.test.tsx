/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { expect, it } from '@jest/globals'
import { screen } from '@testing-library/react'
import type { LaneRules } from '@upper-field/contract'
import { LaneRulesDialog } from '../../src/split/LaneRulesDialog'
import { type Answers, Refusal, rendered } from './rendered'

const KEPT: LaneRules = {
  isOwn: true,
  rules: [
    { lane: 'text', name: 'Text', use: 'texts', filter: '' },
    { lane: 'call', name: 'Call', use: 'calls', filter: '' },
  ],
}
function opened(answers: Answers = { keepLaneRules: KEPT }) {
  let isClosed = false
  const dialog = (
    <LaneRulesDialog
      kept={KEPT}
      onClose={() => {
        isClosed = true
      }}
    />
  )
  return { ...rendered(dialog, answers), isClosed: () => isClosed }
}
const press = (name: string) => screen.getByRole('button', { name }) as HTMLButtonElement
const lanes = () => screen.getAllByLabelText(/^Name of /).map((field) => (field as HTMLInputElement).value)

it('puts a new lane first, and gives it an id after the name it ends with', async () => {
  const { user, sent, isClosed } = opened()
  await user.click(press('Add a lane'))
  const name = screen.getByLabelText('Name of New lane')
  await user.clear(name)
  await user.type(screen.getByLabelText('Name of this lane'), 'Head gardeners')
  await user.type(screen.getByLabelText('Filter of Head gardeners'), 'level:head')
  await user.selectOptions(screen.getByLabelText('What Head gardeners is for'), 'to be written to')
  await user.click(press('Decide by these rules'))
  expect(isClosed()).toBe(true)
  expect(sent[0]?.body).toEqual({
    rules: [{ lane: 'head-gardeners', name: 'Head gardeners', use: 'post', filter: 'level:head' }, ...KEPT.rules],
  })
})

it('keeps the id of a lane that was there when it is named otherwise, and never uses one twice', async () => {
  const { user, sent } = opened()
  await user.type(screen.getByLabelText('Name of Text'), 's')
  await user.click(press('Add a lane'))
  await user.clear(screen.getByLabelText('Name of New lane'))
  await user.type(screen.getByLabelText('Name of this lane'), 'Text')
  await user.click(press('Decide by these rules'))
  const rules = sent.flatMap(({ body }) => (body as LaneRules).rules)
  expect(rules.map(({ name }) => name)).toEqual(['Text', 'Texts', 'Call'])
  expect(rules[1]?.lane).toBe('text')
  expect(new Set(rules.map(({ lane }) => lane)).size).toBe(3)
})

it('moves lanes by buttons, up to the ends, and takes none out that is the last', async () => {
  const { user } = opened()
  await user.click(press('Put Call earlier'))
  expect(lanes()).toEqual(['Call', 'Text'])
  expect([press('Put Call earlier').disabled, press('Put Text later').disabled]).toEqual([true, true])
  await user.click(press('Take Call out'))
  expect(press('Take Text out').disabled).toBe(true)
})

it('is not decided by while a rule cannot be read, and says which', async () => {
  const { user, sent } = opened()
  await user.type(screen.getByLabelText('Filter of Call'), 'lane:text')
  expect(screen.getByText(/A rule cannot ask for lanes/)).toBeTruthy()
  expect(press('Decide by these rules').disabled).toBe(true)
  await user.clear(screen.getByLabelText('Filter of Call'))
  expect(press('Decide by these rules').disabled).toBe(false)
  expect(sent).toEqual([])
})

it('stays open with what was changed where the server refuses it', async () => {
  const { user, isClosed } = opened({ keepLaneRules: () => new Refusal(409, 'list-busy', 'The list is being tidied.') })
  await user.type(screen.getByLabelText('Name of Text'), 's')
  await user.click(press('Decide by these rules'))
  expect(await screen.findByText('The list is being tidied.')).toBeTruthy()
  expect([isClosed(), lanes()]).toEqual([false, ['Texts', 'Call']])
})

it('goes back to the usual lanes', async () => {
  const { user, sent, isClosed } = opened()
  await user.click(press('Back to the usual lanes'))
  expect([sent[0]?.body, isClosed()]).toEqual([{ rules: null }, true])
})
