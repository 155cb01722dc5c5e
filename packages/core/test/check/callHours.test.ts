import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { type CallPlace, DEFAULT_CALL_HOURS, localTime, mayBeCalled } from '../../src/check'

const at = (iso: string) => new Date(iso).getTime()
const place = (more: Partial<CallPlace> = {}): CallPlace => ({
  zones: ['Europe/London'],
  hours: DEFAULT_CALL_HOURS,
  isHoliday: () => false,
  ...more,
})

describe('localTime', () => {
  it.each([
    ['Europe/London', '2026-07-01T11:30:00Z', { date: '2026-07-01', minutes: 750, day: 3 }],
    ['America/New_York', '2026-03-08T06:59:00Z', { date: '2026-03-08', minutes: 119, day: 0 }],
    ['America/New_York', '2026-03-08T07:00:00Z', { date: '2026-03-08', minutes: 180, day: 0 }],
    ['Pacific/Auckland', '2026-12-31T12:00:00Z', { date: '2027-01-01', minutes: 60, day: 5 }],
    ['Asia/Kolkata', '2026-05-05T18:30:00Z', { date: '2026-05-06', minutes: 0, day: 3 }],
  ])('%s at %s', (zone, moment, local) => expect(localTime(zone, at(moment))).toEqual(local))
})

describe('mayBeCalled', () => {
  it('holds within the hours there, from the first minute to before the last', () => {
    expect(mayBeCalled(place(), at('2026-07-01T08:00:00Z'))).toBe('now')
    expect(mayBeCalled(place(), at('2026-07-01T07:59:00Z'))).toBe('outside-hours')
    expect(mayBeCalled(place(), at('2026-07-01T16:59:59Z'))).toBe('now')
    expect(mayBeCalled(place(), at('2026-07-01T17:00:00Z'))).toBe('outside-hours')
  })
  it('does not hold on other days and on holidays', () => {
    expect(mayBeCalled(place(), at('2026-07-04T10:00:00Z'))).toBe('not-this-day')
    expect(mayBeCalled(place({ isHoliday: (date) => date === '2026-07-01' }), at('2026-07-01T10:00:00Z'))).toBe(
      'holiday',
    )
  })
  it('asks for the holiday of the day it is there', () => {
    const asked: string[] = []
    const isHoliday = (date: string) => asked.push(date) < 0
    mayBeCalled(place({ zones: ['Pacific/Auckland'], isHoliday }), at('2026-12-31T12:00:00Z'))
    expect(asked).toEqual(['2027-01-01'])
  })
  it('is not known where no zone is', () => expect(mayBeCalled(place({ zones: [] }), 0)).toBe('zone-not-known'))
  it('holds for several zones only where it holds in each', () => {
    const zones = ['America/New_York', 'America/Los_Angeles', 'America/Chicago', 'Pacific/Honolulu']
    fc.assert(
      fc.property(fc.subarray(zones, { minLength: 1 }), fc.integer({ min: 0, max: 40_000_000 }), (some, minute) => {
        const moment = at('2026-01-01T00:00:00Z') + minute * 60_000
        const each = some.map((zone) => mayBeCalled(place({ zones: [zone] }), moment))
        expect(mayBeCalled(place({ zones: some }), moment) === 'now').toBe(each.every((state) => state === 'now'))
      }),
    )
  })
})
