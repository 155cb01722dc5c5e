import { describe, expect, it } from '@jest/globals'
import type { SpendLine } from '@upper-field/contract'
import { csvOf, lastDays, standingOf, sumsOf } from '../src/spend/spendLines'

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
