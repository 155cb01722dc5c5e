import { describe, expect, it } from '@jest/globals'
import type { RegisterFacts } from '@upper-field/core/check'
import fc from 'fast-check'
import type { ReachNumber } from '../../src/projection/placementOf'
import { type NumberOrigin, standingOf } from '../../src/projection/standingOf'

const number = fc.record({
  e164: fc.integer({ min: 0, max: 99 }).map((n) => `+4479112044${String(n).padStart(2, '0')}`),
  country: fc.constant('GB'),
  lineType: fc.constantFrom('mobile' as const, 'fixed' as const, 'fixed-or-mobile' as const, 'premium' as const),
  valid: fc.boolean(),
  origin: fc.constantFrom('row' as const, 'join' as const, 'fill' as const),
})
interface Reached {
  readonly numbers: readonly (ReachNumber & { readonly origin: NumberOrigin })[]
  readonly hasOwnEmail: boolean
  readonly hasFoundEmail: boolean
  /** Lines that are out of service, as the register tells. */
  readonly dead: readonly string[]
}

const reached: fc.Arbitrary<Reached> = fc
  .uniqueArray(number, { selector: ({ e164 }) => e164, maxLength: 5 })
  .chain((numbers) =>
    fc.record({
      numbers: fc.constant(numbers),
      hasOwnEmail: fc.boolean(),
      hasFoundEmail: fc.boolean(),
      dead: fc.subarray(numbers.map(({ e164 }) => e164)),
    }),
  )

const OUT: RegisterFacts = { lineType: 'mobile', status: 'out-of-service', checkedAt: 1 }

function standing({ numbers, hasOwnEmail, hasFoundEmail, dead }: Reached) {
  const hasEmail = hasOwnEmail || hasFoundEmail
  const stood = standingOf({
    numbers,
    hasOwnEmail,
    hasEmail,
    emailState: hasEmail ? 'not-checked' : 'none',
    suppressedFor: [],
    factsOf: (e164) => (dead.includes(e164) ? OUT : undefined),
    isShared: () => false,
  })
  return { ...stood, ...stood.placed }
}

const ofRows = ({ numbers }: Reached) => numbers.filter(({ valid, origin }) => valid && origin !== 'fill')

describe('how a contact stands', () => {
  it('is dead exactly where its rows hold lines, all of them out of service, and no address', () => {
    fc.assert(
      fc.property(reached, (of) => {
        const lines = ofRows(of)
        const areDead = lines.length > 0 && lines.every(({ e164 }) => of.dead.includes(e164))
        expect(standing(of)).toMatchObject({
          isReadable: lines.length > 0 || of.hasOwnEmail,
          isDead: areDead && !of.hasOwnEmail,
        })
      }),
    )
  })

  it('is filled only where its rows alone would not do, by what was found and is alive', () => {
    fc.assert(
      fc.property(reached, (of) => {
        const { isFilled, isReadable, isDead } = standing(of)
        const isFound =
          of.hasFoundEmail || of.numbers.some(({ origin, e164 }) => origin === 'fill' && !of.dead.includes(e164))
        expect(isFilled).toBe((!isReadable || isDead) && isFound)
      }),
    )
  })

  it('does not hang on the order of its numbers', () => {
    const both = reached.chain((of) =>
      fc.shuffledSubarray([...of.numbers], { minLength: of.numbers.length }).map((numbers) => [of, { ...of, numbers }]),
    )
    fc.assert(
      fc.property(both, ([one, other]) => {
        const told = (of: Reached) => {
          const { isReadable, isDead, isFilled, wantsMobile, sureness, canText, canCall, placement } = standing(of)
          return { isReadable, isDead, isFilled, wantsMobile, sureness, canText, canCall, placement }
        }
        expect(told(other as Reached)).toEqual(told(one as Reached))
      }),
    )
  })

  it('is never better for a line that turns out to be out of service', () => {
    fc.assert(
      fc.property(reached, fc.nat(), (of, at) => {
        const one = of.numbers[at % Math.max(1, of.numbers.length)]
        const [before, after] = [standing(of), standing({ ...of, dead: [...of.dead, one?.e164 ?? ''] })]
        expect(after.canText && !before.canText).toBe(false)
        expect(before.isDead && !after.isDead).toBe(false)
        expect(before.wantsMobile && !after.wantsMobile).toBe(false)
      }),
    )
  })
})
