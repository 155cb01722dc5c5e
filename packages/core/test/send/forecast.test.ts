import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import {
  columnsOf,
  expectedMatch,
  forecastMatch,
  IDENTIFIER_KINDS,
  type IdentifierKind,
  type IdentifierMix,
  identifiersAt,
  type KindsKnown,
  kindsTaken,
  mixKey,
} from '../../src/send'

const kinds = fc.uniqueArray(fc.constantFrom(...IDENTIFIER_KINDS), { minLength: 1, maxLength: 4 })
const mixes = fc
  .array(fc.tuple(kinds, fc.integer({ min: 1, max: 3000 })), { minLength: 1, maxLength: 6 })
  .map((parts): IdentifierMix => Object.fromEntries(parts.map(([of, n]) => [mixKey(new Set(of)), n])))
const few = { numRuns: 25 }

describe('a forecast', () => {
  it('is an interval within nobody and everybody, with the middle in it, and the same every time', () =>
    fc.assert(
      fc.property(mixes, (mix) => {
        const { low, middle, high, people } = forecastMatch(mix, [])
        expect([0 <= low, low <= middle, middle <= high, high <= people]).toEqual([true, true, true, true])
        expect(people).toBe(Object.values(mix).reduce((sum, n) => sum + n, 0))
        expect(forecastMatch(mix, [])).toEqual(forecastMatch(mix, []))
      }),
      few,
    ))

  it('expects more of more identifiers, and tells how many one more kind would add', () =>
    fc.assert(
      fc.property(fc.integer({ min: 200, max: 5000 }), (n) => {
        const bare = forecastMatch({ 'work-email': n }, [], ['work-email', 'personal-email'])
        const both = forecastMatch({ 'personal-email+work-email': n }, [])
        expect(both.middle).toBeGreaterThan(bare.middle)
        expect(bare.oneMore).toEqual([{ kind: 'personal-email', lacking: n, more: expect.any(Number) }])
        const gained = bare.oneMore[0]?.more ?? 0
        expect(Math.abs(gained - (both.middle - bare.middle))).toBeLessThan(0.12 * n)
      }),
      few,
    ))

  it('comes to what a network has told, and is surer of it', () => {
    const mix = { 'personal-email+mobile': 800, 'work-email': 400 }
    const before = forecastMatch(mix, [])
    const told = [
      { mix, matched: 300 },
      { mix: { mobile: 500 }, matched: 90 },
    ]
    const after = forecastMatch(mix, told)
    expect(Math.abs(after.middle - 300)).toBeLessThan(Math.abs(before.middle - 300))
    expect(after.high - after.low).toBeLessThan(before.high - before.low)
    expect(after).toMatchObject({ learntFrom: 2, people: 1200 })
    expect(expectedMatch(mix, told)).toBeGreaterThan(expectedMatch({ 'work-email': 400 }, told))
  })

  it('of nobody expects nobody', () =>
    expect(forecastMatch({}, [])).toMatchObject({ low: 0, middle: 0, high: 0, people: 0, byKind: [], oneMore: [] }))
})

describe('identifiers', () => {
  const rules = (someOf: Parameters<typeof kindsTaken>[0]['rules']['someOf']) => ({
    rules: { someOf, everyRow: [], together: [] },
  })

  it('are those that the rules of a destination name', () => {
    expect(kindsTaken(rules(['number', 'email']))).toEqual(['personal-email', 'work-email', 'mobile', 'other-number'])
    expect(kindsTaken(rules(['company-page', 'site', 'company']))).toEqual(['company-page', 'site', 'company-name'])
    expect(kindsTaken(rules(['given-name', 'device-id']))).toEqual(['name-and-place', 'device'])
  })

  it.each<[string, object, Partial<KindsKnown>, IdentifierKind[]]>([
    ['a mobile', { number: ['+447911204481'] }, { hasMobile: true }, ['mobile']],
    ['another number', { number: ['+441665555018'] }, {}, ['other-number']],
    ['an address of unknown kind', { email: ['a@b.example'] }, {}, ['work-email']],
    [
      'addresses of both kinds',
      { email: ['a@b.example'] },
      { hasPersonalEmail: true, hasWorkEmail: true },
      ['personal-email', 'work-email'],
    ],
    [
      'a whole name and place',
      { 'given-name': ['a'], 'family-name': ['b'], 'postal-code': ['c'] },
      {},
      ['name-and-place'],
    ],
    ['a name without a place', { 'given-name': ['a'], 'family-name': ['b'], 'postal-code': [''] }, {}, []],
  ])('of somebody with %s are told', (_, values, known, expected) => {
    const nothing = { hasPersonalEmail: false, hasWorkEmail: false, hasMobile: false }
    const members = columnsOf([{ country: 'GB', numberCountry: null, values }])
    const found = identifiersAt(members, 0, { ...nothing, ...known }, IDENTIFIER_KINDS)
    expect([...found]).toEqual(expected)
  })
})
