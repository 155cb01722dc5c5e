import { describe, expect, it } from '@jest/globals'
import { IDENTIFIER_KINDS, type IdentifierKind, mixKey } from '@upper-field/core/send'
import fc from 'fast-check'
import { createMixCounter } from '../../src/send/mixes'

const kindSets = fc.uniqueArray(fc.constantFrom(...IDENTIFIER_KINDS), { maxLength: 4 }).map((kinds) => new Set(kinds))
const people = fc.array(
  fc.record({
    kinds: kindSets,
    batchId: fc.constantFrom('a', 'b', ''),
    foundBy: fc.array(fc.record({ provider: fc.constantFrom('p', 'q'), isAddress: fc.boolean() }), { maxLength: 2 }),
  }),
)
const NOTHING = { mix: {}, mixBySource: {} }
const sum = (mix: Readonly<Record<string, number>> | undefined) =>
  Object.values(mix ?? {}).reduce((all, n) => all + n, 0)

describe('the identifiers of an edition', () => {
  it('are counted once each, and again by the batch they came with', () =>
    fc.assert(
      fc.property(people, (all) => {
        const counter = createMixCounter(NOTHING)
        for (const { kinds, ...source } of all) counter.add(kinds, source)
        expect(sum(counter.mix())).toBe(all.length)
        for (const batch of ['a', 'b'])
          expect(sum(counter.bySource()[`batch ${batch}`]?.mix)).toBe(
            all.filter(({ batchId }) => batchId === batch).length,
          )
      }),
    ))

  it('are the same counted in one go or page by page', () =>
    fc.assert(
      fc.property(people, people, (first, second) => {
        const whole = createMixCounter(NOTHING)
        for (const { kinds, ...source } of [...first, ...second]) whole.add(kinds, source)
        const page = createMixCounter(NOTHING)
        for (const { kinds, ...source } of first) page.add(kinds, source)
        const next = createMixCounter({ mix: page.mix(), mixBySource: page.bySource() })
        for (const { kinds, ...source } of second) next.add(kinds, source)
        expect([next.mix(), next.bySource()]).toEqual([whole.mix(), whole.bySource()])
      }),
    ))

  it('of whom a provider found something are counted with it and without', () => {
    const counter = createMixCounter(NOTHING)
    const kinds = new Set<IdentifierKind>(['work-email', 'mobile'])
    counter.add(kinds, { batchId: 'a', foundBy: [{ provider: 'p', isAddress: false }] })
    expect(counter.bySource()['provider p']).toEqual({ mix: { [mixKey(kinds)]: 1 }, without: { 'work-email': 1 } })
    expect(counter.bySource()['batch a']).toEqual({ mix: { [mixKey(kinds)]: 1 }, without: null })
  })
})
