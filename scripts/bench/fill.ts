import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { ConnectorDocument, createClient } from '@upper-field/contract'
import { buildRequest, type Connector, keyedValue } from '@upper-field/core/connect'
import { createWorld, worldFor } from '@upper-field/standins/world'
import { Client } from 'pg'
import { bringIn, untilEnded } from '../bringIn'
import { startBenchServer, watchMemory } from './benchServer'
import { connectStandIns, STAND_IN_KEYS, startStandIns } from './standInServer'

/** Services that answer at once: what the others take is waiting. */
const ORDER = ['ferrier', 'quillwort', 'tansy']
const REGISTER = 'pellow'
/** Rows of the demo's world for each person in it. */
const ROWS_A_PERSON = 1 / 0.43
const HOUR = 3600

/**
 * A whole fill of a list against bare HTTP calls of the same number with the same questions to the same stand-ins, as
 * many of them at once as the connectors allow. The stand-ins wait for nothing.
 */
export async function fillBench({ rows }: { rows: number | null }): Promise<void> {
  const people = rows ?? 50_000
  const { url, databaseUrl, pid, stop } = await startBenchServer()
  const world = worldFor(people * ROWS_A_PERSON)
  const standIns = await startStandIns(people * ROWS_A_PERSON)
  try {
    const api = createClient(url)
    await api.call('enterDemo')
    await connectStandIns(api, standIns)
    const list = await api.call('makeList', { body: { name: 'Bench' } })
    const lines = createWorld(world.seed, world).people.map(
      ({ given, family, company }) => `${given} ${family},${company.name},${company.domain},${company.place.country}`,
    )
    const text = `name,company,web,country\n${lines.slice(0, people).join('\n')}\n`
    await bringIn(api, list.id, { name: 'people.csv', bytes: Buffer.from(text) })
    const memory = watchMemory(pid)
    const start = performance.now()
    const job = await api.call('startFill', {
      params: { listId: list.id },
      body: { order: ORDER, checksLines: true, budget: 90_000_000_000 },
    })
    const ended = await untilEnded(api, list.id, job.id, HOUR)
    const seconds = (performance.now() - start) / 1000
    const peak = memory.end()
    if (ended.state !== 'done') throw new Error(`the fill ended ${ended.state}: ${ended.problem}`)
    const asked = await questionsOf(databaseUrl)
    const bare = await bareSeconds(standIns.url, asked)
    console.log(`${ended.total} contacts, ${asked.length} questions, ${ended.result.found} mobiles found`)
    console.log(`bare calls: ${bare.toFixed(1)} s (${Math.round(asked.length / bare)} a second)`)
    console.log(`whole fill: ${seconds.toFixed(1)} s, ratio ${(seconds / bare).toFixed(1)}`)
    console.log(`memory of the server process: idle ${memory.idle} MB, at most ${peak} MB`)
  } finally {
    standIns.stop()
    await stop()
  }
}

interface Question {
  readonly service: string
  readonly values: Record<string, string>
}

/** Every question of the fill, as it was put. */
async function questionsOf(databaseUrl: string): Promise<Question[]> {
  const db = new Client({ connectionString: databaseUrl })
  await db.connect()
  const attempts = await db.query(`
    select a.provider, c.full_name as name, c.company, c.domain, c.country, coalesce(c.email, '') as email
    from attempts a join contacts c on c.id = a.contact_id order by a.asked_at`)
  const checks = await db.query('select e164 from line_checks')
  await db.end()
  return [
    ...attempts.rows.map(({ provider, ...values }) => ({ service: provider, values })),
    ...checks.rows.map(({ e164 }) => ({ service: REGISTER, values: { number: e164 } })),
  ]
}

async function bareSeconds(base: string, questions: readonly Question[]): Promise<number> {
  const connectors = new Map([...ORDER, REGISTER].map((id) => [id, connectorOf(id)]))
  const start = performance.now()
  await Promise.all(
    [...connectors.values()].map(async (connector) => {
      const mine = questions.filter(({ service }) => service === connector.id)
      let next = 0
      const one = async () => {
        for (let at = next++; at < mine.length; at = next++) await callBare(base, connector, mine[at]?.values ?? {})
      }
      await Promise.all(Array.from({ length: connector.limit.atOnce }, one))
    }),
  )
  return (performance.now() - start) / 1000
}

const connectorOf = (id: string): Connector =>
  ConnectorDocument.parse(JSON.parse(readFileSync(join('apps', 'server', 'connectors', `${id}.json`), 'utf8')))

async function callBare(base: string, connector: Connector, values: Record<string, string>): Promise<void> {
  const { method, path, body } = buildRequest(connector.one.call, values)
  const key = STAND_IN_KEYS[connector.id as keyof typeof STAND_IN_KEYS]
  const answer = await fetch(base + path, {
    method,
    headers: {
      'content-type': 'application/json',
      'idempotency-key': crypto.randomUUID(),
      [connector.key.name]: keyedValue(connector.key, key),
    },
    body,
  })
  await answer.text()
}
