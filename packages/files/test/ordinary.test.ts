import { describe, expect, it } from '@jest/globals'
import { compileRoutine, proposeRoutine } from '@upper-field/core/tidy'
import { openFile, readFileRows, sourceOfBytes } from '../src'
import { ORDINARY, type OrdinaryFile } from './ordinary'

const bringIn = async ({ what, text }: Pick<OrdinaryFile, 'what' | 'text'>) => {
  const source = sourceOfBytes(new TextEncoder().encode(text))
  const opened = await openFile(source, `${what}.csv`)
  if (opened.status !== 'opened') throw new Error(`${what}: ${opened.problem}`)
  const { suggestions, headings, country } = opened.table
  const mapping = suggestions.map(({ field }) => field)
  const tidier = compileRoutine(proposeRoutine(mapping), { mapping, headings }, { defaultCountry: country.suggested })
  const rows = []
  for await (const { judged } of readFileRows(source, opened)) rows.push(judged)
  const contacts = rows.flatMap((row) => (row.status === 'read' ? [tidier.tidy(row.cells)] : []))
  return { country, mapping, contacts, held: rows.filter(({ status }) => status === 'held').length }
}

describe('ordinary files', () => {
  it('are twenty, of twelve countries at least', () => {
    expect(ORDINARY).toHaveLength(20)
    expect(new Set(ORDINARY.map(({ country }) => country)).size).toBeGreaterThanOrEqual(12)
  })

  it.each(ORDINARY.map((file) => [file.what, file] as const))('%s: comes in without a correction', async (_, file) => {
    const { country, mapping, contacts, held } = await bringIn(file)
    expect(mapping).toEqual(file.fields)
    expect([country.suggested, country.why]).toEqual([file.country, expect.anything()])
    expect(held).toBe(0)
    expect(contacts.flatMap(({ numbers }) => numbers.map(({ e164 }) => e164))).toEqual(file.numbers)
  })
})

describe('files that are hard to understand', () => {
  it('of numbers only: read under the country their plan tells, or under none', async () => {
    const { country, mapping, contacts, held } = await bringIn({
      what: 'numbers',
      text: '415-555-2671\n(305) 555-8123\n617-555-3344\n212-555-7788\n',
    })
    expect([country.suggested, mapping, held]).toEqual(['US', ['number'], 0])
    expect(contacts).toHaveLength(4)
  })

  it('of three countries in one column: no country is proposed, and it is said that rows differ', async () => {
    const text =
      'Name,Phone\nA B,07400 123456\nC D,07400 123457\nE F,07400 123458\nG H,+49 171 2345678\nI J,+49 171 2345679\nK L,612 345 678\nM N,612 345 679\nO P,934 567 890\n'
    const { country, held } = await bringIn({ what: 'three', text })
    expect([country.suggested, held]).toEqual([null, 0])
    expect(country.why).not.toBe('')
  })

  it('with postal codes that say one country and numbers that say another: the numbers count, or nobody is believed', async () => {
    const text =
      'Name,Phone,Zip\nA B,020 7946 1234,94901\nC D,01865 512345,33101\nE F,07911 204481,02169\nG H,0113 496 0000,10001\n'
    const { country } = await bringIn({ what: 'torn', text })
    expect([null, 'GB']).toContain(country.suggested)
  })

  it('with headings of another language than its cells: the cells count', async () => {
    const text =
      'Vorname;Nachname;Telefon;PLZ\nLéa;Petit;06 12 34 56 78;75011\nLuc;Blanc;04 91 22 33 44;13001\nEve;Noir;01 44 55 66 77;69001\n'
    const { country, contacts } = await bringIn({ what: 'torn', text })
    expect(country.suggested).toBe('FR')
    expect(contacts.flatMap(({ numbers }) => numbers)).toHaveLength(3)
  })

  it('that change their shape half-way: what fits is read, what does not is held, none is lost', async () => {
    const text =
      'Name,Phone,Postcode\nAnn Hill,07911 204481,YO1 7HH\nBen Cole,020 7946 1234,W1A 1AA\nCy;01865 512345;OX1 2JD\nDi;07911 204484;LS1 4AP\nx,y,z,1,2,3\n'
    const { contacts, held } = await bringIn({ what: 'turned', text })
    expect([contacts.length, held]).toEqual([4, 1])
    expect(contacts.flatMap(({ numbers }) => numbers)).toHaveLength(4)
  })
})
