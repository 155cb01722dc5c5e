import type { Config } from './config'
import { openDatabase } from './db/database'
import { patienceOf } from './db/patience'
import type { Services } from './services'

/** What answering calls and working on jobs have in common, on connections of their own. */
export function openServices(
  config: Config,
  of: 'calls' | 'jobs',
  { now = Date.now, readers = null }: Partial<Pick<Services, 'now' | 'readers'>> = {},
): Services & { close(): Promise<void> } {
  const { connections } = config.limits
  const { pool, db, close } = openDatabase(config.databaseUrl, { connections, patience: patienceOf(config, of) })
  return { config, pool, db, readers, now, close }
}
