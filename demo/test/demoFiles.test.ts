import { describe, expect, it } from '@jest/globals'
import { readPhoneCell } from '@upper-field/core/phone'
import { openText } from '@upper-field/core/table'
import { createWorld, DEMO_WORLD } from '@upper-field/standins/world'
import { FAULTS, fairBadges, quotationRequests } from '../src'

const world = createWorld(DEMO_WORLD.seed, DEMO_WORLD)
const badges = fairBadges(world, { rows: 800 })

describe('the demo world', () => {
  it('is the same for the same seed, and another for another', () => {
    expect(createWorld('a', { people: 40 }).people).toEqual(createWorld('a', { people: 40 }).people)
    expect(createWorld('b', { people: 40 }).people).not.toEqual(createWorld('a', { people: 40 }).people)
  })

  it('gives nobody’s number to two people, and only numbers the plan calls valid', () => {
    const numbers = world.people.flatMap(({ mobile, desk }) => [mobile.e164, desk.e164])
    expect(new Set(numbers).size).toBe(numbers.length)
    expect(numbers.filter((e164) => readPhoneCell(e164).verdict !== 'clean')).toEqual([])
  })

  it('spans nine countries', () => expect(new Set(world.companies.map(({ place }) => place.country)).size).toBe(9))
})

describe('the fair’s badges', () => {
  const cells = badges.truth.flatMap(({ person, phones }) =>
    phones.map((phone) => ({ phone, country: world.people[person]?.company.place.country ?? '' })),
  )

  it('hold every fault of the phone table', () => {
    expect(new Set(cells.map(({ phone }) => phone.fault))).toEqual(new Set(FAULTS.map(({ name }) => name)))
  })

  it('are read as they truly are, every cell', () => {
    const wrong = cells.filter(({ phone, country }) => {
      const reading = readPhoneCell(phone.cell, { country })
      const e164s = reading.numbers.filter(({ valid }) => valid).map(({ e164 }) => e164)
      return reading.verdict !== phone.verdict || e164s.join() !== phone.e164s.join()
    })
    expect(wrong).toEqual([])
    expect(cells).toHaveLength(1600)
  })

  it('hold people twice, and the truth says who', () => {
    const again = badges.truth.filter(({ duplicateOf }) => duplicateOf !== null)
    expect(again.length).toBeGreaterThan(100)
    for (const { duplicateOf, row } of again) expect(duplicateOf).toBeLessThan(row)
  })

  it('are mapped without a hand', () => {
    const opened = openText(badges.bytes, { isWhole: true })
    expect(opened.status === 'opened' && opened.suggestions.map(({ field }) => field)).toEqual([
      'full-name',
      'company',
      'title',
      'number',
      'number',
      'email',
      'city',
      'postal-code',
      'country',
      'profile',
      null,
    ]) // prettier-ignore
  })
})

describe('the quotation requests', () => {
  it('are Windows-1252 with semicolons, and mapped without a hand', () => {
    const opened = openText(quotationRequests(world, { rows: 140 }).bytes, { isWhole: true })
    expect(opened).toMatchObject({ status: 'opened', dialect: { encoding: 'windows-1252', delimiter: ';' } })
    expect(opened.status === 'opened' && opened.suggestions.map(({ field }) => field)).toEqual([
      'given-name',
      'family-name',
      'number',
      'email',
      'postal-code',
      'city',
      'country',
      null,
    ])
  })
})
