import { createClient } from '@upper-field/contract'
import { createWorld, worldFor } from '@upper-field/standins/world'
import { bringIn, untilEnded } from '../bringIn'
import { startBenchServer, watchMemory } from './benchServer'
import { STAND_IN_KEYS, startStandIns } from './standInServer'
import { updateSeconds } from './updateSeconds'

const HOUR = 3600
const DEAREST = 90_000_000_000
/** Rows of the demo's world for each person in it. */
const ROWS_A_PERSON = 1 / 0.43

/**
 * A check of all numbers of a list, one a contact, against an `UPDATE` of one column of its contacts. The stand-in for the
 * register waits for nothing.
 */
export async function checkBench({ rows }: { rows: number | null }): Promise<void> {
  const people = rows ?? 20_000
  // Made first: it takes long, and the server closes connections that nobody uses meanwhile.
  const bytes = Buffer.from(fileOf(people))
  const server = await startBenchServer()
  const standIns = await startStandIns(people * ROWS_A_PERSON)
  try {
    const api = createClient(server.url)
    await api.call('enterDemo')
    for (const [provider, key] of Object.entries(STAND_IN_KEYS))
      await api.call('changeConnection', { params: { provider }, body: { baseUrl: standIns.url, key } })
    const list = await api.call('makeList', { body: { name: 'Bench' } })
    await bringIn(api, list.id, { name: 'people.csv', bytes })
    const update = await updateSeconds(server.databaseUrl)
    const memory = watchMemory(server.pid)
    const start = performance.now()
    const body = { of: 'numbers' as const, filter: '', agreed: DEAREST }
    const job = await api.call('startCheck', { params: { listId: list.id }, body })
    const ended = await untilEnded(api, list.id, job.id, HOUR)
    const seconds = (performance.now() - start) / 1000
    const peak = memory.end()
    if (ended.state !== 'done') throw new Error(`the check ended ${ended.state}: ${ended.problem}`)
    console.log(`${ended.done} numbers of ${people} contacts; update of one column: ${update.toFixed(2)} s`)
    console.log(
      `check: ${seconds.toFixed(1)} s, ${Math.round(ended.done / seconds)} numbers a second, ratio ${(seconds / update).toFixed(1)}`,
    )
    console.log(`memory of the server process: idle ${memory.idle} MB, at most ${peak} MB`)
  } finally {
    standIns.stop()
    await server.stop()
  }
}

function fileOf(people: number): string {
  const world = worldFor(people * ROWS_A_PERSON)
  const lines = createWorld(world.seed, world)
    .people.slice(0, people)
    .map(
      ({ given, family, company, mobile, workEmail }) =>
        `${given} ${family},${company.name},${company.domain},${company.place.country},${mobile.e164},${workEmail}`,
    )
  return `name,company,web,country,phone,email\n${lines.join('\n')}\n`
}
