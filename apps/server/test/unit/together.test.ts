import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { together } from '../../src/machine/together'

/** Looks that end when they are told to. */
function looks() {
  const asked: { readonly keys: readonly number[]; readonly end: (error?: Error) => void }[] = []
  const look = (keys: readonly number[]) =>
    new Promise<ReadonlySet<number>>((resolve, reject) => {
      asked.push({ keys, end: (error) => (error ? reject(error) : resolve(new Set(keys))) })
    })
  return { asked, look }
}

const settle = () => new Promise((resolve) => setImmediate(resolve))

describe('what is looked up together', () => {
  it('goes at once where nothing is under way, and with all who came meanwhile after that', async () => {
    const { asked, look } = looks()
    const find = together(look, { atOnce: 1 })
    const first = find([1])
    const later = [find([2, 3]), find([4])]
    expect(asked.map(({ keys }) => keys)).toEqual([[1]])
    asked[0]?.end()
    expect((await first).has(1)).toBe(true)
    await settle()
    expect(asked.map(({ keys }) => keys)).toEqual([[1], [2, 3, 4]])
    asked[1]?.end()
    for (const told of await Promise.all(later)) expect([...told]).toEqual([2, 3, 4])
  })

  it('fails for those in it alone, and goes on for the others', async () => {
    const { asked, look } = looks()
    const find = together(look, { atOnce: 1 })
    const first = find([1])
    const second = find([2])
    asked[0]?.end(new Error('away'))
    await expect(first).rejects.toThrow('away')
    await settle()
    asked[1]?.end()
    expect((await second).has(2)).toBe(true)
  })

  it('tells everybody of what they asked for, whoever asks when, with no look too large', () =>
    fc.assert(
      fc.asyncProperty(
        fc.array(fc.array(fc.nat(), { minLength: 1, maxLength: 8 }), { maxLength: 40 }),
        fc.integer({ min: 1, max: 3 }),
        async (askers, atOnce) => {
          let open = 0
          const sizes: number[] = []
          const find = together(
            async (keys: readonly number[]) => {
              open++
              expect(open).toBeLessThanOrEqual(atOnce)
              sizes.push(keys.length)
              await settle()
              open--
              return new Set(keys)
            },
            { atOnce, most: 10 },
          )
          const told = await Promise.all(askers.map((keys) => find(keys)))
          for (const [at, keys] of askers.entries()) for (const key of keys) expect(told[at]?.has(key)).toBe(true)
          expect(sizes.reduce((sum, n) => sum + n, 0)).toBe(askers.flat().length)
          expect(Math.max(0, ...sizes)).toBeLessThanOrEqual(10)
        },
      ),
      { numRuns: 50 },
    ))
})
