import { describe, expect, it } from '@jest/globals'
import { readPhoneCell } from '../../src/phone'
import { below, COUNTRIES, numbersOf, slip, writtenForms } from './numbersOfPlan'

const NUMBERS = 30
const SLIPS = 4
/** Repairs after which a number stands in another cell than the one that was written. */
const MOST_WRONG = 0.001

describe('a slip of one key', () => {
  it('hardly ever becomes another number by a repair, at three seeds', () => {
    const wrong: string[] = []
    let slips = 0
    for (const seed of [1, 2, 3])
      for (const { cell, e164, country } of slipped(seed)) {
        slips++
        const { numbers, problem, repairs } = readPhoneCell(cell, { country })
        const isTrue = numbers.some((number) => number.e164 === e164)
        if (problem === null && repairs.length > 0 && numbers.length > 0 && !isTrue) wrong.push(`${country} ${cell}`)
      }
    console.log(`${slips} slips, ${wrong.length} read as another number by a repair`)
    expect(slips).toBeGreaterThan(50_000)
    expect(wrong.length / slips).toBeLessThan(MOST_WRONG)
  })
})

function* slipped(seed: number) {
  const random = below(seed)
  for (const country of COUNTRIES)
    for (const { e164 } of numbersOf(country, NUMBERS, random))
      for (const form of writtenForms(e164))
        for (let i = 0; i < SLIPS; i++) {
          const cell = slip(form, random)
          if (cell !== form) yield { cell, e164, country }
        }
}
