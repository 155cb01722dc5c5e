import type { LaneRules } from '@upper-field/contract'
import { withBenchList } from './benchServer'
import { peopleFile } from './peopleFile'
import { seconds } from './timing'
import { updateSeconds } from './updateSeconds'

/** Rules of its own for a whole list, and the usual lanes again, against an `UPDATE` of one column of its contacts. */
export async function splitBench({ rows }: { rows: number | null }): Promise<void> {
  const people = rows ?? 100_000
  await withBenchList(peopleFile(people), async ({ api, databaseUrl, listId }) => {
    const proposed = await api.call('readLaneRules', { params: { listId } })
    const buyers = { lane: 'buyers', name: 'Buyers', use: 'calls' as const, filter: 'function:purchasing' }
    const keep = (rules: LaneRules['rules'] | null) =>
      seconds(() => api.call('keepLaneRules', { params: { listId }, body: { rules } }))
    const own = [buyers, ...proposed.rules]
    const update = await updateSeconds(databaseUrl)
    const told = (taken: number) => `${taken.toFixed(1)} s, ratio ${(taken / update).toFixed(1)}`
    console.log(`${people} contacts; update of one column: ${update.toFixed(2)} s`)
    console.log(`rules of its own: ${told(await keep(own))}`)
    console.log(`the same again, which changes nothing: ${told(await keep(own))}`)
    console.log(`the usual lanes: ${told(await keep(null))}`)
  })
}
