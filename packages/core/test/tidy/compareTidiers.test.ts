import { expect, it } from '@jest/globals'
import fc from 'fast-check'
import type { Field, Mapping } from '../../src/table'
import {
  compareTidiers,
  compileRoutine,
  differenceOf,
  newStep,
  proposeRoutine,
  type Routine,
  type RoutineOptions,
  type Settled,
  type Step,
} from '../../src/tidy'

const MAPPING: readonly (Field | null)[] = ['full-name', 'number', 'email', 'postal-code', 'company', 'country', null]
const HEADINGS = ['Name', 'Phone', 'Mail', 'Code', 'Firm', 'Land', 'Note']

const cell = fc.constantFrom(
  '',
  'n/a',
  'MAREN OLDERSHAW',
  'Dr. Maren  Oldershaw (she/her)',
  'Causeway Roofing Ltd',
  '07911 204481',
  '0044 7911204481 / 01665 555018',
  'Maren@Causeway.example',
  'do not call',
  'td71aa',
  '4501-1234',
  'Deutschland',
  'Scotland',
  'MÃ¼ller',
)
const row = fc.array(cell, { minLength: HEADINGS.length, maxLength: HEADINGS.length })

const more: readonly Step[] = [
  {
    ...newStep('replace', 'r1'),
    options: { columns: ['Note'], find: 'a', with: 'b', isPattern: false, minds: 'case' },
  },
  { ...newStep('derive', 'd1'), options: { column: 'Greeting', template: 'Dear {{ full_name }}' } },
  { ...newStep('derive', 'd2'), options: { column: 'company', template: '{{ note }}' } },
] as Step[]
const ALL: readonly Step[] = [...proposeRoutine().steps, ...more]

/** Routines with steps off, left away, or in another order. */
const routine: fc.Arbitrary<Routine> = fc
  .tuple(fc.subarray([...ALL]), fc.subarray(ALL.map(({ id }) => id)), fc.boolean())
  .map(([steps, off, isTurned]) => ({
    version: proposeRoutine().version,
    steps: (isTurned ? steps.toReversed() : steps).map((step) => ({ ...step, isOn: !off.includes(step.id) })),
  }))
/** One that differs from another in a step, as most changes do. */
const withOneOff = (of: Routine, at: number): Routine => ({
  ...of,
  steps: of.steps.map((step, i) => (i === at % Math.max(1, of.steps.length) ? { ...step, isOn: !step.isOn } : step)),
})
const pair = fc.oneof(
  fc.tuple(routine, routine),
  fc.tuple(routine, fc.nat(20)).map(([one, at]): [Routine, Routine] => [one, withOneOff(one, at)]),
)
const options: fc.Arbitrary<RoutineOptions> = fc.record({
  defaultCountry: fc.constantFrom(null, 'GB', 'DE'),
  publicHosts: fc.constantFrom(new Set<string>(), new Set(['causeway.example'])),
  leftOut: fc.subarray(['name-case', 'number-form', 'postal-code-form'] as const).map((codes) => new Set(codes)),
})
const bothOptions = fc.oneof(
  options.map((one): [RoutineOptions, RoutineOptions] => [one, { ...one }]),
  fc.tuple(options, options),
)
const settled: fc.Arbitrary<Settled | undefined> = fc.option(
  fc.record({
    edits: fc.constantFrom<Record<string, string>>({}, { number: '07911 204482' }, { city: 'Kelso' }, { Note: 'x' }),
    leftOut: fc.subarray(['name-order', 'email-form'] as const).map((codes) => new Set(codes)),
  }),
  { nil: undefined },
)

it('tells what the whole contacts tell, by any two routines', () => {
  const seen = new Set<string>()
  fc.assert(
    fc.property(
      pair,
      bothOptions,
      fc.array(row, { minLength: 1, maxLength: 6 }),
      settled,
      (routines, how, rows, given) => {
        const layout = { mapping: MAPPING as Mapping, headings: HEADINGS }
        const [was, is] = [compileRoutine(routines[0], layout, how[0]), compileRoutine(routines[1], layout, how[1])]
        const compare = compareTidiers(was, is)
        for (const cells of rows) {
          const now = is.tidy(cells, given)
          const expected = differenceOf(was.tidy(cells, given), now)
          const compared = compare(cells, given)
          seen.add(compared.difference)
          if (compared.difference === 'none') expect(expected).toBe('none')
          else expect(compared).toEqual({ difference: expected, now })
        }
      },
    ),
    { numRuns: 500 },
  )
  expect([...seen].sort()).toEqual(['keys', 'none', 'values'])
})

it('tells of two mappings of one file', () => {
  const other: Mapping = ['company', 'number', 'email', 'postal-code', 'full-name', 'country', null]
  const was = compileRoutine(proposeRoutine(), { mapping: MAPPING as Mapping, headings: HEADINGS })
  const is = compileRoutine(proposeRoutine(), { mapping: other, headings: HEADINGS })
  const cells = ['Causeway Roofing', '+447911204481', '', '', 'Maren Oldershaw', '', '']
  expect(compareTidiers(was, is)(cells)).toEqual({ difference: 'keys', now: is.tidy(cells) })
  expect(compareTidiers(is, is)(cells)).toEqual({ difference: 'none' })
})

it('works out a row once behind the steps both begin with', () => {
  const { version, steps } = proposeRoutine()
  const last = steps.at(-1)
  const without: Routine = { version, steps: steps.map((step) => (step === last ? { ...step, isOn: false } : step)) }
  const layout = { mapping: MAPPING as Mapping, headings: HEADINGS }
  const [was, is] = [compileRoutine({ version, steps }, layout), compileRoutine(without, layout)]
  const counted = { begun: 0, ended: 0 }
  for (const { parts } of [was, is]) {
    const { begin, end } = parts
    Object.assign(parts, {
      begin: (...given: Parameters<typeof begin>) => {
        counted.begun++
        return begin(...given)
      },
      end: (...given: Parameters<typeof end>) => {
        counted.ended++
        return end(...given)
      },
    })
  }
  const compare = compareTidiers(was, is)
  expect(compare(['maren oldershaw', '07911 204481', '', '', '', 'GB', ''])).toEqual({ difference: 'none' })
  expect(counted).toEqual({ begun: 1, ended: 0 })
})
