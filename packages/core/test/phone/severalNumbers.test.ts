import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { formatNumber, readPhoneCell } from '../../src/phone'
import { below, COUNTRIES, numbersOf } from './numbersOfPlan'
import { type Case, shown } from './shown'

const BOTH = '+447911204481, +441665555018'

describe('several numbers in one cell', () => {
  it.each([
    ' / ',
    '/',
    ' // ',
    '; ',
    ';',
    ', ',
    ',',
    ' | ',
    '|',
    '\n',
    '\r\n',
    '\t',
    '  ',
    ' ',
    ' - ',
    ' & ',
    ' + ',
    ' > ',
    ':',
    '_',
    ' or ',
    ' oder ',
    ' und ',
    ' et ',
    ' y ',
    ' или ',
  ])('by %j', (sign) => expect(shown(`07911 204481${sign}01665 555018`, 'GB')).toBe(BOTH)) // prettier-ignore

  it.each<Case>([
    ['M: 07911 204481 T: 01665 555018', 'GB', '+447911204481 mobile, +441665555018 other'],
    ['Home 01665 555018 Cell 07911 204481', 'GB', '+441665555018 home, +447911204481 mobile'],
    ['07911 204481 (mob) 01665 555018 (work)', 'GB', '+447911204481 mobile, +441665555018 work'],
    ['(mob) 07911 204481 (work) 01665 555018', 'GB', '+447911204481 mobile, +441665555018 work'],
    ['Tel.: 0431/5557720, Fax: 0431/5557721', 'DE', '+494315557720 other, +494315557721 fax'],
    ['1) 07911 204481 2) 01665 555018', 'GB', BOTH],
    ['1. 07911 204481, 2. 01665 555018', 'GB', BOTH],
    ['+447911204481+441665555018', 'GB', BOTH],
    ['415-555-2671 415-555-2672', 'US', '+14155552671, +14155552672'],
    ['06 12 55 09 18 01 41 55 50 77', 'FR', '+33612550918, +33141555077'],
    ['07911 204481, jim@firm.example', 'GB', '+447911204481 “jim@firm.example”'],
    ['jim@firm.example 07911 204481', 'GB', '+447911204481 “jim@firm.example”'],
  ])('%j in %s, each with its own label', (raw, country, expected) => expect(shown(raw, country)).toBe(expected))

  it('of any country, with a space or two between them', () => {
    const random = below(11)
    const known = COUNTRIES.flatMap((country) => numbersOf(country, 6, random))
    const two = fc.tuple(fc.nat(known.length - 1), fc.nat(5), fc.constantFrom(' / ', '; ', '\n', ' | ', '   '))
    fc.assert(
      fc.property(two, ([at, step, sign]) => {
        const one = known[at]
        const other = one && known.find(({ country, e164 }) => country === one.country && e164 !== one.e164)
        if (!one || !other || step > 5) return
        const cell = [one, other].map(({ e164 }) => formatNumber(e164)).join(sign)
        expect(readPhoneCell(cell, { country: one.country }).numbers.map(({ e164 }) => e164)).toEqual([
          one.e164,
          other.e164,
        ])
      }),
    )
  })
})

describe('numbers with one stem', () => {
  it.each<Case>([
    ['7911 204481/2', 'GB', '+447911204481, +447911204482'],
    ['9876543211 / 12', 'IN', '+919876543211, +919876543212'],
    ['612345671/72', 'FR', '+33612345671, +33612345672'],
    ['01665 555018/9', 'GB', '+441665555018, +441665555019'],
    ['01665 555018-32', 'GB', '+441665555018, +441665555032'],
    ['01665 555018/19/20', 'GB', '+441665555018, +441665555019, +441665555020'],
    ['020 7183 8750/1/2', 'GB', '+442071838750, +442071838751, +442071838752'],
    ['01 41 55 50 77/78', 'FR', '+33141555077, +33141555078'],
    ['415-555-2671/2', 'US', '+14155552671, +14155552672'],
    ['044 668 18 00/01', 'CH', '+41446681800, +41446681801'],
  ])('%j in %s', (raw, country, expected) => {
    expect(shown(raw, country)).toBe(expected)
    expect(readPhoneCell(raw, { country }).repairs).toContain('shared-stem')
  })

  it('are two readings where the plan takes the whole as one number', () => {
    expect(shown('040 1234567/8', 'DE')).toBe('+494012345678, +49401234567, +49401234568 ! two-readings')
    expect(shown('0431 55577-20', 'DE')).toBe('+494315557720, +4943155577, +4943155520 ! two-readings')
    expect(shown('01 5124420 - 12', 'AT')).toBe('+431512442012, +4315124420, +4315124412 ! two-readings')
  })

  it.each<Case>([
    ['0664/555 01 82', 'AT', '+436645550182'],
    ['0431 55577-0', 'DE', '+49431555770'],
    ['08955-564-873', 'DE', '+498955564873'],
    ['06645-551-925', 'AT', '+436645551925'],
    ['0431-5557720', 'DE', '+494315557720'],
    ['02-5550-1234', 'TW', '+886255501234'],
    ['06/12/55/09/18', 'FR', '+33612550918'],
    ['8 (495) 123-45-67', 'RU', '+74951234567'],
  ])('%j in %s is one number', (raw, country, expected) => expect(shown(raw, country)).toBe(expected))
})

describe('extensions', () => {
  it.each([
    'ext 12',
    'ext. 12',
    'ext no. 12',
    '(ext 12)',
    '[x12]',
    'x12',
    'x 12',
    '#12',
    ';ext=12',
    'p12',
    'w12',
    ',,12',
    '/ ext. 12',
    'extension: 12',
    'Durchwahl 12',
    'DW-12',
    'Klappe 12',
    'poste 12',
    'interno 12',
    'int. 12',
    'anexo 12',
    'ramal 12',
    'toestel 12',
    'anknytning 12',
    'lokal 12',
    'wew. 12',
    'linka 12',
    'mellék 12',
    'dahili 12',
    'доб. 12',
    'вн. 12',
    'extensão 12',
    'extensión 12',
    '内線12',
    '分机 12',
    'alaknumero 12',
    'εσωτ. 12',
  ])('%s', (extension) => expect(shown(`01665 555018 ${extension}`, 'GB')).toBe('+441665555018 x12')) // prettier-ignore

  it.each<Case>([
    ['07911 204481 tried 2x', 'GB', '+447911204481 “tried 2x”'],
    ['01665 555018 x 07911204481', 'GB', BOTH.split(', ').reverse().join(', ')],
    ['01665 555018 ext 07911 204481', 'GB', BOTH.split(', ').reverse().join(', ')],
  ])('%j in %s has none', (raw, country, expected) => expect(shown(raw, country)).toBe(expected))
})
