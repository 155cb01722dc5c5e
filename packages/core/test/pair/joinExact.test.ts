import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { areNamesCompatible, type ExactJoin, exactJoiner, type SharedKey } from '../../src/pair'

function joinExact(keys: readonly SharedKey[], isKeptApart?: (a: number, b: number) => boolean): readonly ExactJoin[] {
  const joiner = exactJoiner(isKeptApart ? { isPair: isKeptApart, isInAny: () => true } : null)
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
    ['J. John Smith', 'John Jack Smith'],
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

  it('knows a group again by another key, however its cells are written', () => {
    const joins = joinExact([
      key('a', [1, 'Maren\nOldershaw'], [2, 'Maren Oldershaw']),
      key('b', [2, 'Maren Oldershaw'], [3, 'Maren\nJane Oldershaw'], [4, 'Tom\nOldershaw']),
      key('c', [3, 'Maren\nJane Oldershaw'], [5, 'M. Oldershaw'], [6, 'Maren Joan Oldershaw']),
    ])
    expect(joins.map(({ survivor, member, key: by }) => [survivor, member, by])).toEqual([
      [1, 2, 'a'],
      [1, 3, 'b'],
      [1, 5, 'c'],
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

/** Everybody held against everybody before, as long as there are few. */
function joinedOneByOne(keys: readonly SharedKey[], isPair: (a: number, b: number) => boolean): string[] {
  type Holder = SharedKey['holders'][number]
  const groups = new Map<number, Holder[]>()
  const mayBeOne = (a: Holder, b: Holder) =>
    areNamesCompatible(a.name, b.name) &&
    ((a.birthDate ?? '').startsWith(b.birthDate ?? '') || (b.birthDate ?? '').startsWith(a.birthDate ?? '')) &&
    (a.name !== '' || b.name !== '' || areNamesCompatible(a.company ?? '', b.company ?? '')) &&
    !isPair(a.id, b.id)
  const groupOf = (holder: Holder) => groups.get(holder.id) ?? [holder]
  for (const { holders } of keys) {
    const ordered = [...holders].sort((a, b) => a.id - b.id)
    for (const [i, holder] of ordered.entries()) {
      const mine = groupOf(holder)
      const target = ordered
        .slice(0, i)
        .map(groupOf)
        .find((group) => group !== mine && group.every((a) => mine.every((b) => mayBeOne(a, b))))
      if (!target) continue
      for (const { id } of target) groups.set(id, target)
      for (const member of mine) {
        target.push(member)
        groups.set(member.id, target)
      }
    }
  }
  const ids = [...new Set(groups.values())].map((group) => group.map(({ id }) => id).sort((a, b) => a - b))
  return ids.flatMap(([survivor, ...members]) => members.map((member) => `${survivor} ${member}`)).sort()
}

/** A key with so many holders at a time, in the order of their ids. */
function inPieces({ holders, ...key }: SharedKey, size: number): SharedKey[] {
  const ordered = [...holders].sort((a, b) => a.id - b.id)
  const starts = ordered.flatMap((_, i) => (i % size === 0 ? [i] : []))
  return starts.map((start) => ({ ...key, holders: ordered.slice(start, start + size) }))
}

describe('many holders of one key', () => {
  it('are joined as if each was held against all before it, in however many pieces they come', () => {
    const name = fc.constantFrom(
      '',
      'Maren Oldershaw',
      'M. Oldershaw',
      'Oldershaw Maren',
      'Maren',
      'Tom Kestle',
      'T. K.',
      'J. Smith',
      'John Smith',
      'Jane Smith',
      'Smith',
      'Maren Jane Oldershaw',
    )
    const person = fc.record({
      name,
      birthDate: fc.constantFrom('', '', '1987', '1987-05-03', '1990-01-01'),
      company: fc.constantFrom('', 'Heron Camping', 'Larkrise', 'heron camping ltd'),
    })
    fc.assert(
      fc.property(
        fc.array(person, { minLength: 2, maxLength: 12 }),
        fc.array(fc.array(fc.nat(11), { minLength: 2, maxLength: 8 }), { minLength: 1, maxLength: 4 }),
        fc.array(fc.tuple(fc.nat(11), fc.nat(11)), { maxLength: 3 }),
        fc.integer({ min: 1, max: 4 }),
        (people, keys, apart, piece) => {
          const shared = keys.map((ids, at): SharedKey => {
            const holders = [...new Set(ids.map((id) => id % people.length))].map((id) => ({
              id,
              ...(people[id] as (typeof people)[number]),
            }))
            return { kind: 'number', key: `+${at}`, holders }
          })
          const isPair = (a: number, b: number) => apart.some(([x, y]) => (x === a && y === b) || (x === b && y === a))
          const joined = (keys: readonly SharedKey[]) =>
            joinExact(keys, isPair)
              .map(({ survivor, member }) => `${survivor} ${member}`)
              .sort()
          const oneByOne = joinedOneByOne(shared, isPair)
          expect(joined(shared)).toEqual(oneByOne)
          expect(joined(shared.flatMap((key) => inPieces(key, piece)))).toEqual(oneByOne)
        },
      ),
      { numRuns: 500 },
    )
  })

  it('are nobody’s own where they are tens of thousands: those who come after so many are joined to none of themselves', () => {
    const nameOf = (i: number) => (i < 30_000 ? `Given${i} Family${i}` : `Later${i % 100} Name${i % 100}`)
    const holders = Array.from({ length: 40_000 }, (_, id) => ({ id, name: nameOf(id) }))
    const again = [{ id: 50_000, name: 'Family7 Given7' }]
    const shared = { kind: 'number', key: '+44' } as const
    const joins = joinExact([
      { ...shared, holders },
      { ...shared, holders: again },
    ])
    expect(joins).toEqual([{ ...shared, survivor: 7, member: 50_000 }])
  })

  it('take no longer for each the more there are', () => {
    const holders = (nameOf: (i: number) => string) =>
      Array.from({ length: 60_000 }, (_, id) => ({ id, name: nameOf(id) }))
    const one = (name: (i: number) => string) =>
      joinExact([{ kind: 'number', key: '+44', holders: holders(name) }]).length
    expect(one(() => 'Maren Oldershaw')).toBe(59_999)
    expect(one((i) => `Given${i} Family${i}`)).toBe(0)
    expect(one((i) => (i % 2 === 0 ? `Given${i} Kestle` : 'Tom Kestle'))).toBe(29_999)
    expect(one((i) => (i % 3 === 0 ? '' : `Given${i % 300} Family${i % 300}`))).toBeGreaterThan(59_000)
  })
})
