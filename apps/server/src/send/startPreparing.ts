import { datedName, fileNameFor } from '@upper-field/core/send'
import type { Db } from '../db/database'
import { editions } from '../db/schema'
import { Problem } from '../http/problem'
import { createJob } from '../jobs/store'
import { countChosen } from './audienceRules'
import type { AudienceRow } from './difference'
import type { EditionRow } from './fileText'

/** Starts preparing the next edition of an audience. Throws a problem where there is nobody in it. */
export async function startPreparing(
  tx: Db,
  audience: AudienceRow,
  { startedBy, at }: { readonly startedBy: string; readonly at: Date },
): Promise<EditionRow> {
  if (audience.similarTo)
    throw new Problem(409, 'made-there', 'The network has made this audience out of another: nothing is sent to it.')
  const total = await countChosen(tx, audience)
  if (total === 0)
    throw new Problem(409, 'nobody-chosen', 'Nobody is chosen for this audience: parked contacts are left out.')
  const editionId = crypto.randomUUID()
  const job = await createJob(tx, {
    kind: 'prepare',
    listId: audience.listId,
    unit: 'contacts',
    total,
    payload: { editionId },
    startedBy,
  })
  const [made] = await tx
    .insert(editions)
    .values({
      id: editionId,
      listId: audience.listId,
      jobId: job.id,
      destination: audience.destination,
      takes: audience.takes,
      form: audience.form,
      filter: audience.filter,
      audienceId: audience.id,
      fileName: fileNameFor(datedName(audience.name, at), `${audience.destination} ${audience.form}`, at, 'csv'),
    })
    .returning()
  if (!made) throw new Error('insert returned nothing')
  return made
}
