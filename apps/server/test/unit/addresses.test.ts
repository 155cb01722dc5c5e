import { describe, expect, it } from '@jest/globals'
import { ADDRESSES, LINES, withSubject } from '../../src/check/subjects'

describe('what can be checked', () => {
  it('reads an answer about an address as our own words say it', () => {
    expect(ADDRESSES.read({ email: 'Maren@Causeway.example', deliverability: 'accept-all' })).toEqual({
      email: 'maren@causeway.example',
      deliverability: 'accept-all',
    })
    expect(ADDRESSES.read({ email: 'maren@causeway.example', deliverability: 'perhaps' })).toBeNull()
    expect(ADDRESSES.read({ deliverability: 'deliverable' })).toBeNull()
  })
  it('reads an answer about a line, though the register tells no more than it must', () => {
    expect(LINES.read({ number: '+447911204481', lineType: 'mobile', status: 'in-service' })).toMatchObject({
      carrier: null,
      ported: null,
    })
    expect(LINES.read({ number: '+447911204481', lineType: 'pigeon', status: 'in-service' })).toBeNull()
  })
  it('takes what was left out of an answer for something that nobody told', () => {
    for (const kind of ['numbers', 'addresses'] as const)
      withSubject(kind, (subject) => {
        const unknown = subject.unknown('x')
        expect(subject.toldNothing(unknown)).toBe(true)
        expect(subject.subjectOf(unknown)).toBe('x')
      })
  })
})
