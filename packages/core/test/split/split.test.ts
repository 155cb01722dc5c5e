import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { LINE_TYPES } from '../../src/phone'
import {
  isClosed,
  joinScopes,
  type PlacementInput,
  parseFilter,
  placeContact,
  SCOPES,
  togglePile,
  writeFilter,
} from '../../src/split'

const line = (
  lineType: PlacementInput['lines'][number]['lineType'],
  more: Partial<PlacementInput['lines'][number]> = {},
) => ({ valid: true, lineType, isDead: false, isShared: false, ...more })

describe('an unknown field of a filter', () => {
  it.each([
    ['contry:GB', 'country'],
    ['lien:mobile', 'line'],
    ['verdct:valid', 'verdict'],
    ['stat:live', 'status'],
    ['lanes:call', 'lane'],
    ['reasons:mobile', 'reason'],
    ['linetype:mobile', 'line'],
  ])('%s is near %s', (text, nearest) => expect(parseFilter(text).issues).toMatchObject([{ nearest }]))

  it.each(['shoes:size', 'xx:1', 'budget:9'])('%s is near none', (text) =>
    expect(parseFilter(text).issues).toMatchObject([{ nearest: null }]),
  )
})

describe('placeContact', () => {
  it.each<[string, PlacementInput, string]>([
    ['a mobile', { lines: [line('mobile')], hasEmail: true }, 'text/mobile'],
    ['a mobile behind a fixed line', { lines: [line('fixed'), line('mobile')], hasEmail: false }, 'text/mobile'],
    [
      'a mobile several people hold',
      { lines: [line('mobile', { isShared: true })], hasEmail: false },
      'call/shared-mobile',
    ],
    ['a fixed line', { lines: [line('fixed')], hasEmail: true }, 'call/line-to-call'],
    ['what may be either', { lines: [line('fixed-or-mobile')], hasEmail: false }, 'call/line-to-call'],
    [
      'a dead mobile and an e-mail',
      { lines: [line('mobile', { isDead: true })], hasEmail: true },
      'ads-only/only-email',
    ],
    ['a dead mobile alone', { lines: [line('mobile', { isDead: true })], hasEmail: false }, 'parked/out-of-service'],
    ['a premium line alone', { lines: [line('premium')], hasEmail: false }, 'parked/line-not-to-call'],
    ['an invalid number', { lines: [line('mobile', { valid: false })], hasEmail: false }, 'parked/no-way-to-reach'],
    ['nothing', { lines: [], hasEmail: false }, 'parked/no-way-to-reach'],
  ])('%s', (_, input, expected) => {
    const { lane, reason } = placeContact(input)
    expect(`${lane}/${reason}`).toBe(expected)
  })
})

describe('whom a suppression list holds', () => {
  const someone = fc.record({
    lines: fc.array(
      fc.record({
        valid: fc.boolean(),
        lineType: fc.constantFrom(...LINE_TYPES),
        isDead: fc.boolean(),
        isShared: fc.boolean(),
      }),
      { maxLength: 4 },
    ),
    hasEmail: fc.boolean(),
  })
  const scopes = fc.subarray([...SCOPES])
  const USE = { text: 'texts', call: 'calls', 'ads-only': 'ads' } as const

  it('is in no lane that is closed to them', () =>
    fc.assert(
      fc.property(someone, scopes, (input, suppressedFor) => {
        const { lane } = placeContact({ ...input, suppressedFor })
        return lane === 'parked' || !isClosed(suppressedFor, USE[lane])
      }),
    ))

  it('is where they would be without it, as long as that is open', () =>
    fc.assert(
      fc.property(someone, scopes, (input, suppressedFor) => {
        const free = placeContact(input)
        if (free.lane === 'parked' ? suppressedFor.includes('all') : isClosed(suppressedFor, USE[free.lane])) return
        expect(placeContact({ ...input, suppressedFor })).toEqual(free)
      }),
    ))

  it('is kept out of everything by one list that says so', () =>
    fc.assert(
      fc.property(someone, scopes, (input, some) => {
        const suppressedFor = joinScopes([...some, 'all'])
        expect(suppressedFor).toEqual(['all'])
        expect(placeContact({ ...input, suppressedFor })).toEqual({ lane: 'parked', reason: 'suppressed' })
      }),
    ))

  it.each<[string, PlacementInput['suppressedFor'], string]>([
    ['calls: still to be texted', ['calls'], 'text/mobile'],
    ['texts: a line to call', ['texts'], 'call/line-to-call'],
    ['texts and calls: for ads alone', ['texts', 'calls'], 'ads-only/not-by-phone'],
    ['texts, calls and ads', ['texts', 'calls', 'ads'], 'parked/suppressed'],
    ['post', ['post'], 'text/mobile'],
  ])('with a mobile of their own, for %s', (_, suppressedFor, expected) => {
    const { lane, reason } = placeContact({ lines: [line('mobile')], hasEmail: false, suppressedFor })
    expect(`${lane}/${reason}`).toBe(expected)
  })
})

describe('typed filters', () => {
  it('are piles and words', () => {
    expect(parseFilter('line:mobile,fixed country:GB Oldershaw causeway')).toEqual({
      filter: { piles: { line: ['mobile', 'fixed'], country: ['GB'] }, words: 'Oldershaw causeway', rest: [] },
      issues: [],
    })
  })
  it('report a pile that does not exist, and search for it', () => {
    expect(parseFilter('seets:40')).toEqual({
      filter: { piles: {}, words: 'seets:40', rest: [] },
      issues: [{ code: 'unknown-field', at: 0, length: 8, word: 'seets', nearest: 'sent' }],
    })
  })
  it('take a web address for a word', () =>
    expect(parseFilter('https://x.example').filter.words).toBe('https://x.example'))
  it('read back as they were written', () => {
    for (const text of ['line:mobile lane:text x y', 'reason:"only email" z', '', 'fell:joined']) {
      expect(parseFilter(writeFilter(parseFilter(text).filter)).filter).toEqual(parseFilter(text).filter)
    }
  })
  it('switch a pile on and off', () => {
    const on = togglePile(parseFilter('x').filter, 'line', 'mobile')
    expect(writeFilter(on)).toBe('line:mobile x')
    expect(writeFilter(togglePile(on, 'line', 'mobile'))).toBe('x')
  })
})
