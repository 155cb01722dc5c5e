import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import {
  AGES_AS,
  addressAgesAs,
  DEFAULT_FRESH_DAYS,
  DELIVERABILITIES,
  isFresh,
  LINE_STATUSES,
  lineAgesAs,
} from '../../src/check'
import { LINE_TYPES } from '../../src/phone'

const DAY = 86_400_000

describe('what an answer ages as', () => {
  it('is one of the kinds that days are set for, whatever the register says', () => {
    for (const type of [...LINE_TYPES, null])
      for (const status of [...LINE_STATUSES, null]) expect(AGES_AS).toContain(lineAgesAs(type, status))
    for (const told of DELIVERABILITIES) if (told !== 'unknown') expect(AGES_AS).toContain(addressAgesAs(told))
  })
  it('is told by the status where the line cannot be reached, else by its type', () => {
    expect(lineAgesAs('mobile', 'out-of-service')).toBe('out-of-service')
    expect(lineAgesAs('fixed', 'unreachable')).toBe('unreachable')
    expect(lineAgesAs('fixed-or-mobile', 'in-service')).toBe('mobile')
    expect(lineAgesAs('voip', 'in-service')).toBe('other-line')
  })
  it('is nothing for an address of which nothing was told: it is asked about again', () => {
    expect(addressAgesAs('unknown')).toBeNull()
  })
})

describe('isFresh', () => {
  it('holds for just as many days as are set for its kind', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...AGES_AS),
        fc.integer({ min: 0, max: 900 }),
        fc.integer({ min: 0, max: 900 }),
        (kind, days, age) => {
          const set = { ...DEFAULT_FRESH_DAYS, [kind]: days }
          expect(isFresh(0, kind, age * DAY, set)).toBe(age <= days)
        },
      ),
    )
  })
  it('never holds where there is no answer', () => {
    for (const kind of AGES_AS) expect(isFresh(null, kind, 0, DEFAULT_FRESH_DAYS)).toBe(false)
  })
})
