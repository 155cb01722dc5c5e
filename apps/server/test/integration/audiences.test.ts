import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { DestinationDocument, NewEdition } from '@upper-field/contract'
import { headingsOf } from '@upper-field/core/send'
import { sql } from 'drizzle-orm'
import type { z } from 'zod'
import { untilEnded } from '../../../../scripts/bringIn'
import { readColumns } from '../../src/db/readColumns'
import { audienceOf, findDestination } from '../../src/send/destinations'
import { runPreflight } from '../../src/send/preflight'
import { addDestinations, bringText, newList, startTestServer, type TestServer } from './harness'

let server: TestServer
let listId = ''
const ROWS = [
  'name,company,web,phone,mail,country,zip',
  'Maren Oldershaw,Causeway,causeway.example,07911 204481,maren@causeway.example,GB,NE69 7BP',
  'Jonah Carnridge,Causeway,causeway.example,07911 204482,jonah@causeway.example,GB,NE69 7BP',
  'Ilse Krug,Heron GmbH,heron.example,,ilse@heron.example,DE,',
  'Nobody Known,,,,nobody@postbox.example,,',
  'No Way,Nowhere,,,,GB,',
]

beforeAll(async () => {
  server = await startTestServer()
  listId = await newList(server.api, 'Terraces')
  await bringText(server.api, listId, ROWS.join('\n'))
})
afterAll(() => server.stop())

type Asked = Partial<z.input<typeof NewEdition>> & { readonly destination: string }

async function linesOf(asked: Asked): Promise<string[]> {
  const body = { form: 'plain' as const, filter: '', ...asked }
  const made = await server.api.call('makeEdition', { params: { listId }, body })
  expect(await untilEnded(server.api, listId, made.jobId)).toMatchObject({ state: 'done' })
  const file = await server.api.raw('downloadEdition', { params: { editionId: made.id } })
  return (await file.text()).split('\r\n').filter(Boolean)
}
const preflight = (destination: string, takes: 'people' | 'companies' = 'people') =>
  server.api.call('preflight', { params: { listId }, query: { destination, takes } })

describe('destinations', () => {
  it('are none until an owner adds one, and each that ships can be', async () => {
    expect(await server.api.call('readDestinations', {})).toEqual([])
    await expect(preflight('brassbell')).rejects.toMatchObject({ status: 404 })
    await addDestinations(server.api)
    const kept = await server.api.call('readDestinations', {})
    expect(kept).toEqual(await server.api.call('readShippedDestinations', {}))
  })

  it('are refused under another id than their own, and where they contradict themselves', async () => {
    const [one] = await server.api.call('readShippedDestinations', {})
    if (!one) throw new Error('none ships')
    const keep = (destinationId: string, body: DestinationDocument) =>
      server.api.call('keepDestination', { params: { destinationId }, body })
    await expect(keep('another', one)).rejects.toMatchObject({ code: 'other-id' })
    const [shape] = one.audiences
    const broken = { ...one, audiences: [{ ...shape, columns: shape?.columns.slice(0, 1) }] } as DestinationDocument
    await expect(keep(one.id, broken)).rejects.toMatchObject({ status: 422 })
  })
})

describe('an audience', () => {
  it('has the headings of its declaration, for each destination and each kind it takes', async () => {
    for (const destination of await server.api.call('readDestinations', {})) {
      for (const shape of destination.audiences) {
        const form = destination.hashing === 'always' ? 'hashed' : 'plain'
        const [headings, ...lines] = await linesOf({ destination: destination.id, takes: shape.takes, form })
        expect(headings).toBe(headingsOf(shape).join())
        const flight = await preflight(destination.id, shape.takes)
        expect([destination.id, shape.takes, lines.length]).toEqual([destination.id, shape.takes, flight.ready])
        expect(lines.length).toBeGreaterThan(1)
      }
    }
  })

  it('of companies holds each once, however many of its people are chosen', async () => {
    const [, ...lines] = await linesOf({ destination: 'marlpost', takes: 'companies' })
    expect(lines.filter((line) => line.includes('causeway.example'))).toHaveLength(1)
  })

  it('tells who is left out, and why', async () => {
    const flight = await preflight('brassbell')
    expect(flight).toMatchObject({
      chosen: 4,
      ready: 3,
      missing: [{ field: 'country', n: 1 }],
      nothingToMatch: 0,
      codeMended: 2,
      byCount: [1, 2, 0],
      workAddresses: 3,
    })
    const northpin = await preflight('northpin')
    expect(northpin.leftBlank).toEqual([{ fields: ['given-name', 'family-name', 'country', 'postal-code'], n: 2 }])
  })

  it('shows for each count exactly the contacts it counts', async () => {
    for (const destination of await server.api.call('readDestinations', {})) {
      if (!destination.audiences.some(({ takes }) => takes === 'people')) continue
      const flight = await preflight(destination.id)
      const counts: readonly (readonly [string, number])[] = [
        ['ready', flight.ready],
        ['nothing-to-match', flight.nothingToMatch],
        ['country-from-number', flight.countryFromNumber],
        ['code-mended', flight.codeMended],
        ['suppressed', flight.suppressed],
        ...flight.missing.map(({ field, n }) => [`missing ${field}`, n] as const),
        ...flight.leftBlank.map(({ fields, n }) => [`blank ${fields.join(' ')}`, n] as const),
        ...flight.unreadable.map(({ field, n }) => [`unreadable ${field}`, n] as const),
      ]
      for (const [finding, n] of counts) {
        const query = { destination: destination.id, finding }
        const { contacts, next } = await server.api.call('readFinding', { params: { listId }, query })
        expect([destination.id, finding, contacts.length, next]).toEqual([destination.id, finding, n, null])
      }
    }
  })

  it('in a form a destination does not take is refused', async () => {
    const plain = { destination: 'northpin', form: 'plain' as const, filter: '' }
    await expect(server.api.call('makeEdition', { params: { listId }, body: plain })).rejects.toMatchObject({
      code: 'form-off',
    })
    await expect(preflight('tallow', 'companies')).rejects.toMatchObject({ code: 'not-taken' })
  })

  it('goes by a fifth declaration that no code knows', async () => {
    const lantern: DestinationDocument = {
      ...((await server.api.call('readDestinations', {}))[0] as DestinationDocument),
      id: 'lantern',
      name: 'Lantern',
      audiences: [
        {
          takes: 'people',
          columns: [
            { heading: 'who', field: 'email', repeats: 1, form: ['lower', 'first:5'], isHashed: false },
            { heading: 'ring', field: 'number', repeats: 1, form: ['e164', 'digits'], isHashed: false },
          ],
          rules: { everyRow: ['number'], someOf: ['email'], together: [] },
        },
      ],
    }
    await server.api.call('keepDestination', { params: { destinationId: 'lantern' }, body: lantern })
    expect(await linesOf({ destination: 'lantern' })).toEqual(['who,ring', 'maren,447911204481', 'jonah,447911204482'])
    await server.api.call('removeDestination', { params: { destinationId: 'lantern' } })
    await expect(linesOf({ destination: 'lantern' })).rejects.toMatchObject({ status: 404 })
  })
})

describe('the preflight of a large list', () => {
  it('is estimated from some of it, and exact where that was asked for', async () => {
    const large = await newList(server.api, 'Large')
    const rows = Array.from({ length: 900 }, (_, i) => {
      const mail = i % 3 === 0 ? '' : `p${i}@postbox.example`
      return `Given${i} Kestle,${mail},${i % 2 === 0 ? `+4479112${String(10_000 + i)}` : ''},GB`
    })
    await bringText(server.api, large, `name,mail,phone,country\n${rows.join('\n')}`)
    const { db } = server.services
    const destination = await findDestination(db, 'brassbell')
    const of = (filter: string, isExact: boolean) => {
      const shape = audienceOf(destination, 'people')
      const sampling = { above: 300, size: 500 }
      return runPreflight(db, { listId: large, filter, destination, shape, isExact, sampling })
    }
    const [some, all] = [await of('', false), await of('', true)]
    expect([all.chosen, all.nothingToMatch, all.lookedAt]).toEqual([750, 0, null])
    expect(some.lookedAt).toBeGreaterThan(300)
    expect(some.lookedAt).toBeLessThan(900)
    for (const [estimate, n] of [
      [some.chosen, all.chosen],
      [some.ready, all.ready],
      [some.byCount[0], all.byCount[0]],
    ] as const)
      expect(Math.abs(estimate - n)).toBeLessThan(n * 0.15)
    // Too few of them are in a part of the list: everybody is looked at.
    expect(await of('kestle email:p7', false)).toMatchObject({ lookedAt: null })
  })
})

it('reads columns together whatever stands in them', async () => {
  const values = sql`from (values (1, 'plain'), (2, ${'a\u001eb\u001f\n\t'}::text), (3, null)) v(n, t) order by n`
  expect(await readColumns(server.services.db, ['n', 't'], values)).toEqual([
    ['1', '2', '3'],
    ['plain', 'a\u001eb\u001f\n\t', ''],
  ])
  expect(await readColumns(server.services.db, ['n', 't'], sql`from (values (1, 'x')) v(n, t) where n = 2`)).toEqual([
    [],
    [],
  ])
})
