import { describe, expect, it } from '@jest/globals'
import { lettersAsDigits, nearestFixes, readPhoneCell } from '../../src/phone'
import { compileRoutine, proposeRoutine } from '../../src/tidy'
import { below, COUNTRIES, numbersOf, writtenForms } from './numbersOfPlan'

const NUMBERS = 20

/** Numbers as they are written, one digit of each as a letter that looks like it: not before the place `from`. */
function* withLetter(letters: Readonly<Record<string, string>>, from: number, seed: number) {
  const random = below(seed)
  for (const country of COUNTRIES)
    for (const { e164 } of numbersOf(country, NUMBERS, random))
      for (const form of writtenForms(e164)) {
        const digits = [...form.matchAll(/\d/g)].slice(from)
        const places = digits.flatMap(({ 0: digit, index }) => (digit in letters ? [index] : []))
        if (places.length === 0) continue
        const at = places[random(places.length)] ?? 0
        yield { cell: form.slice(0, at) + letters[form[at] ?? ''] + form.slice(at + 1), e164, country }
      }
}

describe('a letter that looks like a digit', () => {
  it.each([
    ['upper case', { 0: 'O', 1: 'I' }],
    ['lower case', { 0: 'o', 1: 'l' }],
  ])('is read as that digit wherever it stands, in %s; never as another number in silence', (_, letters) => {
    const [asked, others] = [[] as string[], [] as string[]]
    let cells = 0
    for (const { cell, e164, country } of withLetter(letters, 0, 5)) {
      cells++
      const { numbers, problem } = readPhoneCell(cell, { country })
      if (numbers[0]?.e164 !== e164) others.push(`${country} ${cell}`)
      // Where all digits without the letter are a number too, a person is asked.
      else if (problem === 'two-readings') asked.push(`${country} ${cell}`)
      else if (problem !== null) others.push(`${country} ${cell}: ${problem}`)
    }
    expect(others).toEqual([])
    expect(cells).toBeGreaterThan(3000)
    expect(asked.length / cells).toBeLessThan(0.01)
  })

  it('is proposed as that digit where it looks less like it', () => {
    const without: string[] = []
    let cells = 0
    for (const { cell, e164, country } of withLetter({ 2: 'Z', 5: 'S', 6: 'b', 8: 'B', 9: 'g' }, 1, 6)) {
      cells++
      const found = nearestFixes(cell, country).some(
        ({ kind, text }) => kind === 'letter-for-digit' && readPhoneCell(text, { country }).numbers[0]?.e164 === e164,
      )
      if (!found) without.push(`${country} ${cell} ${JSON.stringify(nearestFixes(cell, country))}`)
    }
    expect(without).toEqual([])
    expect(cells).toBeGreaterThan(2000)
  })

  it.each([
    ['O6 7l 29 4S 88', 'FR', '06 71 29 45 88'],
    ['O7911-ZO4481', 'GB', '07911-204481'],
    ['B00123456', 'GB', null],
    ['ask Bob', 'GB', null],
  ])('tells what is meant where most of %s are letters', (cell, country, meant) => {
    expect(lettersAsDigits(cell, country)).toEqual(meant === null ? [] : [{ kind: 'letter-for-digit', text: meant }])
    const mapping = ['number'] as const
    const tidier = compileRoutine(
      proposeRoutine(mapping),
      { mapping, headings: ['Phone'] },
      { defaultCountry: country },
    )
    if (meant !== null) expect(tidier.tidy([cell]).hand[0]?.fixes[0]?.text).toBe(meant)
  })

  it('begins the number of an order or a customer, where it looks less like a digit', () => {
    expect(nearestFixes('B00123456', 'GB')).toEqual([])
    expect(nearestFixes('S12 345 6789', 'GB').map(({ kind }) => kind)).not.toContain('letter-for-digit')
  })

  it.each([
    ['ES', '612 345 678 o 911 234 567', ['+34612345678', '+34911234567']],
    ['FR', '06 71 29 45 88 o 06 71 29 45 89', ['+33671294588', '+33671294589']],
  ])('is a word where it stands by itself: %s %s', (country, cell, e164s) => {
    expect(readPhoneCell(cell, { country }).numbers.map(({ e164 }) => e164)).toEqual(e164s)
  })
})
