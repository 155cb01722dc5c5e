import type { Db } from '../db/database'
import { createJob, type JobRow } from '../jobs/store'
import { findOpenList } from '../lists/routes'
import { readTerraces } from '../projection/cube'

interface AskedFor {
  readonly listId: string
  /** Thresholds, or a change of survivorship. */
  readonly payload: Record<string, unknown>
  readonly startedBy: string
}

/** Starts looking for who is one person in a list. */
export async function startPairing(tx: Db, { listId, payload, startedBy }: AskedFor): Promise<JobRow> {
  const list = await findOpenList(tx, listId)
  const { contacts } = (await readTerraces(tx, [list.id])).get(list.id) ?? { contacts: null }
  return createJob(tx, { kind: 'pair', listId: list.id, unit: 'contacts', total: contacts, payload, startedBy })
}
