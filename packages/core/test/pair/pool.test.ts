import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { int32List } from '../../src/pair/int32List'
import { hashPool, numbersOfForm, textPool } from '../../src/pair/pool'

describe('hashPool', () => {
  it('tells texts apart by numbers in the order in which they come', () => {
    fc.assert(
      fc.property(fc.array(fc.string({ maxLength: 3 }), { maxLength: 3000 }), (texts) => {
        const pool = hashPool()
        const known = [...new Set(['', ...texts])]
        expect(texts.map(pool.idOf)).toEqual(texts.map((text) => known.indexOf(text)))
        expect(pool.count()).toBe(known.length)
      }),
      { numRuns: 30 },
    )
  })

  it('keeps its hashes when it is sealed, and looks for no text any more', () => {
    const pool = hashPool()
    const ids = ['anna', 'ben', 'carla'].map(pool.idOf)
    const before = ids.map(pool.hashOf)
    pool.seal()
    expect(ids.map(pool.hashOf)).toEqual(before)
    expect(pool.count()).toBe(4)
    expect(() => pool.idOf('dora')).toThrow('sealed')
  })
})

describe('numbersOfForm', () => {
  it('makes the form of a text once, however often it comes', () => {
    const made: string[] = []
    const pool = textPool()
    const forms = numbersOfForm((text) => {
      made.push(text)
      return text.toLowerCase()
    }, pool)
    expect(['Anna', 'ANNA', 'Anna', 'Ben'].map(forms.idOf)).toEqual([1, 1, 1, 2])
    expect(made).toEqual(['', 'Anna', 'ANNA', 'Ben'])
    forms.seal()
    expect(() => forms.idOf('Anna')).toThrow('sealed')
    expect(pool.idOf('anna')).toBe(1)
  })
})

describe('int32List', () => {
  it('gives its numbers away, and begins anew', () => {
    const list = int32List()
    const all = Array.from({ length: 3000 }, (_, i) => i * 7 - 100)
    for (const one of all) list.push(one)
    expect([...list.take()]).toEqual(all)
    expect(list.length).toBe(0)
    list.push(5)
    expect([...list.take()]).toEqual([5])
  })
})
