import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { severalAtOnce, sharingTurns, takingTurns } from '../../src/db/takingTurns'

/** What can be ended by hand. */
function held() {
  const ends: { resolve: () => void; reject: (error: Error) => void }[] = []
  const begin = () => new Promise<void>((resolve, reject) => ends.push({ resolve, reject }))
  return { begin, ends }
}

const passed = () => new Promise((resolve) => setImmediate(resolve))

describe('work for all who ask', () => {
  it('is done once for all who ask while it waits, and again for who asks once it has begun', async () => {
    const { begin, ends } = held()
    let done = 0
    const ask = sharingTurns(async () => {
      await begin()
      return ++done
    })
    const first = ask()
    await passed()
    const others = [ask(), ask(), ask()]
    await passed()
    expect(ends).toHaveLength(1)
    ends[0]?.resolve()
    expect(await first).toBe(1)
    await passed()
    expect(ends).toHaveLength(2)
    ends[1]?.resolve()
    expect(await Promise.all(others)).toEqual([2, 2, 2])
  })

  it('tells a failure to those who shared it, and is done anew for the next', async () => {
    let fails = true
    const ask = sharingTurns(async () => {
      if (fails) throw new Error('away')
      return 'done'
    })
    const asked = [ask(), ask()]
    for (const one of asked) await expect(one).rejects.toThrow('away')
    fails = false
    expect(await ask()).toBe('done')
  })
})

describe('turns on one connection', () => {
  it('begins one only when the one before has ended, in the order of asking', async () => {
    const turn = takingTurns()
    const { begin, ends } = held()
    const begun: string[] = []
    const asked = ['a', 'b', 'c'].map((name) =>
      turn(async () => {
        begun.push(name)
        await begin()
        return name
      }),
    )
    await passed()
    expect(begun).toEqual(['a'])
    for (const next of [
      ['a', 'b'],
      ['a', 'b', 'c'],
    ]) {
      ends.at(-1)?.resolve()
      await passed()
      expect(begun).toEqual(next)
    }
    ends.at(-1)?.resolve()
    expect(await Promise.all(asked)).toEqual(['a', 'b', 'c'])
  })

  it('tells a failure to whoever asked, and goes on with the next', async () => {
    const turn = takingTurns()
    const failing = turn(async () => {
      throw new Error('broken')
    })
    const next = turn(async () => 'went on')
    await expect(failing).rejects.toThrow('broken')
    expect(await next).toBe('went on')
  })
})

describe('several pages at once', () => {
  it('works on each page once, on no more at a time than asked for, whatever takes how long', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.nat({ max: 4 }), { maxLength: 30 }),
        fc.integer({ min: 1, max: 5 }),
        async (delays, atOnce) => {
          const done: number[] = []
          let [now, most] = [0, 0]
          await severalAtOnce(
            delays.keys(),
            async (page) => {
              most = Math.max(most, ++now)
              for (let i = 0; i < (delays[page] ?? 0); i++) await passed()
              done.push(page)
              now--
            },
            atOnce,
          )
          expect(done.sort((a, b) => a - b)).toEqual([...delays.keys()])
          expect(most).toBeLessThanOrEqual(atOnce)
        },
      ),
      { numRuns: 50 },
    )
  })

  it('begins as many as may be under way, and the next when one of them is through', async () => {
    const { begin, ends } = held()
    const begun: number[] = []
    const all = severalAtOnce(
      [0, 1, 2, 3],
      async (page) => {
        begun.push(page)
        await begin()
      },
      3,
    )
    await passed()
    expect(begun).toEqual([0, 1, 2])
    ends[1]?.resolve()
    await passed()
    expect(begun).toEqual([0, 1, 2, 3])
    for (const { resolve } of ends) resolve()
    await all
  })

  it('tells the first failure, begins no page after it, and waits for those under way', async () => {
    const { begin, ends } = held()
    const begun: number[] = []
    let told = false
    const all = severalAtOnce(
      [0, 1, 2, 3],
      async (page) => {
        begun.push(page)
        await begin()
      },
      2,
    )
    const watched = all.catch((error: Error) => {
      told = true
      return error
    })
    await passed()
    ends[0]?.reject(new Error('first'))
    await passed()
    expect(told).toBe(false)
    ends[1]?.reject(new Error('second'))
    expect(await watched).toEqual(new Error('first'))
    expect(begun).toEqual([0, 1])
  })

  it('tells a failure of whoever makes the pages, and lets them clear up after themselves', async () => {
    let clearedUp = 0
    async function* pages(fails: boolean) {
      try {
        yield 1
        if (fails) throw new Error('no more pages')
        yield 2
        yield 3
      } finally {
        clearedUp++
      }
    }
    await expect(severalAtOnce(pages(true), async () => {}, 3)).rejects.toThrow('no more pages')
    const failing = severalAtOnce(
      pages(false),
      async (page) => {
        if (page === 2) throw new Error('broken')
      },
      1,
    )
    await expect(failing).rejects.toThrow('broken')
    expect(clearedUp).toBe(2)
  })
})
