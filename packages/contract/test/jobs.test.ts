import { describe, expect, it } from '@jest/globals'
import { isOver, isUnderWay, JOB_STATES } from '../src/jobs'

describe('the states of a job', () => {
  it('are each one of three: under way, resting, over', () => {
    const kindOf = (state: (typeof JOB_STATES)[number]) =>
      isOver({ state }) ? 'over' : isUnderWay({ state }) ? 'under way' : 'resting'
    expect(Object.fromEntries(JOB_STATES.map((state) => [state, kindOf(state)]))).toEqual({
      queued: 'under way',
      running: 'under way',
      waiting: 'under way',
      stopping: 'under way',
      stopped: 'over',
      pausing: 'under way',
      paused: 'resting',
      done: 'over',
      failed: 'over',
    })
  })
})
