import type { ApiClient } from '@upper-field/contract'
import type { Client } from 'pg'
import { untilEnded } from '../bringIn'

/** An audience of everybody in a list, as it is after its first delivery: the network is left out, and only our books are kept. */
export async function holdEverybody(api: ApiClient, db: Client, listId: string, destination: string): Promise<string> {
  const account = { id: 'none', name: 'No account: nothing is sent' }
  const params = { listId }
  const body = { name: 'Everybody', destination, account, isWholeList: true }
  const { id } = await api.call('makeAudience', { params, body })
  const edition = await api.call('prepareEdition', { params: { audienceId: id } })
  const { state } = await untilEnded(api, listId, edition.jobId ?? '', 3600)
  if (state !== 'done') throw new Error(`preparing the edition ended ${state}`)
  const { rows } = await db.query<{ id: string }>(
    `insert into deliveries (audience_id, edition_id, way, state, ended_at) values ($1, $2, 'whole', 'done', now()) returning id`,
    [id, edition.id],
  )
  const { rowCount } = await db.query(
    `insert into audience_members (audience_id, key, contact_id, cells, delivery_id)
     select $1, key, contact_id, cells, $2 from edition_lines where edition_id = $3`,
    [id, rows[0]?.id, edition.id],
  )
  await db.query(`update audiences set people = $2, state = 'usable', seen_version = -1 where id = $1`, [id, rowCount])
  return id
}
