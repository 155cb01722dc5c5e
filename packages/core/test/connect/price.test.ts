import { describe, expect, it } from '@jest/globals'
import { priceOf } from '../../src/connect'

describe('what one charge is', () => {
  it.each([
    [0.08, 80_000],
    [0.29, 290_000],
    [0.000001, 1],
    [1000, 1_000_000_000],
  ])('%d euros are %d millionths', (euros, micros) =>
    expect(priceOf({ charge: { per: 'call', euros }, isPaidFor: false })).toBe(micros),
  )

  it('is nothing where it is paid for already', () =>
    expect(priceOf({ charge: { per: 'call', euros: 5 }, isPaidFor: true })).toBe(0))
})
