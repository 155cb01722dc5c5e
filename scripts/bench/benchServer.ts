import { spawn } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { type ApiClient, createClient } from '@upper-field/contract'
import { Client } from 'pg'
import { bringIn } from '../bringIn'
import { dropDatabase, ensureDatabase, freePort, startCluster } from '../postgres.mjs'

const ROOT = process.cwd()
const SECRET = 'the bench needs at least forty characters'
/** Where benches keep their files and their database. */
export const BENCH = join(ROOT, '.local', 'bench')

export interface BenchServer {
  readonly url: string
  readonly databaseUrl: string
  readonly pid: number
  stop(): Promise<void>
}

/** The application as it is run, built anew, on an empty database of its own. */
export async function startBenchServer(): Promise<BenchServer> {
  const cluster = await startCluster(join(BENCH, 'postgres'))
  dropDatabase(cluster, 'bench')
  ensureDatabase(cluster, 'bench')
  const { buildAll } = await import('../build.mjs')
  await buildAll({ wantsWeb: false })
  const port = await freePort()
  const server = spawn('node', ['apps/server/dist/main.js'], {
    env: {
      ...process.env,
      NODE_OPTIONS: '',
      DATABASE_URL: cluster.url('bench'),
      PORT: String(port),
      SESSION_SECRET: SECRET,
      SEALING_SECRET: `${SECRET} for keys`,
      DEMO: '1',
      ALLOW_PRIVATE_ADDRESSES: '1',
      ALLOW_PLAIN_HTTP: '1',
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  await new Promise<void>((resolve, reject) => {
    server.stdout.on('data', (chunk) => String(chunk).includes('listens on') && resolve())
    server.once('exit', () => reject(new Error('the server ended by itself')))
  })
  return {
    url: `http://127.0.0.1:${port}`,
    databaseUrl: cluster.url('bench'),
    pid: server.pid ?? 0,
    stop: async () => {
      server.kill('SIGTERM')
      await new Promise((resolve) => server.once('exit', resolve))
      cluster.stop()
    },
  }
}

export interface BenchList extends BenchServer {
  readonly api: ApiClient
  readonly db: Client
  readonly listId: string
}

/** Works on a list of a server of its own, into which a file was brought. */
export async function withBenchList(csv: string, work: (bench: BenchList) => Promise<void>): Promise<void> {
  const server = await startBenchServer()
  const db = new Client({ connectionString: server.databaseUrl })
  await db.connect()
  try {
    const api = createClient(server.url)
    await api.call('enterDemo')
    const { id: listId } = await api.call('makeList', { body: { name: 'Bench' } })
    await bringIn(api, listId, { name: 'people.csv', bytes: Buffer.from(csv) })
    await work({ ...server, api, db, listId })
  } finally {
    await db.end()
    await server.stop()
  }
}

/** Resident memory of a process and of those it has started, in MB. */
function memoryOf(pid: number): number {
  try {
    const status = readFileSync(`/proc/${pid}/status`, 'utf8')
    const own = Math.round(Number(/VmRSS:\s+(\d+)/.exec(status)?.[1] ?? 0) / 1024)
    const started = readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').split(' ').filter(Boolean).map(Number)
    return started.reduce((sum, one) => sum + memoryOf(one), own)
  } catch {
    // It has ended meanwhile.
    return 0
  }
}

/** Watches the memory of a server. @returns what it was, and ends with the most it came to, in MB */
export function watchMemory(pid: number): { readonly idle: number; end(): number } {
  const idle = memoryOf(pid)
  let most = idle
  const watch = setInterval(() => {
    most = Math.max(most, memoryOf(pid))
  }, 100).unref()
  return {
    idle,
    end: () => {
      clearInterval(watch)
      return most
    },
  }
}
