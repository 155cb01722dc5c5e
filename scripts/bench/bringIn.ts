import { execFileSync } from 'node:child_process'
import { closeSync, existsSync, mkdirSync, openAsBlob, openSync, statSync, writeSync } from 'node:fs'
import { join } from 'node:path'
import { type ApiClient, createClient, isUnderWay } from '@upper-field/contract'
import { fairBadges } from '@upper-field/demo'
import { createWorld } from '@upper-field/standins/world'
import { announce, untilEnded } from '../bringIn'
import { findBinaries } from '../postgres.mjs'
import { BENCH, startBenchServer, watchMemory } from './benchServer'

/** The whole job (upload, read, store, project, join) against psql's `\copy` of the same file into one text table. */
export async function bringInBench({ rows }: { rows: number | null }): Promise<void> {
  const count = rows ?? 100_000
  const path = twentyColumns(count)
  const { size } = statSync(path)
  const { url, databaseUrl, pid, stop } = await startBenchServer()
  try {
    const baseline = [copySeconds(databaseUrl, path), copySeconds(databaseUrl, path)]
    const memory = watchMemory(pid)
    const { seconds, untilFound } = await wholeJob(url, path)
    const peak = memory.end()
    baseline.push(copySeconds(databaseUrl, path))
    const copy = baseline.sort((a, b) => a - b)[1] ?? 1
    console.log(`${count} rows, ${(size / 1e6).toFixed(1)} MB`)
    console.log(`\\copy into one text table: ${copy.toFixed(2)} s (median of three)`)
    console.log(`whole job: ${seconds.toFixed(2)} s`)
    console.log(`ratio: ${(seconds / copy).toFixed(1)}`)
    console.log(
      `until the search finds all by its index: ${untilFound.toFixed(2)} s more, ${(untilFound / copy).toFixed(1)}`,
    )
    console.log(`memory of the server process: idle ${memory.idle} MB, at most ${peak} MB`)
  } finally {
    await stop()
  }
}

/** A file of that many rows and twenty columns, made once. @returns its path */
export function twentyColumns(count: number): string {
  mkdirSync(BENCH, { recursive: true })
  const path = join(BENCH, `twenty-columns-${count}.csv`)
  if (!existsSync(path)) writeTwentyColumns(path, count)
  return path
}

/** Badge scans, with nine columns more of the kinds that stay extras. */
function writeTwentyColumns(path: string, count: number): void {
  const { bytes } = fairBadges(createWorld('bench', { people: Math.ceil(count * 0.8) }), { rows: count })
  const text = Buffer.from(bytes).toString()
  const file = openSync(path, 'w')
  let row = -1
  let start = 0
  let held = ''
  for (let end = text.indexOf('\r\n'); end !== -1; end = text.indexOf('\r\n', start)) {
    row++
    held += `${text.slice(start, end)},${row === 0 ? MORE : moreCells(row)}\r\n`
    start = end + 2
    if (held.length < 1 << 20) continue
    writeSync(file, held)
    held = ''
  }
  writeSync(file, held)
  closeSync(file)
}

const MORE = 'Record id,Created at,Source,Campaign,Pitches,Stars,Consent,Language,Note'
const moreCells = (row: number): string =>
  `R-${100_000 + row},2026-0${1 + (row % 9)}-${10 + (row % 18)},scan ${row % 40},autumn-${row % 7},${row % 220},${row % 5},yes,${['en', 'de', 'fr'][row % 3]},asked for sample ${row % 97}`

/** Seconds of `\copy` of the file into one table of texts. */
export function copySeconds(url: string, path: string): number {
  const psql = (sql: string) => execFileSync(join(findBinaries() ?? '', 'psql'), ['-X', '-q', '-c', sql, url])
  const columns = Array.from({ length: 20 }, (_, i) => `c${i} text`).join(', ')
  psql('drop table if exists copied')
  psql(`create table copied (${columns})`)
  const start = performance.now()
  psql(`\\copy copied from '${path.replaceAll("'", "''")}' csv header`)
  return (performance.now() - start) / 1000
}

/** How long a list is waited for behind the last byte of a file that comes over a slow line: it is read while it arrives. */
export async function slowLineBench({ rows }: { rows: number | null }): Promise<void> {
  const path = twentyColumns(rows ?? 100_000)
  const { url, databaseUrl, stop } = await startBenchServer()
  try {
    const copy = copySeconds(databaseUrl, path)
    const { sent, seconds } = await wholeJob(url, path, SLOW_LINE)
    const behind = seconds - sent
    console.log(
      `over a line of ${SLOW_LINE / 1e6} MB a second: sent in ${sent.toFixed(1)} s, usable ${behind.toFixed(2)} s later, ${(behind / copy).toFixed(1)} times \\copy of ${copy.toFixed(2)} s`,
    )
  } finally {
    await stop()
  }
}

/** Bytes a second. */
const SLOW_LINE = 2e6

interface Took {
  readonly sent: number
  readonly seconds: number
  readonly untilFound: number
}

/** @param line how many bytes a second it carries */
async function wholeJob(url: string, path: string, line = Infinity): Promise<Took> {
  const api = createClient(url)
  await api.call('enterDemo')
  const list = await api.call('makeList', { body: { name: 'Bench' } })
  const start = performance.now()
  const file = await openAsBlob(path)
  const batch = await announce(api, list.id, {
    name: 'bench.csv',
    source: {
      size: file.size,
      read: async (from, to) => new Uint8Array(await file.slice(from, to).arrayBuffer()),
    },
  })
  const response = await api.raw('sendContent', { params: { batchId: batch.id }, body: slowed(file.stream(), line) })
  const { jobId } = (await response.json()) as { jobId: string }
  const sent = performance.now()
  const watching = phasesOf(api, list.id, jobId)
  const job = await untilEnded(api, list.id, jobId, 3600)
  const phases = await watching
  console.log(`sent in ${((sent - start) / 1000).toFixed(1)} s; ${phases}`)
  if (job.state !== 'done') throw new Error(`the job ended ${job.state}: ${job.problem}`)
  console.log(`rows ${job.result.rows}, held ${job.result.held}, joined ${job.result.joined}`)
  const end = performance.now()
  await untilIndexed(api, list.id)
  return {
    sent: (sent - start) / 1000,
    seconds: (end - start) / 1000,
    untilFound: (performance.now() - end) / 1000,
  }
}

function slowed(stream: ReadableStream<Uint8Array>, line: number): ReadableStream<Uint8Array> {
  if (line === Infinity) return stream
  return stream.pipeThrough(
    new TransformStream({
      transform: async (chunk: Uint8Array, to) => {
        await new Promise((resolve) => setTimeout(resolve, (1000 * chunk.length) / line))
        to.enqueue(chunk)
      },
    }),
  )
}

/** Waits until the search of a list need not look through its contacts one by one. */
export async function untilIndexed(api: ApiClient, listId: string): Promise<void> {
  const jobs = await api.call('readJobs', { params: { listId } })
  for (const { id, kind } of jobs) if (kind === 'index') await untilEnded(api, listId, id, 3600)
}

/** How long the job was in each phase. */
export async function phasesOf(api: ReturnType<typeof createClient>, listId: string, jobId: string): Promise<string> {
  const seconds = new Map<string, number>()
  let last = performance.now()
  for (;;) {
    const job = (await api.call('readJobs', { params: { listId } })).find(({ id }) => id === jobId)
    const now = performance.now()
    const phase = job?.phase || 'waiting'
    seconds.set(phase, (seconds.get(phase) ?? 0) + (now - last) / 1000)
    last = now
    if (!job || !isUnderWay(job)) break
    await new Promise((resolve) => setTimeout(resolve, 200))
  }
  return [...seconds].map(([phase, n]) => `${phase} ${n.toFixed(1)} s`).join(', ')
}
