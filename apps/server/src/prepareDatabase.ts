import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { runMigrations } from 'graphile-worker'
import type { Config } from './config'
import { makeMissingWords } from './contacts/words'
import { migrateDatabase, NO_HURRY, openDatabase } from './db/database'

/** Folder of the migrations: beside the sources, and beside the bundle. */
const MIGRATIONS = join(dirname(fileURLToPath(import.meta.url)), '..', 'migrations')

/** Brings the schema and the queue up to date. */
export async function prepareDatabase(config: Config): Promise<void> {
  const database = openDatabase(config.databaseUrl, { connections: 2, patience: NO_HURRY })
  try {
    await migrateDatabase(database, MIGRATIONS)
    await makeMissingWords(database)
    await runMigrations({ pgPool: database.pool })
  } finally {
    await database.close()
  }
}
