import { describe, expect, it } from '@jest/globals'
import {
  DEFAULT_SURVIVORSHIP,
  type HowToSurvive,
  mergeContacts,
  partSources,
  type SurvivorPart,
  type Survivorship,
  sourceOf,
} from '@upper-field/core/pair'

const row = (id: number, values: object, numbers: string[] = [], emails: string[] = []) => ({
  id,
  values: { fullName: '', company: '', domain: '', city: '', postalCode: '', ...values },
  numbers: numbers.map((e164) => ({ e164 })),
  emails: emails.map((address) => ({ address })),
})
const one = row(1, { fullName: 'Maren', city: 'Oxford' }, ['+1'], ['a'])
const two = row(2, { fullName: 'Maren Oldershaw', company: 'Causeway' }, ['+2', '+1'])
const three = row(3, { fullName: 'M. Oldershaw', company: 'Causeway', domain: 'causeway.example' }, ['+3'], ['b'])
const by = (rules: Partial<Survivorship>, chosen: [SurvivorPart, number][] = []): HowToSurvive => ({
  rules: { ...DEFAULT_SURVIVORSHIP, ...rules },
  chosen: new Map(chosen),
})

describe('mergeContacts', () => {
  it('fills gaps, keeps what stands but for a fuller name, and keeps every number once', () => {
    expect(mergeContacts([one, two])).toEqual({
      id: 1,
      values: { fullName: 'Maren Oldershaw', company: 'Causeway', domain: '', city: 'Oxford', postalCode: '' },
      numbers: [{ e164: '+1' }, { e164: '+2' }],
      emails: [{ address: 'a' }],
    })
  })

  it('changes nothing of one row, nor its inputs', () => {
    expect(mergeContacts([one])).toBe(one)
    mergeContacts([one, two])
    expect(one.values.company).toBe('')
  })

  it.each([
    ['latest', 'M. Oldershaw'],
    ['fullest', 'Maren Oldershaw'],
    ['first', 'Maren'],
  ] as const)('takes the %s name where the rule says so', (rule, name) => {
    expect(mergeContacts([one, two, three], by({ name: rule })).values.fullName).toBe(name)
  })

  it('takes what most rows say, blanks not counted', () => {
    const blank = [row(4, {}), row(5, {}), row(6, {})]
    const other = row(0, { company: 'Heron' })
    expect(mergeContacts([other, two, three, ...blank], by({ company: 'commonest' })).values.company).toBe('Causeway')
  })

  it('takes the row a person chose before any rule, and fills what it leaves blank', () => {
    const how = by({ company: 'first' }, [
      ['company', 3],
      ['emails', 3],
      ['numbers', 2],
    ])
    const merged = mergeContacts(
      [row(1, { company: 'Heron', domain: 'heron.example' }, ['+1'], ['a']), two, three],
      how,
    )
    expect(merged.values).toMatchObject({ company: 'Causeway', domain: 'causeway.example' })
    expect(merged.emails.map(({ address }) => address)).toEqual(['b', 'a'])
    expect(merged.numbers.map(({ e164 }) => e164)).toEqual(['+2', '+1', '+3'])
  })

  it('tells which row gives a part: the first that says anything', () => {
    const sources = partSources([one, two, three])
    expect(sourceOf('company', sources, by({}))?.id).toBe(2)
    expect(sourceOf('place', sources, by({ place: 'latest' }))?.id).toBe(1)
    expect(sourceOf('title', sources, by({}))?.id).toBe(1)
  })
})
