import { describe, expect, it } from '@jest/globals'
import { ANSWER_FIELDS, GIVES as GIVEN, INPUT_SETS, CHARGED_PER as PER } from '@upper-field/core/connect'
import { SET_ASIDE_REASONS } from '@upper-field/core/fill'
import { CANDIDATE } from '../src/words/fill'
import { JOB_PROBLEM } from '../src/words/jobs'
import { ACCEPTS, CHARGED_PER, GIVES, priceText } from '../src/words/services'

describe('words for services', () => {
  it('are there for everything a connector can say', () => {
    expect(Object.keys(GIVES).sort()).toEqual([...GIVEN].sort())
    expect(Object.keys(ACCEPTS).sort()).toEqual([...INPUT_SETS].sort())
    expect(Object.keys(CHARGED_PER).sort()).toEqual([...PER].sort())
    expect(new Set(ANSWER_FIELDS).size).toBe(ANSWER_FIELDS.length)
  })

  it('are there for every reason a candidate is not taken, and for what may be wrong with an answer', () => {
    for (const reason of SET_ASIDE_REASONS) expect(CANDIDATE[reason]).toMatch(/^[a-z]/)
    for (const code of ['odd-answer', 'too-many-items', 'question-refused', 'key-refused', 'provider-gone'])
      expect(JOB_PROBLEM[code]).toMatch(/\.$/)
  })

  it('tell a price with what it is for, and a subscription as paid', () => {
    expect(priceText({ price: 80_000, pricePer: 'candidate', isPaidFor: false })).toBe('€0.08 per candidate')
    expect(priceText({ price: 5000, pricePer: 'answered', isPaidFor: false })).toBe('€0.005 per answer')
    expect(priceText({ price: 0, pricePer: 'call', isPaidFor: true })).toBe('paid for already')
  })
})
