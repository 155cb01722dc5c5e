import { describe, expect, it } from '@jest/globals'
import {
  DEFAULT_SURVIVORSHIP,
  type HowToSurvive,
  partSources,
  SURVIVOR_PARTS,
  SURVIVORSHIP_RULES,
  type SurvivorPart,
  sourceOf,
} from '@upper-field/core/pair'
import { compileRoutine, proposeRoutine } from '@upper-field/core/tidy'
import fc from 'fast-check'
import { allMembers, type MembersTaken, tellingMembers } from '../../src/projection/members'
import { searchText } from '../../src/projection/searchText'
import { type SourceRow, viewOf } from '../../src/projection/viewOf'

const HEADINGS = ['name', 'company', 'city', 'phone', 'phone 2', 'mail', 'note', 'stars']
const tidier = compileRoutine(
  proposeRoutine(),
  {
    mapping: ['full-name', 'company', 'city', 'number', 'number', 'email', null, null],
    headings: HEADINGS,
  },
  { defaultCountry: 'GB' },
)
const rowOf = (id: number, cells: readonly string[]): SourceRow => ({ id, projected: tidier.tidy(cells, undefined) })

const NUMBERS = ['', '07911 204481', '07911204481', '01665 555018', 'ask reception']
const cells = fc.tuple(
  fc.constantFrom('Maren Oldershaw', 'M. Oldershaw', ''),
  fc.constantFrom('Causeway', 'CAUSEWAY', 'Heron Ltd', ''),
  fc.constantFrom('Kelso', 'Oxford', ''),
  fc.constantFrom(...NUMBERS),
  fc.constantFrom(...NUMBERS),
  fc.constantFrom('', 'maren@kinpost.example', 'office@causeway.example'),
  fc.constantFrom('', 'asked for sample 4', 'call again'),
  fc.constantFrom('', '4'),
)
const how = (count: number): fc.Arbitrary<HowToSurvive> =>
  fc.record({
    rules: fc
      .tuple(...SURVIVOR_PARTS.map(() => fc.constantFrom(...SURVIVORSHIP_RULES)))
      .map((rules) => Object.fromEntries(SURVIVOR_PARTS.map((part, i) => [part, rules[i]])) as HowToSurvive['rules']),
    chosen: fc
      .array(fc.tuple(fc.constantFrom(...SURVIVOR_PARTS), fc.integer({ min: 1, max: count })), { maxLength: 2 })
      .map((parts) => new Map<SurvivorPart, number>(parts)),
  })

function taken(by: MembersTaken, rows: readonly SourceRow[]) {
  for (const row of rows) by.add(1, row)
  return by.of(1)
}

const viewBy = (own: SourceRow, members: readonly SourceRow[], how: HowToSurvive) =>
  viewOf({
    own,
    members,
    how,
    fills: [],
    factsOf: () => undefined,
    verifiedAs: () => undefined,
    isShared: () => false,
    scopesOf: null,
  })

describe('the rows of a contact that tell something', () => {
  it('make the same contact as all of them, by whatever rule, and whatever a person chose', () => {
    const contact = fc
      .array(cells, { minLength: 2, maxLength: 40 })
      .chain((lines) => fc.tuple(fc.constant(lines), how(lines.length)))
    fc.assert(
      fc.property(contact, ([lines, how]) => {
        const [own, ...members] = lines.map((line, i) => rowOf(i + 1, line))
        if (!own) return
        const chosen = new Set(how.chosen.values())
        const all = taken(allMembers(), members)
        const telling = taken(
          tellingMembers((id) => chosen.has(id)),
          members,
        )
        expect([telling.count, telling.rows.reduce((sum, { times = 1 }) => sum + times, 0)]).toEqual([
          all.count,
          all.count,
        ])
        const [{ extras: _, ...view }, { extras: __, ...same }] = [all, telling].map(({ rows }) =>
          viewBy(own, rows, how),
        ) as [ReturnType<typeof viewBy>, ReturnType<typeof viewBy>]
        expect(same).toEqual(view)
        for (const part of SURVIVOR_PARTS) {
          const giving = [all, telling].map(({ rows }) =>
            sourceOf(part, partSources([own, ...rows].map(({ projected, ...row }) => ({ ...row, ...projected }))), how),
          )
          expect(giving[1]?.id).toBe(giving[0]?.id)
        }
      }),
    )
  })

  it('are few, however many say the same; the search finds what it found by all', () => {
    const members = Array.from({ length: 5000 }, (_, i) =>
      rowOf(i + 2, ['Maren Oldershaw', 'Causeway', '', '07911 204481', '', '', `note ${i}`, '']),
    )
    const own = rowOf(1, ['Maren Oldershaw', '', 'Kelso', '', '', '', 'first', ''])
    const telling = taken(
      tellingMembers(() => false),
      members,
    )
    expect(telling.count).toBe(5000)
    expect(telling.rows.length).toBeLessThan(700)
    const by = { rules: DEFAULT_SURVIVORSHIP, chosen: new Map<SurvivorPart, number>() }
    expect(searchText(viewBy(own, telling.rows, by))).toBe(searchText(viewBy(own, members, by)))
  })

  it('of different contacts are kept apart, and nobody is joined to somebody without any', () => {
    const by = tellingMembers(() => false)
    by.add(1, rowOf(2, ['Maren', '', '', '', '', '', '', '']))
    by.add(7, rowOf(8, ['Ines', '', '', '', '', '', '', '']))
    expect([1, 7, 9].map((id) => by.of(id).rows.map(({ id }) => id))).toEqual([[2], [8], []])
  })
})
