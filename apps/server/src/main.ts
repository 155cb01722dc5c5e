import { readConfig } from './config'
import { startJobsApart } from './jobsApart'
import { setupCode } from './people/setupCode'
import { prepareDatabase } from './prepareDatabase'
import { type Running, startHttp } from './startHttp'

/** Whatever hangs by then is cut off: it goes on, or is done again, after the next start. In milliseconds. */
const END = 9000

let http: Running | null = null
let jobs: ReturnType<typeof startJobsApart> | null = null
let isStopping = false

async function stop(): Promise<void> {
  if (isStopping) return
  isStopping = true
  setTimeout(() => process.exit(0), END)
  await jobs?.stop()
  await http?.stop()
  process.exit(0)
}
// From the first moment on: also while the database is waited for.
process.on('SIGINT', () => void stop())
process.on('SIGTERM', () => void stop())

const config = readConfig(process.env)
await prepareDatabase(config)
http = await startHttp(config)
// Without its jobs the application would look alive and do nothing: end, and be started again.
jobs = startJobsApart(() => process.exit(1))

console.log(`Upper Field listens on http://${config.host}:${http.port}`)
if (!(await http.services.people.hasAnyone())) {
  console.log(
    `There is no account yet. Open the address and make the owner with this code: ${setupCode(config.sessionSecrets[0])}`,
  )
}
