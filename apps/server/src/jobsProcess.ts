import { startReaders } from './bring/readers'
import { readConfig } from './config'
import { isLostConnection } from './db/errors'
import { logError } from './http/problem'
import { startJobs } from './startJobs'

/** A step that is under way may come to its end, in milliseconds: what is cut off goes on, or is done again, elsewhere. */
const STEP_PATIENCE = 7000

/** How often is looked whether memory has grown, in milliseconds. */
const LOOK_EVERY = 1000
const MEGABYTE = 1024 * 1024

// The queue's own housekeeping fails where nobody waits for it when the database goes away: it is tried again later.
process.on('unhandledRejection', (error) => {
  if (!isLostConnection(error)) throw error
  logError('queue', error)
})

let watch: NodeJS.Timeout | undefined
const config = readConfig(process.env)
const starting = startReaders(config).then((readers) => startJobs(config, { readers }))

// The server says so, or both were told from outside.
process.once('message', () => void end())
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => void end())
// The server is gone: whatever is left undone here is taken up by the next one.
process.once('disconnect', () => process.exit())
if (!process.connected) process.exit()

const jobs = await starting
process.send?.('ready', undefined, {}, (error) => error && process.exit())

// What large lists leave in memory is given back for good by ending alone.
const most = process.memoryUsage.rss() + config.limits.jobsGrowthMegabytes * MEGABYTE
watch = setInterval(() => {
  if (process.memoryUsage.rss() > most && jobs.isIdle()) void end()
}, LOOK_EVERY)

async function end(): Promise<void> {
  clearInterval(watch)
  setTimeout(() => process.exit(), STEP_PATIENCE)
  await (await starting).stop()
  process.exit()
}
