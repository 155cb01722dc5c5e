/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { describe, expect, it } from '@jest/globals'
import { screen, waitFor } from '@testing-library/react'
import type { TriedFormat } from '@upper-field/contract'
import { type MarkedText, TeachFormat } from '../../src/harvest/TeachFormat'
import { HARVEST_ID, SITE } from './harvests'
import { type Answers, Refusal, rendered } from './rendered'

const HOME = `https://${SITE}/`
const TRIED: TriedFormat = {
  format: {
    name: 'of Germany, after “nummer”',
    takes: true,
    country: 'DE',
    startsWithPlus: false,
    groups: [
      { least: 5, most: 5, behind: ' ' },
      { least: 3, most: 3, behind: '' },
    ],
    after: ['nummer'],
    notAfter: [],
  },
  finds: 3,
  loses: 0,
  lookAlikes: 1,
  pages: 12,
  found: [{ url: HOME, value: '+495246555044', raw: '05246 555', quote: 'Nummer 05246 555' }],
  lost: [],
  suspects: [{ url: HOME, value: '+495246555045', raw: '05246 556', quote: 'Rechnung 05246 556', word: 'Rechnung' }],
}

describe('a format taught by example', () => {
  const marked: MarkedText = { block: 'Nummer 05246 555', raw: '05246 555', takes: true, country: null }
  const taught = (answers: Answers = {}, given: MarkedText | null = marked) => {
    let done = 0
    const shown = rendered(
      <TeachFormat harvestId={HARVEST_ID} marked={given} mayChange={true} onDone={() => done++} />,
      {
        learnFormat: TRIED,
        tryFormat: { ...TRIED, lookAlikes: 0, suspects: [] },
        keepFormat: {},
        readFormats: [],
        ...answers,
      },
    )
    return { ...shown, done: () => done }
  }

  it('is told in words, with what it would find and what looks alike, before it is kept', async () => {
    const { user, sent, done } = taught()
    expect(await screen.findByText(/Numbers of Germany: 5 digits, a space, 3 digits; behind “nummer”/)).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Not behind “Rechnung”' }))
    await waitFor(() => expect(screen.queryByRole('button', { name: /^Not behind/ })).toBeNull())
    expect(sent.find(({ name }) => name === 'tryFormat')?.body).toMatchObject({ notAfter: ['rechnung'] })
    await user.click(screen.getByRole('button', { name: 'Keep the format · 3 more numbers' }))
    await waitFor(() => expect(done()).toBe(1))
  })

  it('says so where it takes the place of another of its name', async () => {
    const kept = { format: TRIED.format, madeBy: 'Maren Oldershaw', madeAt: '2026-11-28T09:00:00Z' }
    const { user } = taught({ readFormats: [kept] })
    expect(await screen.findByRole('button', { name: 'Replace the format · 3 more numbers' })).toBeTruthy()
    await user.type(screen.getByLabelText('Name'), ', written apart')
    expect(screen.getByRole('button', { name: 'Keep the format · 3 more numbers' })).toBeTruthy()
  })

  it('needs a name, and stays where the server says no', async () => {
    const { user, done } = taught({ keepFormat: () => new Refusal(409, 'name-taken', 'That name is taken.') })
    const keep = await screen.findByRole('button', { name: /^Keep the format/ })
    const name = screen.getByLabelText('Name')
    await user.clear(name)
    expect(keep).toHaveProperty('disabled', true)
    await user.type(name, 'Ours')
    await user.click(keep)
    expect(await screen.findByText('That name is taken.')).toBeTruthy()
    expect(done()).toBe(0)
  })

  it('is typed where nothing was marked: the number in the words is what is meant', async () => {
    const { user, sent } = taught({}, null)
    await user.click(screen.getByText('Or type an example'))
    const look = screen.getByRole('button', { name: 'Look what it would find' })
    expect(look).toHaveProperty('disabled', true)
    await user.type(screen.getByLabelText('As it stands, with the words before it'), 'unter 05246 555 / 44')
    await user.click(look)
    await screen.findByRole('button', { name: /^Keep the format/ })
    expect(sent.find(({ name }) => name === 'learnFormat')?.body).toMatchObject({
      block: 'unter 05246 555 / 44',
      raw: '05246 555 / 44',
    })
  })

  it('is forgotten by its name', async () => {
    const { user, sent } = taught(
      { readFormats: [{ format: TRIED.format, madeBy: 'Tom Kestle', madeAt: '2026-11-28T09:00:00Z' }], dropFormat: {} },
      null,
    )
    await user.click(await screen.findByRole('button', { name: /^Forget the format of Germany/ }))
    expect(sent.some(({ name }) => name === 'dropFormat')).toBe(false)
    await user.click(screen.getByRole('button', { name: 'Forget it' }))
    expect(sent.some(({ name }) => name === 'dropFormat')).toBe(true)
  })
})
