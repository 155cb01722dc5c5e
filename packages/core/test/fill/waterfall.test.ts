import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { costOfAnswer, inputFor, judgeCandidate, mostCost, nextAct, type ProviderTerms } from '../../src/fill'
import { readPhoneCell } from '../../src/phone'

const TERMS: Record<string, ProviderTerms> = {
  tansy: {
    id: 'tansy',
    accepts: ['name-and-company', 'name-and-domain'],
    charge: { per: 'candidate', amount: 80_000 },
    mostCandidates: 1,
  },
  brindle: {
    id: 'brindle',
    accepts: ['profile', 'name-and-domain'],
    charge: { per: 'accepted', amount: 350_000 },
    mostCandidates: 2,
  },
}
const provider = (id: string): ProviderTerms => TERMS[id] ?? (undefined as never)
const nobody = { fullName: '', company: '', domain: '', profile: '', email: '' }

describe('who can be asked about', () => {
  it.each([
    ['tansy', { fullName: 'Maren', company: 'Causeway' }, 'name-and-company'],
    ['tansy', { fullName: 'Maren', domain: 'causeway.example' }, 'name-and-domain'],
    ['tansy', { fullName: 'Maren', profile: 'rollcall.example/p/m' }, null],
    ['tansy', { company: 'Causeway' }, null],
    ['brindle', { profile: 'rollcall.example/p/m' }, 'profile'],
    ['brindle', { fullName: 'Maren', company: 'Causeway' }, null],
  ])('%s with %j: %s', (id, known, input) => expect(inputFor(provider(id), { ...nobody, ...known })).toBe(input))
})

describe('what it costs', () => {
  it('is never more than was set aside', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(
          'call' as const,
          'candidate' as const,
          'answered' as const,
          'accepted' as const,
          'deliverable' as const,
        ),
        fc.nat(1_000_000),
        fc.integer({ min: 1, max: 20 }),
        fc.nat(40),
        fc.boolean(),
        (per, amount, mostCandidates, candidates, accepted) => {
          const deliverable = candidates % 2
          const terms = { id: 'a', accepts: [], charge: { per, amount }, mostCandidates }
          expect(costOfAnswer(terms, { candidates, accepted, deliverable })).toBeLessThanOrEqual(mostCost(terms, 0))
          expect(mostCost(terms, 7) - mostCost(terms, 0)).toBe(7 * mostCandidates)
        },
      ),
    )
  })
  it('is per candidate at one provider, per accepted value at the other', () => {
    expect(costOfAnswer(provider('tansy'), { candidates: 1, accepted: false, deliverable: 0 })).toBe(80_000)
    expect(costOfAnswer(provider('tansy'), { candidates: 0, accepted: false, deliverable: 0 })).toBe(0)
    expect(costOfAnswer(provider('brindle'), { candidates: 2, accepted: false, deliverable: 0 })).toBe(0)
    expect(costOfAnswer(provider('brindle'), { candidates: 2, accepted: true, deliverable: 0 })).toBe(350_000)
  })
})

describe('nextAct where everybody is asked', () => {
  it.each<[string, { provider: string; state: 'accepted' | 'waiting' | 'nothing' }[], object]>([
    [
      'goes on after somebody was found',
      [{ provider: 'tansy', state: 'accepted' }],
      { act: 'ask', provider: 'brindle' },
    ],
    [
      'goes on while an answer is awaited',
      [{ provider: 'tansy', state: 'waiting' }],
      { act: 'ask', provider: 'brindle' },
    ],
    [
      'waits for the last',
      [
        { provider: 'tansy', state: 'waiting' },
        { provider: 'brindle', state: 'nothing' },
      ],
      { act: 'wait' },
    ],
    [
      'ends when all have answered',
      [
        { provider: 'tansy', state: 'accepted' },
        { provider: 'brindle', state: 'nothing' },
      ],
      { act: 'end', outcome: 'found' },
    ],
    [
      'ends with nobody found',
      [
        { provider: 'tansy', state: 'nothing' },
        { provider: 'brindle', state: 'nothing' },
      ],
      { act: 'end', outcome: 'not-found' },
    ],
  ])('%s', (_, attempts, act) => expect(nextAct(['tansy', 'brindle'], attempts, 'everybody')).toEqual(act))
})

describe('nextAct', () => {
  const order = ['tansy', 'brindle']
  it.each([
    ['asks the first', [], { act: 'ask', provider: 'tansy' }],
    ['asks the second after a miss', [{ provider: 'tansy', state: 'nothing' }], { act: 'ask', provider: 'brindle' }],
    ['asks the second after a failure', [{ provider: 'tansy', state: 'failed' }], { act: 'ask', provider: 'brindle' }],
    ['waits for a late answer', [{ provider: 'brindle', state: 'waiting' }], { act: 'wait' }],
    ['ends with the first accepted', [{ provider: 'tansy', state: 'accepted' }], { act: 'end', outcome: 'found' }],
    [
      'ends when all were asked',
      [
        { provider: 'tansy', state: 'set-aside' },
        { provider: 'brindle', state: 'late' },
      ],
      { act: 'end', outcome: 'not-found' },
    ],
  ] as const)('%s', (_, attempts, act) => expect(nextAct(order, attempts)).toEqual(act)) // prettier-ignore
})

describe('judgeCandidate', () => {
  const mobile = readPhoneCell('07911 204481', { country: 'GB' })
  const fixed = readPhoneCell('01665 555018', { country: 'GB' })
  const either = readPhoneCell('(415) 555-2671', { country: 'US' })
  const judge = (
    reading: typeof mobile,
    register: { lineType: 'mobile' | 'fixed' | 'unknown'; isOutOfService: boolean } | null = null,
    known: string[] = [],
  ) => {
    const judged = judgeCandidate({ reading, register, known })
    return judged.outcome === 'accepted' ? 'accepted' : judged.reason
  }
  it('takes a mobile', () => expect(judge(mobile)).toBe('accepted'))
  it('believes the register more than the plan', () => {
    expect(judge(either)).toBe('accepted')
    expect(judge(either, { lineType: 'fixed', isOutOfService: false })).toBe('fixed-line')
    expect(judge(either, { lineType: 'unknown', isOutOfService: false })).toBe('accepted')
  })
  it('sets aside what is of no use, with the reason', () => {
    expect(judge(fixed)).toBe('fixed-line')
    expect(judge(mobile, { lineType: 'mobile', isOutOfService: true })).toBe('out-of-service')
    expect(judge(mobile, null, ['+447911204481'])).toBe('already-known')
    expect(judge(readPhoneCell('n/a'))).toBe('unreadable')
    expect(judge(readPhoneCell('0800 1111', { country: 'GB' }))).toBe('not-a-mobile')
  })
})
