import { describe, expect, it } from '@jest/globals'
import fc from 'fast-check'
import { asTold, atPrice, costOfAnswer, dearerThanAgreed, type ProviderTerms, pricesOf } from '../../src/fill'

const provider = (id: string, amount: number): ProviderTerms => ({
  id,
  gives: ['mobile'],
  accepts: ['profile'],
  charge: { per: 'call', amount },
  mostCandidates: 1,
})
const ids = ['a', 'b', 'c']
const providers = fc.tuple(...ids.map((id) => fc.nat(1_000_000).map((amount) => provider(id, amount))))
const told = fc.array(fc.record({ provider: fc.constantFrom(...ids), price: fc.nat(1_000_000) }), { maxLength: 8 })

describe('prices of a run', () => {
  it('are agreed to as they are at its start, whatever comes to be asked', () =>
    fc.assert(
      fc.property(providers, (all) => {
        expect(dearerThanAgreed({ plan: { providers: all }, prices: pricesOf(all) })).toEqual({})
      }),
    ))

  it('are asked about exactly where a service tells of a dearer one, and by the dearest it has told', () =>
    fc.assert(
      fc.property(providers, told, (all, answers) => {
        const dearer = dearerThanAgreed({ plan: { providers: all }, prices: pricesOf(all) }, answers)
        for (const { id, charge } of all) {
          const most = Math.max(0, ...answers.flatMap((one) => (one.provider === id ? one.price : [])))
          expect(dearer[id]).toEqual(most > charge.amount ? { agreed: charge.amount, now: most } : undefined)
        }
      }),
    ))

  it('that were agreed to anew are asked about no more, and are set aside for each asking', () =>
    fc.assert(
      fc.property(providers, told, (all, answers) => {
        const dearer = dearerThanAgreed({ plan: { providers: all }, prices: pricesOf(all) }, answers)
        const agreed = Object.entries(dearer).map(([id, { now }]) => [id, { agreed: now, told: now }])
        const prices = { ...pricesOf(all), ...Object.fromEntries(agreed) }
        const now = asTold(all, prices)
        expect(dearerThanAgreed({ plan: { providers: now }, prices }, answers)).toEqual({})
        for (const one of now)
          expect(one.charge.amount).toBeGreaterThanOrEqual(all.find(({ id }) => id === one.id)?.charge.amount ?? 0)
      }),
    ))

  it('that a connector was given since the start are asked about too', () => {
    const prices = pricesOf([provider('a', 80_000)])
    const changed = (amount: number) => dearerThanAgreed({ plan: { providers: [provider('a', amount)] }, prices })
    expect(changed(120_000)).toEqual({ a: { agreed: 80_000, now: 120_000 } })
    expect(changed(40_000)).toEqual({})
  })

  it('are what an answer says of itself, dearer or cheaper', () => {
    const facts = { candidates: 1, accepted: true, deliverable: 0 }
    expect(costOfAnswer(atPrice(provider('a', 80_000), 120_000), facts)).toBe(120_000)
    expect(costOfAnswer(atPrice(provider('a', 80_000), 20_000), facts)).toBe(20_000)
    expect(costOfAnswer(atPrice(provider('a', 80_000), null), facts)).toBe(80_000)
  })
})
