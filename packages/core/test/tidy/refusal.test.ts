import { describe, expect, it } from '@jest/globals'
import { compileRoutine, proposeRoutine, readRefusal } from '../../src/tidy'

describe('a remark that says no', () => {
  it.each([
    ['DO NOT CALL', 'do-not-contact'],
    ['do not contact', 'do-not-contact'],
    ["don't ring again", 'do-not-contact'],
    ['DNC', 'do-not-contact'],
    ['no calls please', 'do-not-contact'],
    ['bitte nicht anrufen', 'do-not-contact'],
    ['Keine Werbung', 'do-not-contact'],
    ['ne plus contacter', 'do-not-contact'],
    ['No llamar', 'do-not-contact'],
    ['non chiamare', 'do-not-contact'],
    ['niet meer bellen', 'do-not-contact'],
    ['não ligar', 'do-not-contact'],
    ['nie dzwonić', 'do-not-contact'],
    ['opted out', 'opted-out'],
    ['Opt-out', 'opted-out'],
    ['unsubscribed', 'opted-out'],
    ['Abgemeldet', 'opted-out'],
    ['hat Widerspruch eingelegt', 'opted-out'],
    ['désabonnée', 'opted-out'],
    ['se dio de baja', 'opted-out'],
    ['uitgeschreven', 'opted-out'],
    ['deceased', 'deceased'],
    ['verstorben', 'deceased'],
    ['décédé', 'deceased'],
    ['fallecida', 'deceased'],
    ['overleden', 'deceased'],
    ['left the company', 'left'],
    ['no longer with us', 'left'],
    ['Firma verlassen', 'left'],
    ['ausgeschieden', 'left'],
    ["a quitté l'entreprise", 'left'],
    ['ya no trabaja aquí', 'left'],
    ['uit dienst', 'left'],
  ])('%s', (cell, kind) => expect(readRefusal(cell)).toMatchObject({ kind }))

  it.each([
    ['Ann Hill (do not call)', 'do not call', 'Ann Hill'],
    ['020 7946 1234 - DO NOT CALL', 'DO NOT CALL', '020 7946 1234'],
    ['DNC: Ann Hill', 'DNC', 'Ann Hill'],
    ['Ann Hill † verstorben', 'verstorben', 'Ann Hill †'],
    ['Krug, ausgeschieden', 'ausgeschieden', 'Krug'],
  ])('comes out of %s', (cell, remark, rest) => expect(readRefusal(cell)).toMatchObject({ remark, rest }))

  it.each([
    'Ann Hill',
    'do not call before nine',
    'please do not ring on Sundays',
    'nicht anrufen vor 9 Uhr',
    'Left Bank Books',
    'Optical Ltd',
    'No Contact Sport Club',
    'Nicht & Söhne',
    'Died Rich',
    'Donna Call',
    'estate of the deceased',
    'father passed away',
    'has no mobile',
    'DNC2000',
  ])('is none: %s', (cell) => expect(readRefusal(cell)).toBeNull())

  it('is lifted out of any cell and shown in a column of its own; the number beside it is read', () => {
    const layout = { mapping: ['full-name', 'number', null] as const, headings: ['Name', 'Phone', 'Notes'] }
    const tidier = compileRoutine(proposeRoutine(layout.mapping), layout, { defaultCountry: 'GB' })
    const cells = ['Ann Hill (opted out)', '07911 204481 do not call', 'likes tea']
    const contact = tidier.tidy(cells)
    expect(contact.values.fullName).toBe('Ann Hill')
    expect(contact.numbers.map(({ e164 }) => e164)).toEqual(['+447911204481'])
    expect(Object.fromEntries(tidier.extrasOf(cells))).toEqual({
      Notes: 'likes tea',
      Refusal: 'opted out, do not call',
    })
    expect(contact.changes.filter(({ code }) => code === 'refusal')).toHaveLength(2)
  })

  it('stays where it stood when that is left out', () => {
    const layout = { mapping: ['full-name'] as const, headings: ['Name'] }
    const tidier = compileRoutine(proposeRoutine(layout.mapping), layout, {
      leftOut: new Set(['refusal', 'name-remark']),
    })
    expect(tidier.tidy(['Ann Hill (deceased)']).values.fullName).toBe('Ann Hill (deceased)')
  })
})
