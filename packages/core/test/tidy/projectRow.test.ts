import { describe, expect, it } from '@jest/globals'
import type { Mapping } from '../../src/table'
import { projectRow, readCountry, readDomain, readEmails, readProfile, splitName } from '../../src/tidy'

describe('names', () => {
  it.each([
    ['Maren Oldershaw', 'Maren', 'Oldershaw'],
    ['Oldershaw, Maren', 'Maren', 'Oldershaw'],
    ['Sanne van der Veen', 'Sanne', 'van der Veen'],
    ['Dr. Ilse Brandhofer', 'Ilse', 'Brandhofer'],
    ['Krug', '', 'Krug'],
    ['  Jean   Pierre  Vaubert ', 'Jean Pierre', 'Vaubert'],
  ])('%s', (full, given, family) => expect(splitName(full)).toEqual({ given, family }))
})

describe('e-mails', () => {
  it.each([
    ['  Maren.O@GMX.net ', [{ address: 'maren.o@gmx.net', kind: 'personal' }]],
    ['<info@causeway.example>', [{ address: 'info@causeway.example', kind: 'role' }]],
    ['mailto:m.oldershaw@causeway.example', [{ address: 'm.oldershaw@causeway.example', kind: 'work' }]],
    [
      'a@b.example; c@d.example',
      [
        { address: 'a@b.example', kind: 'work' },
        { address: 'c@d.example', kind: 'work' },
      ],
    ],
    ['a\u200b@b.example', [{ address: 'a@b.example', kind: 'work' }]],
    ['no address', []],
    ['a@b', []],
    ['a..b@c.example', []],
    [`${'x'.repeat(65)}@c.example`, []],
  ])('%j', (cell, emails) => expect(readEmails(cell)).toEqual(emails)) // prettier-ignore
})

describe('countries', () => {
  it.each([
    ['UK', 'GB'],
    ['United Kingdom', 'GB'],
    ['Großbritannien', 'GB'],
    ['Deutschland', 'DE'],
    ['Germany', 'DE'],
    ['Österreich', 'AT'],
    ['Pays-Bas', 'NL'],
    ['U.S.A.', 'US'],
    ['DEU', 'DE'],
    ['fr', 'FR'],
    ['Narnia', null],
    ['', null],
  ])('%s is %s', (text, code) => expect(readCountry(text)).toBe(code))
})

describe('addresses of the web', () => {
  it('come down to the registrable domain', () => {
    expect(readDomain('https://www.shop.causeway.co.uk/x?y')).toBe('causeway.co.uk')
    expect(readDomain('a@mail.causeway.example')).toBe('causeway.example')
    expect(readDomain('not a site')).toBeNull()
  })
  it('lose scheme, www and tracking', () => {
    expect(readProfile('https://www.rollcall.example/p/maren-1/?utm_source=x')).toBe('rollcall.example/p/maren-1')
    expect(readProfile('rollcall.example')).toBeNull()
  })
})

describe('projectRow', () => {
  const mapping: Mapping = ['full-name', 'company', 'number', 'number', 'email', 'country', null]
  const cells = ['Oldershaw, Maren', 'Causeway', 'n/a', '07911 204481', 'M@causeway.example', 'UK', 'extra']

  it('reads each phone cell by the row’s own country', () => {
    const contact = projectRow(cells, { mapping, defaultCountry: 'DE' })
    expect(contact.values).toMatchObject({
      givenName: 'Maren',
      familyName: 'Oldershaw',
      country: 'GB',
      domain: 'causeway.example',
    })
    expect(contact.numbers.map(({ e164 }) => e164)).toEqual(['+447911204481'])
    expect(contact.readings.map(({ column, reading }) => [column, reading.verdict])).toEqual([
      [2, 'empty'],
      [3, 'clean'],
    ]) // prettier-ignore
  })

  it('falls back on the batch’s country, then on the number’s', () => {
    const row = ['x', 'y', '0171 5550914', '', '', '', '']
    expect(projectRow(row, { mapping, defaultCountry: 'DE' }).numbers).toMatchObject([{ country: 'DE' }])
    expect(projectRow(['x', 'y', '+49 171 5550914', '', '', '', ''], { mapping }).values.country).toBe('DE')
  })

  it('gives the same contact again', () => {
    expect(projectRow(cells, { mapping })).toEqual(projectRow(cells, { mapping }))
  })

  it('bears a row shorter than its mapping', () => {
    expect(projectRow(['Maren'], { mapping }).values.fullName).toBe('Maren')
  })
})
