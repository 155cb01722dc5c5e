import { describe, expect, it } from '@jest/globals'
import { parseFilter, writeFilter } from '@upper-field/core/split'
import fc from 'fast-check'
import { isNarrowedTo, narrowed } from '../src/check/CountField'
import { inVain } from '../src/check/checkWords'
import { linesByCountry } from '../src/check/countries'

describe('linesByCountry', () => {
  it('puts the country with most lines first, and leaves out who has none', () => {
    const lines = linesByCountry({
      'GB/mobile/in-service': 3,
      'GB/fixed/not-checked': 2,
      'US/fixed-or-mobile/not-checked': 9,
      'DE/unknown/not-checked': 40,
      '/mobile/in-service': 7,
    })
    expect(lines.map(({ country, all }) => [country, all])).toEqual([
      ['US', 9],
      ['GB', 5],
    ])
    expect(lines[1]).toMatchObject({ byType: { mobile: 3, fixed: 2 }, byStatus: { 'in-service': 3, 'not-checked': 2 } })
  })
  it('counts every line once by its type and once by its status', () => {
    const counts = fc.dictionary(
      fc
        .tuple(
          fc.constantFrom('GB', 'DE'),
          fc.constantFrom('mobile', 'fixed'),
          fc.constantFrom('in-service', 'unreachable'),
        )
        .map((parts) => parts.join('/')),
      fc.integer({ min: 0, max: 50 }),
    )
    fc.assert(
      fc.property(counts, (all) => {
        const sum = (of: Readonly<Record<string, number>>) => Object.values(of).reduce((a, b) => a + b, 0)
        for (const { all: n, byType, byStatus } of linesByCountry(all)) {
          expect(sum(byType)).toBe(n)
          expect(sum(byStatus)).toBe(n)
        }
      }),
    )
  })
})

describe('the cell of a field', () => {
  it('narrows a filter to itself, whatever of its piles was chosen before, and leaves the rest', () => {
    const { filter } = parseFilter('line:mobile,fixed country:GB oldershaw')
    const next = narrowed(filter, { line: 'voip', status: 'unreachable' })
    expect(writeFilter(next)).toBe('country:GB line:voip status:unreachable oldershaw')
    expect(isNarrowedTo(next, { line: 'voip', status: 'unreachable' })).toBe(true)
    expect(isNarrowedTo(filter, { line: 'mobile', status: 'unreachable' })).toBe(false)
  })
})

describe('inVain', () => {
  const settings = { textPrice: 70_000, mailPrice: 1_000 } as Parameters<typeof inVain>[2]
  it('counts a dead fixed line once, and no contact without a number', () => {
    const lines = {
      'fixed/out-of-service': 2,
      'fixed/in-service': 3,
      'mobile/out-of-service': 5,
      'mobile/in-service': 90,
      'unknown/not-checked': 40,
    }
    expect(inVain('numbers', { lines, addresses: {} }, settings)).toEqual({ contacts: 10, cost: 700_000 })
  })
  it('counts addresses that take no mail', () => {
    const addresses = { 'work/undeliverable': 4, 'role/undeliverable': 1, 'work/accept-all': 9 }
    expect(inVain('addresses', { lines: {}, addresses }, settings)).toEqual({ contacts: 5, cost: 5_000 })
  })
})
