import { expect, it } from '@jest/globals'
import fc from 'fast-check'
import type { Field } from '../../src/table'
import { compileRoutine, differenceOf, type ProjectedContact, proposeRoutine, type ToldAlike } from '../../src/tidy'

const MAPPING: readonly (Field | null)[] = ['full-name', 'number', 'email', 'city', 'birth-date', null]
const HEADINGS = ['Name', 'Phone', 'Mail', 'Town', 'Born', 'Note']
const tidierWith = (isOn: (kind: string) => boolean) => {
  const { version, steps } = proposeRoutine()
  const routine = { version, steps: steps.map((step) => ({ ...step, isOn: isOn(step.kind) })) as typeof steps }
  return compileRoutine(routine, { mapping: MAPPING, headings: HEADINGS }, { defaultCountry: 'GB' })
}
const KINDS: string[] = [...new Set(proposeRoutine().steps.map(({ kind }) => kind))]
const cell = fc.constantFrom(
  '',
  'MAREN OLDERSHAW',
  ' Dr. Maren  Oldershaw ',
  '07911 204481',
  '7911204481 / 01665 555018',
  'Maren@Causeway.example',
  'mail: x@heron .example',
  'KELSO',
  '1/2/1990',
  'MÃ¼ller',
)
const row = fc.array(cell, { minLength: 6, maxLength: 6 })

/** As it was told before there was a rule for it: by the whole of both, written out. */
function byText(a: ProjectedContact, b: ProjectedContact) {
  const keys = ({ numbers, emails, values }: ProjectedContact) =>
    JSON.stringify([numbers, emails, values.fullName, values.birthDate])
  if (keys(a) !== keys(b)) return 'keys'
  return JSON.stringify(a) === JSON.stringify(b) ? 'none' : 'values'
}

it('tells of two routines what both written out tell', () => {
  const seen = new Set<string>()
  fc.assert(
    fc.property(row, fc.subarray(KINDS), fc.subarray(KINDS), (cells, off, otherOff) => {
      const a = tidierWith((kind) => !off.includes(kind)).tidy(cells)
      const b = tidierWith((kind) => !otherOff.includes(kind)).tidy(cells)
      const difference = differenceOf(a, b)
      seen.add(difference)
      expect([difference, differenceOf(b, a)]).toEqual([byText(a, b), byText(a, b)])
    }),
    { numRuns: 400 },
  )
  expect([...seen].sort()).toEqual(['keys', 'none', 'values'])
})

it('sees no difference where a row is tidied twice, nor where an unset field is not there', () => {
  const tidier = tidierWith(() => true)
  const cells = ['Maren Oldershaw', '07911 204481', 'm@causeway.example', 'Kelso', '', 'x']
  const one = tidier.tidy(cells)
  expect(differenceOf(one, tidier.tidy(cells))).toBe('none')
  expect(differenceOf(one, { ...one, remark: undefined } as ProjectedContact)).toBe('none')
  expect(differenceOf(one, { ...one, extras: [] })).toBe('values')
})

it('takes somebody else’s word for what tells people apart', () => {
  const loud = tidierWith(() => false).tidy(['MAREN OLDERSHAW', '+447911204481', '', '', '', ''])
  const tidied = tidierWith(() => true).tidy(['MAREN OLDERSHAW', '+447911204481', '', '', '', ''])
  const inAnyCase: ToldAlike = (a, b) => a.fullName.toLowerCase() === b.fullName.toLowerCase()
  expect(differenceOf(loud, tidied)).toBe('keys')
  expect(differenceOf(loud, tidied, inAnyCase)).toBe('values')
  expect(differenceOf(loud, { ...tidied, numbers: [] }, inAnyCase)).toBe('keys')
  expect(differenceOf(loud, loud, inAnyCase)).toBe('none')
})
