import { withBenchList } from './benchServer'
import { peopleFile } from './peopleFile'
import { seconds } from './timing'
import { updateSeconds } from './updateSeconds'

const RULES = [
  { lane: 'mobiles', name: 'Mobiles', use: 'texts', filter: 'line:mobile not sent:people' },
  { lane: 'others', name: 'Others', use: 'ads', filter: '' },
] as const

/** Rules of its own for a whole list, and the usual lanes again, against an `UPDATE` of one column of its contacts. */
export async function splitBench({ rows }: { rows: number | null }): Promise<void> {
  const people = rows ?? 100_000
  await withBenchList(peopleFile(people), async ({ api, databaseUrl, listId }) => {
    const keep = (rules: readonly (typeof RULES)[number][] | null) =>
      seconds(() => api.call('keepLaneRules', { params: { listId }, body: { rules: rules && [...rules] } }))
    const update = await updateSeconds(databaseUrl)
    const told = (taken: number) => `${taken.toFixed(1)} s, ratio ${(taken / update).toFixed(1)}`
    console.log(`${people} contacts; update of one column: ${update.toFixed(2)} s`)
    console.log(`rules of its own: ${told(await keep(RULES))}`)
    console.log(`the same again, which changes nothing: ${told(await keep(RULES))}`)
    console.log(`the usual lanes: ${told(await keep(null))}`)
  })
}
