import { describe, expect, it } from '@jest/globals'
import throwaways from 'disposable-email-domains-js'
import {
  inSpokenOrder,
  mendCompanyCase,
  mendEmail,
  mendNameCase,
  proposeEmail,
  readDate,
  readEmails,
  readRegion,
  takeLegalForm,
  takeNameApart,
  tidyPostalCode,
  withoutDecorations,
} from '../../src/tidy'

describe('capitals of names', () => {
  it.each([
    ['PRIYA PENROSE', 'Priya Penrose'],
    ['sanne van der veen', 'Sanne van der Veen'],
    ["HAMISH O'HARA", "Hamish O'Hara"],
    ['jean-luc d’artagnan', 'Jean-Luc D’Artagnan'],
    ['ISLA MCALLISTER', 'Isla McAllister'],
    ['AOIFE MACGOWAN', 'Aoife MacGowan'],
    ['ANDREW MACKAY', 'Andrew Mackay'],
    ['JAMES WHITLOCK III', 'James Whitlock III'],
    ['ÉLODIE VAUBERT', 'Élodie Vaubert'],
  ])('%s', (was, is) => expect(mendNameCase(was)).toBe(is))

  it.each(['Priya Penrose', 'DeShawn Ito', 'JB', '李 小龍', 'Ludwig van Aken', '42'])('leaves %s alone', (name) =>
    expect(mendNameCase(name)).toBe(name),
  )
})

describe('parts of names', () => {
  it.each([
    ['Dr. Ilse Brandhofer', 'Ilse Brandhofer', 'Dr.', ''],
    ['Prof. Dr. Ilse Brandhofer', 'Ilse Brandhofer', 'Prof. Dr.', ''],
    ['Maren Oldershaw, PhD, MBA', 'Maren Oldershaw', '', 'PhD, MBA'],
    ['Maren Oldershaw MRICS', 'Maren Oldershaw', '', 'MRICS'],
    ['Delacroix-Petit, MBA', 'Delacroix-Petit', '', 'MBA'],
    ['Mrs Maren Oldershaw OBE', 'Maren Oldershaw', 'Mrs', 'OBE'],
  ])('%s', (full, name, title, credentials) => expect(takeNameApart(full)).toEqual({ name, title, credentials }))

  it.each(['Jo Ma', 'Yo-Yo Ma', 'Missy Drake', 'Drew Profitt', 'Ma Ling', 'Herrmann Krug', 'Esq'])(
    'takes nothing out of %s',
    (name) => expect(takeNameApart(name)).toEqual({ name, title: '', credentials: '' }),
  )

  it('takes ornaments out, and leaves letters of every script', () => {
    expect(withoutDecorations('🌱 Ramona ★ Bright (she/her)')).toBe('Ramona Bright')
    expect(withoutDecorations('"Jürgen" Krug™')).toBe('Jürgen" Krug')
    expect(withoutDecorations('李 小龍')).toBe('李 小龍')
  })

  it('turns a surname in front round, once', () => {
    expect(inSpokenOrder('Oldershaw, Maren')).toBe('Maren Oldershaw')
    expect(inSpokenOrder('Oldershaw, Maren, MBA')).toBe('Oldershaw, Maren, MBA')
  })
})

describe('companies', () => {
  it.each([
    ['Larkrise Lodge Ltd', 'Larkrise Lodge', 'Ltd'],
    ['Hollowell GmbH & Co. KG', 'Hollowell', 'GmbH & Co. KG'],
    ['Birch S.A.R.L.', 'Birch', 'S.A.R.L.'],
    ['Garden Co., Ltd.', 'Garden', 'Co., Ltd.'],
    ['Krug e.K.', 'Krug', 'e.K.'],
    ['Weide UG (haftungsbeschränkt)', 'Weide', 'UG (haftungsbeschränkt)'],
    ['THE GREEN BARN LIMITED', 'THE GREEN BARN', 'LIMITED'],
  ])('%s', (company, name, form) => expect(takeLegalForm(company)).toEqual({ name, form }))

  it.each(['Texas', 'Sealink', 'Company', 'Unlimited', 'Villa Spa', 'X Ltd', 'Le Bouquet', 'Ag Supplies'])(
    'leaves %s whole',
    (company) => {
      const { name } = takeLegalForm(company)
      // A spa is a spa in most languages; only where nothing but the form is left must it stay.
      if (company !== 'Villa Spa') expect(name).toBe(company)
    },
  )

  it.each([
    ['THE GREEN BARN', 'The Green Barn'],
    ['café am wehr', 'Café am Wehr'],
    ['BBC NORTH', 'BBC North'],
    ['IKT', 'IKT'],
    ['deLuxe Camping', 'deLuxe Camping'],
    ["O'REILLY'S PUB", "O'Reilly's Pub"],
    ['MCDONOUGH & SONS', 'McDonough & Sons'],
    ["l'étoile du nord", "L'Étoile du Nord"],
    ["ANN'S BAKERY", "Ann's Bakery"],
  ])('writes %s as %s', (was, is) => expect(mendCompanyCase(was)).toBe(is))
})

describe('e-mails', () => {
  const HOSTS = new Set(['brightmail.example', 'hearth.example'])

  it.each([
    ['anna (at) krug.example', 'anna@krug.example'],
    ['anna@ krug . example', 'anna@krug.example'],
    ['anna@@krug.example', 'anna@krug.example'],
    ['anna@krug,com', 'anna@krug.com'],
  ])('mends %s', (was, is) => expect(mendEmail(was)).toBe(is))

  it.each(['anna@krug.example', 'ask at reception', 'none', '@', 'a@b'])('leaves %s alone', (cell) =>
    expect(mendEmail(cell)).toBeNull(),
  )

  it.each([
    ['anna@birghtmail.example', 'anna@brightmail.example'],
    ['anna@brightmal.example', 'anna@brightmail.example'],
    ['anna@gmial.com', 'anna@gmail.com'],
    ['anna@krug.con', 'anna@krug.com'],
  ])('proposes for %s', (address, meant) => expect(proposeEmail(address, HOSTS)).toBe(meant))

  it('proposes no host that the list is not at', () => expect(proposeEmail('anna@birghtmail.example')).toBeNull())

  it.each(['anna@brightmail.example', 'anna@mail.com', 'anna@krug.example', 'anna@krug.de'])(
    'proposes nothing for %s',
    (address) => expect(proposeEmail(address, HOSTS)).toBeNull(),
  )
})

describe('places', () => {
  it.each([
    ['4108', 'DE', '04108', 'zero'],
    ['941', 'US', '00941', 'zero'],
    ['94107-1234', 'US', '94107', 'form'],
    ['ne697bp', 'GB', 'NE69 7BP', 'form'],
    ['D-24103', 'DE', '24103', 'form'],
    ['1012ab', 'NL', '1012 AB', 'form'],
  ])('%s in %s', (written, country, code, repair) =>
    expect(tidyPostalCode(written, country)).toMatchObject({ code, repair }),
  )

  it.each([
    ['24103', 'DE'],
    ['NE69 7BP', 'GB'],
    ['123', 'CH'],
    ['12', 'DE'],
    ['1234567', 'DE'],
    ['4108', ''],
  ])('leaves %s in %s as it is', (written, country) =>
    expect(tidyPostalCode(written, country)).toEqual({ code: written, repair: null, extension: '', doubted: '' }),
  )

  it('keeps the longer part of an American code apart', () =>
    expect(tidyPostalCode('94107-1234', 'US').extension).toBe('1234'))

  it('knows subdivisions by name and by code', () => {
    expect(readRegion('California', 'US')).toBe('US-CA')
    expect(readRegion('ca', 'US')).toBe('US-CA')
    expect(readRegion('Bayern', 'DE')).toBe('DE-BY')
    expect(readRegion('DE-BY', 'DE')).toBe('DE-BY')
    expect(readRegion('California', 'DE')).toBeNull()
    expect(readRegion('California', '')).toBeNull()
  })
})

describe('dates', () => {
  it.each([
    ['3/5/2026', 'day-first', '2026-05-03'],
    ['3/5/2026', 'month-first', '2026-03-05'],
    ['13/5/2026', 'month-first', '2026-05-13'],
    ['13.5.26', 'day-first', '2026-05-13'],
    ['2026-5-3', 'day-first', '2026-05-03'],
    ['3.5.1978 9:05', 'day-first', '1978-05-03T09:05'],
    ['26-05-03', 'year-first', '2026-05-03'],
  ] as const)('%s, %s', (text, order, date) => expect(readDate(text, order)).toBe(date))

  it.each(['2026-02-30', '32.1.2026', 'May', '', '1.2', '07911 204481'])('is none: %s', (text) =>
    expect(readDate(text, 'day-first')).toBeNull(),
  )
})

describe('addresses made for an hour', () => {
  const [listed = ''] = throwaways.disposableEmailBlocklist()

  it('are told from others, with their subdomains', () => {
    expect(readEmails(`maren@${listed}`)).toEqual([{ address: `maren@${listed}`, kind: 'throwaway' }])
    expect(readEmails(`info@mail.${listed}`)[0]?.kind).toBe('throwaway')
  })

  it('are no others that end alike', () => {
    expect(readEmails(`maren@not${listed}.example`)[0]?.kind).toBe('work')
  })
})
