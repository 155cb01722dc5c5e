import { readFileSync } from 'node:fs'
import { basename } from 'node:path'
import { type ApiClient, createClient, type Job } from '@upper-field/contract'
import { splitCells } from '@upper-field/core/table'
import { bringIn, untilEnded } from '../bringIn'
import { startBenchServer } from './benchServer'
import { twentyColumns } from './bringIn'
import { stepsBench } from './steps'
import { updateSeconds } from './updateSeconds'

const HOUR = 3600

/**
 * Single steps in values a second on one core; then a whole routine over a list in the database, against an `UPDATE`
 * of one column of the same table in the same run.
 */
export async function tidyBench({ rows }: { rows: number | null }): Promise<void> {
  const count = rows ?? 100_000
  const path = twentyColumns(count)
  stepsBench(valuesIn(path))
  const { url, databaseUrl, stop } = await startBenchServer()
  try {
    const api = createClient(url)
    await api.call('enterDemo')
    const list = await api.call('makeList', { body: { name: 'Bench' } })
    await bringIn(api, list.id, { name: basename(path), bytes: readFileSync(path) })
    const { routine } = await api.call('readTidy', { params: { listId: list.id } })
    const none = { version: 1, steps: routine.steps.map((step) => ({ ...step, isOn: false })) as typeof routine.steps }
    const update = [await updateSeconds(databaseUrl), await updateSeconds(databaseUrl)]
    const off = await timed(api, list.id, () =>
      api.call('applyRoutine', { params: { listId: list.id }, body: { routine: none, name: null } }),
    )
    const on = await timed(api, list.id, () =>
      api.call('applyRoutine', { params: { listId: list.id }, body: { routine, name: null } }),
    )
    const withoutForms = {
      version: 1,
      steps: routine.steps.map((step) =>
        step.kind === 'postal-code' ? { ...step, isOn: false } : step,
      ) as typeof routine.steps,
    }
    const one = await timed(api, list.id, () =>
      api.call('applyRoutine', { params: { listId: list.id }, body: { routine: withoutForms, name: null } }),
    )
    const code = 'lost-zero'
    const { counts } = await api.call('readTidy', { params: { listId: list.id } })
    const left = await timed(api, list.id, () =>
      api.call('leaveOutWidely', { params: { listId: list.id }, body: { code } }),
    )
    update.push(await updateSeconds(databaseUrl))
    const base = update.sort((a, b) => a - b)[1] ?? 1
    console.log(`${count} contacts; update of one column: ${base.toFixed(2)} s (median of three)`)
    console.log(`one step switched off (postal codes): ${one.toFixed(1)} s, ratio ${(one / base).toFixed(1)}`)
    console.log(
      `one repair of ${counts[code] ?? 0} contacts left out: ${left.toFixed(1)} s, ratio ${(left / base).toFixed(1)}`,
    )
    console.log(`whole routine switched off: ${off.toFixed(1)} s, ratio ${(off / base).toFixed(1)}`)
    console.log(`whole routine switched on: ${on.toFixed(1)} s, ratio ${(on / base).toFixed(1)}`)
  } finally {
    await stop()
  }
}

/** Cells of a column of the bench's file, as a file gives them. */
function valuesIn(path: string): (column: string) => readonly string[] {
  const lines = readFileSync(path, 'utf8').split('\r\n').slice(1, 100_001).filter(Boolean)
  const cells = lines.map((line) => splitCells(line, ','))
  const at: Readonly<Record<string, number>> = { 'full-name': 0, company: 1, email: 5 }
  return (column) => cells.map((row) => Buffer.from(row[at[column] ?? 0] ?? '').toString())
}

/** What was done before may still be put into the search's index: that is not this work's time. */
async function timed(api: ApiClient, listId: string, begin: () => Promise<Job>): Promise<number> {
  for (const { id } of await api.call('readJobs', { params: { listId } })) await untilEnded(api, listId, id, HOUR)
  const start = performance.now()
  const job = await untilEnded(api, listId, (await begin()).id, HOUR)
  if (job.state !== 'done') throw new Error(`the job ended ${job.state}: ${job.problem}`)
  return (performance.now() - start) / 1000
}
