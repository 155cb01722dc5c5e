import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { StandIns } from '@upper-field/standins'
import { createWorld } from '@upper-field/standins/world'
import { drizzle } from 'drizzle-orm/node-postgres'
import { untilEnded } from '../../../../scripts/bringIn'
import { reproject } from '../../src/projection/reproject'
import { bringText, connectStandIns, newList, startTestServer, type TestServer } from './harness'

const WORLD = { seed: 'lanes', people: 60 }
const world = createWorld(WORLD.seed, WORLD)
let server: TestServer
let standIns: StandIns

beforeAll(async () => {
  server = await startTestServer()
  standIns = await connectStandIns(server, WORLD)
})
afterAll(async () => {
  await server.stop()
  await standIns.stop()
})

const NUMBERS = ['', '', 'ask at reception', '07911 2044', '+1 415 *** 1234', 'N/A']

/** People of the world in one row or two, of which any may hold nothing that can be read. */
function rowsOf(below: (n: number) => number): string {
  const rows = world.people.slice(0, 40).flatMap((person) => {
    const { given, family, company, workEmail, profile, mobile } = person
    const row = () => {
      const number = below(3) === 0 ? mobile : (NUMBERS[below(NUMBERS.length)] ?? '')
      const mail = below(3) === 0 ? workEmail : ''
      return [given, family, company.name, 'Town', company.place.country, number, mail, `https://${profile}`]
        .map((cell) => `"${cell}"`)
        .join(',')
    }
    return below(2) === 0 ? [row()] : [row(), row()]
  })
  return `First name,Last name,Company,Town,Country,Phone,E-mail,Profile\n${rows.join('\n')}\n`
}

const randomBelow = (seed: number) => {
  let state = seed
  return (n: number): number => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0
    return Math.floor((state / 0x1_0000_0000) * n)
  }
}

const totalOf = async (listId: string, filter: string): Promise<number> =>
  (await server.api.call('readContacts', { params: { listId }, query: { filter } })).total

/** Every step and riser against the contacts that it opens. */
async function expectToAddUp(listId: string): Promise<void> {
  const lists = await server.api.call('readLists', {})
  const terrace = lists.find(({ id }) => id === listId)?.terrace ?? []
  const split = terrace.find(({ stage }) => stage === 'split')?.count
  const lanes = await Promise.all(['text', 'call', 'ads-only'].map((lane) => totalOf(listId, `lane:${lane}`)))
  expect(lanes.reduce((sum, n) => sum + n, 0)).toBe(split)
  for (const { riser, by } of terrace.flatMap(({ changes }) => changes))
    if (riser !== 'held') expect([riser, await totalOf(listId, `fell:${riser}`)]).toEqual([riser, Math.abs(by)])
}

const PLACES = 'id, is_shared, lane, lane_reason, call_from, suppressed_for, can_text, can_call'

/** Where everybody belongs, decided anew for one of two reasons; nothing of it is kept. */
async function placesAnew(listId: string, because: 'place' | 'changed'): Promise<unknown[]> {
  const { pool } = server.services
  const client = await pool.connect()
  try {
    await client.query('begin')
    const { rows } = await client.query<{ id: string }>(
      `update contacts set lane = 'parked', lane_reason = 'x', is_shared = not is_shared, call_from = 'x', suppressed_for = 'x',
        can_text = not can_text, can_call = not can_call where list_id = $1 returning id`,
      [listId],
    )
    await reproject(drizzle(client), client, { contacts: rows.map(({ id }) => Number(id)), because })
    return (await client.query(`select ${PLACES} from contacts where list_id = $1 order by id`, [listId])).rows
  } finally {
    await client.query('rollback')
    client.release()
  }
}

/** What is stored of contacts places them as their rows do. */
const expectSamePlaces = async (listId: string): Promise<void> =>
  expect(await placesAnew(listId, 'place')).toEqual(await placesAnew(listId, 'changed'))

describe('the terrace and the lanes', () => {
  it.each([11, 12, 13])(
    'count the same contacts, whatever is done to a list, seed %d',
    async (seed: number) => {
      const below = randomBelow(seed)
      const { api } = server
      const listId = await newList(api, `List ${seed}`)
      await bringText(api, listId, rowsOf(below), { defaultCountry: 'GB' })
      const optOuts = await api.call('makeSuppressionList', { body: { name: `No ${seed}`, kind: 'opt-outs' } })
      const pick = <T>(from: readonly T[]): T | undefined => from[below(from.length)]
      const acts: readonly (() => Promise<unknown>)[] = [
        async () =>
          untilEnded(
            api,
            listId,
            (
              await api.call('runPairing', {
                params: { listId },
                body: { thresholds: { join: 7 + below(8), decide: -6 } },
              })
            ).id,
          ),
        async () => {
          const pair = pick((await api.call('readPairs', { params: { listId } })).pairs)
          const decision = below(4) === 0 ? 'apart' : 'join'
          if (pair) await api.call('decidePair', { params: { pairId: pair.id }, body: { decision } })
        },
        async () => {
          const decided = pick(await api.call('readDecided', { params: { listId } }))
          if (decided) await api.call('takeDecisionBack', { params: { decisionId: decided.id } })
        },
        async () => {
          const contact = pick((await api.call('readContacts', { params: { listId }, query: {} })).contacts)
          if (contact?.number || contact?.email)
            await api.call('suppressContact', {
              params: { contactId: contact.id },
              body: { suppressionListId: optOuts.id, reason: 'said so' },
            })
        },
        async () => {
          const { entries } = await api.call('readSuppressionEntries', { params: { suppressionListId: optOuts.id } })
          const entry = pick(entries)
          if (entry) await api.call('dropSuppressionEntry', { params: { entryId: entry.id } })
        },
        async () => {
          const body = { order: ['tansy'], checksLines: true, budget: 3_000_000 }
          const job = await api.call('startFill', { params: { listId }, body })
          await untilEnded(api, listId, job.id)
        },
      ]
      await expectToAddUp(listId)
      for (let i = 0; i < 14; i++) {
        await pick(acts)?.()
        await expectToAddUp(listId)
        await expectSamePlaces(listId)
      }
      const joined = await server.sql<{ n: string }>(
        `select count(*) as n from contacts s where list_id = $1 and joined > 0`,
        [listId],
      )
      expect(Number(joined[0]?.n)).toBeGreaterThan(0)
    },
    120_000,
  )
})
