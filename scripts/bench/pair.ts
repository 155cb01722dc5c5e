import { createReadStream } from 'node:fs'
import { join } from 'node:path'
import { createInterface } from 'node:readline'
import { createPairing, type Paired, type PairInput, pairInputOf } from '@upper-field/core/pair'
import { type Mapping, splitCells } from '@upper-field/core/table'
import { compileRoutine } from '@upper-field/core/tidy'
import { ensureDatabase, startCluster } from '../postgres.mjs'
import { BENCH } from './benchServer'
import { copySeconds, twentyColumns } from './bringIn'

const MEGABYTE = 1 << 20

/**
 * The whole pairing of a list (keys, candidates, weights, groups) against psql's `\copy` of the same file into one text
 * table, at two sizes, so that the growth is seen. Reading and tidying the file is not counted.
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
  const copies = [0, 1, 2].map(() => copySeconds(url, path)).sort((a, b) => a - b)
  const copy = copies[1] ?? 1
  const { paired, adding, pairing, most } = await pairFile(path)
  const seconds = adding + pairing
  console.log(
    `${count} contacts: ${seconds.toFixed(1)} s (${adding.toFixed(1)} to take them in, ${pairing.toFixed(1)} to pair), \\copy ${copy.toFixed(2)} s, ratio ${(seconds / copy).toFixed(1)}; ${paired.groups.length} groups, ${paired.toDecide.length} pairs to decide; ${most} MB resident at most`,
  )
}

/** Rows of a file that are tidied before they are paired: that is not what is timed here. */
const PAGE = 1000

async function pairFile(path: string): Promise<{ paired: Paired; adding: number; pairing: number; most: number }> {
  const one = createPairing()
  let adding = 0
  let most = 0
  const timed = <T>(work: () => T): { seconds: number; made: T } => {
    const start = performance.now()
    const made = work()
    most = Math.max(most, Math.round(process.memoryUsage().rss / MEGABYTE))
    return { seconds: (performance.now() - start) / 1000, made }
  }
  let page: PairInput[] = []
  const take = () => {
    adding += timed(() => page.forEach(one.add)).seconds
    page = []
  }
  for await (const contact of contactsIn(path)) if (page.push(contact) === PAGE) take()
  take()
  const steps = one.steps()
  for (let pairing = 0; ; ) {
    const { seconds, made } = timed(() => steps.next())
    pairing += seconds
    if (made.done) return { paired: made.value, adding, pairing, most }
  }
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

async function* contactsIn(path: string): AsyncGenerator<PairInput> {
  const { tidy } = compileRoutine({ version: 1, steps: [] }, { mapping: FIELDS, headings: [] })
  let isHead = true
  for await (const line of createInterface({ input: createReadStream(path) })) {
    if (!isHead) yield pairInputOf(tidy(splitCells(line, ',')))
    isHead = false
  }
}
