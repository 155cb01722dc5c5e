import { beforeEach, describe, expect, it } from '@jest/globals'
import { createKeptAnswers, type KeptAnswers } from '../../src/lists/keptAnswers'

let stamp = 'one'
let worked = 0
let kept: KeptAnswers
const work = async (): Promise<number> => {
  worked++
  return worked
}
const about = (...what: unknown[]) => kept.of('list', what, work)

beforeEach(() => {
  stamp = 'one'
  worked = 0
  kept = createKeptAnswers(async () => stamp, { worth: 0, longest: 1e9, most: 2 })
})

describe('an answer that took long', () => {
  it('is given again while nothing has changed, and worked out anew after', async () => {
    expect([await about('a'), await about('a')]).toEqual([1, 1])
    stamp = 'two'
    expect([await about('a'), await about('a')]).toEqual([2, 2])
  })

  it('is of its question, its settings and its list', async () => {
    expect([await about('a'), await about('a', { days: 3 }), await kept.of('other', ['a'], work)]).toEqual([1, 2, 3])
  })

  it('is shared by who ask for it at the same moment', async () => {
    expect(await Promise.all([about('a'), about('a'), about('a')])).toEqual([1, 1, 1])
  })

  it('is not kept where it failed: the next asks again', async () => {
    const fails = () => Promise.reject(new Error('the database is away'))
    await expect(kept.of('list', ['a'], fails)).rejects.toThrow('away')
    expect(await about('a')).toBe(1)
  })

  it('makes room for others, the oldest first', async () => {
    for (const what of ['a', 'b', 'c']) await about(what)
    expect([await about('c'), await about('b'), await about('a')]).toEqual([3, 2, 4])
  })

  it('is not given for longer than it may be', async () => {
    kept = createKeptAnswers(async () => stamp, { worth: 0, longest: -1, most: 2 })
    expect([await about('a'), await about('a')]).toEqual([1, 2])
  })
})

it('keeps nothing that is quickly worked out', async () => {
  kept = createKeptAnswers(async () => stamp, { worth: 1e9, longest: 1e9, most: 2 })
  expect([await about('a'), await about('a')]).toEqual([1, 2])
})
