import { describe, expect, it } from '@jest/globals'
import { compileRoutine, proposeRoutine } from '../../src/tidy'

const mapping = ['full-name', 'number', 'email', 'city', 'postal-code', 'country'] as const
const layout = { mapping, headings: ['a', 'b', 'c', 'd', 'e', 'f'] }
const read = (cells: readonly string[], defaultCountry: string | null = null) => {
  const { numbers, values } = compileRoutine(proposeRoutine(mapping), layout, { defaultCountry }).tidy(cells)
  return [values.country, ...numbers.filter(({ valid }) => valid).map(({ e164 }) => e164)]
}

describe('the country of a row that names none, in a list of several', () => {
  it.each([
    [
      ['Ann Hill', '07911 204481', 'ann@hill.co.uk', 'Oxford', 'OX1 2JD', ''],
      ['GB', '+447911204481'],
    ],
    [
      ['Jan Krug', '0171 2345678', 'jan@krug.de', 'München', '80331', ''],
      ['DE', '+491712345678'],
    ],
    [
      ['Léa Petit', '06 12 34 56 78', 'lea@petit.fr', 'Toulouse', '31000', ''],
      ['FR', '+33612345678'],
    ],
    [
      ['Jan de Wit', '06-12345678', '', 'Utrecht', '3511 KX', ''],
      ['NL', '+31612345678'],
    ],
  ])('%j', (cells, expected) => expect(read(cells)).toEqual(expected))

  it.each([
    ['of the same country', '+49 30 901820', ['DE', '+4930901820', '+491712345678']],
    ['of another', '+41 44 668 18 00', ['CH', '+41446681800']],
    ['of two', '+49 30 901820, +41 44 668 18 00', ['DE', '+4930901820', '+41446681800']],
  ])('is told by its town together with a number that has the code %s', (_, coded, expected) => {
    const columns = ['number', 'number', 'city'] as const
    const tidier = compileRoutine(proposeRoutine(columns), { mapping: columns, headings: ['a', 'b', 'c'] }, {})
    const { numbers, values } = tidier.tidy([coded, '0171 2345678', 'München'])
    expect([values.country, ...numbers.filter(({ valid }) => valid).map(({ e164 }) => e164)]).toEqual(expected)
  })

  it('is proposed for a number that is none in the country of the batch', () => {
    const tidier = compileRoutine(proposeRoutine(mapping), layout, { defaultCountry: 'FR' })
    const [cell] = tidier.tidy(['Jan Krug', '0171 2345678', 'jan@krug.de', 'München', '80331', '']).hand
    expect(cell?.fixes[0]).toEqual({ kind: 'other-country', text: '+491712345678' })
  })

  it.each([
    ['one thing alone tells', ['Jan Krug', '0171 2345678', 'jan@krug.de', '', '', '']],
    ['things contradict each other', ['Jan Krug', '0171 2345678', 'jan@krug.de', 'Oxford', 'OX1 2JD', '']],
    ['the ending is anybody’s', ['Jan Krug', '0171 2345678', 'jan@krug.io', 'München', '', '']],
  ])('is left open where %s', (_, cells) => expect(read(cells)).toEqual(['']))

  it('gives way to what the row names, and to the country of the batch', () => {
    const cells = ['Jan Krug', '0171 2345678', 'jan@krug.de', 'München', '80331', '']
    expect(read([...cells.slice(0, 5), 'Austria'])[0]).toBe('AT')
    expect(read(cells, 'AT')[0]).toBe('AT')
  })
})
