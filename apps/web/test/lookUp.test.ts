import { describe, expect, it } from '@jest/globals'
import { askedFor, askingText, looksLikeReach, numberText } from '../src/shell/LookedUpItems'

describe('what is typed into the palette', () => {
  it.each([
    ['+44 7911 204481', true],
    ['(0165) 555018', true],
    ['maren@causeway.example', true],
    ['Autumn terraces', false],
    ['Batch 12', false],
  ])('%s is looked up: %s', (text, isLookedUp) => expect(looksLikeReach(text)).toBe(isLookedUp))

  it.each([
    ['gb 07911 204481', { text: '07911 204481', country: 'GB' }],
    ['07911 204481', { text: '07911 204481', country: null }],
    ['de maren', { text: 'de maren', country: null }],
    ['maren@causeway.example', { text: 'maren@causeway.example', country: null }],
  ])('%s', (typed, asked) => expect(askedFor(typed)).toEqual(asked))
})

describe('what is told of it', () => {
  const number = {
    e164: '+447911204481',
    country: 'GB',
    valid: true,
    lineType: 'mobile' as const,
    status: 'in-service' as const,
    knownFrom: 'register' as const,
    region: null,
    call: 'now' as const,
    holders: [],
    held: 0,
    suppressedBy: [],
    price: 0,
    checkedAt: '2026-11-03T10:00:00.000Z',
  }
  it('is what is known and from whom', () => {
    expect(numberText(number)).toBe('mobile by a line check · in service · may be called now')
    expect(numberText({ ...number, knownFrom: 'plan', status: 'unknown', region: 'Graz', call: 'holiday' })).toBe(
      'mobile by the numbering plan · Graz · a public holiday there',
    )
    expect(numberText({ ...number, valid: false })).toBe('not valid')
  })
  it('is what asking costs, or why there is nothing to ask', () => {
    expect(askingText({ price: 5000, checkedAt: null })).toBe('Asking costs €0.005.')
    expect(askingText(number)).toBe('Answered on 3 Nov 2026; nothing to pay.')
    expect(askingText({ price: 0, checkedAt: null })).toBe('There is nothing to ask.')
    expect(askingText({ price: null, checkedAt: null })).toBe('Nobody is connected who could be asked.')
  })
})
