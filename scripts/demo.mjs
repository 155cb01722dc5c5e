// The demo: one command from a bare machine to a signed-in browser.
import { randomBytes } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { ensureDatabase, freePort, startCluster } from './postgres.mjs'
import { fail, mustRun, ROOT, start } from './run.mjs'
import { setUp } from './setUp.mjs'
import { shippedServices } from './shippedServices.mjs'

const HOME = join(ROOT, '.local', 'demo')
const SETTINGS = join(HOME, 'settings.json')
const RUNNING = join(HOME, 'running.json')
const isFresh = process.argv.includes('--fresh')
// About how many rows the seven files have together; other than the usual only with data made anew.
const rows = process.argv.includes('--rows') ? process.argv[process.argv.indexOf('--rows') + 1] : '6000'
if (!/^\d{3,7}$/.test(rows)) fail('Say how many rows: npm run demo -- --fresh --rows 100000')
const PORT = 4600

refuseSecondStart()
setUp({ wantsBrowser: false })
const { buildAll } = await import('./build.mjs')
mkdirSync(HOME, { recursive: true })
console.log('Building …')
await buildAll()

const cluster = await startCluster(join(HOME, 'postgres'))
if (isFresh) {
  const { dropDatabase } = await import('./postgres.mjs')
  dropDatabase(cluster, 'demo')
  rmSync(join(HOME, 'books'), { recursive: true, force: true })
}
ensureDatabase(cluster, 'demo')
const settings = readSettings()
const standIns = start('node', ['apps/standins/dist/main.js'], {
  name: 'The stand-ins',
  ready: /listen on (\S+)/,
  env: {
    STANDIN_KEYS: JSON.stringify(settings.keys),
    STANDINS_SPEED: process.env.STANDINS_SPEED ?? '1',
    WORLD_ROWS: rows,
    STANDINS_BOOKS: join(HOME, 'books'),
  },
})
const [, outside] = await standIns.whenReady.catch(failed)
const port = await choosePort()
const server = start('node', ['apps/server/dist/main.js'], {
  name: 'The application',
  ready: /listens on (\S+)/,
  env: {
    DATABASE_URL: cluster.url('demo'),
    PORT: String(port),
    SESSION_SECRET: settings.secret,
    // A demo of before sealed with the secret of its sessions: what it sealed is opened, and sealed anew.
    SEALING_SECRET: `${settings.sealing},${settings.secret}`,
    DEMO: '1',
    LATE_ANSWER_SECONDS: '20',
    // The made-up web of the stand-ins, and no real site.
    EXAMPLE_WEB: outside,
    ALLOW_PRIVATE_ADDRESSES: '1',
    ALLOW_PLAIN_HTTP: '1',
    WEB_DIR: join(ROOT, 'apps/web/dist'),
    NODE_ENV: 'production',
  },
})
let isStopping = false
process.on('SIGINT', () => void stop(0))
process.on('SIGTERM', () => void stop(0))

try {
  const [, url] = await server.whenReady
  writeFileSync(RUNNING, JSON.stringify({ pid: process.pid, url }))
  mustRun('npx', ['tsx', 'scripts/loadDemo.ts', url, outside, join(HOME, 'files'), JSON.stringify(settings.keys), rows])
  console.log(`
Upper Field is ready:  ${url}

Open it and choose "Enter as Maud Ostrander". No password is needed in the demo.
Files to bring in:     ${join(HOME, 'files')}
The services it asks:  ${outside}/world
Ctrl-C stops it; the data is kept. Start over with: npm run demo -- --fresh
`)
} catch (error) {
  console.error(error.message)
  await stop(1)
}
await Promise.race([server.ended, standIns.ended])
if (!isStopping) {
  console.error(`A part of the demo ended by itself.\n${server.told().slice(-2000)}`)
  await stop(1)
}

async function stop(code) {
  if (isStopping) return
  isStopping = true
  await Promise.all([server.stop(), standIns.stop()])
  try {
    cluster.stop()
  } catch {
    // Stopped already.
  }
  rmSync(RUNNING, { force: true })
  process.exit(code)
}

/** Before there is anything else to be stopped. */
function failed(error) {
  cluster.stop()
  fail(error.message)
}

function refuseSecondStart() {
  if (!existsSync(RUNNING)) return
  const { pid, url } = JSON.parse(readFileSync(RUNNING, 'utf8'))
  if (isAlive(pid)) fail(`The demo of this folder is running already: ${url}`)
}

function isAlive(pid) {
  try {
    process.kill(pid, 0)
    return true
  } catch (error) {
    return error.code === 'EPERM'
  }
}

/** Keys and the secret are made once and stay, so that sessions and sealed keys go on working. */
function readSettings() {
  const secret = () => randomBytes(24).toString('hex')
  const known = existsSync(SETTINGS) && !isFresh ? JSON.parse(readFileSync(SETTINGS, 'utf8')) : null
  const made = { secret: secret(), sealing: secret(), ...known }
  // A demo of before lacks the keys of services that have come since.
  made.keys = { ...Object.fromEntries(shippedServices().map((name) => [name, secret()])), ...known?.keys }
  writeFileSync(SETTINGS, JSON.stringify(made), { mode: 0o600 })
  return made
}

/** The usual port, or a free one where another copy has it. */
async function choosePort() {
  const { createServer } = await import('node:net')
  const isFree = await new Promise((resolve) => {
    const probe = createServer()
    probe.once('error', () => resolve(false))
    probe.listen(PORT, '127.0.0.1', () => probe.close(() => resolve(true)))
  })
  return isFree ? PORT : freePort()
}
