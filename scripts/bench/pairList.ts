import { readFileSync } from 'node:fs'
import { DEFAULT_THRESHOLDS } from '@upper-field/core/pair'
import { untilEnded } from '../bringIn'
import { watchMemory, withBenchList } from './benchServer'
import { copySeconds, phasesOf, twentyColumns } from './bringIn'

const HOUR = 3600

/**
 * Looking for who is one person through the server, on a list into which a file was brought, against psql's `\copy` of
 * that file into one text table.
 */
export async function pairListBench({ rows }: { rows: number | null }): Promise<void> {
  const path = twentyColumns(rows ?? 100_000)
  await withBenchList(readFileSync(path, 'utf8'), async ({ api, listId, databaseUrl, pid }) => {
    for (const { id } of await api.call('readJobs', { params: { listId } })) await untilEnded(api, listId, id, HOUR)
    const copies = [copySeconds(databaseUrl, path), copySeconds(databaseUrl, path)]
    const memory = watchMemory(pid)
    const start = performance.now()
    const begun = await api.call('runPairing', { params: { listId }, body: { thresholds: DEFAULT_THRESHOLDS } })
    const watching = phasesOf(api, listId, begun.id)
    const { state, result } = await untilEnded(api, listId, begun.id, HOUR)
    const seconds = (performance.now() - start) / 1000
    const most = memory.end()
    if (state !== 'done') throw new Error(`the job ended ${state}`)
    copies.push(copySeconds(databaseUrl, path))
    const copy = copies.sort((a, b) => a - b)[1] ?? 1
    console.log(`${seconds.toFixed(1)} s (${await watching}); joined ${result.joined}, to decide ${result.toDecide}`)
    console.log(`\\copy of the file: ${copy.toFixed(2)} s; ratio ${(seconds / copy).toFixed(1)}`)
    console.log(`memory of the server process: idle ${memory.idle} MB, at most ${most} MB`)
  })
}
