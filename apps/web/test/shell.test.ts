import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { rateOf } from '../src/shell/jobRate'
import { groundLines, HILL, outline } from '../src/shell/terraceShape'
import { minutes, money, phone, plural, remaining, signed } from '../src/words/format'

describe('the terrace', () => {
  const steps = [800, 600, 0].map((count) => ({ stage: 'tidy' as const, count, changes: [] }))
  it('is higher where there are more contacts', () => {
    const [first = 0, second = 0, last = 0] = groundLines(steps)
    expect(first).toBe(HILL.top)
    expect(last).toBe(HILL.low)
    expect(second).toBeGreaterThan(first)
    expect(second).toBeLessThan(last)
  })
  it('is flat for a list with nothing in it', () => {
    expect(
      new Set(
        groundLines([
          { stage: 'bring', count: 0, changes: [] },
          { stage: 'tidy', count: 0, changes: [] },
        ]),
      ).size,
    ).toBe(1) // prettier-ignore
  })
  it('runs from edge to edge', () => {
    const path = outline([30, 60])
    expect(path.startsWith('M0 30')).toBe(true)
    expect(path.endsWith(`L${HILL.width} 60`)).toBe(true)
  })
})

describe('figures', () => {
  it('are money to the cent, small prices to a tenth of it', () => {
    expect([money(0), money(5_000), money(80_000), money(350_000), money(4_075_000), money(1_234_560_000)]).toEqual([
      '€0.00',
      '€0.005',
      '€0.08',
      '€0.35',
      '€4.08',
      '€1,234.56',
    ])
  })
  it('are never told otherwise than by less than what is rounded', () => {
    fc.assert(
      fc.property(fc.integer({ min: -2_000_000_000, max: 2_000_000_000 }), (micros) => {
        const told = money(micros)
        const shown = Number(told.replace('−', '-').replace(/[€,]/g, ''))
        const least = Math.abs(micros) < 100_000 ? 500 : 5_000
        expect(Math.abs(shown * 1_000_000 - micros)).toBeLessThanOrEqual(least + 0.01)
        expect(told).toMatch(/^−?€\d{1,3}(?:,\d{3})*\.\d{2,3}$/)
      }),
    )
    expect([money(1_995_000), money(999_999), money(-500_000), money(-4_000)]).toEqual([
      '€2.00',
      '€1.00',
      '−€0.50',
      '−€0.004',
    ])
  })
  it('are grouped and signed', () => {
    expect([signed(-1200), signed(6), signed(0)]).toEqual(['−1,200', '+6', '0'])
    expect([plural(1, 'row'), plural(2, 'person', 'people')]).toEqual(['1 row', '2 people'])
  })
  it('keep every digit of a number', () => {
    for (const e164 of ['+447911204481', '+14155552671', '+35385555123', '+436645550182', '+390612345678']) {
      expect(phone(e164).replace(/[^+\d]/g, '')).toBe(e164)
    }
    expect(phone('+447911204481')).toMatch(/^\+44 /)
  })
})

describe('rateOf', () => {
  const startedAt = '2026-11-03T10:00:00.000Z'
  const now = Date.parse(startedAt) + 10_000
  it('tells speed and time left of a job that runs', () => {
    expect(rateOf({ startedAt, done: 100, total: 400, state: 'running' }, now)).toEqual({
      perSecond: 10,
      secondsLeft: 30,
    })
  })
  it('counts only what was done since it began', () => {
    const job = { startedAt, done: 300, before: 200, total: 400, state: 'running' } as const
    expect(rateOf(job, now)).toEqual({ perSecond: 10, secondsLeft: 10 })
    expect(rateOf({ ...job, done: 200 }, now)).toBeNull()
  })
  it('tells nothing of what follows once all that is counted is done', () =>
    expect(rateOf({ startedAt, done: 400, total: 400, state: 'running' }, now)).toBeNull())
  it('tells nothing it cannot know', () => {
    expect(rateOf({ startedAt, done: 0, total: 400, state: 'running' }, now)).toBeNull()
    expect(rateOf({ startedAt: null, done: 1, total: 4, state: 'queued' }, now)).toBeNull()
    expect(rateOf({ startedAt, done: 4, total: 4, state: 'done' }, now)).toBeNull()
  })
})

describe('the time that is left', () => {
  it.each([
    [5, '5 s'],
    [99, '99 s'],
    [240, '4 min'],
    [7300, '2 h'],
  ])('of %p seconds is %p', (seconds, told) => expect(remaining(seconds)).toBe(told))
  it.each([
    [0, '1 min'],
    [29, '1 min'],
    [2340, '39 min'],
    [5399, '90 min'],
    [109_620, '30 h'],
    [7_200_000, '2,000 h'],
  ])('for work of %p seconds is about %p', (seconds, told) => expect(minutes(seconds)).toBe(told))
})
