import { createHash } from 'node:crypto'
import { untilEnded } from '../bringIn'
import { suppressFile } from '../suppressFile'
import { withBenchList } from './benchServer'
import { peopleFile } from './peopleFile'
import { seconds } from './timing'
import { updateSeconds } from './updateSeconds'

/** One of so many contacts is in a file. */
const SHARE = 5

/**
 * Files of people who must not be contacted, by addresses and by hashes of these, until everybody in a list is marked whom
 * they hold, against an `UPDATE` of one column of its contacts.
 */
export async function suppressBench({ rows }: { rows: number | null }): Promise<void> {
  const people = rows ?? 100_000
  await withBenchList(peopleFile(people), async ({ api, databaseUrl, listId }) => {
    const { id } = await api.call('makeSuppressionList', { body: { name: 'Bench', kind: 'customers' } })
    const update = await updateSeconds(databaseUrl)
    console.log(`${people} contacts; update of one column: ${update.toFixed(2)} s`)
    const file = async (name: string, first: number, cellOf: (address: string) => string) => {
      const lines = Array.from({ length: people / SHARE / 2 }, (_, i) => cellOf(addressOf(first + i * SHARE)))
      const bytes = Buffer.from(`email\n${lines.join('\n')}\n`)
      const taken = await seconds(async () => {
        await suppressFile(api, id, { name: `${name}.csv`, bytes }, 'bench')
        for (const job of await api.call('readJobs', { params: { listId } })) await untilEnded(api, listId, job.id)
      })
      console.log(`${lines.length} ${name}: ${taken.toFixed(1)} s, ratio ${(taken / update).toFixed(1)}`)
    }
    await file('addresses', 0, (address) => address)
    await file('hashes', 1, (address) => createHash('sha256').update(address).digest('hex'))
  })
}

const addressOf = (i: number): string => `person${i}@postbox${i % 90}.example`
