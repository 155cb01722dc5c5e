import { describe, expect, it } from '@jest/globals'
import { laneNameIn } from '../src/split/LaneName'
import { shownLanes } from '../src/split/laneList'
import { laneText } from '../src/words/sentences'

describe('the lanes that are shown', () => {
  it('are the usual ones where the list has no rules of its own', () => {
    const usual = ['text', 'call', 'ads-only', 'parked']
    expect(shownLanes(undefined).map(({ lane }) => lane)).toEqual(usual)
    const proposed = { isOwn: false, rules: [{ lane: 'post', name: 'Post', use: 'post' as const, filter: '' }] }
    expect(shownLanes(proposed).map(({ lane }) => lane)).toEqual(usual)
  })
  it('are those of the rules in their order, with Parked behind them', () => {
    const rules = [
      { lane: 'buyers', name: 'Buyers', use: 'calls' as const, filter: 'function:purchasing' },
      { lane: 'text', name: 'Text', use: 'texts' as const, filter: '' },
    ]
    expect(shownLanes({ isOwn: true, rules })).toEqual([
      { lane: 'buyers', name: 'Buyers', why: 'function:purchasing' },
      { lane: 'text', name: 'Text', why: 'a mobile of their own that may be texted' },
      { lane: 'parked', name: 'Parked', why: 'everyone else' },
    ])
  })
  it('have a name although nobody knows their rules', () => {
    expect(laneText('ads-only')).toBe('Ads only')
    expect(laneText('first-calls')).toBe('First calls')
    const rules = [{ lane: 'vip', name: 'Very important', use: 'calls' as const, filter: '' }]
    expect(laneNameIn({ isOwn: true, rules }, 'vip')).toBe('Very important')
    expect(laneNameIn({ isOwn: true, rules }, 'parked')).toBe('Parked')
  })
})
