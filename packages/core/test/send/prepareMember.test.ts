import { createHash } from 'node:crypto'
import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import {
  type AudienceMember,
  type AudienceShape,
  columnsOf,
  contradictionsIn,
  createMembersPreparer,
  createPreparer,
  fileNameFor,
  headingsOf,
  membersFrom,
  type PrepareOptions,
  SEND_FIELDS,
  type SendField,
} from '../../src/send'
import { csvLine } from '../../src/table'

const prepareMember = (member: AudienceMember, of: AudienceShape, options: PrepareOptions) =>
  createPreparer(of, options)(member)
const hash = (text: string) => createHash('sha256').update(text).digest('hex')
const maren: AudienceMember = {
  country: 'gb',
  numberCountry: 'GB',
  values: {
    email: ['Maren.O@Postbox.example'],
    number: ['+447911204481'],
    'given-name': [' Maren '],
    'family-name': ['OLDERSHAW'],
    'postal-code': ['ne69 7bp'],
  },
}
const NAME = ['trim', 'one-space', 'compose', 'lower']
const column = (heading: string, field: SendField, form: string[], more: object = {}) => ({
  heading,
  field,
  form,
  repeats: 1,
  isHashed: true,
  ...more,
})
const shape: AudienceShape = {
  takes: 'people',
  columns: [
    column('letters', 'email', ['trim', 'lower'], { repeats: 3 }),
    column('lines', 'number', ['e164'], { repeats: 3 }),
    column('first', 'given-name', NAME),
    column('last', 'family-name', NAME),
    column('post', 'postal-code', ['no-space', 'upper'], { isHashed: false }),
    column('land', 'country', ['country'], { isHashed: false }),
  ],
  rules: { everyRow: ['country'], someOf: ['email', 'number'], together: [] },
}
const cellsOf = (member: AudienceMember, of = shape, hashed: typeof hash | null = null) => {
  const prepared = prepareMember(member, of, { hash: hashed })
  return prepared.status === 'ready' ? prepared.cells : prepared.reason
}
const withValues = (values: AudienceMember['values'], more: Partial<AudienceMember> = {}): AudienceMember => ({
  ...maren,
  values: { ...maren.values, ...values },
  ...more,
})

/** The same members field by field: who has one value has it as a text. */
describe('an audience as it is declared', () => {
  it('repeats its columns as often as they may be filled', () =>
    expect(headingsOf(shape)).toEqual([
      ...Array<string>(3).fill('letters'),
      ...Array<string>(3).fill('lines'),
      'first',
      'last',
      'post',
      'land',
    ]))

  it('has its normal forms when plain', () =>
    expect(cellsOf(maren)).toEqual([
      'maren.o@postbox.example',
      '',
      '',
      '+447911204481',
      '',
      '',
      'maren',
      'oldershaw',
      'NE697BP',
      'GB',
    ]))

  it.each(['=2+5', '+cmd|x', '-1+1', '@sum(a1)', '\t=1', '\r=1'])(
    'makes %j harmless in every plain cell but a number, which stays as it is compared',
    (odd) => {
      const all = withValues({
        'given-name': [odd],
        'family-name': [odd],
        'postal-code': [odd],
        email: [`${odd}@x.example`],
      })
      const cells = cellsOf(all) as readonly string[]
      expect(cells).toHaveLength(10)
      expect(cells.filter((cell) => /^[=+\-@\t\r]/.test(cell))).toEqual(['+447911204481'])
    },
  )

  it('hashes the normal forms as lower-case hex, and nothing that is blank', () => {
    const cells = cellsOf(maren, shape, hash) as readonly string[]
    // As sha256sum of coreutils prints them.
    expect(cells[0]).toBe('7d8259d3a284a55b1d2b4ccdf5641a488ebf39a98b0152be6183d9ad8c42c70d')
    expect(cells[3]).toBe('8f4dbc3c97f690bc85b85ad982567dfa9f9aef13c2d3bcc73e9e48bb0a2c596c')
    expect(cells.slice(1, 3)).toEqual(['', ''])
    expect(cells).not.toContain(hash(''))
    expect(cells.slice(8)).toEqual(['NE697BP', 'GB'])
  })

  it('takes the country from the number, and says so', () =>
    expect(prepareMember({ ...maren, country: '' }, shape, { hash: null })).toMatchObject({
      status: 'ready',
      mends: [{ what: 'country-from-number' }],
    }))

  it('leaves out whom it cannot match, with the reason', () => {
    expect(cellsOf(withValues({ email: [], number: [''] }))).toEqual({ why: 'nothing-to-match' })
    expect(cellsOf({ ...maren, country: '', numberCountry: null })).toEqual({ why: 'missing', field: 'country' })
    expect(cellsOf({ ...maren, country: 'Nowhere' })).toEqual({ why: 'missing', field: 'country' })
  })

  it('sends each value once, and no more than fit', () =>
    expect(
      cellsOf(withValues({ email: ['a@x.example', 'A@x.example', 'b@x.example', 'c@x.example', 'd@x.example'] })),
    ).toEqual(expect.arrayContaining(['a@x.example', 'b@x.example', 'c@x.example', ''])))

  it('tells a value that its form cannot read, and leaves it blank', () =>
    expect(prepareMember(withValues({ number: ['no number'] }), shape, { hash: null })).toMatchObject({
      status: 'ready',
      mends: [{ what: 'unreadable', field: 'number' }],
    }))

  it('has all of a group or none of it, but for what stands on every row', () => {
    const group: SendField[] = ['given-name', 'family-name', 'postal-code', 'country']
    const grouped = { ...shape, rules: { ...shape.rules, together: [group] } }
    const cells = cellsOf(withValues({ 'postal-code': [''] }), grouped) as readonly string[]
    expect(cells.slice(6)).toEqual(['', '', '', 'GB'])
    const free = { ...grouped, rules: { ...grouped.rules, everyRow: [] } }
    expect((cellsOf(withValues({ 'postal-code': [''] }), free) as readonly string[]).slice(6)).toEqual(['', '', '', ''])
    expect((cellsOf(maren, grouped) as readonly string[]).slice(6)).toEqual(['maren', 'oldershaw', 'NE697BP', 'GB'])
  })

  it('can hold one field in two forms', () => {
    const both = { ...shape, columns: [...shape.columns, column('year', 'email', ['no-tag', 'lower'])] }
    const cells = cellsOf(withValues({ email: ['Maren+x@heron.example'] }), both) as readonly string[]
    expect([cells[0], cells.at(-1)]).toEqual(['maren+x@heron.example', 'maren@heron.example'])
  })

  it('makes of many what it makes of each by itself, whoever came before', () => {
    const text = fc.constantFrom(
      '',
      ' ',
      'Ås',
      'ÅS',
      'm@heron.example',
      '+447911204481',
      '07911 204481',
      '=1',
      '1.2.1990',
    )
    const one = fc.record({
      country: fc.constantFrom('', 'GB', 'de', 'US'),
      numberCountry: fc.constantFrom(null, 'GB'),
      values: fc.dictionary(fc.constantFrom(...SEND_FIELDS), fc.array(text, { maxLength: 3 })),
    })
    const dated = { ...shape, columns: [...shape.columns, column('born', 'birth-date', ['date:YYYYMMDD'])] }
    fc.assert(
      fc.property(fc.array(one, { maxLength: 8 }), fc.boolean(), (many, isHashed) => {
        const options = { hash: isHashed ? hash : null }
        const prepare = createPreparer(dated, options)
        for (const each of many as AudienceMember[]) expect(prepare(each)).toEqual(prepareMember(each, dated, options))
      }),
    )
    fc.assert(
      fc.property(fc.array(one, { maxLength: 8 }), fc.boolean(), (many, isHashed) => {
        const members = many as AudienceMember[]
        const options = { hash: isHashed ? hash : null }
        const prepared = createMembersPreparer(dated, options)(columnsOf(members))
        for (const [at, member] of members.entries()) {
          const alone = prepareMember(member, dated, options)
          expect(prepared.leftOutAt(at)).toEqual(alone.status === 'ready' ? null : alone.reason)
          expect(prepared.mendsAt(at)).toEqual(alone.mends)
          if (alone.status === 'ready')
            expect([prepared.cellsAt(at), prepared.lineAt(at)]).toEqual([alone.cells, csvLine(alone.cells)])
        }
      }),
    )
  })

  it('makes of some of many what it makes of them among all', () => {
    const one = fc.record({
      country: fc.constantFrom('', 'GB', 'DE'),
      numberCountry: fc.constantFrom(null, 'GB'),
      values: fc.dictionary(fc.constantFrom(...SEND_FIELDS), fc.array(fc.constantFrom('', 'Ås', '07911 204481'))),
    })
    const place = fc.nat({ max: 9 })
    fc.assert(
      fc.property(fc.array(one, { maxLength: 8 }), place, place, (many, from, to) => {
        const prepare = createMembersPreparer(shape, { hash: null })
        const members = columnsOf(many as AudienceMember[])
        const [all, some] = [prepare(members), membersFrom(members, from, to)]
        const prepared = prepare(some)
        expect(some.size).toBe(many.slice(from, to).length)
        for (let at = 0; at < some.size; at++)
          expect([prepared.leftOutAt(at), prepared.mendsAt(at), prepared.lineAt(at)]).toEqual([
            all.leftOutAt(from + at),
            all.mendsAt(from + at),
            all.lineAt(from + at),
          ])
      }),
    )
  })

  it('never hashes what is blank, never breaks a rule, and has as many cells as headings', () => {
    const text = fc.constantFrom('', ' ', 'Ås', 'maren@heron.example', '+447911204481', 'GB', '0', '=1')
    const member = fc.record({
      country: fc.constantFrom('', 'GB', 'de', 'Nowhere'),
      numberCountry: fc.constantFrom(null, 'GB'),
      values: fc.dictionary(fc.constantFrom(...SEND_FIELDS), fc.array(text, { maxLength: 4 })),
    })
    fc.assert(
      fc.property(member, fc.boolean(), (one, isHashed) => {
        const cells = cellsOf(one as AudienceMember, shape, isHashed ? hash : null)
        if (!Array.isArray(cells)) return
        expect(cells).toHaveLength(headingsOf(shape).length)
        expect(cells).not.toContain(hash(''))
        expect(cells.at(-1)).toMatch(/^[A-Z]{2}$/)
        expect(cells.slice(0, 6).some((cell) => cell !== '')).toBe(true)
      }),
    )
  })
})

describe('a shape that contradicts itself', () => {
  const messages = (more: Partial<AudienceShape>) =>
    contradictionsIn({ ...shape, ...more }).map(({ message }) => message)
  it('is told what is wrong', () => {
    expect(messages({})).toEqual([])
    expect(messages({ rules: { ...shape.rules, everyRow: ['city'] } })).toEqual([
      '"city" is asked for, and no column holds it.',
    ])
    expect(messages({ rules: { ...shape.rules, someOf: [] } })).toHaveLength(1)
    expect(messages({ rules: { ...shape.rules, together: [['country']] } })).toHaveLength(1)
    const [first] = shape.columns
    expect(first && messages({ columns: [...shape.columns, first] })).toEqual([
      'Two columns are headed "letters": say "repeats" instead.',
      '"email" stands there twice in the same form.',
    ])
  })
})

describe('files', () => {
  it('have plain, dated names', () => {
    const date = new Date('2026-11-23T23:30:00Z')
    expect(fileNameFor('Autumn terraces', 'brassbell hashed', date)).toBe(
      'autumn-terraces-brassbell-hashed-2026-11-23.csv',
    )
    expect(fileNameFor('Café / Été ../x', 'contacts', date)).toBe('cafe-ete-x-contacts-2026-11-23.csv')
    expect(fileNameFor('列', '', date)).toBe('list-2026-11-23.csv')
  })
})
