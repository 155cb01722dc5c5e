import { parentPort } from 'node:worker_threads'
import { startReaders } from './bring/readers'
import { readConfig } from './config'
import { isLostConnection } from './db/errors'
import { logError } from './http/problem'
import { startJobs } from './startJobs'

// The queue's own housekeeping fails where nobody waits for it when the database goes away: it is tried again later.
process.on('unhandledRejection', (error) => {
  if (!isLostConnection(error)) throw error
  logError('queue', error)
})

// Heavy work runs here, so that the thread that answers browsers is never busy with it.
const config = readConfig(process.env)
const jobs = await startJobs(config, { readers: await startReaders(config) })
parentPort?.postMessage('ready')
parentPort?.once('message', async () => {
  await jobs.stop()
  process.exit(0)
})
