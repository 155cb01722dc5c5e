import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { readHours, writeHours } from '../src/check/hoursText'

describe('hours for calls as text', () => {
  it('are written by country, those for all others first', () => {
    expect(
      writeHours({
        DE: { from: 480, to: 1200, days: [1, 2, 3, 4, 5, 6] },
        '*': { from: 540, to: 1080, days: [1, 2, 3, 4, 5] },
        AE: { from: 600, to: 1050, days: [0, 1, 3] },
      }),
    ).toBe('* 09:00–18:00 Mon–Fri\nAE 10:00–17:30 Mon, Wed, Sun\nDE 08:00–20:00 Mon–Sat')
  })

  it('are read as people write them', () => {
    expect(readHours('* 9-18 mon-fri\n\nde 8:30 – 20 Sat, Sun')).toEqual({
      hours: {
        '*': { from: 540, to: 1080, days: [1, 2, 3, 4, 5] },
        DE: { from: 510, to: 1200, days: [6, 0] },
      },
    })
    expect(readHours('* 9-18 Fri-Mon')).toEqual({ hours: { '*': { from: 540, to: 1080, days: [1, 5, 6, 0] } } })
  })

  it.each([
    '* 18-9 Mon',
    '* 9-25 Mon',
    '* 9:70-12 Mon',
    'QX 9-12 Mon',
    '* 9-12 Someday',
    '* 9-12',
    'Germany 9-12 Mon',
    '* 9-12 Mon-Wed-Fri',
  ])('say of “%s” that it cannot be read', (text) =>
    expect(readHours(text)).toEqual({ problem: expect.stringContaining('cannot be read') }),
  )

  it('are never two of one country, of which one would be lost', () =>
    expect(readHours('* 9-18 Mon-Fri\nDE 8-12 Mon\nde 14-18 Mon')).toEqual({
      problem: expect.stringContaining('two lines for DE'),
    }))

  it('need a line for all other countries', () =>
    expect(readHours('DE 9-18 Mon-Fri')).toEqual({ problem: expect.stringContaining('*') }))

  it('come back from the text as they went in', () => {
    const hours = fc
      .record({
        from: fc.integer({ min: 0, max: 700 }),
        to: fc.integer({ min: 701, max: 1440 }),
        days: fc.subarray([1, 2, 3, 4, 5, 6, 0], { minLength: 1 }),
      })
      .map((one) => ({ ...one, days: [1, 2, 3, 4, 5, 6, 0].filter((day) => one.days.includes(day)) }))
    fc.assert(
      fc.property(hours, hours, (all, german) => {
        const set = { '*': all, DE: german }
        expect(readHours(writeHours(set))).toEqual({ hours: set })
      }),
    )
  })
})
