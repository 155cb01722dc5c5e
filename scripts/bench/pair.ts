import { createReadStream } from 'node:fs'
import { join } from 'node:path'
import { createInterface } from 'node:readline'
import { type PairInput, pairContacts, pairInputOf } from '@upper-field/core/pair'
import { type Mapping, splitCells } from '@upper-field/core/table'
import { compileRoutine } from '@upper-field/core/tidy'
import { ensureDatabase, startCluster } from '../postgres.mjs'
import { BENCH } from './benchServer'
import { copySeconds, twentyColumns } from './bringIn'

const MEGABYTE = 1 << 20

/**
 * The whole pairing of a list (keys, candidates, weights, groups) against psql's `\copy` of the same file into one text
 * table, at two sizes, so that the growth is seen. Contacts are read before the clock starts.
 */
export async function pairBench({ rows }: { rows: number | null }): Promise<void> {
  const most = rows ?? 100_000
  const cluster = await startCluster(join(BENCH, 'postgres'))
  ensureDatabase(cluster, 'bench')
  try {
    for (const count of [Math.round(most / 10), most]) await pairOf(count, cluster.url('bench'))
  } finally {
    cluster.stop()
  }
}

async function pairOf(count: number, url: string): Promise<void> {
  const path = twentyColumns(count)
  const contacts = await contactsIn(path)
  const copies = [0, 1, 2].map(() => copySeconds(url, path)).sort((a, b) => a - b)
  const copy = copies[1] ?? 1
  const before = process.memoryUsage().rss
  const start = performance.now()
  const { groups, toDecide } = pairContacts(contacts)
  const seconds = (performance.now() - start) / 1000
  const more = (process.memoryUsage().rss - before) / MEGABYTE
  console.log(
    `${count} contacts: ${seconds.toFixed(1)} s, \\copy ${copy.toFixed(2)} s, ratio ${(seconds / copy).toFixed(1)}; ${groups.length} groups, ${toDecide.length} pairs to decide; ${more.toFixed(0)} MB more`,
  )
}

const FIELDS: Mapping = [
  'full-name',
  'company',
  'title',
  'number',
  'number',
  'email',
  'city',
  'postal-code',
  'country',
  'profile',
  ...Array.from({ length: 10 }, () => null),
]

async function contactsIn(path: string): Promise<PairInput[]> {
  const { tidy } = compileRoutine({ version: 1, steps: [] }, { mapping: FIELDS, headings: [] })
  const contacts: PairInput[] = []
  let isHead = true
  for await (const line of createInterface({ input: createReadStream(path) })) {
    if (!isHead) contacts.push(pairInputOf(tidy(splitCells(line, ','))))
    isHead = false
  }
  return contacts
}
