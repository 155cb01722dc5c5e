import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { DELIVERABILITIES } from '../../src/check'
import {
  type AddressCandidate,
  judgeAddress,
  judgeNumber,
  type NumberCandidate,
  WANTS,
  type Want,
} from '../../src/fill'
import { readPhoneCell } from '../../src/phone'
import { EMAIL_KINDS } from '../../src/tidy'

describe('judgeNumber', () => {
  const mobile = readPhoneCell('07911 204481', { country: 'GB' })
  const fixed = readPhoneCell('01665 555018', { country: 'GB' })
  const either = readPhoneCell('(415) 555-2671', { country: 'US' })
  const judge = (reading: typeof mobile, more: Partial<NumberCandidate> = {}) => {
    const judged = judgeNumber({ reading, register: null, known: [], wants: ['mobile'], ...more })
    return judged.outcome === 'accepted' ? judged.found : judged.reason
  }
  it('takes a mobile', () => expect(judge(mobile)).toBe('mobile'))
  it('believes the register more than the plan', () => {
    expect(judge(either)).toBe('mobile')
    expect(judge(either, { register: { lineType: 'fixed', isOutOfService: false } })).toBe('fixed-line')
    expect(judge(either, { register: { lineType: 'unknown', isOutOfService: false } })).toBe('mobile')
  })
  it('sets aside what is of no use, with the reason', () => {
    expect(judge(fixed)).toBe('fixed-line')
    expect(judge(mobile, { register: { lineType: 'mobile', isOutOfService: true } })).toBe('out-of-service')
    expect(judge(mobile, { known: ['+447911204481'] })).toBe('already-known')
    expect(judge(mobile, { isOther: true })).toBe('somebody-else')
    expect(judge(mobile, { isUnsure: true })).toBe('score-too-low')
    expect(judge(mobile, { wants: ['work-email'] })).toBe('not-wanted')
    expect(judge(readPhoneCell('n/a'))).toBe('unreadable')
    expect(judge(readPhoneCell('0800 1111', { country: 'GB' }))).toBe('not-a-mobile')
  })
  it('takes a fixed line where any number will do, else keeps it as the office’s while it is in service', () => {
    expect(judge(fixed, { wants: ['any-number'] })).toBe('any-number')
    expect(judge(mobile, { wants: ['any-number'] })).toBe('mobile')
    const kept = (isOutOfService: boolean) =>
      judgeNumber({ reading: fixed, register: { lineType: 'fixed', isOutOfService }, known: [], wants: ['mobile'] })
    expect(kept(false)).toMatchObject({ reason: 'fixed-line', keptAs: 'office', value: '+441665555018' })
    expect(kept(true)).toMatchObject({ reason: 'out-of-service', keptAs: null })
  })
})

describe('judgeAddress', () => {
  const email = { address: 'maren@causeway.example', kind: 'work' as const }
  const judge = (more: Partial<AddressCandidate> = {}) => {
    const judged = judgeAddress({ email, verified: 'deliverable', known: [], wants: ['work-email'], ...more })
    return judged.outcome === 'accepted' ? judged.found : judged.reason
  }
  it('takes what takes mail and is of the kind that is wanted', () => {
    expect(judge()).toBe('work-email')
    expect(judge({ email: { ...email, kind: 'personal' }, wants: ['personal-email'] })).toBe('personal-email')
    expect(judge({ verified: null })).toBe('work-email')
  })
  it('sets aside what is of no use, with the reason', () => {
    expect(judge({ email: null })).toBe('unreadable')
    expect(judge({ verified: 'undeliverable' })).toBe('undeliverable')
    expect(judge({ email: { ...email, kind: 'role' } })).toBe('not-wanted')
    expect(judge({ wants: ['personal-email', 'mobile'] })).toBe('not-wanted')
    expect(judge({ known: [email.address] })).toBe('already-known')
    expect(judge({ isOther: true })).toBe('somebody-else')
  })
  it('keeps as risky what may take mail', () => {
    for (const verified of ['accept-all', 'unknown'] as const)
      expect(judgeAddress({ email, verified, known: [], wants: ['work-email'] })).toMatchObject({
        reason: 'risky-address',
        keptAs: 'risky',
      })
  })
  it('accepts nothing that is known to take no mail, of another, or not wanted', () => {
    const candidate = fc.record({
      email: fc.record({ address: fc.constant(email.address), kind: fc.constantFrom(...EMAIL_KINDS) }),
      verified: fc.constantFrom(null, ...DELIVERABILITIES),
      known: fc.constantFrom<string[]>([], [email.address]),
      wants: fc.subarray([...WANTS]),
      isOther: fc.boolean(),
      isUnsure: fc.boolean(),
    })
    fc.assert(
      fc.property(candidate, (one) => {
        const judged = judgeAddress(one)
        if (judged.outcome !== 'accepted') return
        expect(one).toMatchObject({ known: [], isOther: false, isUnsure: false })
        expect(['deliverable', null]).toContain(one.verified)
        expect(one.wants as readonly Want[]).toContain(judged.found)
      }),
    )
  })
})
