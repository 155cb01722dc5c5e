/** @jest-environment <rootDir>/apps/web/test/components/browser.mjs */
import { describe, expect, it } from '@jest/globals'
import { screen } from '@testing-library/react'
import type { CheckSettings } from '@upper-field/contract'
import { AGES_AS } from '@upper-field/core/check'
import { Link } from 'react-router'
import { CheckPrice } from '../../src/check/CheckPrice'
import { jobOf } from './jobs'
import { listOf } from './lists'
import { counted } from './piles'
import { type Answers, OPERATOR, Refusal, rendered } from './rendered'
import { service } from './services'

const ESTIMATE = { subjects: 900, fresh: 120, stale: 30, toAsk: 780, most: 3_900_000 }
const freshDays = Object.fromEntries(AGES_AS.map((age) => [age, 30])) as CheckSettings['freshDays']
const SETTINGS: CheckSettings = { freshDays, textPrice: 60_000, mailPrice: 10_000, callHours: {} }
const CHECK = jobOf({
  kind: 'check',
  unit: 'numbers',
  done: 780,
  total: 780,
  result: { unknown: 40, spent: 3_700_000 },
})
const ANSWERS: Answers = {
  readMe: OPERATOR,
  estimateCheck: ESTIMATE,
  readJobs: [],
  readConnections: [service('alder', { role: 'register', gives: ['line-facts'] })],
  readPiles: counted({ lines: { 'fixed/not-checked': 100, 'mobile/out-of-service': 20, 'mobile/in-service': 700 } }),
  readCheckSettings: SETTINGS,
  startCheck: CHECK,
}
const shown = (more: Answers = {}, list = listOf()) =>
  rendered(<CheckPrice of="numbers" />, { ...ANSWERS, ...more }, '', { list })

describe('what a check of numbers would cost', () => {
  it('is told before, with what is fresh and what is asked again, and is the amount that is agreed to', async () => {
    const { user, sent, container } = shown()
    const start = await screen.findByRole('button', { name: 'Check 780 numbers · at most €3.90' })
    expect(container.textContent).toMatch(/900 numbers.*120 have a fresh answer.*30 answers are too old/)
    expect(await screen.findByText('€7.20')).toBeTruthy()
    await user.click(start)
    const started = sent.find(({ name }) => name === 'startCheck')
    expect(started?.body).toEqual({ of: 'numbers', filter: '', agreed: 3_900_000 })
  })

  it.each<[string, Answers, string]>([
    ['every answer is fresh', { estimateCheck: { ...ESTIMATE, toAsk: 0, most: 0 } }, 'Every answer is fresh'],
    [
      'one is under way',
      { readJobs: [jobOf({ ...CHECK, state: 'running', finishedAt: null })] },
      'Check 780 numbers · at most €3.90',
    ],
  ])('cannot be agreed to while %s', async (_, more, name) => {
    shown(more)
    expect(await screen.findByRole('button', { name })).toHaveProperty('disabled', true)
  })

  it('is never that of another choice: until that of this one is known, none is told and none can be agreed to', async () => {
    let answer: (estimate: typeof ESTIMATE) => void = () => {}
    const slow = () =>
      new Promise<typeof ESTIMATE>((resolve) => {
        answer = resolve
      })
    const { user, sent } = rendered(
      <>
        <Link to="?q=country:GB">Narrow</Link>
        <CheckPrice of="numbers" />
      </>,
      { ...ANSWERS, estimateCheck: ({ search }) => (!search.get('filter') ? ESTIMATE : slow()) },
      '',
      { list: listOf() },
    )
    await screen.findByRole('button', { name: 'Check 780 numbers · at most €3.90' })
    await user.click(screen.getByRole('link', { name: 'Narrow' }))
    expect(await screen.findByText('Reading the price …')).toBeTruthy()
    expect(screen.queryByText('€3.90')).toBeNull()
    answer({ ...ESTIMATE, toAsk: 12, most: 60_000 })
    await user.click(await screen.findByRole('button', { name: 'Check 12 numbers · at most €0.06' }))
    expect(sent.find(({ name }) => name === 'startCheck')?.body).toEqual({
      of: 'numbers',
      filter: 'country:GB',
      agreed: 60_000,
    })
  })

  it('was nothing where another check has asked about all of them meanwhile', async () => {
    const { container } = shown({ readJobs: [jobOf({ ...CHECK, done: 0, total: 0, result: {} })] })
    expect(await screen.findByText(/^All of them were asked about by another check/)).toBeTruthy()
    expect(container.textContent).not.toMatch(/0 numbers asked about/)
  })

  it('is offered to no viewer, and to nobody in an archived list', async () => {
    const viewer = shown({ readMe: { ...OPERATOR, role: 'viewer' } })
    await screen.findByText('€3.90')
    expect(screen.queryByRole('button', { name: /^Check/ })).toBeNull()
    viewer.unmount()
    shown({}, listOf({ archivedAt: '2026-11-27T09:00:00Z' }))
    await screen.findByText('€3.90')
    expect(screen.queryByRole('button', { name: /^Check/ })).toBeNull()
  })

  it('is what the latest one has charged, once that is done', async () => {
    shown({ readJobs: [CHECK] })
    expect(await screen.findByText(/780 numbers asked about, 40 not known there, €3.70 charged/)).toBeTruthy()
  })

  it('cannot be told where nobody is connected, or the server says no', async () => {
    const none = shown({ readConnections: [] })
    expect(await screen.findByText('No line register is connected')).toBeTruthy()
    none.unmount()
    const { user } = shown({ startCheck: () => new Refusal(409, 'costs-more', 'It would cost more now.') })
    await user.click(await screen.findByRole('button', { name: /^Check 780/ }))
    expect(await screen.findByText('It would cost more now.')).toBeTruthy()
  })
})
