import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { LANES, type LaneRule, laneIdFor, mistakesInRules, proposedRules } from '../../src/split'

const rule = (more: Partial<LaneRule> = {}): LaneRule => ({
  lane: 'vip',
  name: 'VIP',
  use: 'calls',
  filter: '',
  ...more,
})
const messages = (...rules: LaneRule[]) => mistakesInRules(rules).map(({ message }) => message)

describe('rules that are proposed', () => {
  it('hold a lane of post only where enough have whole addresses', () => {
    expect(proposedRules(1000, 10).map(({ lane }) => lane)).toEqual(['text', 'call', 'ads-only'])
    expect(proposedRules(1000, 60).map(({ lane }) => lane)).toEqual(['text', 'call', 'post', 'ads-only'])
    expect(proposedRules(0, 0).map(({ lane }) => lane)).toEqual(['text', 'call', 'ads-only'])
  })
  it('are always without a mistake', () =>
    fc.assert(
      fc.property(fc.nat(1000), fc.nat(1000), (all, some) => mistakesInRules(proposedRules(all, some)).length === 0),
    ))
})

describe('the rules of a list', () => {
  it('may ask for whatever a contact has, but not for lanes', () => {
    expect(messages(rule({ filter: 'country:GB function:purchasing' }))).toEqual([])
    for (const filter of ['lane:text', 'not lane:text', 'city:kelso or (reason:mobile inn)', 'fell:joined'])
      expect(messages(rule({ filter }))).toEqual(['A rule cannot ask for lanes: they are what it decides.'])
  })
  it('tell what is wrong, with the rule it is about', () => {
    expect(messages(rule({ filter: '(city:kelso' }))).toHaveLength(1)
    expect(messages(rule({ name: ' ' }))).toEqual(['A lane has a name.'])
    expect(messages(rule({ lane: 'parked' }))).toHaveLength(1)
    expect(messages(rule({ lane: 'No Lane' }))).toHaveLength(1)
    expect(mistakesInRules([rule(), rule()])).toEqual([{ at: 1, message: 'There are two lanes “vip”.' }])
  })
})

describe('a lane of an operator', () => {
  it('is called so that it is no other lane, and could be kept', () =>
    fc.assert(
      fc.property(
        fc.string({ unit: 'grapheme' }),
        fc.uniqueArray(fc.constantFrom('lane', 'vip', 'vip-2'), { maxLength: 3 }),
        (name, taken) => {
          const lane = laneIdFor(name, taken)
          expect([...taken, ...LANES]).not.toContain(lane)
          expect(messages(rule({ lane }))).toEqual([])
        },
      ),
    ))
  it('is called as it is named', () => {
    expect(laneIdFor('Großkunden, zuerst!', [])).toBe('gro-kunden-zuerst')
    expect(laneIdFor('Text', [])).toBe('text-2')
    expect(laneIdFor('列', [])).toBe('lane')
  })
})
