import { type ChildProcess, spawn } from 'node:child_process'
import { join } from 'node:path'
import { type ApiClient, createClient, isUnderWay } from '@upper-field/contract'
import { setupCode } from '../../src/people/setupCode'
import { OWNER, SEALING_SECRET, SECRET, signedIn } from './harness'
import { until } from './until'

export const MAIN_OF_SERVER = join(process.cwd(), 'apps/server/dist/main.js')
const running: ChildProcess[] = []

export function killAll(): void {
  for (const child of running) child.kill('SIGKILL')
}

export const environmentOf = (databaseUrl: string, port: number): NodeJS.ProcessEnv => ({
  ...process.env,
  DATABASE_URL: databaseUrl,
  PORT: String(port),
  SESSION_SECRET: SECRET,
  SEALING_SECRET,
  ALLOW_PRIVATE_ADDRESSES: '1',
  ALLOW_PLAIN_HTTP: '1',
  NODE_OPTIONS: '',
})

/** The built application as a process of its own, as it runs outside tests. */
export async function startProcess(
  databaseUrl: string,
  port: number,
  more: Record<string, string> = {},
): Promise<ChildProcess> {
  const child = spawn('node', [MAIN_OF_SERVER], {
    env: { ...environmentOf(databaseUrl, port), ...more },
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  running.push(child)
  await new Promise<void>((resolve, reject) => {
    child.stdout?.on('data', (chunk) => String(chunk).includes('listens on') && resolve())
    child.once('exit', () => reject(new Error('the server ended by itself')))
  })
  return child
}

export async function makeOwner(url: string): Promise<ApiClient> {
  await createClient(url).call('makeOwner', { body: { ...OWNER, code: setupCode(SECRET) } })
  return signedIn(url, OWNER)
}

/** The job once it has ended, also where calls fail meanwhile because the server or its database is away. */
export async function ended(api: ApiClient, listId: string, jobId: string) {
  const jobOf = async () => {
    const jobs = await api.call('readJobs', { params: { listId } }).catch(() => [])
    return jobs.find(({ id }) => id === jobId)
  }
  await until(async () => !isUnderWay((await jobOf()) ?? { state: 'queued' }))
  return jobOf()
}
