import { parentPort } from 'node:worker_threads'
import { readConfig } from './config'
import { startJobs } from './start'

// Heavy work runs here, so that the thread that answers browsers is never busy with it.
const jobs = await startJobs(readConfig(process.env))
parentPort?.postMessage('ready')
parentPort?.once('message', async () => {
  await jobs.stop()
  process.exit(0)
})
