import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import {
  ASKING,
  ATTEMPT_STATES,
  type AttemptFacts,
  costOfAnswer,
  inputFor,
  mostCost,
  nextAct,
  type ProviderTerms,
  serves,
  stillWanted,
  WANTS,
} from '../../src/fill'

const TERMS: Record<string, ProviderTerms> = {
  tansy: {
    id: 'tansy',
    gives: ['mobile'],
    accepts: ['name-and-company', 'name-and-domain'],
    charge: { per: 'candidate', amount: 80_000 },
    mostCandidates: 1,
  },
  brindle: {
    id: 'brindle',
    gives: ['mobile'],
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
          const terms = { id: 'a', gives: [], accepts: [], charge: { per, amount }, mostCandidates }
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

/** An attempt that brought a mobile where it was accepted. */
const asked = (provider: string, state: AttemptFacts['state']): AttemptFacts => ({
  provider,
  state,
  found: state === 'accepted' ? ['mobile'] : [],
})
const order = ['tansy', 'brindle']
const eligible = order.map((id) => ({ id, gives: ['mobile'] }))
const wants = ['mobile'] as const

describe('nextAct where everybody is asked', () => {
  it.each<[string, AttemptFacts[], object]>([
    ['goes on after somebody was found', [asked('tansy', 'accepted')], { act: 'ask', provider: 'brindle' }],
    ['goes on while an answer is awaited', [asked('tansy', 'waiting')], { act: 'ask', provider: 'brindle' }],
    ['waits for the last', [asked('tansy', 'waiting'), asked('brindle', 'nothing')], { act: 'wait' }],
    [
      'ends when all have answered',
      [asked('tansy', 'accepted'), asked('brindle', 'nothing')],
      { act: 'end', outcome: 'found' },
    ],
    [
      'ends with nobody found',
      [asked('tansy', 'nothing'), asked('brindle', 'nothing')],
      { act: 'end', outcome: 'not-found' },
    ],
  ])('%s', (_, attempts, act) => expect(nextAct({ eligible, attempts, wants, asking: 'everybody' })).toEqual(act))
})

describe('nextAct', () => {
  it.each<[string, AttemptFacts[], object]>([
    ['asks the first', [], { act: 'ask', provider: 'tansy' }],
    ['asks the second after a miss', [asked('tansy', 'nothing')], { act: 'ask', provider: 'brindle' }],
    ['asks the second after a failure', [asked('tansy', 'failed')], { act: 'ask', provider: 'brindle' }],
    ['waits for a late answer', [asked('brindle', 'waiting')], { act: 'wait' }],
    ['ends with the first accepted', [asked('tansy', 'accepted')], { act: 'end', outcome: 'found' }],
    [
      'ends when all were asked',
      [asked('tansy', 'set-aside'), asked('brindle', 'late')],
      { act: 'end', outcome: 'not-found' },
    ],
  ])('%s', (_, attempts, act) => expect(nextAct({ eligible, attempts, wants })).toEqual(act))

  const three = [
    { id: 'a', gives: ['mobile'] },
    { id: 'b', gives: ['work-email'] },
    { id: 'c', gives: ['work-email', 'mobile'] },
  ]
  it('asks only who may give what is still wanted', () => {
    const both = ['mobile', 'work-email'] as const
    const found = (provider: string, ...what: AttemptFacts['found']): AttemptFacts => ({
      provider,
      state: what.length > 0 ? 'accepted' : 'nothing',
      found: what,
    })
    const next = (...attempts: AttemptFacts[]) => nextAct({ eligible: three, attempts, wants: both })
    expect(next(found('a', 'mobile'))).toEqual({ act: 'ask', provider: 'b' })
    expect(next(found('a', 'mobile'), found('b', 'work-email'))).toEqual({ act: 'end', outcome: 'found' })
    expect(next(found('a'), found('b', 'work-email'))).toEqual({ act: 'ask', provider: 'c' })
    expect(next(found('a'), found('b', 'work-email'), found('c'))).toEqual({ act: 'end', outcome: 'partly' })
    expect(next(found('a'), found('b'), found('c'))).toEqual({ act: 'end', outcome: 'not-found' })
  })

  const provider = fc.record({
    id: fc.constantFrom('a', 'b', 'c', 'd'),
    gives: fc.subarray([...WANTS], { minLength: 1 }),
  })
  const attempt = fc
    .record({
      provider: fc.constantFrom('a', 'b', 'c', 'd'),
      state: fc.constantFrom(...ATTEMPT_STATES),
      found: fc.subarray([...WANTS], { minLength: 1 }),
    })
    .map(({ state, found, ...rest }) => ({ ...rest, state, found: state === 'accepted' ? found : [] }))
  const search = fc.record({
    eligible: fc.uniqueArray(provider, { selector: ({ id }) => id }),
    attempts: fc.uniqueArray(attempt, { selector: (one) => one.provider }),
    wants: fc.subarray([...WANTS], { minLength: 1 }),
    asking: fc.constantFrom(...ASKING),
  })

  it('never asks anybody twice, nor for what nobody wants any more, nor while an answer is awaited', () => {
    fc.assert(
      fc.property(search, (one) => {
        const act = nextAct(one)
        if (act.act !== 'ask') return
        expect(one.attempts.map((made) => made.provider)).not.toContain(act.provider)
        const gives = one.eligible.find(({ id }) => id === act.provider)?.gives ?? []
        const found = one.attempts.flatMap((made) => made.found)
        const open = one.asking === 'everybody' ? one.wants : stillWanted(one.wants, found)
        expect(open.some((want) => serves(gives, want))).toBe(true)
        if (one.asking === 'until-found') expect(one.attempts.some(({ state }) => state === 'waiting')).toBe(false)
      }),
    )
  })

  it('comes to the same end in whatever order the answers came', () => {
    fc.assert(
      fc.property(search, fc.array(fc.nat(), { minLength: 8, maxLength: 8 }), (one, keys) => {
        const shuffled = one.attempts
          .map((made, i) => ({ made, key: keys[i] ?? 0 }))
          .sort((a, b) => a.key - b.key)
          .map(({ made }) => made)
        expect(nextAct({ ...one, attempts: shuffled })).toEqual(nextAct(one))
      }),
    )
  })

  it('comes to an end, after asking each at most once', () => {
    fc.assert(
      fc.property(search, fc.func(fc.boolean()), (one, answers) => {
        const attempts: AttemptFacts[] = []
        for (;;) {
          const act = nextAct({ ...one, attempts })
          if (act.act === 'end') break
          if (act.act !== 'ask') throw new Error('nobody is awaited')
          const gives = one.eligible.find(({ id }) => id === act.provider)?.gives ?? []
          attempts.push({
            provider: act.provider,
            state: 'nothing',
            found: answers(act.provider) ? one.wants.filter((want) => serves(gives, want)) : [],
          })
        }
        expect(new Set(attempts.map((made) => made.provider)).size).toBe(attempts.length)
      }),
    )
  })
})
