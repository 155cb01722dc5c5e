import { describe, expect, it } from '@jest/globals'
import type { Mapping } from '../../src/table'
import { columnNames, compileRoutine, newStep, proposeRoutine, type Routine, type Step } from '../../src/tidy'

const HEADINGS = ['Name', 'Firm', 'Phone', 'Mobile', 'Mail', 'Country', 'Post', 'Seen', 'Stand']
const MAPPING: Mapping = ['full-name', 'company', 'number', 'number', 'email', 'country', 'postal-code', null, null]
const LAYOUT = { headings: HEADINGS, mapping: MAPPING }
const ROW = [
  'Dr. OLDERSHAW, MAREN',
  'CAUSEWAY CAMPING LTD',
  '1665555018',
  'n/a',
  ' Maren (at) causeway.example',
  'Great Britain',
  'ne697bp',
  '3/5/2026',
  'unknown',
]
const PROPOSED = proposeRoutine(MAPPING)
const withSteps = (...steps: Step[]): Routine => ({ version: 1, steps: [...PROPOSED.steps, ...steps] })
const step = <K extends Step['kind']>(kind: K, options: Partial<Extract<Step, { kind: K }>['options']>): Step =>
  ({ ...newStep(kind, `${kind}-1`), options: { ...newStep(kind, '').options, ...options } }) as Step

describe('a routine', () => {
  const tidied = compileRoutine(PROPOSED, LAYOUT).tidy(ROW)

  it('is proposed from what the columns hold', () => {
    expect(PROPOSED.steps.map(({ kind }) => kind)).toEqual([
      'letters',
      'refusals',
      'blanks',
      'numbers',
      'names',
      'company',
      'emails',
      'country',
      'postal-code',
    ])
  })

  it('brings every value into its form', () => {
    expect(tidied.values).toMatchObject({
      fullName: 'Maren Oldershaw',
      givenName: 'Maren',
      familyName: 'Oldershaw',
      company: 'Causeway Camping',
      country: 'GB',
      postalCode: 'NE69 7BP',
    })
    expect(tidied.numbers.map(({ e164 }) => e164)).toEqual(['+441665555018'])
    expect(tidied.emails.map(({ address }) => address)).toEqual(['maren@causeway.example'])
    expect(tidied.extras).toEqual(['3/5/2026', 'Dr.', 'LTD'])
  })

  it('tells every change: each begins where the one before it ended', () => {
    const last = new Map(columnNames(LAYOUT).map((name, i) => [name, ROW[i]?.trim() ?? '']))
    for (const { column, was, is } of tidied.changes) {
      expect([column, was]).toEqual([column, last.get(column)])
      last.set(column, is)
    }
    expect(tidied.changes.map(({ code }) => code)).toEqual([
      'blank-word',
      'name-title',
      'name-order',
      'name-case',
      'company-legal-form',
      'company-case',
      'email-mended',
      'country-code',
      'postal-code-form',
      'lost-zero',
      'email-form',
    ])
  })

  it('gives back exactly what was there when a step is switched off', () => {
    const off: Routine = { version: 1, steps: PROPOSED.steps.map((one) => ({ ...one, isOn: false }) as Step) }
    const plain = compileRoutine(off, LAYOUT).tidy(ROW)
    expect(plain.changes).toEqual([])
    expect(plain.values).toMatchObject({ fullName: 'Dr. OLDERSHAW, MAREN', company: 'CAUSEWAY CAMPING LTD' })
    expect([plain.numbers, plain.emails]).toEqual([[], []])
    for (const { id } of PROPOSED.steps) {
      const without = { version: 1, steps: PROPOSED.steps.filter((one) => one.id !== id) }
      const switched = {
        version: 1,
        steps: PROPOSED.steps.map((one) => ({ ...one, isOn: one.id !== id }) as Step),
      }
      expect(compileRoutine(switched, LAYOUT).tidy(ROW)).toEqual(compileRoutine(without, LAYOUT).tidy(ROW))
    }
  })

  it('comes to the same when it is run on its own result', () => {
    const tidier = compileRoutine(PROPOSED, LAYOUT)
    const once = tidier.rowOf(ROW)
    expect(tidier.rowOf(once.slice(0, HEADINGS.length)).slice(0, HEADINGS.length)).toEqual(
      once.slice(0, HEADINGS.length),
    )
  })

  it('leaves out what a person leaves out, and no more', () => {
    const leftOut = new Set(['name-case', 'lost-zero'] as const)
    const { values, numbers, readings } = compileRoutine(PROPOSED, LAYOUT, { leftOut }).tidy(ROW)
    expect(values).toMatchObject({ fullName: 'MAREN OLDERSHAW', company: 'Causeway Camping' })
    expect(numbers).toEqual([])
    expect(readings[0]?.reading).toMatchObject({ verdict: 'unreadable', problem: 'left-out' })
  })

  it('takes a person’s word before its own, and reads it like any other', () => {
    const edits = { number: '07911 204481', company: 'Causeway', Stand: '14' }
    const edited = compileRoutine(PROPOSED, LAYOUT).tidy(ROW, { edits, leftOut: new Set() })
    expect(edited.values.company).toBe('Causeway')
    expect(edited.numbers.map(({ e164 }) => e164)).toEqual(['+447911204481'])
    expect(edited.extras).toContain('14')
    expect(edited.changes.filter(({ code }) => code === 'edited').map(({ column }) => column)).toEqual([
      'number',
      'company',
      'Stand',
    ])
  })

  it('takes a person’s word for what the file has no column for', () => {
    const edits = { city: 'Bamburgh', profile: 'https://rollcall.example/p/maren/' }
    const { values } = compileRoutine(PROPOSED, LAYOUT).tidy(ROW, { edits, leftOut: new Set() })
    expect(values).toMatchObject({ city: 'Bamburgh', profile: 'rollcall.example/p/maren' })
    expect(compileRoutine(PROPOSED, LAYOUT).headings).not.toContain('city')
  })

  it('of a later version does nothing rather than something else', () => {
    expect(compileRoutine({ ...PROPOSED, version: 2 }, LAYOUT).tidy(ROW).changes).toEqual([])
  })
})

describe('columns', () => {
  it('have names of their own, whatever the headings', () => {
    const headings = ['Phone', 'Phone', 'company', 'Note', 'Note', '']
    expect(columnNames({ headings, mapping: ['number', 'number', null, null, null, null] })).toEqual([
      'number',
      'number-2',
      'company (extra)',
      'Note',
      'Note 2',
      'Column 6',
    ])
  })

  it('are hidden, renamed and ordered; none is lost from the table but those hidden', () => {
    const routine = withSteps(
      step('columns', { hidden: ['Stand'], renamed: { Seen: 'Last seen' }, order: ['Credentials', 'Seen'] }),
    )
    const tidier = compileRoutine(routine, LAYOUT)
    expect(tidier.extraNames).toEqual([
      'Credentials',
      'Last seen',
      'Refusal',
      'Name title',
      'Nickname',
      'Name remark',
      'Second person',
      'Legal form',
      'Postal code extension',
    ])
    expect(tidier.extrasOf(ROW)).toEqual([
      ['Last seen', '3/5/2026'],
      ['Name title', 'Dr.'],
      ['Legal form', 'LTD'],
    ])
    expect(tidier.headings).not.toContain('Stand')
    expect(tidier.rowOf(ROW)).toHaveLength(tidier.headings.length)
  })

  it('that are gone are told, and their step leaves the rest alone', () => {
    const { problems, tidy } = compileRoutine(withSteps(step('dates', { columns: ['Seen', 'Born'] })), LAYOUT)
    expect(problems).toEqual([{ step: 'dates-1', code: 'column-gone', detail: 'Born' }])
    expect(tidy(ROW).changes.at(-1)).toBeDefined()
    expect(tidy(ROW).extras).toContain('2026-05-03')
  })
})

describe('find and replace', () => {
  const replaced = (options: Parameters<typeof step<'replace'>>[1], cell = 'Hall 5 (hall 6) $1') => {
    const tidier = compileRoutine({ version: 1, steps: [step('replace', { columns: ['Stand'], ...options })] }, LAYOUT)
    return tidier.problems[0]?.detail ?? tidier.tidy(ROW.with(8, cell)).extras.at(-1)
  }

  it('finds plain words, whatever signs they hold', () => {
    expect(replaced({ find: 'hall ', with: 'H' })).toBe('H5 (H6) $1')
    expect(replaced({ find: 'hall ', with: 'H', minds: 'case' })).toBe('Hall 5 (H6) $1')
    expect(replaced({ find: '(hall 6) $1', with: '$&\\1' })).toBe('Hall 5 $&\\1')
  })

  it('finds patterns and puts groups in', () =>
    expect(replaced({ find: 'hall (\\d)', with: 'H$1', isPattern: true })).toBe('H5 (H6) $1'))

  it('runs in the time of the text, whatever the pattern', () => {
    // A backtracking engine takes 2^40 steps here, and never comes back.
    expect(replaced({ find: '(a+)+$', with: 'x', isPattern: true }, `${'a'.repeat(40)}!`)).toBe(`${'a'.repeat(40)}!`)
  })

  it.each([
    ['(a)\\1', ''],
    ['(?=a)', ''],
    ['(', ''],
    ['a', '$2'],
    ['', ''],
  ])('refuses %s with a reason', (find, put) => {
    expect(replaced({ find, with: put, isPattern: true })).toMatch(/cannot be used|Nothing to find/)
  })
})

describe('a derived column', () => {
  const derived = (template: string) => {
    const routine = withSteps(step('derive', { column: 'Greeting', template }))
    const tidier = compileRoutine(routine, LAYOUT)
    return tidier.problems[0]?.detail ?? tidier.extrasOf(ROW).find(([name]) => name === 'Greeting')?.[1]
  }

  it('is made of what the steps before it left', () =>
    expect(derived('Hello {{ full_name | split: " " | first }} of {{ company }}')).toBe(
      'Hello Maren of Causeway Camping',
    ))

  it.each([
    '{% for i in (1..1000000000) %}x{% endfor %}',
    '{%- tablerow a in b -%}{% endtablerow %}',
    '{% include "secrets" %}',
    '{{ full_name',
    '{{ full_name | no_such_filter }}',
    '',
    'x'.repeat(2001),
  ])('refuses %p', (template) => expect(derived(template)).toMatch(/cannot be|is empty|at most/))

  it('leaves its column blank where one contact makes it too large', () =>
    expect(derived('{{ "x" | append: company | size }}{% if 1 %}{% endif %}')).toBeDefined())
})

describe('cells that need a hand', () => {
  const handOf = (phone: string, mail = '') => {
    const tidier = compileRoutine(PROPOSED, LAYOUT, { publicHosts: new Set(['brightmail.example']) })
    return tidier.tidy(['Maren Oldershaw', 'Causeway', phone, '', mail, 'GB', '', '', '']).hand
  }

  it('come with what they may have been, each a valid number', () => {
    const [cell] = handOf('079112044811')
    expect(cell).toMatchObject({ column: 2, problem: 'too-long', rank: 3 })
    expect(cell?.fixes.map(({ text }) => text)).toContain('07911204481')
  })

  it('come with both readings, numbers of one stem together', () => {
    const tidier = compileRoutine(PROPOSED, LAYOUT)
    const [cell] = tidier.tidy(['Maren Oldershaw', 'Causeway', '0431 55577-20', '', '', 'DE', '', '', '']).hand
    expect(cell?.fixes.map(({ text }) => text)).toEqual(['+494315557720', '+4943155577, +4943155520'])
    const accepted = tidier.tidy(['Maren Oldershaw', 'Causeway', cell?.fixes[1]?.text ?? '', '', '', 'DE', '', '', ''])
    expect(accepted.numbers.map(({ e164 }) => e164)).toEqual(['+4943155577', '+4943155520'])
    expect(accepted.hand).toEqual([])
  })

  it('come with the address that was probably meant', () => {
    expect(handOf('', 'maren@birghtmail.example')).toEqual([
      {
        column: 4,
        raw: 'maren@birghtmail.example',
        problem: 'slip-in-domain',
        fixes: [{ kind: 'domain', text: 'maren@brightmail.example' }],
        rank: 4,
      },
    ])
  })

  it.each(['07911 204481', '', 'n/a', '0000000000'])('do not include %p', (phone) => expect(handOf(phone)).toEqual([]))

  it.each(['020 7946 0xxx', '4.47912E+11', 'ORD-2026-00417', '03.05.2026'])(
    'include %s, with nothing offered',
    (phone) => expect(handOf(phone)).toMatchObject([{ fixes: [], rank: 1 }]),
  )
})
