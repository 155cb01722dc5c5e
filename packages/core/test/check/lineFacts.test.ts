import { describe, expect, it } from '@jest/globals'
import { DEFAULT_FRESH_DAYS, describeLine, isUsableMobile, needsCheck, rankLines } from '../../src/check'

const number = { e164: '+14155552671', valid: true, lineType: 'fixed-or-mobile' as const }
const DAY = 86_400_000

describe('describeLine', () => {
  it('believes the register before the plan', () => {
    expect(describeLine(number, { lineType: 'mobile', status: 'in-service', checkedAt: 1 })).toMatchObject({
      lineType: 'mobile',
      status: 'in-service',
      knownFrom: 'register',
    })
  })
  it('stays with the plan where the register does not know', () => {
    expect(describeLine(number, { lineType: 'unknown', status: 'unknown', checkedAt: 1 })).toMatchObject({
      lineType: 'fixed-or-mobile',
      knownFrom: 'plan',
    })
    expect(describeLine(number, undefined)).toMatchObject({
      lineType: 'fixed-or-mobile',
      status: 'unknown',
      knownFrom: 'plan',
    })
  })
})

describe('needsCheck', () => {
  const facts = { lineType: 'mobile' as const, status: 'in-service' as const, checkedAt: 1000 * DAY }
  const days = { ...DEFAULT_FRESH_DAYS, mobile: 60, unreachable: 10 }
  it('does not buy a fresh answer again', () => {
    expect(needsCheck(facts, 1060 * DAY, days)).toBe(false)
    expect(needsCheck(facts, 1061 * DAY, days)).toBe(true)
    expect(needsCheck(undefined, 0, days)).toBe(true)
  })
  it('lets answers age by what they say', () => {
    const unreachable = { ...facts, status: 'unreachable' as const }
    expect(needsCheck(unreachable, 1010 * DAY, days)).toBe(false)
    expect(needsCheck(unreachable, 1011 * DAY, days)).toBe(true)
  })
})

describe('rankLines', () => {
  const line = (e164: string, lineType: 'mobile' | 'fixed', status: 'in-service' | 'out-of-service', valid = true) => ({
    e164,
    valid,
    lineType,
    status,
    knownFrom: 'register' as const,
  })
  it('puts the line of most use first', () => {
    const lines = [
      line('a', 'mobile', 'out-of-service'),
      line('b', 'fixed', 'in-service'),
      line('c', 'mobile', 'in-service', false),
      line('d', 'mobile', 'in-service'),
    ]
    expect(rankLines(lines).map(({ e164 }) => e164)).toEqual(['d', 'b', 'a', 'c'])
    expect(lines.map(isUsableMobile)).toEqual([false, false, false, true])
  })
})
