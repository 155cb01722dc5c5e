import { describe, expect, it } from '@jest/globals'
import { drawTerrace, tellStory } from '../../src/story'

describe('drawTerrace', () => {
  const facts = {
    rows: 800,
    held: 5,
    nothingReadable: 21,
    joined: 179,
    outOfService: 6,
    filled: 4,
    byPost: 2,
    suppressed: 0,
    parked: 3,
    notSent: 90,
  }
  const steps = drawTerrace(facts)

  it('has every step as the one before less its falls plus its rises', () => {
    steps.forEach((step, i) => {
      const before = steps[i - 1]?.count ?? step.count
      expect(step.count).toBe(step.changes.reduce((sum, { by }) => sum + by, before))
    })
    expect(steps.map(({ count }) => count)).toEqual([800, 774, 595, 589, 593, 592, 502])
  })
  it('goes through the seven stages in order', () => {
    expect(steps.map(({ stage }) => stage)).toEqual(['bring', 'tidy', 'pair', 'check', 'fill', 'split', 'send'])
  })
})

describe('tellStory', () => {
  it('puts entries in the order of time, and of telling where the time is the same', () => {
    const at = (second: number, what: string) => ({ at: `2026-11-03T10:00:0${second}Z`, what })
    expect(tellStory([at(2, 'c'), at(1, 'a')], [at(1, 'b')]).map(({ what }) => what)).toEqual(['a', 'b', 'c'])
  })
})
