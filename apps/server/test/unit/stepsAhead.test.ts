import { describe, expect, it } from '@jest/globals'
import type { PreparedStep, StepPlace } from '../../src/bring/prepareStep'
import { beginStep, createStepsAhead as createFor, type Preparing } from '../../src/jobs/stepsAhead'

const LENGTH = 10
const place = (n: number): StepPlace => ({ offset: n * LENGTH, row: n })
const stepTo = (end: StepPlace): PreparedStep => ({
  end,
  tidiedBy: 'x',
  rows: 1,
  held: 0,
  withMobile: 0,
  mends: {},
  copies: [],
})
const createStepsAhead = (now?: () => number) => createFor<StepPlace, PreparedStep>(({ offset }) => offset, now)
const turn = () => new Promise((resolve) => setImmediate(resolve))

/** A table of so many steps, each of which tells its end at once and is ready when it is let. */
function table(steps: number, depth: number) {
  const begun: number[] = []
  const ready = new Map<number, () => void>()
  const fails = new Map<number, (error: Error) => void>()
  const preparing: Preparing<StepPlace, PreparedStep> = {
    depth,
    hasMore: ({ row }) => row < steps,
    begin: (at) =>
      beginStep(at, ({ row }, onEnd) => {
        begun.push(row)
        onEnd(place(row + 1))
        return new Promise((resolve, reject) => {
          ready.set(row, () => resolve(stepTo(place(row + 1))))
          fails.set(row, reject)
        })
      }),
  }
  return { begun, ready, fails, preparing }
}

describe('steps that are prepared ahead', () => {
  it.each([1, 2, 5])('are begun in order, %i behind the one that is taken, and none twice', async (depth) => {
    const steps = 7
    const { begun, ready, preparing } = table(steps, depth)
    const ahead = createStepsAhead()
    for (let n = 0; n < steps; n++) {
      const step = ahead.take('job', place(n), preparing)
      await turn()
      expect(begun).toEqual(Array.from({ length: Math.min(steps, n + 1 + depth) }, (_, i) => i))
      ready.get(n)?.()
      expect((await step.prepared).end).toEqual(place(n + 1))
    }
    expect(begun).toHaveLength(steps)
  })

  it('leave a failure to whoever takes that step, who has it begun anew the next time', async () => {
    const { begun, ready, fails, preparing } = table(3, 1)
    const ahead = createStepsAhead()
    ahead.take('job', place(0), preparing)
    await turn()
    fails.get(1)?.(new Error('away'))
    await expect(ahead.take('job', place(1), preparing).prepared).rejects.toThrow('away')
    const again = ahead.take('job', place(1), preparing)
    expect(begun.filter((row) => row === 1)).toHaveLength(2)
    ready.get(1)?.()
    expect((await again.prepared).end).toEqual(place(2))
  })

  it('are nobody’s once their job has ended, and none follows', async () => {
    const { begun, preparing } = table(9, 2)
    const ahead = createStepsAhead()
    ahead.take('job', place(0), preparing)
    ahead.drop('job')
    await turn()
    expect(begun).toEqual([0])
  })

  it('are prepared anew for a job that rested, or goes on elsewhere', async () => {
    let now = 0
    const { begun, preparing } = table(9, 1)
    const ahead = createStepsAhead(() => now)
    ahead.take('job', place(0), preparing)
    await turn()
    now = 5001
    ahead.take('job', place(1), preparing)
    expect(begun).toEqual([0, 1, 1])
    await turn()
    ahead.take('job', place(5), preparing)
    expect(begun).toEqual([0, 1, 1, 2, 5])
  })

  it('are let go of where another process goes on with their job, as soon as any is taken', async () => {
    let now = 0
    const { begun, preparing } = table(9, 1)
    const ahead = createStepsAhead(() => now)
    ahead.take('left behind', place(0), preparing)
    await turn()
    now = 5001
    ahead.take('job', place(3), preparing)
    await turn()
    now = 5002
    ahead.take('left behind', place(1), preparing)
    expect(begun).toEqual([0, 1, 3, 4, 1])
  })

  it('tell where they end by the step itself where they did not tell it before', async () => {
    const late = beginStep(place(0), async () => stepTo(place(1)))
    expect(await late.end).toEqual(place(1))
    const broken = beginStep(place(0), async () => Promise.reject(new Error('away')))
    await expect(broken.end).rejects.toThrow('away')
  })
})
