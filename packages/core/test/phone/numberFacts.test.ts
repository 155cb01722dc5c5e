import { describe, expect, it } from '@jest/globals'
import { dialledFrom, nearestFixes, numberFacts, readPhoneCell } from '../../src/phone'

describe('what the plan tells of a number', () => {
  it.each([
    ['a landline of a city', '+441132960481', 'fixed', 'Leeds', ['Europe/London']],
    ['a state by its area code', '+14155550182', 'fixed-or-mobile', 'California', ['America/Los_Angeles']],
    ['a mobile, which stands for no place', '+447911204481', 'mobile', null, ['Europe/London']],
    ['a number of no country', '+80012345678', 'toll-free', null, []],
  ] as const)('%s', (_, e164, lineType, region, timeZones) => {
    const facts = numberFacts(e164, lineType)
    expect(facts.region).toBe(region)
    expect(facts.timeZones.slice(0, 3)).toEqual(timeZones)
  })

  it('names several time zones where the plan does not tell them apart', () => {
    expect(numberFacts('+18005550199', 'toll-free').timeZones.length).toBeGreaterThan(5)
    expect(numberFacts('+442079460000', 'fixed').timeZones).toEqual(['Europe/London'])
  })

  it.each([
    ['mobile', 'yes'],
    ['fixed-or-mobile', 'unknown'],
    ['unknown', 'unknown'],
    ['fixed', 'no'],
    ['toll-free', 'no'],
  ] as const)('a line that is %s can be texted: %s', (lineType, textable) => {
    expect(numberFacts('+447911204481', lineType).textable).toBe(textable)
  })
})

describe('how a number is dialled from a country', () => {
  it.each([
    ['at home', '+447911204481', 'GB', '07911 204481'],
    ['from a country with 00', '+447911204481', 'DE', '00 44 7911 204481'],
    ['from the North American plan', '+447911204481', 'US', '011 44 7911 204481'],
    ['within the North American plan', '+14155552671', 'CA', '1 (415) 555-2671'],
    ['from nowhere known', '+447911204481', 'ZZ', '+44 7911 204481'],
    ['what is no number', 'twelve', 'GB', 'twelve'],
  ])('%s', (_, e164, from, dialled) => expect(dialledFrom(e164, from)).toBe(dialled))
})

describe('two repairs that compete', () => {
  it('are both told, and neither is believed', () => {
    const reading = readPhoneCell('49431555230', { country: 'DE' })
    expect(reading).toMatchObject({
      verdict: 'doubtful',
      problem: 'two-readings',
      repairs: ['country-code-without-plus', 'lost-zero'],
    })
    expect(reading.numbers.map(({ e164 }) => e164)).toEqual(['+49431555230', '+4949431555230'])
  })

  it('are told for letters that may be digits or keys of a keypad', () => {
    const reading = readPhoneCell('07911 204OOO', { country: 'GB' })
    expect(reading.problem).toBe('two-readings')
    expect(reading.numbers.map(({ e164 }) => e164)).toEqual(['+447911204000', '+447911204666'])
  })

  it.each([
    ['a number longer than any given out today', '4917655500166', 'DE', '+4917655500166'],
    ['digits too few for code and number', '494315552', 'DE', '+49494315552'],
    ['a plus says which it is', '+49431555230', 'DE', '+49431555230'],
    ['a zero says which it is', '049431555230', 'DE', '+4949431555230'],
  ])('%s does not compete', (_, raw, country, e164) => {
    const reading = readPhoneCell(raw, { country })
    expect(reading.problem).toBeNull()
    expect(reading.numbers.map((number) => number.e164)).toEqual([e164])
  })

  it('leaves other numbers of the cell as they are', () => {
    const reading = readPhoneCell('49431555230; +447911204481', { country: 'DE' })
    expect(reading.numbers).toHaveLength(3)
    expect(reading.verdict).toBe('doubtful')
    expect(nearestFixes('nothing', 'DE')).toEqual([])
  })
})
