import { describe, expect, it } from '@jest/globals'
import { areNamesCompatible, type ExactJoin, exactJoiner, type SharedKey } from '../../src/pair'

function joinExact(keys: readonly SharedKey[], isKeptApart?: (a: number, b: number) => boolean): readonly ExactJoin[] {
  const joiner = exactJoiner(isKeptApart)
  for (const key of keys) joiner.add(key)
  return joiner.joins()
}

describe('compatible names', () => {
  it.each([
    ['Maren Oldershaw', 'Oldershaw Maren'],
    ['Maren Oldershaw', 'M. Oldershaw'],
    ['MAREN OLDERSHAW', 'maren oldershaw'],
    ['Jürgen Müller', 'Juergen Mueller'],
    ['Étienne Vaubert', 'Etienne Vaubert'],
    ['Maren Jane Oldershaw', 'Maren Oldershaw'],
    ['', 'Maren Oldershaw'],
  ])('%s and %s', (a, b) => {
    expect(areNamesCompatible(a, b)).toBe(true)
    expect(areNamesCompatible(b, a)).toBe(true)
  })

  it.each([
    ['Maren Oldershaw', 'Tom Oldershaw'],
    ['Maren Oldershaw', 'Maren Kestle'],
    ['J. K.', 'Jens Krug'],
    ['Priya Hallowell', 'Tom Kestle'],
  ])('not %s and %s', (a, b) => {
    expect(areNamesCompatible(a, b)).toBe(false)
    expect(areNamesCompatible(b, a)).toBe(false)
  })
})

const key = (value: string, ...holders: [number, string][]): SharedKey => ({
  kind: 'number',
  key: value,
  holders: holders.map(([id, name]) => ({ id, name })),
})

describe('joinExact', () => {
  it('joins the later row to the first', () => {
    expect(joinExact([key('+44', [7, 'Maren Oldershaw'], [3, 'M. Oldershaw'])])).toEqual([
      { survivor: 3, member: 7, kind: 'number', key: '+44' },
    ])
  })

  it('does not join different people on one line', () => {
    expect(joinExact([key('+44', [1, 'Priya Hallowell'], [2, 'Tom Kestle'])])).toEqual([])
  })

  it('does not let an initial bring two people together', () => {
    const joins = joinExact([key('+44', [1, 'John Smith'], [2, 'J. Smith'], [3, 'Jane Smith'])])
    expect(joins).toEqual([{ survivor: 1, member: 2, kind: 'number', key: '+44' }])
  })

  it('does not join two houses that answer at one number, but one house written twice', () => {
    const houses = ['Heron Camping', 'Larkrise Camping', 'HERON CAMPING Ltd', '']
    const holders = houses.map((company, at) => ({ id: at + 1, name: '', company }))
    const joins = joinExact([{ kind: 'number', key: '+44', holders }])
    expect(joins.map(({ survivor, member }) => [survivor, member])).toEqual([
      [1, 3],
      [1, 4],
    ])
  })

  it('takes the company of nobody for their name', () => {
    const holders = [
      { id: 1, name: 'Maren Oldershaw', company: 'Heron Camping' },
      { id: 2, name: '', company: 'Larkrise Camping' },
    ]
    expect(joinExact([{ kind: 'number', key: '+44', holders }])).toHaveLength(1)
  })

  it('joins across keys', () => {
    const joins = joinExact([
      key('a', [1, 'Maren Oldershaw'], [2, 'Maren Oldershaw']),
      key('b', [2, 'Maren Oldershaw'], [3, 'Maren Oldershaw']),
    ])
    expect(joins.map(({ survivor, member }) => [survivor, member])).toEqual([
      [1, 2],
      [1, 3],
    ]) // prettier-ignore
  })

  it('brings two groups together where a later row holds both keys', () => {
    const one = 'Maren Oldershaw'
    const joins = joinExact([key('a', [1, one], [3, one]), key('b', [2, one], [3, one])])
    expect(joins.map(({ survivor, member }) => [survivor, member])).toEqual([
      [1, 2],
      [1, 3],
    ]) // prettier-ignore
  })

  it('keeps apart whom a person took apart', () => {
    const keys = [key('+44', [1, 'Maren Oldershaw'], [2, 'Maren Oldershaw'])]
    expect(joinExact(keys, (a, b) => a + b === 3)).toEqual([])
  })

  it('does not depend on the order of the holders, and joins nobody twice', () => {
    const holders: [number, string][] = [5, 1, 4, 2, 3].map((id) => [id, id % 2 ? 'Maren Oldershaw' : 'Tom Kestle'])
    const joins = joinExact([key('+44', ...holders)])
    expect(joinExact([key('+44', ...[...holders].reverse())])).toEqual(joins)
    expect(new Set(joins.map(({ member }) => member)).size).toBe(joins.length)
    expect(joins.map(({ survivor, member }) => [survivor, member])).toEqual([
      [1, 3],
      [2, 4],
      [1, 5],
    ]) // prettier-ignore
  })
})

describe('birth dates of people on one number', () => {
  const born = (...dates: string[]) =>
    joinExact([
      {
        kind: 'number',
        key: '+494315557701',
        holders: dates.map((birthDate, id) => ({ id, name: 'Hans Feldkamp', birthDate })),
      },
    ]).map(({ survivor, member }) => [survivor, member])

  it.each([
    ['1950-02-01', '1950-02-01'],
    ['1950-02-01', '1950'],
    ['1950-02-01', ''],
  ])('%s and %j are one person’s', (a, b) => expect(born(a, b)).toEqual([[0, 1]]))

  it.each([
    ['1950-02-01', '1981-08-07'],
    ['1950-02-01', '1981'],
    ['1950-02-01', '1950-01-02'],
  ])('%s and %s are not joined', (a, b) => expect(born(a, b)).toEqual([]))

  it('are held against everybody of a group', () => expect(born('1950-02-01', '', '1981')).toEqual([[0, 1]]))
})
