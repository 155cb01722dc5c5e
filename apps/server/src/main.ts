import { join } from 'node:path'
import { Worker } from 'node:worker_threads'
import { readConfig } from './config'
import { setupCode } from './people/setupCode'
import { prepareDatabase, startHttp } from './start'

// Work goes in small steps, so a small heap is enough: it keeps memory level however large the file.
const MEMORY = { maxOldGenerationSizeMb: 640, maxYoungGenerationSizeMb: 64 }

const config = readConfig(process.env)
await prepareDatabase(config)
const http = await startHttp(config)
const jobs = new Worker(join(import.meta.dirname, 'jobsThread.js'), { resourceLimits: MEMORY })
jobs.on('error', (error) => {
  // Without its jobs the application would look alive and do nothing: end, and be started again.
  console.error(`jobs: ${error.name}`)
  process.exit(1)
})

console.log(`Upper Field listens on http://${config.host}:${http.port}`)
if (!(await http.services.people.hasAnyone())) {
  console.log(
    `There is no account yet. Open the address and make the owner with this code: ${setupCode(config.secret)}`,
  )
}

let isStopping = false
async function stop(): Promise<void> {
  if (isStopping) return
  isStopping = true
  const gone = new Promise((resolve) => jobs.once('exit', resolve))
  jobs.postMessage('stop')
  const patience = new Promise((resolve) => setTimeout(resolve, 8000))
  await Promise.race([gone, patience])
  await http.stop()
  process.exit(0)
}
process.on('SIGINT', () => void stop())
process.on('SIGTERM', () => void stop())
