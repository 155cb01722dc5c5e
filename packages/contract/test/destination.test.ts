import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from '@jest/globals'
import { headingsOf, NORMAL_STEPS, SEND_FIELDS } from '@upper-field/core/send'
import { z } from 'zod'
import { DestinationDocument } from '../src'

const ROOT = join(import.meta.dirname, '..', '..', '..')
const FOLDER = join(ROOT, 'apps', 'server', 'destinations')
const shipped = readdirSync(FOLDER).map((name) => JSON.parse(readFileSync(join(FOLDER, name), 'utf8')))

const people = {
  takes: 'people',
  columns: [
    { heading: 'letters', field: 'email', form: ['trim', 'lower'], isHashed: true },
    { heading: 'land', field: 'country', form: ['country'] },
  ],
  rules: { everyRow: ['country'], someOf: ['email'] },
}
const network = (changes: Record<string, unknown> = {}) => ({
  format: 1,
  id: 'made-up',
  name: 'Made up',
  audiences: [people],
  ...changes,
})
const problemsOf = (changes: Record<string, unknown>): string => {
  const { error } = DestinationDocument.safeParse(network(changes))
  return error ? z.prettifyError(error) : ''
}
const withColumns = (...columns: readonly object[]) => ({ audiences: [{ ...people, columns }] })

describe('a destination', () => {
  it('is four times shipped, and says what it leaves out', () => {
    const read = shipped.map((document) => DestinationDocument.parse(document))
    expect(read).toHaveLength(4)
    expect(DestinationDocument.parse(network())).toMatchObject({
      hashing: 'either',
      lapsesAfterDays: null,
      changes: 'whole',
      file: { kinds: ['csv'], mostRows: null },
      audiences: [{ columns: [{ repeats: 1 }, { isHashed: false }], rules: { together: [] } }],
    })
  })

  it('that ships has headings that are each told apart, and rules its columns can keep', () => {
    for (const document of shipped) {
      for (const shape of DestinationDocument.parse(document).audiences) {
        const fields = new Set(shape.columns.map(({ field }) => field))
        expect(new Set(shape.columns.map(({ heading }) => heading)).size).toBe(shape.columns.length)
        expect(headingsOf(shape).length).toBeGreaterThanOrEqual(shape.columns.length)
        for (const field of [...shape.rules.everyRow, ...shape.rules.someOf]) expect(fields).toContain(field)
      }
    }
  })

  it.each<[string, Record<string, unknown>, RegExp]>([
    ['of a newer version', { format: 2 }, /written for a newer version/],
    ['called as a file for people is', { id: 'people' }, /no destination/],
    ['with a heading that is a formula', withColumns({ heading: '=1+1', field: 'email' }), /formula/],
    ['without a heading', withColumns({ heading: ' ', field: 'email' }), /heading/],
    ['with an unknown step', withColumns({ heading: 'x', field: 'email', form: ['shout'] }), /no step "shout"/],
    ['with a field nobody has', withColumns({ heading: 'x', field: 'shoes' }), /audiences\[0\]/],
    ['that asks for what no column holds', withColumns(people.columns[0] ?? {}), /"country" is asked for/],
    [
      'with two columns of one heading',
      withColumns(...people.columns, { heading: 'land', field: 'city' }),
      /headed "land"/,
    ],
    ['with people twice', { audiences: [people, people] }, /declared twice/],
    [
      'that hashes always, and nothing',
      { ...withColumns({ heading: 'a', field: 'email' }), hashing: 'always' },
      /no column is|asked for/,
    ],
    ['that never hashes, and does', { hashing: 'never' }, /a column is/],
    ['with a word too much', { colour: 'red' }, /Unrecognized key/],
    ['with no audience', { audiences: [] }, /audiences/],
  ])('%s is refused, with a sentence', (_, changes, sentence) => expect(problemsOf(changes)).toMatch(sentence))

  it('is explained on its page, every field and step of it', () => {
    const page = readFileSync(join(ROOT, 'docs', 'destinations.md'), 'utf8')
    const [example = ''] = /(?<=```json\n)[^`]+/.exec(page) ?? []
    expect(DestinationDocument.parse(JSON.parse(example))).toMatchObject({ id: 'lantern' })
    for (const word of [...SEND_FIELDS, ...NORMAL_STEPS])
      expect([word, page.includes(`\`${word}\``)]).toEqual([word, true])
    for (const part of Object.keys(DestinationDocument.shape).filter(
      (name) => !['format', 'id', 'name', 'about'].includes(name),
    ))
      expect([part, page.includes(`\`${part}\``)]).toEqual([part, true])
  })
})
