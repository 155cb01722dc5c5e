import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import {
  type Directory,
  mostForBusinesses,
  type PageTerms,
  readCount,
  readNamed,
  readPageEnd,
  sizeWithin,
} from '../../src/connect'

const CALL = { method: 'GET', path: '/' } as const
const LOOK_UP = { call: CALL, items: '$.all[*]', code: '$.id', name: '$.called' }
const DIRECTORY: Directory = {
  trades: LOOK_UP,
  places: LOOK_UP,
  count: { call: CALL, total: '$.count', leftOut: '$.known', price: '$.price' },
  perPage: 50,
  next: '$.next',
  leftOut: '$.omitted',
  known: null,
}

describe('what a directory looks up', () => {
  it('is a code and a name each', () =>
    expect(readNamed(LOOK_UP, { all: [{ id: 7, called: 'Campsites' }] })).toEqual([{ code: '7', name: 'Campsites' }]))

  it.each<[string, unknown]>([
    ['no answer', null],
    ['a text', 'Welcome!'],
    ['one without a code', { all: [{ called: 'Campsites' }] }],
    ['one without a name', { all: [{ id: 'c', called: '' }] }],
  ])('is nothing that can be read where there is %s', (_, json) => expect(readNamed(LOOK_UP, json)).toBeNull())

  it('is nothing where nothing is known by that name', () => expect(readNamed(LOOK_UP, { all: [] })).toEqual([]))
})

describe('a count', () => {
  it('tells how many there are, how many are left out and what one costs', () =>
    expect(readCount(DIRECTORY.count, { count: 120, known: 20, price: '0.06' })).toEqual({
      total: 120,
      leftOut: 20,
      price: 60_000,
    }))

  it.each<[string, unknown]>([
    ['is missing', {}],
    ['is no whole number', { count: 1.5 }],
    ['is below nothing', { count: -1 }],
    ['is less than what is left out of it', { count: 3, known: 4 }],
  ])('is none where it %s', (_, json) => expect(readCount(DIRECTORY.count, json)).toBeNull())

  it('has no price where none is told, or none that can be one', () => {
    expect(readCount({ ...DIRECTORY.count, price: null }, { count: 1, price: 5 })?.price).toBeNull()
    expect(readCount(DIRECTORY.count, { count: 1, price: 'dear' })?.price).toBeNull()
  })
})

describe('the end of a page', () => {
  it.each<[unknown, string | null, number]>([
    [{ next: 'b', omitted: 3 }, 'b', 3],
    [{ next: 12 }, '12', 0],
    [{ next: null, omitted: 'many' }, null, 0],
    [{ next: '' }, null, 0],
    [{}, null, 0],
  ])('%j leads on to %j', (json, next, leftOut) => expect(readPageEnd(DIRECTORY, json)).toEqual({ next, leftOut }))
})

const terms = fc.record({
  per: fc.constantFrom<PageTerms['per']>('call', 'candidate'),
  price: fc.integer({ min: 0, max: 5_000_000 }),
  perPage: fc.integer({ min: 1, max: 500 }),
})

describe('an amount', () => {
  it('is never passed by the next page, and no more than a charge of it is left unused', () =>
    fc.assert(
      fc.property(terms, fc.integer({ min: 0, max: 100_000_000 }), (of, left) => {
        const size = sizeWithin(of, left)
        expect(size).toBeLessThanOrEqual(of.perPage)
        expect(mostForBusinesses(of, size)).toBeLessThanOrEqual(left)
        if (size < of.perPage) expect(mostForBusinesses(of, size + 1)).toBeGreaterThan(left)
      }),
    ))

  it('that is the most for all of them is enough, page after page', () =>
    fc.assert(
      fc.property(terms, fc.integer({ min: 0, max: 3000 }), (of, all) => {
        let left = mostForBusinesses(of, all)
        let wanted = all
        while (wanted > 0) {
          const size = Math.min(sizeWithin(of, left), wanted)
          expect(size).toBeGreaterThan(0)
          left -= mostForBusinesses(of, size)
          wanted -= size
        }
        expect(left).toBe(0)
      }),
    ))
})
