import { describe, expect, it } from '@jest/globals'
import { formatNumber } from '../../src/phone'
import { writtenForOthers } from '../../src/phone/written'
import { below, COUNTRIES, numbersOf } from './numbersOfPlan'

describe('a number as its country writes it for others', () => {
  it.each([
    ['+33612551797', '+33 6 12 55 17 97'],
    ['+447911204481', '+44 7911 204481'],
    ['+14155552671', '+1 415-555-2671'],
    ['+4315552004', '+43 1 5552004'],
    ['+35315550540', '+353 1 555 0540'],
    ['no number', 'no number'],
    ['', ''],
  ])('%s', (e164, written) => expect(writtenForOthers(e164)).toBe(written))

  it('is what the whole plan makes of it, in every country', () => {
    const random = below(3)
    const known = COUNTRIES.flatMap((country) => numbersOf(country, 20, random))
    expect(known.filter(({ e164 }) => writtenForOthers(e164) !== formatNumber(e164))).toEqual([])
  })
})
