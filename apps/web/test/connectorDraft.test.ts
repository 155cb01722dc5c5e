import { describe, expect, it } from '@jest/globals'
import { blank, readDraft, textOf } from '../src/connections/draft'
import { inUsualOrder } from '../src/connections/useConnected'

describe('a connector as it is typed', () => {
  it('begins whole, and is written as it was read', () => {
    const draft = readDraft(blank())
    expect(draft.status).toBe('whole')
    if (draft.status !== 'whole') return
    const again = readDraft(textOf(draft.document))
    expect(again).toEqual(draft)
    expect(textOf(draft.document)).toContain('"gives": ["mobile"],')
  })

  it('tells the line where it is no JSON', () => {
    const draft = readDraft('{\n  "format": 1\n  "id": "a"\n}')
    expect(draft).toMatchObject({ status: 'wrong', problems: [{ place: '' }] })
    if (draft.status === 'wrong') expect(draft.problems[0]?.message).toMatch(/line 3/)
  })

  it('tells every place that is wrong', () => {
    const text = blank().replace('"$.number"', '"number"').replace('"charge"', '"price"')
    const draft = readDraft(text)
    expect(draft.status === 'wrong' && draft.problems.map(({ place }) => place)).toEqual([
      'fields.number',
      'charge',
      '',
    ])
  })

  it.each(['', 'null', '[]', '7'])('is wrong as %j', (text) => expect(readDraft(text).status).toBe('wrong'))
})

describe('providers in their usual order', () => {
  const connection = (provider: string, changes: object) => ({
    provider,
    name: provider,
    about: '',
    role: 'provider' as const,
    gives: [],
    accepts: [],
    baseUrl: '',
    hasKey: true,
    pricePer: 'call' as const,
    price: 10,
    isPaidFor: false,
    countries: null,
    changedAt: null,
    lastAnswerAt: null,
    failures: 0,
    spentThisMonth: 0,
    ...changes,
  })

  it('begin with what is paid for already, then the cheapest; others are left out', () => {
    const order = inUsualOrder([
      connection('dear', { price: 90 }),
      connection('keyless', { hasKey: false }),
      connection('register', { role: 'register' }),
      connection('cheap', { price: 1 }),
      connection('subscribed', { price: 0, isPaidFor: true }),
      connection('free', { price: 0 }),
    ])
    expect(order.map(({ provider }) => provider)).toEqual(['subscribed', 'free', 'cheap', 'dear'])
  })
})
