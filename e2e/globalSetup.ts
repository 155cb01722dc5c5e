import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { keysOf, networkKeysOf, startStandIns } from '@upper-field/standins'
import { DEMO_WORLD } from '@upper-field/standins/world'
import { Client } from 'pg'
import { freePort } from '../scripts/postgres.mjs'

const ROOT = join(import.meta.dirname, '..')
const KEYS = { ...keysOf((service) => `key-${service}`), ...networkKeysOf((network) => `key-${network}`) }
/** Networks take hours in life. */
const NETWORK_SPEED = 20_000

/** The built application as the demo runs it, on a database of its own, with a quick outside world. */
export default async function globalSetup(): Promise<() => Promise<void>> {
  const cluster = process.env.TEST_CLUSTER_URL
  if (!cluster) throw new Error('TEST_CLUSTER_URL is not set: run these tests with npm test')
  const name = `browser_${Date.now()}`
  const admin = new Client({ connectionString: cluster })
  await admin.connect()
  await admin.query(`create database ${name}`)
  await admin.end()
  const standIns = await startStandIns({ port: 0, ...DEMO_WORLD, keys: KEYS, speed: 30, networkSpeed: NETWORK_SPEED })
  const url = `http://127.0.0.1:${await freePort()}`
  const server = spawn('node', [join(ROOT, 'apps/server/dist/main.js')], {
    env: {
      ...process.env,
      NODE_OPTIONS: '',
      DATABASE_URL: cluster.replace(/\/[^/]*$/, `/${name}`),
      PORT: new URL(url).port,
      SESSION_SECRET: 'browser tests need forty characters as well',
      SEALING_SECRET: 'and another secret of forty characters here',
      ALLOW_PLAIN_HTTP: '1',
      LATE_ANSWER_SECONDS: '5',
      PAGE_DELAY_SECONDS: '0.05',
      EXAMPLE_WEB: standIns.url,
      DEMO: '1',
      ALLOW_PRIVATE_ADDRESSES: '1',
      WEB_DIR: join(ROOT, 'apps/web/dist'),
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  await new Promise<void>((resolve, reject) => {
    server.stdout.on('data', (chunk) => String(chunk).includes('listens on') && resolve())
    server.once('exit', (code) => reject(new Error(`the server ended with ${code}`)))
  })
  await loadDemo(url, standIns.url)
  process.env.APP_URL = url
  process.env.STANDINS_URL = standIns.url
  return async () => {
    server.kill('SIGTERM')
    await standIns.stop()
  }
}

function loadDemo(url: string, standInsUrl: string): Promise<void> {
  const folder = join(ROOT, '.local/test/files')
  process.env.DEMO_FILES = folder
  const loading = spawn(
    'npx',
    ['tsx', join(ROOT, 'scripts/loadDemo.ts'), url, standInsUrl, folder, JSON.stringify(KEYS)],
    {
      cwd: ROOT,
      stdio: 'inherit',
      env: { ...process.env, NODE_OPTIONS: '', STANDINS_NETWORK_SPEED: String(NETWORK_SPEED) },
    },
  )
  return new Promise((resolve, reject) =>
    loading.once('exit', (code) => (code === 0 ? resolve() : reject(new Error('the demo data could not be loaded')))),
  )
}
