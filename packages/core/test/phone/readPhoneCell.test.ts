import { describe, expect, it } from '@jest/globals'
import { type Problem, type Repair, readPhoneCell, type Verdict } from '../../src/phone'
import { homeOf } from '../../src/phone/plan'
import { readFully } from '../../src/phone/readPhoneCell'
import { readQuick } from '../../src/phone/readQuick'

const numbersOf = (raw: string, country: string | null) =>
  readPhoneCell(raw, { country }).numbers.map(({ e164 }) => e164)

describe('cells that are clean once stripped', () => {
  it.each([
    ['brackets and dashes', '(01665) 555-018', 'GB', '+441665555018'],
    ['dots', '06.12.55.09.18', 'FR', '+33612550918'],
    ['a slash inside one number', '0664/555 01 82', 'AT', '+436645550182'],
    ['no-break and thin spaces', '07911\u00a0204\u2009481', 'GB', '+447911204481'],
    ['full-width digits', '０７９１１２０４４８１', 'GB', '+447911204481'],
    ['Arabic-Indic digits', '٠٧٩١١٢٠٤٤٨١', 'GB', '+447911204481'],
    ['an invisible mark', '\u200e07911 204481\u202c', 'GB', '+447911204481'],
    ['a typographic dash', '07911–204–481', 'GB', '+447911204481'],
    ['a URI of RFC 3966', 'tel:+44-7911-204481', 'DE', '+447911204481'],
    ['another country with its plus', '+33 6 12 55 09 18', 'GB', '+33612550918'],
    ['the North American one', '1 415 555 2671', 'US', '+14155552671'],
    ['a lower-case country', '07911 204481', 'gb', '+447911204481'],
    ['the country code of everyday life', '07911 204481', 'UK', '+447911204481'],
  ])('%s', (_, raw, country, e164) => {
    expect(readPhoneCell(raw, { country })).toMatchObject({ verdict: 'clean', repairs: [], problem: null })
    expect(numbersOf(raw, country)).toEqual([e164])
  })
})

describe('cells that are repaired', () => {
  it.each<[string, string, string, string, Repair[]]>([
    ['a trunk zero in brackets', '+44 (0)1665 555018', 'GB', '+441665555018', ['trunk-zero']],
    ['a trunk zero without brackets', '+49 0171 5550914', 'DE', '+491715550914', ['trunk-zero']],
    ['00', '0044 7911 204481', 'DE', '+447911204481', ['international-prefix']],
    ['00 where it is not the prefix', '0044 7911 204481', 'US', '+447911204481', ['international-prefix']],
    ['011', '011 44 7911 204481', 'US', '+447911204481', ['international-prefix']],
    ['a code without plus', '447911204481', 'GB', '+447911204481', ['country-code-without-plus']],
    ['a code without plus in a generous plan', '4917655500166', 'DE', '+4917655500166', ['country-code-without-plus']],
    ['the code twice, with 00', '+49 0049 171 5550914', 'DE', '+491715550914', ['country-code-twice']],
    ['the code twice', '44 44 7911204481', 'GB', '+447911204481', ['country-code-twice']],
    ['a lost zero', '7911204481', 'GB', '+447911204481', ['lost-zero']],
    ['a lost zero that belongs to the number', '612345678', 'IT', '+390612345678', ['lost-zero']],
    ['a label before', 'Mob: 07911-204481', 'GB', '+447911204481', ['label-taken-off']],
    ['a label behind', '07911 204481 (mobile)', 'GB', '+447911204481', ['label-taken-off']],
    ['a label that looks like a URI', 'Tel: 01665-555-018', 'GB', '+441665555018', ['label-taken-off']],
    ['words around', 'call after 5pm 07911 204481', 'GB', '+447911204481', ['label-taken-off']],
    ['letters on a keypad', '1-800-FLOWERS', 'US', '+18003569377', ['keypad-letters']],
    ['the letter O', 'O7911 2O4481', 'GB', '+447911204481', ['letters-for-digits']],
    ['the letter l', '079ll 204481', 'GB', '+447911204481', ['letters-for-digits']],
    ['an apostrophe', "'07911204481", 'GB', '+447911204481', ['apostrophe']],
    ['a decimal tail', '+447911204481.0', 'GB', '+447911204481', ['decimal-tail']],
    [
      'notation with all digits',
      '4.47911204481E+11',
      'GB',
      '+447911204481',
      ['scientific-notation', 'country-code-without-plus'],
    ],
  ])('%s', (_, raw, country, e164, repairs) => {
    expect(readPhoneCell(raw, { country })).toMatchObject({ verdict: 'repaired', repairs, problem: null })
    expect(numbersOf(raw, country)).toEqual([e164])
  })
})

describe('extensions and labels', () => {
  it.each([
    ['01665 555018 x12', 'GB', '12'],
    ['01665 555018 ext. 12', 'GB', '12'],
    ['01665 555018 #12', 'GB', '12'],
    ['tel:+44-1665-555018;ext=12', 'GB', '12'],
    ['02 41 55 50 77 poste 12', 'FR', '12'],
    ['0431 5557720 Durchwahl 3', 'DE', '3'],
  ])('%s has its extension in a field of its own', (raw, country, extension) => {
    expect(readPhoneCell(raw, { country }).numbers).toMatchObject([{ extension, valid: true }])
  })

  it.each([
    ['Mob: 07911 204481', 'mobile'],
    ['01665 555018 (office)', 'work'],
    ['Fax 01665 555018', 'fax'],
    ['privat: 01665 555018', 'home'],
  ])('%s keeps the label as a hint', (raw, label) => {
    expect(readPhoneCell(raw, { country: 'GB' }).numbers).toMatchObject([{ label }])
  })
})

describe('several numbers in a cell', () => {
  it.each([
    '07911 204481 / 01665 555018',
    '07911 204481; 01665 555018',
    '07911 204481, 01665 555018',
    '07911 204481 or 01665 555018',
    '07911 204481\n01665 555018',
    'Mob 07911 204481 | Tel 01665 555018',
  ])('%j gives both, in order', (raw) => {
    expect(numbersOf(raw, 'GB')).toEqual(['+447911204481', '+441665555018'])
    expect(readPhoneCell(raw, { country: 'GB' }).repairs).toContain('several-numbers')
  })

  it('says so when only one of them is good', () => {
    const reading = readPhoneCell('0431-555772O / neu: 0176 5550 14', { country: 'DE' })
    expect(reading.verdict).toBe('doubtful')
    expect(reading.numbers.map(({ valid }) => valid)).toEqual([true, false])
  })

  it('lists the same number once', () => {
    expect(numbersOf('07911 204481 / +44 7911 204481', 'GB')).toEqual(['+447911204481'])
  })
})

describe('cells without a number', () => {
  it.each([
    '',
    '   ',
    'N/A',
    'n.a.',
    '-',
    '—',
    'none',
    'unknown',
    'keine',
    '?',
    '()',
    'unlisted',
    'No mobile',
    'pas de téléphone',
  ])('%j is empty', (raw) => {
    expect(readPhoneCell(raw, { country: 'GB' })).toEqual({ verdict: 'empty', numbers: [], repairs: [], problem: null })
  })

  it.each([
    '0000000000',
    '1234567890',
    '9876543210',
    '11111',
    '(415) 555-0123',
    '555-0123',
    '07700 900123',
    '+1 212 555 1212',
    '07000000000',
    '+33 6 11 11 11 11',
    '+44 7777 777777',
  ])('%s is a placeholder', (raw) => {
    expect(readPhoneCell(raw, { country: raw.startsWith('077') ? 'GB' : 'US' })).toMatchObject({
      verdict: 'placeholder',
      numbers: [],
    })
  })

  it.each<[string, string, Problem]>([
    ['020 7946 0xxx', 'GB', 'masked'],
    ['+1 415 *** 1234', 'US', 'masked'],
    ['4.47912E+11', 'GB', 'digits-lost'],
    ['6,12551E+08', 'FR', 'digits-lost'],
    ['2026-05-03', 'DE', 'date'],
    ['03.05.2026', 'DE', 'date'],
    ['03/05/26 10:30', 'GB', 'date'],
    ['4111 1111 1111 1111', 'GB', 'card'],
    ['192.168.1.10', 'FR', 'ip-address'],
    ['maren@postbox.example', 'GB', 'email'],
    ['ORD-2026-00417', 'US', 'reference-number'],
    ['ATU12345678', 'AT', 'reference-number'],
    ['Invoice 20931774', 'GB', 'reference-number'],
    ['447911204481', '', 'no-country'],
    ['99', 'GB', 'too-short'],
    ['ask at reception', 'GB', 'no-digits'],
    ['9'.repeat(600), 'GB', 'cell-too-long'],
  ])('%s in %s: %s', (raw, country, problem) => {
    expect(readPhoneCell(raw, { country: country || null })).toMatchObject({
      verdict: 'unreadable',
      numbers: [],
      problem,
    })
  })

  it('lists a number that is possible but not valid, as such', () => {
    const reading = readPhoneCell('+44 7700 551302', { country: 'GB' })
    expect(reading).toMatchObject({ verdict: 'doubtful', problem: 'not-in-plan' })
    expect(reading.numbers).toMatchObject([{ e164: '+447700551302', valid: false, possible: true }])
  })
})

describe('what no repair may touch', () => {
  it.each([
    ['a number of four pairs with dots', '20.30.40.50', 'DK', '+4520304050'],
    ['an international number that starts like the own code', '+49 4315 552973', 'DE', '+494315552973'],
  ])('%s', (_, raw, country, e164) => {
    expect(numbersOf(raw, country)).toEqual([e164])
  })

  it('never adds a digit that was not there', () => {
    for (const raw of ['7911204481', '+44 (0)1665 555018', 'O7911 2O4481', '0044 7911 204481']) {
      const digits = numbersOf(raw, 'GB')[0]?.slice(3) ?? ''
      expect(raw.replace(/O/g, '0').replace(/\D/g, '')).toContain(digits)
    }
  })

  it('gives back the same reading for what it has read', () => {
    const verdicts: Verdict[] = []
    for (const raw of ['Mob: 07911-204481', '0044 7911 204481', '7911204481']) {
      const [first] = numbersOf(raw, 'GB')
      verdicts.push(readPhoneCell(first ?? '', { country: 'FR' }).verdict)
      expect(numbersOf(first ?? '', 'FR')).toEqual([first])
    }
    expect(verdicts).toEqual(['clean', 'clean', 'clean'])
  })
})

describe('the quick reading', () => {
  // Every shape of sign between digits, with every dialling prefix, in countries with and without a trunk zero.
  const numbers = [
    '7911204481',
    '1715550914',
    '612550918',
    '2125557781',
    '30125557',
    '4121234',
    '0612345678',
    '3055512345',
  ]
  const prefixes = ['', '0', '+44', '+49', '0044', '011', '44', '+1', '+33 0', '4949']
  const shapes = [
    (digits: string) => digits,
    (digits: string) => digits.replace(/^(\d{3})(\d{3})/, '$1 $2 '),
    (digits: string) => digits.replace(/^(\d{4})/, '$1-'),
    (digits: string) => digits.replace(/(\d{2})/g, '$1.'),
    (digits: string) => `${digits}.0`,
    (digits: string) => digits.replace(/^(\d{3})/, '$1  '),
    (digits: string) => digits.replace(/^(\d{2})(\d{2})/, '$1.$2.'),
    (digits: string) => `'${digits}`,
    (digits: string) => `Mob: ${digits}`,
    (digits: string) => `Tel.: ${digits}`,
    (digits: string) => `TEL-${digits}`,
    (digits: string) => `tel:${digits}`,
    (digits: string) => `or ${digits}`,
    (digits: string) => `x ${digits}`,
    (digits: string) => `${digits} (mobile)`,
    (digits: string) => `${digits} office`,
    (digits: string) => `${digits} ext. 12`,
    (digits: string) => `${digits}x7`,
    (digits: string) => `${digits} x`,
    (digits: string) => `${digits}.00`,
    (digits: string) => `(${digits.slice(0, 4)}) ${digits.slice(4)}`,
    (digits: string) => digits.replace(/^(\+?\d{2})/, '$1 (0)'),
    (digits: string) => digits.replace(/^0/, 'O'),
    (digits: string) => digits.replace(/0/g, 'O').replace(/1/g, 'l'),
    (digits: string) => digits.replace(/^(\d{4})/, '$1 o '),
    (digits: string) => digits.replace(/^(\d{3,5})(\d{3})/, '$1\u00a0$2\u2009'),
    (digits: string) => digits.replace(/\d/g, (digit) => String.fromCharCode(0x660 + Number(digit))),
    (digits: string) => digits.replace(/\d/g, (digit) => String.fromCharCode(0xff10 + Number(digit))),
    (digits: string) => `${digits} / ${digits.slice(0, -1)}3`,
    (digits: string) => `${digits}/${digits}`,
    (digits: string) => `${digits} / 12`,
    (digits: string) => `${digits.slice(0, 5)}/${digits.slice(5)}`,
    (digits: string) => `${digits.slice(0, 7)}/${digits.slice(7)}`,
    (digits: string) => `${digits} / ${digits} / ${digits}`,
    (digits: string) => ` ${digits} `,
    (digits: string) => `${digits})`,
    (digits: string) => `${digits}.`,
    (digits: string) => `-${digits}`,
    (digits: string) => `++${digits}`,
    (digits: string) => `${digits}+`,
    (digits: string) => `(+${digits.replace('+', '')})`,
  ]
  const cells = prefixes.flatMap((prefix) => numbers.flatMap((number) => shapes.map((shape) => shape(prefix + number))))

  it('comes to the same as the full one wherever it decides', () => {
    const countries = ['GB', 'DE', 'FR', 'US', 'ES', 'IT', 'DK', null]
    const pairs = countries.flatMap((country) =>
      cells.map((cell) => ({ cell, country, quick: readQuick(cell, homeOf(country)) })),
    )
    const decided = pairs.filter(({ quick }) => quick !== null)
    expect(decided.length).toBeGreaterThan(5000)
    const different = decided.filter(
      ({ cell, country, quick }) => JSON.stringify(quick) !== JSON.stringify(readFully(cell, homeOf(country))),
    )
    expect(different).toEqual([])
  })
})
