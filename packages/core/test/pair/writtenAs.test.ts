import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { areNamesCompatible, areWrittenAlike, exactJoiner, type Writing } from '../../src/pair'

const WORDS = ['j', 'john', 'jack', 'm', 'maren', 'müller', 'oldershaw', '?']
const words = fc.array(fc.constantFrom(...WORDS), { maxLength: 4 })
const COMPANIES = ['', 'Heron Camping', 'HERON Camping', 'Larkrise']
const writing = fc.record({
  name: words.map((all) => all.join(' ')),
  birthDate: fc.constantFrom('', '1987', '1987-05-03'),
  company: fc.constantFrom(...COMPANIES),
})

/** Another way to write the same: words in another order, in capitals, with other signs between them. */
const otherwise = (one: Writing): fc.Arbitrary<Writing> =>
  fc
    .tuple(
      fc.shuffledSubarray(one.name === '' ? [] : one.name.split(' '), {
        minLength: one.name === '' ? 0 : one.name.split(' ').length,
      }),
      fc.constantFrom(' ', '  ', ', '),
      fc.boolean(),
      fc.constantFrom(...COMPANIES),
    )
    .map(([all, between, isLoud, company]) => {
      const name = isLoud ? all.join(between).toUpperCase() : all.join(between)
      return { ...one, name, company: one.name === '' ? (one.company ?? '').toUpperCase() : company }
    })

const whoIsJoined = (all: readonly Writing[]) => {
  const joiner = exactJoiner()
  joiner.add({ kind: 'number', key: '+447911204481', holders: all.map((one, id) => ({ id, ...one })) })
  return joiner.joins()
}

describe('two ways to write a contact', () => {
  it.each([
    ['Maren Oldershaw', 'MAREN OLDERSHAW'],
    ['Maren Oldershaw', 'Oldershaw, Maren'],
    ['Jürgen Müller', 'juergen mueller'],
  ])('%s and %s are one', (a, b) => expect(areWrittenAlike({ name: a }, { name: b })).toBe(true))

  it.each([
    ['Maren Oldershaw', 'M. Oldershaw'],
    ['Maren Oldershaw', 'Maren'],
    ['Maren Oldershaw', ''],
    ['Maren Maren', 'Maren'],
  ])('%s and %j are two, though one person may be meant', (a, b) =>
    expect(areWrittenAlike({ name: a }, { name: b })).toBe(false),
  )

  it('are told apart by a birth date, and by a company where there is no name', () => {
    const [named, nameless] = [{ name: 'Maren' }, { name: '' }]
    expect(areWrittenAlike({ ...named, birthDate: '1987' }, named)).toBe(false)
    expect(areWrittenAlike({ ...named, company: 'Heron' }, { ...named, company: 'Larkrise' })).toBe(true)
    expect(areWrittenAlike({ ...nameless, company: 'Heron' }, { ...nameless, company: 'Larkrise' })).toBe(false)
    expect(areWrittenAlike({ ...nameless, company: 'Heron' }, { ...nameless, company: 'HERON' })).toBe(true)
  })

  it('join nobody otherwise, whoever else holds the key', () => {
    const both = fc.tuple(writing, fc.array(writing, { maxLength: 6 }), fc.nat(6))
    fc.assert(
      fc.property(
        both.chain(([one, others, at]) => fc.tuple(fc.constant({ one, others, at }), otherwise(one))),
        ([{ one, others, at }, other]) => {
          expect(areWrittenAlike(one, other)).toBe(true)
          const among = (mine: Writing) => [...others.slice(0, at), mine, ...others.slice(at)]
          expect(whoIsJoined(among(other))).toEqual(whoIsJoined(among(one)))
        },
      ),
      { numRuns: 1000 },
    )
  })
})

it('holds names against each other in any order of their words', () => {
  const shuffled = words.chain((all) =>
    fc.tuple(fc.constant(all), fc.shuffledSubarray(all, { minLength: all.length, maxLength: all.length })),
  )
  fc.assert(
    fc.property(shuffled, words, ([all, other], more) => {
      const isOne = areNamesCompatible(all.join(' '), more.join(' '))
      expect(areNamesCompatible(other.join(' '), more.join(' '))).toBe(isOne)
      expect(areNamesCompatible(more.join(' '), other.join(' '))).toBe(isOne)
    }),
    { numRuns: 1000 },
  )
})
