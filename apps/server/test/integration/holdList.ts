import { Client } from 'pg'
import { LOCKS } from '../../src/db/locks'

/** Holds a list as a long job of somebody does, until it is let go. */
export async function holdList(
  { databaseUrl }: { readonly databaseUrl: string },
  listId: string,
  jobId: string = crypto.randomUUID(),
): Promise<() => Promise<void>> {
  const client = new Client({ connectionString: databaseUrl, application_name: `upper-field tidy ${jobId}` })
  await client.connect()
  await client.query('begin')
  await client.query('select pg_advisory_xact_lock(hashtextextended($1, $2))', [listId, LOCKS.list])
  return async () => {
    await client.query('rollback')
    await client.end()
  }
}
