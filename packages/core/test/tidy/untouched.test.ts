import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import type { Field } from '../../src/table'
import {
  CHANGE_CODES,
  CODES_OF,
  codesAtStake,
  compileRoutine,
  differenceOf,
  newStep,
  proposeRoutine,
  type Routine,
  type RoutineOptions,
  type Settled,
  type Step,
  type StepKind,
} from '../../src/tidy'

const COLUMNS: Readonly<Record<string, Field | null>> = {
  Name: 'full-name',
  Firm: 'company',
  Title: 'title',
  Phone: 'number',
  Mobile: 'number',
  Mail: 'email',
  Land: 'country',
  Town: 'city',
  State: 'region',
  Code: 'postal-code',
  Web: 'web',
  Profile: 'profile',
  Born: 'birth-date',
  Note: null,
}
const HEADINGS = Object.keys(COLUMNS)
const LAYOUT = { mapping: Object.values(COLUMNS), headings: HEADINGS }

/** Cells as they stand in files, nearly each with something that a step may mend. */
const CELLS = `
¦n/a¦-¦ . ¦0¦unknown¦MAREN OLDERSHAW¦oldershaw, maren¦Dr. Maren  Oldershaw (she/her)¦maren & tom garside¦Maren Oldershaw PhD, MBA
¦Maren "Mo" Oldershaw¦Maren Oldershaw (Owner)¦Maren Oldershaw - Head Gardener¦Owner¦Causeway Roofing Ltd
¦CAUSEWAY ROOFING LIMITED (formerly Fern)¦Heron Lodge GmbH & Co. KG¦07911 204481¦7911204481¦447911204481¦+4407911204481
¦0044 7911204481 / 01665 555018¦079112O4481¦7911204481.0¦'07911204481¦7.911E+09¦7.911204481E+9¦4.47911204481E+11¦+44 44 7911204481
¦+44+447911204481¦0800 FLOWERS¦+44 800 PLUMBER¦%2B447911204481¦01665 555018/19¦01665 555018 - 22¦tel: 01665 555018 ext. 12
¦(0)7911-204481¦791120448¦0791120448112¦Büro 030 5550123¦+33 (0) 1 44 55 66 77¦Maren@Causeway.example¦maren(at)causeway.example
¦mailto:maren@causeway.example¦maren@gmial.com¦a@b.example; c@d.example¦maren @ causeway . example
¦Maren Oldershaw <maren@causeway.example>¦noreply@causeway.example¦info@heron.example¦do not call¦please never ring again¦STOP
¦td71aa¦SW1A1AA¦4501-1234¦D-10115¦1234 ab¦2134¦Deutschland¦Scotland¦UK¦gb¦France (FR)¦CA¦California¦MÃ¼ller¦CafÃ© Heron¦Ã–sterreich
¦https://WWW.Causeway.example/about?x=1¦causeway.example¦http://causeway¦https://www.rollcall.example/p/maren/?trk=1
¦1976-03-05¦1976-3-5¦05/03/76¦5 March 1976¦Oxford, GB`.split(/\n?¦/)

const row = fc.array(fc.constantFrom(...CELLS), { minLength: HEADINGS.length, maxLength: HEADINGS.length })
const MORE = [
  {
    ...newStep('replace', 'r1'),
    options: { columns: ['Note'], find: 'a', with: 'b', isPattern: false, minds: 'case' },
  },
  { ...newStep('derive', 'd1'), options: { column: 'company', template: '{{ note }}' } },
  { ...newStep('derive', 'd2'), options: { column: 'Greeting', template: '{{ given_name }}' } },
  { ...newStep('columns', 'c1'), options: { hidden: ['Note'], renamed: { State: 'Land of' }, order: [] } },
  { ...newStep('region', 'g1') },
  { ...newStep('dates', 't1'), options: { columns: ['birth-date', 'Note'], order: 'day-first' } },
] as Step[]
const routine: fc.Arbitrary<Routine> = fc
  .subarray([...proposeRoutine().steps, ...MORE], { minLength: 6 })
  .chain((steps) => fc.boolean().map((isTurned) => (isTurned ? steps.toReversed() : steps)))
  .map((steps) => ({ version: proposeRoutine().version, steps: steps.map((step) => ({ ...step, isOn: true })) }))
const settled: fc.Arbitrary<Settled | undefined> = fc.option(
  fc.record({
    edits: fc.constantFrom<Record<string, string>>(
      {},
      { number: '07911 204482' },
      { 'full-name': 'ODD NAME' },
      { Note: 'x' },
    ),
    leftOut: fc.subarray(['name-order', 'email-form'] as const).map((codes) => new Set(codes)),
  }),
  { nil: undefined },
)
const options: fc.Arbitrary<RoutineOptions> = fc.record({
  defaultCountry: fc.constantFrom(null, 'GB', 'DE'),
  publicHosts: fc.constantFrom(new Set<string>(), new Set(['causeway.example'])),
  leftOut: fc.subarray(['name-case', 'lost-zero', 'postal-code-form'] as const).map((codes) => new Set(codes)),
})

const tidied = (steps: Routine, how: RoutineOptions, cells: readonly string[], facts: Settled | undefined) =>
  compileRoutine(steps, LAYOUT, how).tidy(cells, facts)

it('a repair that is left out changes nothing of a row it has not repaired', () => {
  const seen = new Set<string>()
  fc.assert(
    fc.property(routine, row, settled, options, (steps, cells, facts, how) => {
      const all = tidied(steps, how, cells, facts)
      const repaired = new Set(all.changes.map(({ code }) => code))
      for (const code of repaired) seen.add(code)
      const changing = CHANGE_CODES.filter((code) => {
        const leftOut = new Set([...(how.leftOut ?? []), code])
        return !repaired.has(code) && differenceOf(all, tidied(steps, { ...how, leftOut }, cells, facts)) !== 'none'
      })
      expect(changing).toEqual([])
    }),
    { numRuns: 300 },
  )
  // The rows hold what most repairs are for.
  expect(seen.size).toBeGreaterThan(CHANGE_CODES.length / 2)
})

it('a routine with fewer steps changes nothing of a row that those have not touched', () => {
  const seen = { untouched: 0, touched: 0 }
  fc.assert(
    fc.property(routine, fc.infiniteStream(fc.nat(3)), row, settled, options, (steps, dice, cells, facts, how) => {
      const fewer = steps.steps.flatMap((step) => {
        const { value } = dice.next()
        return value === 0 ? [] : [{ ...step, isOn: value !== 1 }]
      })
      const is = { ...steps, steps: fewer as Step[] }
      const codes = codesAtStake(steps, is)
      if (codes === null) return
      const all = tidied(steps, how, cells, facts)
      const isTouched = all.changes.some(({ code }) => codes.includes(code))
      seen[isTouched ? 'touched' : 'untouched']++
      if (!isTouched) expect(differenceOf(all, tidied(is, how, cells, facts))).toBe('none')
    }),
    { numRuns: 2000 },
  )
  expect(Math.min(seen.touched, seen.untouched)).toBeGreaterThan(50)
})

it('every change is told by a code of the kind of step that made it', () => {
  fc.assert(
    fc.property(routine, row, options, (steps, cells, how) => {
      const kindOf = new Map(steps.steps.map(({ id, kind }) => [id, kind]))
      for (const { step, code } of tidied(steps, how, cells, undefined).changes)
        expect(CODES_OF[kindOf.get(step) ?? 'columns']).toContain(code)
    }),
    { numRuns: 300 },
  )
})

describe('what is at stake where a routine is changed', () => {
  const { version, steps } = proposeRoutine()
  const turned = (kinds: readonly StepKind[]): Routine => ({
    version,
    steps: steps.map((step) => ({ ...step, isOn: !kinds.includes(step.kind) })) as Step[],
  })
  const all = turned([])

  it('is nothing where it stays, and what the steps have done that go', () => {
    expect(codesAtStake(all, all)).toEqual([])
    expect(codesAtStake(all, turned(['postal-code', 'web']))).toEqual(
      steps.flatMap(({ kind }) => (kind === 'postal-code' || kind === 'web' ? CODES_OF[kind] : [])),
    )
    expect(codesAtStake(turned(['blanks']), { version, steps: turned(['blanks']).steps.slice(1) })).toEqual(
      CODES_OF[steps[0]?.kind ?? 'columns'],
    )
  })

  it.each<[string, Routine, Routine]>([
    ['a step comes', turned(['web']), all],
    ['one comes while another goes', turned(['web']), turned(['blanks'])],
    ['steps change places', all, { version, steps: all.steps.toReversed() }],
    ['names are no longer mended', all, turned(['names'])],
    ['it is of another version', all, { ...all, version: version + 1 } as unknown as Routine],
    [
      'a step works otherwise',
      all,
      {
        version,
        steps: all.steps.map((step) => (step.kind === 'blanks' ? { ...step, options: { words: ['x'] } } : step)),
      },
    ],
  ])('is any row where %s', (_, was, is) => expect(codesAtStake(was, is)).toBeNull())
})
