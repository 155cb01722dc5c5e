import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import {
  ADDRESS_STATES,
  type AddressState,
  LINE_STATUSES,
  type Line,
  rankAddresses,
  SURENESS,
  surenessOf,
} from '../../src/check'
import { LINE_TYPES } from '../../src/phone'

const line = (lineType: Line['lineType'], status: Line['status'] = 'unknown', valid = true): Line => ({
  e164: '+441665555018',
  valid,
  lineType,
  status,
  knownFrom: 'plan',
})
const someLine = fc
  .record({ type: fc.constantFrom(...LINE_TYPES), status: fc.constantFrom(...LINE_STATUSES), valid: fc.boolean() })
  .map(({ type, status, valid }) => line(type, status, valid))

describe('surenessOf', () => {
  it('tells the best there is', () => {
    expect(surenessOf([line('fixed'), line('mobile', 'in-service')], 'none')).toBe('mobile-in-service')
    expect(surenessOf([line('mobile')], 'deliverable')).toBe('mobile-not-checked')
    expect(surenessOf([line('mobile', 'unreachable')], 'none')).toBe('mobile-not-checked')
    expect(surenessOf([line('fixed', 'in-service'), line('mobile', 'out-of-service')], 'none')).toBe('only-office')
    expect(surenessOf([line('mobile', 'out-of-service')], 'deliverable')).toBe('sure-address')
    expect(surenessOf([line('mobile', 'in-service', false)], 'accept-all')).toBe('risky-address')
    expect(surenessOf([], 'not-checked')).toBe('address-not-checked')
    expect(surenessOf([], 'undeliverable')).toBe('nothing')
  })
  it('never falls when a line is added', () => {
    fc.assert(
      fc.property(fc.array(someLine), someLine, fc.constantFrom(...ADDRESS_STATES), (lines, more, address) => {
        const rank = (of: readonly Line[]) => SURENESS.indexOf(surenessOf(of, address))
        expect(rank([...lines, more])).toBeLessThanOrEqual(rank(lines))
      }),
    )
  })
})

describe('rankAddresses', () => {
  const states: Record<string, AddressState> = {
    'a@x.example': 'undeliverable',
    'b@x.example': 'accept-all',
    'c@x.example': 'deliverable',
  }
  const ranked = (...names: string[]) =>
    rankAddresses(
      names.map((name) => ({ address: `${name}@x.example` })),
      (address) => states[address] ?? 'not-checked',
    )
      .map(({ address }) => address[0])
      .join('')
  it('puts what takes mail first and what takes none last, and keeps the order of those alike', () => {
    expect(ranked('a', 'b', 'c')).toBe('cba')
    expect(ranked('a', 'x', 'y', 'b')).toBe('xyba')
    expect(ranked('y', 'x')).toBe('yx')
  })
})
