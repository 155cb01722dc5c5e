import { describe, expect, it } from '@jest/globals'
import {
  type Connector,
  FORMAT,
  readItems,
  readPrice,
  readReceipt,
  readState,
  readStatement,
  whyNoPath,
} from '../../src/connect'

const connector: Connector = {
  format: FORMAT,
  id: 'made-up',
  name: 'Made up',
  about: '',
  gives: ['mobile'],
  accepts: ['profile'],
  countries: null,
  address: 'https://made-up.example',
  key: { in: 'header', name: 'x-key', value: '{{ key }}' },
  one: { call: { method: 'GET', path: '/' }, answers: { how: 'at-once' }, items: '$.found[*]' },
  many: null,
  fields: { number: '$.line.value', score: '$.sure', status: '$.line.state' },
  words: { status: { alive: 'in-service' } },
  statuses: { notFound: [], tryLater: [], ourFault: [] },
  limit: { perSecond: null, atOnce: 1 },
  charge: { per: 'call', euros: 1 },
  mostCandidates: 3,
  isPaidFor: false,
  report: null,
  directory: null,
  statement: null,
}
const read = (json: unknown, most?: number) => readItems(connector, connector.one, json, most)

describe('the items of an answer', () => {
  it('are read where they stand, in our words', () => {
    const json = { found: [{ line: { value: '+441', state: 'alive' }, sure: 9 }, { line: { value: 7, state: 'odd' } }] }
    expect(read(json)).toEqual({
      status: 'read',
      items: [
        { number: '+441', score: 9, status: 'in-service' },
        { number: 7, status: 'odd' },
      ],
    })
  })

  it.each([[{ found: [] }], [{ found: null }], [{ found: [{}, { other: 1 }] }]])('are none in %j', (json) =>
    expect(read(json)).toEqual({ status: 'read', items: [] }),
  )

  it.each([[null], ['<html>'], [{}], [{ found: 7 }], [[]], [{ results: [] }]])('cannot be read in %j', (json) =>
    expect(read(json)).toEqual({ status: 'odd', problem: 'odd-answer' }),
  )

  it('are refused where there are a thousand of them', () => {
    const found = Array.from({ length: 1000 }, (_, i) => ({ line: { value: `+44${i}` } }))
    expect(read({ found })).toEqual({ status: 'odd', problem: 'too-many-items' })
    expect(read({ found }, 1000)).toMatchObject({ status: 'read' })
  })

  it('cannot be read where the answer is nested without end', () => {
    const deep = JSON.parse(`${'{"a":'.repeat(5000)}1${'}'.repeat(5000)}`)
    const way = { ...connector.one, items: '$..found' }
    expect(readItems(connector, way, deep)).toEqual({ status: 'odd', problem: 'odd-answer' })
  })

  it('hold no lists, no objects and no endless texts', () => {
    const found = [
      { line: { value: ['+441'] }, sure: {} },
      { line: { value: 'x'.repeat(501) }, sure: 1 },
    ]
    expect(read({ found })).toEqual({ status: 'read', items: [{ score: 1 }] })
  })
})

describe('an answer that is looked for', () => {
  const polling = {
    how: 'polling',
    receipt: '$.job.id',
    look: { method: 'GET', path: '/{{ receipt }}' },
    state: '$.job.state',
    working: ['queued', 'working'],
  } as const

  it.each([
    [{ job: { state: 'queued' } }, 'working'],
    [{ job: { state: 'done' } }, 'ready'],
    [{ job: {} }, 'odd'],
    [null, 'odd'],
    ['<html>', 'odd'],
  ])('in %j is %s', (json, status) => expect(readState(polling, json).status).toBe(status))

  it.each([
    [{ job: { id: 'a1' } }, 'a1'],
    [{ job: { id: 17 } }, '17'],
    [{ job: { id: '' } }, null],
    [{}, null],
  ])('has in %j the receipt %j', (json, receipt) => expect(readReceipt(polling, json)).toBe(receipt))
})

describe('a path', () => {
  it.each(['$', '$.a[*]', "$['a b'][0]", '$..number', '$.a[?@.kind == "mobile"].value'])('may be %s', (path) =>
    expect(whyNoPath(path)).toBeNull(),
  )

  it.each(['', 'a.b', '$.', '$[?match(@.a, "(a+)+$")]', '$[?search(@.a, "b")]'])('may not be %s', (path) =>
    expect(whyNoPath(path)).not.toBeNull(),
  )
})

describe('readStatement', () => {
  const statement = {
    call: { method: 'GET' as const, path: '/books' },
    items: '$.days[*]',
    day: '$.on',
    charges: '$.n',
    euros: '$.sum',
  }
  it('reads a line for each day, in millionths of a euro', () => {
    expect(readStatement(statement, { days: [{ on: '2026-11-03', n: 2, sum: 0.125 }] })).toEqual([
      { day: '2026-11-03', charges: 2, amount: 125_000 },
    ])
    expect(readStatement(statement, { days: [] })).toEqual([])
  })
  it.each([
    ['no list', { other: [] }],
    ['no day', { days: [{ n: 2, sum: 1 }] }],
    ['no sum', { days: [{ on: '2026-11-03', n: 2, sum: 'much' }] }],
    ['no object', 'text'],
    ['more days than a month has', { days: Array.from({ length: 40 }, () => ({ on: '2026-11-03', n: 1, sum: 1 })) }],
  ])('does not take %s for one', (_, json) => expect(readStatement(statement, json)).toBeNull())
})

describe('what an answer says that it costs', () => {
  const telling = { ...connector, charge: { ...connector.charge, toldAt: '$.bill.each' } }
  it.each<[unknown, number | null]>([
    [{ bill: { each: 0.12 } }, 120_000],
    [{ bill: { each: '0.08' } }, 80_000],
    [{ bill: { each: 0 } }, 0],
    [{ bill: {} }, null],
    [{ bill: { each: -1 } }, null],
    [{ bill: { each: 'free' } }, null],
    [{ bill: { each: '' } }, null],
    [{ bill: { each: true } }, null],
    ['nonsense', null],
    [null, null],
  ])('%j is %p', (json, price) => expect(readPrice(telling, json)).toBe(price))

  it('is nothing where the connector does not say where it stands, or all is paid for', () => {
    expect(readPrice(connector, { bill: { each: 0.12 } })).toBeNull()
    expect(readPrice({ ...telling, isPaidFor: true }, { bill: { each: 0.12 } })).toBeNull()
  })
})
