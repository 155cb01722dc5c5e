import { createWorld, worldFor } from '@upper-field/standins/world'
import { untilEnded } from '../bringIn'
import { watchMemory, withBenchList } from './benchServer'
import { connectStandIns, startStandIns } from './standInServer'
import { seconds } from './timing'
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
  const csv = fileOf(people)
  const standIns = await startStandIns(people * ROWS_A_PERSON)
  try {
    await withBenchList(csv, async ({ api, databaseUrl, listId, pid }) => {
      await connectStandIns(api, standIns)
      const update = await updateSeconds(databaseUrl)
      const memory = watchMemory(pid)
      const body = { of: 'numbers' as const, filter: '', agreed: DEAREST }
      let numbers = 0
      const taken = await seconds(async () => {
        const job = await api.call('startCheck', { params: { listId }, body })
        const { state, problem, done } = await untilEnded(api, listId, job.id, HOUR)
        if (state !== 'done') throw new Error(`the check ended ${state}: ${problem}`)
        numbers = done
      })
      const peak = memory.end()
      const ratio = (taken / update).toFixed(1)
      console.log(`${numbers} numbers of ${people} contacts; update of one column: ${update.toFixed(2)} s`)
      console.log(`check: ${taken.toFixed(1)} s, ${Math.round(numbers / taken)} numbers a second, ratio ${ratio}`)
      console.log(`memory of the server process: idle ${memory.idle} MB, at most ${peak} MB`)
    })
  } finally {
    standIns.stop()
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
