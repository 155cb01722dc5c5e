import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { laterMoments } from '../src/split/laterMoments'

describe('moments to call again', () => {
  it('all lie ahead, each later than the one before it where days differ', () =>
    fc.assert(
      fc.property(fc.date({ min: new Date('2020-01-01'), max: new Date('2040-01-01'), noInvalidDate: true }), (now) => {
        const at = laterMoments(now).map((one) => new Date(one.at).getTime())
        for (const moment of at) expect(moment).toBeGreaterThan(now.getTime())
        const [, , tomorrow = 0, week = 0] = at
        expect(week).toBeGreaterThan(tomorrow)
        expect(new Date(tomorrow).getHours()).toBe(9)
      }),
    ))
})
