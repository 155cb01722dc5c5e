import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import {
  networkTemplates,
  partValues,
  readAccounts,
  readAudienceState,
  readText,
  refusalOf,
  roundsOf,
  wayOf,
  whyNotFor,
} from '../../src/send'

const ACCOUNTS = {
  call: { method: 'GET', path: '/a' },
  items: '$.all[*]',
  id: '$.id',
  name: '$.name',
  lacks: '$.lacks[*]',
} as const
const STATE = {
  call: { method: 'GET', path: '/s' },
  state: '$.state',
  words: { ok: 'usable', '3': 'matching' },
  size: '$.size',
  reason: '$.why',
  lapsesAt: '$.until',
} as const
const REFUSALS = {
  code: '$.why',
  words: {
    unpaid: { says: 'Unpaid.', remedy: 'Pay.', takes: 'a day', stops: 'everything' },
    small: { says: 'Small.', remedy: 'Spend.', takes: '', stops: 'aiming' },
  },
} as const

describe('accounts', () => {
  it('are read with what each lacks', () =>
    expect(
      readAccounts(ACCOUNTS, {
        all: [
          { id: 7, name: 'A', lacks: ['unpaid'] },
          { id: 'b', name: 'B' },
        ],
      }),
    ).toEqual([
      { id: '7', name: 'A', lacks: ['unpaid'] },
      { id: 'b', name: 'B', lacks: [] },
    ]))

  it.each([null, undefined, 'text', { all: [{ name: 'without an id' }] }])('%j are none that can be read', (json) =>
    expect(readAccounts(ACCOUNTS, json)).toBeNull(),
  )

  it('that lack something may not, or may exclude and not aim', () => {
    const of = (...lacks: string[]) => ({ id: 'a', name: 'A', lacks })
    const why = (lacks: string[], purpose: 'aim' | 'exclude') =>
      whyNotFor({ refusals: REFUSALS }, of(...lacks), purpose)?.code ?? null
    expect([why([], 'aim'), why(['small'], 'aim'), why(['small'], 'exclude')]).toEqual([null, 'small', null])
    expect([why(['small', 'unpaid'], 'exclude'), why(['new'], 'exclude')]).toEqual(['unpaid', 'new'])
  })
})

describe('what a network tells', () => {
  it('of an audience is a state, a size, a reason and a lapse', () => {
    expect(readAudienceState(STATE, { state: 'ok', size: 540, until: '2026-12-01T00:00:00Z' })).toEqual({
      state: 'usable',
      size: 540,
      reason: null,
      lapsesAt: '2026-12-01T00:00:00.000Z',
    })
    expect(readAudienceState(STATE, { state: 3, size: null, why: 'busy', until: 'soon' })).toEqual({
      state: 'matching',
      size: null,
      reason: 'busy',
      lapsesAt: null,
    })
  })

  it('in words that are not declared is not guessed', () => {
    expect(readAudienceState(STATE, { state: 'fine' })).toBeNull()
    expect(readText('$.x', { x: '' })).toBeNull()
    expect(refusalOf(REFUSALS, 'odd')).toMatchObject({ says: 'It says "odd".', stops: 'everything' })
  })
})

describe('a part of a delivery', () => {
  it('is put into a template so that it stays what it is, whatever stands in it', () =>
    fc.assert(
      fc.property(fc.array(fc.array(fc.string({ unit: 'grapheme' }), { minLength: 3, maxLength: 3 })), (rows) => {
        const headings = ['mail', 'mail', 'na"me']
        const call = {
          method: 'POST',
          path: '/{{ audience }}',
          body: '{"h": {{ headings }}, "r": {{ rows }}, "o": {{ records }}}',
        } as const
        const { body, path } = networkTemplates.build(call, { ...partValues(headings, rows, ''), audience: 'a/b' })
        expect(path).toBe('/a%2Fb')
        expect(JSON.parse(body ?? '')).toEqual({
          h: headings,
          r: rows,
          o: rows.map(([a, b, c]) => ({ mail: [a, b], 'na"me': c })),
        })
      }),
    ))

  it('cannot be written where its body would be no JSON', () => {
    expect(networkTemplates.whyNot('body', '{"a": {{ rows }}}')).toBeNull()
    expect(networkTemplates.whyNot('body', '{"a": "{{ rows }}"}')).toMatch(/no JSON/)
  })
})

describe('the way of a delivery', () => {
  const network = (calls: object) => ({ part: { most: 1, calls } }) as never
  const call = { method: 'POST', path: '/' } as const
  it.each([
    ['added-and-removed', { add: call, remove: call }, false, 'changes'],
    ['added-and-removed', { add: call, remove: call }, true, 'changes'],
    ['added-and-removed', { add: call }, false, 'changes'],
    ['added-and-removed', { add: call, whole: call }, true, 'whole'],
    ['whole', { whole: call, add: call }, true, 'whole'],
  ] as const)('to one that is %s with %j, holding any: %s, is %s', (changes, calls, holdsAny, way) =>
    expect(wayOf({ changes, network: network(calls) }, holdsAny)).toBe(way),
  )

  it('of changes takes out first: who stays under other identifiers is not taken out with the old ones', () => {
    expect(roundsOf('changes')).toEqual(['remove', 'add'])
    expect(roundsOf('whole')).toEqual(['whole'])
  })
})
