import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { formatNumber, nearestFixes, readPhoneCell } from '../../src/phone'
import { below, COUNTRIES, numbersOf } from './numbersOfPlan'
import { type Case, shown } from './shown'

const random = below(7)
const known = COUNTRIES.flatMap((country) => numbersOf(country, 8, random))

describe('any signs between the digits', () => {
  it('are nothing to a number of any country', () => {
    const signs = fc.array(fc.constantFrom(' ', '-', '.', '/', '=', '_', ',', ':', '\t', ' - '), {
      minLength: 1,
      maxLength: 3,
    })
    fc.assert(
      fc.property(fc.nat(known.length - 1), signs, (at, between) => {
        const { e164, country } = known[at] ?? { e164: '', country: '' }
        let i = 0
        const cell = formatNumber(e164).replace(/\D+(?=\d)/g, (gap) =>
          gap === '+' ? gap : (between[i++ % between.length] ?? ' '),
        )
        const { numbers, problem } = readPhoneCell(cell, { country })
        // A point and a comma among few digits are a place on the map.
        fc.pre(problem !== 'coordinates')
        expect(numbers.map((one) => one.e164)).toContain(e164)
      }),
      { numRuns: 1000 },
    )
  })

  it.each([
    '06=12=55=09=18',
    '06_12_55_09_18',
    '06\t12\t55\t09\t18',
    '06,12,55,09,18',
    '06:12:55:09:18',
    '06/12/55/09/18',
    '06.12/55-09 18',
    '06;12;55;09;18',
    '06|12|55|09|18',
    '06~12~55~09~18',
    '{06} 12 55 09 18',
    '<06 12 55 09 18>',
    '"06 12 55 09 18"',
  ])('%j', (raw) => expect(shown(raw, 'FR')).toBe('+33612550918')) // prettier-ignore
})

describe('pluses in odd places', () => {
  it.each([
    '0+49 171 5550914',
    '00+49 171 5550914',
    '+ +49 171 5550914',
    '(+)49 171 5550914',
    '(+49) 171 5550914',
    '+49+49 171 5550914',
    '49+171 5550914',
    '491715550914+',
    '++49 171 5550914',
    '+49 (0)171 5550914',
    '+49 0171 5550914',
  ])('%j', (raw) => expect(shown(raw, 'DE')).toBe('+491715550914')) // prettier-ignore

  it.each<Case>([
    ['+044 7911 204481', 'GB', '+447911204481'],
    ['+049 171 5550914', 'DE', '+491715550914, +49491715550914 ! two-readings'],
    ['+043 664 5550182', 'CH', '+436645550182 ! unsure-repair'],
  ])('%j in %s', (raw, country, expected) => expect(shown(raw, country)).toBe(expected))
})

describe('digits withheld', () => {
  it.each([
    '07911 2044__',
    '07911 2044??',
    '07911 2044...',
    '07911 2044••',
    '07911 2044**',
    '07911 2044##',
    '07911 2044xx',
    '07911 20 XX XX',
    '07911 ****81',
    '079xx 204481',
    '0791* 204481',
    '07911 …481',
    '07911 20■■81',
  ])('%s', (raw) => expect(shown(raw, 'GB')).toBe('unreadable ! masked')) // prettier-ignore

  it.each(['07911 204481*', '07911 204481 *', '07911 204481†', '*07911 204481', '07911 204481‡', '07911 204481?'])(
    '%s only has a note',
    (raw) => expect(shown(raw, 'GB')).toBe('+447911204481'),
  )
})

describe('numbers set aside for fiction and tests', () => {
  it.each([
    ['07700 900123', 'GB'],
    ['020 7946 0123', 'GB'],
    ['0306 999 0123', 'GB'],
    ['0808 157 0123', 'GB'],
    ['01632 960123', 'GB'],
    ['202-555-0143', 'US'],
    ['416 555 0199', 'CA'],
    ['020 912 3456', 'IE'],
    ['0491 570 006', 'AU'],
    ['(02) 5550 1234', 'AU'],
    ['030 23125 001', 'DE'],
    ['0171 3920012', 'DE'],
    ['0176 04069012', 'DE'],
    ['031-390 06 00', 'SE'],
    ['08-465 004 12', 'SE'],
    ['070-174 06 35', 'SE'],
    ['06 39 98 00 12', 'FR'],
    ['01 99 00 12 34', 'FR'],
  ])('%s in %s', (raw, country) => expect(shown(raw, country)).toBe('placeholder')) // prettier-ignore

  it.each([
    ['07701 900123', 'GB'],
    ['202-556-0143', 'US'],
    ['0171 3930012', 'DE'],
    ['06 39 97 00 12', 'FR'],
    ['031-390 07 00', 'SE'],
  ])('%s in %s is none', (raw, country) => expect(readPhoneCell(raw, { country }).numbers).toHaveLength(1))
})

describe('addresses that dial', () => {
  it.each<Case>([
    ['tel:+44-7911-204481', 'DE', '+447911204481'],
    ['tel:7911204481;phone-context=+44', 'DE', '+447911204481'],
    ['tel:07911204481;phone-context=example.com', 'GB', '+447911204481'],
    ['tel:+44-7911-204481;isub=12345', 'DE', '+447911204481'],
    ['tel:(07911)204481;ext=12', 'GB', '+447911204481 x12'],
    ['tel:+44.7911.20-44-81', 'GB', '+447911204481'],
    ['tel:%2B447911204481', 'GB', '+447911204481'],
    ['tel:+44%207911%20204481', 'GB', '+447911204481'],
    ['sip:+447911204481@sip.example;user=phone', 'GB', '+447911204481'],
    ['sips:07911204481@sip.example', 'GB', '+447911204481'],
    ['sip:jim@sip.example', 'GB', 'unreadable ! email'],
    ['<a href="tel:+447911204481">Ring us</a>', 'GB', '+447911204481'],
    ["<a class=x href='tel:07911204481'>here</a>", 'GB', '+447911204481'],
    ['<b>07911</b>&nbsp;204481', 'GB', '+447911204481'],
    ['&#43;44 7911 204481', 'GB', '+447911204481'],
    ['https://chat.example/447911204481', 'FR', '+447911204481'],
    ['https://chat.example/send?phone=447911204481', 'FR', '+447911204481'],
  ])('%s in %s', (raw, country, expected) => expect(shown(raw, country)).toBe(expected))

  it.each(['https://site.example/orders/12345', 'https://site.example/en/about'])('%s does not', (raw) =>
    expect(readPhoneCell(raw, { country: 'GB' }).numbers).toEqual([]),
  )
})

describe('old and local forms', () => {
  it.each<Case>([
    ['044 55 1234 5678', 'MX', '+525512345678'],
    ['045 55 1234 5678', 'MX', '+525512345678'],
    ['01 55 1234 5678', 'MX', '+525512345678'],
    ['+52 1 55 1234 5678', 'MX', '+525512345678'],
    ['0xx11 2345-6789', 'BR', '+551123456789'],
    ['(0xx11) 2345-6789', 'BR', '+551123456789'],
    ['0**11 2345-6789', 'BR', '+551123456789'],
    ['+55 (0xx11) 2345-6789', 'BR', '+551123456789'],
    ['041 11 2345-6789', 'BR', '+551123456789'],
    ['011 15-2345-6789', 'AR', '+5491123456789'],
    ['+54 11 15 2345 6789', 'AR', '+5491123456789'],
    ['09 9123 4567', 'CL', '+56991234567'],
    ['8 (044) 123-45-67', 'UA', '+380441234567'],
    ['8 (495) 123-45-67', 'RU', '+74951234567'],
    ['+34 (0)612 345 678', 'ES', '+34612345678'],
    ['011 44 7911 204481', 'US', '+447911204481'],
    ['0044 7911 204481', 'US', '+447911204481'],
  ])('%s in %s', (raw, country, expected) => expect(shown(raw, country)).toBe(expected))

  it('011 dials abroad only where it is dialled', () => {
    expect(readPhoneCell('011 44 7911 204481', { country: 'GB' }).numbers).toEqual([])
  })
})

describe('what a spreadsheet leaves', () => {
  it.each<Case>([
    ['4,47911204481E+11', 'GB', '+447911204481'],
    ['4.47911204481e+11', 'GB', '+447911204481'],
    ['447911204481,0', 'GB', '+447911204481'],
    ['447911204481,00', 'GB', '+447911204481'],
    ['7911204481.0', 'GB', '+447911204481'],
    ['="07911204481"', 'GB', '+447911204481'],
    ['6,12551E+08', 'FR', 'unreadable ! digits-lost'],
  ])('%s in %s', (raw, country, expected) => expect(shown(raw, country)).toBe(expected))
})

describe('what a spreadsheet put behind a number', () => {
  it('is no digit of what it may have been', () => {
    const tails = fc.constantFrom('.0', ',0', '.00', ',00')
    fc.assert(
      fc.property(fc.nat(known.length - 1), tails, fc.nat(20), (at, tail, place) => {
        const { e164, country } = known[at] ?? { e164: '', country: '' }
        const digits = e164.slice(1)
        // One digit lost, and the tail of a quantity behind it.
        const hurt = digits.slice(0, place % digits.length) + digits.slice((place % digits.length) + 1)
        const fixes = nearestFixes(`${hurt}${tail}`, country).map(({ text }) => text.replace(/\D/g, ''))
        expect(fixes.filter((text) => text.length > hurt.length)).toEqual([])
      }),
    )
  })

  it('leaves nothing to guess where digits are lost', () => expect(nearestFixes('4.47912E+11', 'GB')).toEqual([]))
})

describe('quantities are no numbers', () => {
  it.each([
    ['51.5074, -0.1278', 'coordinates'],
    ['51.50740 -0.12780', 'coordinates'],
    ["52° 31' N 13° 24' O", 'coordinates'],
    ['£1,200,000', 'money'],
    ['1.200.000 €', 'money'],
    ['$4155552671', 'money'],
    ['EUR 12345678', 'money'],
    ['4155552671 USD', 'money'],
    ['09:00-17:30', 'opening-hours'],
    ['Mo-Fr 9:00-17:00', 'opening-hours'],
    ['9-17 Uhr', 'opening-hours'],
    ['9am-5pm', 'opening-hours'],
    ['1998-2004', 'date'],
    ['2019/2020', 'date'],
    ['2026-11-27', 'date'],
    ['45%', 'percentage'],
    ['12,5 %', 'percentage'],
  ])('%s: %s', (raw, problem) => expect(readPhoneCell(raw, { country: 'DE' })).toMatchObject({ numbers: [], problem })) // prettier-ignore
})

describe('numbers of other countries without their plus', () => {
  it.each<Case>([
    ['436641234567', 'DE', '+49436641234567, +436641234567 ! two-readings'],
    ['41791234567', 'DE', '+4941791234567, +41791234567 ! two-readings'],
    ['4315552004', 'DE', '+494315552004, +4315552004 ! two-readings'],
    ['1 512 345 6789', 'DE', '+4915123456789, +15123456789 ! two-readings'],
    ['4915123456789', 'AT', '+4915123456789 ! plus-missing'],
    ['33612345678', 'GB', '+33612345678 ! plus-missing'],
    ['0015123454735', 'DE', '+15123454735, +4915123454735 ! two-readings'],
  ])('%s in %s are never read in silence', (raw, country, expected) => expect(shown(raw, country)).toBe(expected))

  it.each<Case>([
    ['15123456789', 'DE', '+4915123456789'],
    ['0043 664 1234567', 'DE', '+436641234567'],
    ['4917655500166', 'DE', '+4917655500166'],
    ['8912345678', 'DE', '+498912345678'],
    ['3312345678', 'DE', '+493312345678'],
    ['04315552004', 'DE', '+494315552004'],
    ['20123456', 'DK', '+4520123456'],
  ])('%s in %s is no such thing', (raw, country, expected) => expect(shown(raw, country)).toBe(expected))
})
