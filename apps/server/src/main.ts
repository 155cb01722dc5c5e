import { join } from 'node:path'
import { Worker } from 'node:worker_threads'
import { readConfig } from './config'
import { setupCode } from './people/setupCode'
import { prepareDatabase } from './prepareDatabase'
import { type Running, startHttp } from './startHttp'

// Work goes in small steps, so a small heap is enough: it keeps memory level however large the file.
const MEMORY = { maxOldGenerationSizeMb: 640, maxYoungGenerationSizeMb: 48 }

/** A step that is under way may come to its end, in milliseconds. */
const STEP_PATIENCE = 7000
/** Whatever hangs by then is cut off: it goes on, or is done again, after the next start. In milliseconds. */
const END = 9000

let http: Running | null = null
let jobs: Worker | null = null
let isStopping = false

async function stop(): Promise<void> {
  if (isStopping) return
  isStopping = true
  setTimeout(() => process.exit(0), END)
  const gone = new Promise((resolve) => (jobs ? jobs.once('exit', resolve) : resolve(null)))
  jobs?.postMessage('stop')
  const patience = new Promise((resolve) => setTimeout(resolve, STEP_PATIENCE))
  await Promise.race([gone, patience])
  await http?.stop()
  process.exit(0)
}
// From the first moment on: also while the database is waited for.
process.on('SIGINT', () => void stop())
process.on('SIGTERM', () => void stop())

const config = readConfig(process.env)
await prepareDatabase(config)
http = await startHttp(config)
jobs = new Worker(join(import.meta.dirname, 'jobsThread.js'), { resourceLimits: MEMORY })
jobs.on('error', (error) => {
  // Without its jobs the application would look alive and do nothing: end, and be started again.
  console.error(`jobs: ${error.name}`)
  process.exit(1)
})

console.log(`Upper Field listens on http://${config.host}:${http.port}`)
if (!(await http.services.people.hasAnyone())) {
  console.log(
    `There is no account yet. Open the address and make the owner with this code: ${setupCode(config.sessionSecrets[0])}`,
  )
}
