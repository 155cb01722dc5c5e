import { describe, expect, it } from '@jest/globals'
import type { SpendLine } from '@upper-field/contract'
import { csvOf, differencesIn, eachByDay, lastDays, standingOf, sumOfStatement, sumsOf } from '../src/spend/spendLines'

const line = (day: string, amount: number, changes: Partial<SpendLine> = {}): SpendLine => ({
  day,
  provider: 'lantern',
  name: 'Lantern',
  listId: 'a',
  list: 'Autumn',
  reason: 'line check',
  charges: 1,
  amount,
  ...changes,
})
const LINES = [
  line('2026-11-26', 5000, { charges: 2 }),
  line('2026-11-26', 350_000, { provider: 'candle', name: 'Candle', reason: 'per accepted' }),
  line('2026-11-27', 7500),
  line('2026-11-27', 45_000, { listId: null, list: '', reason: 'a try' }),
]

describe('charges', () => {
  it('are put together by service, list and purpose, the dearest first, and none is lost', () => {
    const sums = sumsOf(LINES)
    expect(sums.map(({ name, charges, amount }) => [name, charges, amount])).toEqual([
      ['Candle', 1, 350_000],
      ['Lantern', 1, 45_000],
      ['Lantern', 3, 12_500],
    ])
  })

  it('are told for each of the last days, the empty ones too', () => {
    expect(lastDays(LINES, new Date('2026-11-28T10:00:00Z'), 4)).toEqual([
      { day: '2026-11-25', amount: 0 },
      { day: '2026-11-26', amount: 355_000 },
      { day: '2026-11-27', amount: 52_500 },
      { day: '2026-11-28', amount: 0 },
    ])
  })

  it('are saved with nothing a spreadsheet would compute', () => {
    const lines = csvOf([line('2026-11-26', 5000, { list: '=HYPERLINK("x")' })]).split('\r\n')
    expect(lines[0]).toBe('day,service,list,purpose,charges,euros')
    expect(lines[1]).toMatch(/^2026-11-26,Lantern,"?'=/)
    expect(lines[1]?.endsWith(',1,0.005000')).toBe(true)
  })
})

describe('a month', () => {
  it.each([
    [null, 9, 9, 'free'],
    [100, 10, 20, 'enough'],
    [100, 10, 70, 'nearly'],
    [100, 10, 90, 'reached'],
    [100, 130, 0, 'reached'],
  ] as const)('of %s with %d spent and %d promised: %s', (limit, spent, promised, standing) =>
    expect(standingOf({ limit, spent, promised })).toBe(standing),
  )
})

describe('the cost of each usable value', () => {
  const line = (day: string, name: string, usable: number, amount: number) => ({
    day,
    provider: name.toLowerCase(),
    name,
    usable,
    amount,
  })
  it('is told by day, the latest first, of all services and of each', () => {
    const { days, services } = eachByDay([
      line('2026-11-01', 'Lantern', 4, 1_000_000),
      line('2026-11-03', 'Candle', 2, 300_000),
      line('2026-11-03', 'Lantern', 0, 100_000),
    ])
    expect(services).toEqual(['Candle', 'Lantern'])
    expect(days).toEqual([
      { day: '2026-11-03', usable: 2, each: 200_000, byService: { Candle: 150_000, Lantern: null } },
      { day: '2026-11-01', usable: 4, each: 250_000, byService: { Lantern: 250_000 } },
    ])
  })
  it('is nothing where money was spent and nothing found', () => {
    expect(eachByDay([line('2026-11-03', 'Candle', 0, 300_000)]).days).toMatchObject([{ usable: 0, each: null }])
    expect(eachByDay([])).toEqual({ days: [], services: [] })
  })
})

describe('the statement of a service beside ours', () => {
  const booked = (charges: number, amount: number) => ({ charges, amount })
  const statement = {
    provider: 'candle',
    name: 'Candle',
    problem: null,
    days: [
      { day: '2026-11-01', ours: booked(2, 200), theirs: booked(2, 200) },
      { day: '2026-11-02', ours: booked(1, 100), theirs: booked(3, 450) },
      { day: '2026-11-03', ours: booked(2, 100), theirs: booked(1, 100) },
      { day: '2026-11-04', ours: booked(1, 70), theirs: booked(0, 0) },
    ],
  }
  it('is summed by both books', () => {
    expect(sumOfStatement(statement)).toEqual({ ours: booked(6, 470), theirs: booked(6, 750) })
  })
  it('tells every day on which they differ, though their sums may not', () => {
    expect(differencesIn(statement)).toEqual([
      { day: '2026-11-02', amount: 350 },
      { day: '2026-11-03', amount: 0 },
      { day: '2026-11-04', amount: -70 },
    ])
  })
})
