import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { projectRow } from '../../src/tidy'
import { readBirthDate } from '../../src/tidy/birthDate'

describe('a birth date', () => {
  it.each([
    ['03.05.1971', 'DE', '1971-05-03'],
    ['5/3/1971', 'US', '1971-05-03'],
    ['5/3/1971', 'GB', '1971-03-05'],
    ['1971-05-03', '', '1971-05-03'],
    ['*03.05.71', 'DE', '1971-05-03'],
    ['geb. 3.5.1971', 'DE', '1971-05-03'],
    ['03.05.34', 'DE', '1934-05-03'],
    ['1971', 'GB', '1971'],
    ['1971-05-03 00:00', 'GB', '1971-05-03'],
  ])('%s in %s is %s', (cell, country, date) => expect(readBirthDate(cell, country)).toBe(date))

  it.each(['', '31.02.1971', 'unknown', '1812', '2031', '03.05.2031', '17', 'spring 1971'])('%j is none', (cell) =>
    expect(readBirthDate(cell, 'DE')).toBeNull(),
  )

  it('comes back from any day it is written for', () => {
    const day = fc.record({
      year: fc.integer({ min: 1901, max: 2019 }),
      month: fc.integer({ min: 1, max: 12 }),
      day: fc.integer({ min: 1, max: 28 }),
    })
    const two = (n: number) => String(n).padStart(2, '0')
    fc.assert(
      fc.property(day, ({ year, month, day: at }) => {
        const iso = `${year}-${two(month)}-${two(at)}`
        expect(readBirthDate(iso, '')).toBe(iso)
        expect(readBirthDate(`${at}.${month}.${year}`, 'DE')).toBe(iso)
        expect(readBirthDate(`${two(month)}/${two(at)}/${year}`, 'US')).toBe(iso)
      }),
    )
  })

  it('and a street stand in the contact', () => {
    const mapping = ['full-name', 'street', 'birth-date'] as const
    const { values } = projectRow(['Zo Orrick', '  4  Lantern   Street ', '03.05.1971'], {
      mapping: [...mapping],
      defaultCountry: 'DE',
    })
    expect(values).toMatchObject({ street: '4 Lantern Street', birthDate: '1971-05-03' })
  })
})
