import { eq, sql } from 'drizzle-orm'
import type { PoolClient } from 'pg'
import type { Db } from '../db/database'
import { bool, num, type RowOf, readIds, readRows } from '../db/readRows'
import { batches } from '../db/schema'
import { inOneGo } from '../jobs/giveUp'
import { JobProblem } from '../jobs/jobProblem'
import type { JobHandler, StepOutcome } from '../jobs/runner'
import { type OnShare, partOf } from '../jobs/share'
import { carrySent } from '../pair/carrySent'
import { joinAgain } from '../pair/joinAgain'
import { joinExactDuplicates } from '../pair/joinExactDuplicates'
import { pointToSurvivors } from '../pair/pointToSurvivors'
import { rootsOf } from '../pair/standsFor'
import { countContacts } from '../projection/cube'
import { reproject } from '../projection/reproject'
import type { BatchRow } from '../projection/rowCells'

/**
 * Takes a batch back whole, or brings it back: all of it in one transaction, so that a list never shows half.
 * Contacts, fills and joins of the batch stay where they are and are not shown; joins with other batches rest.
 */
export const takeBackJob: JobHandler = {
  async step(services, job): Promise<StepOutcome> {
    const { batchId, isBack } = job.payload as { batchId: string; isBack: boolean }
    return inOneGo(services, job, {
      phase: isBack ? 'joining' : 'parting',
      work: async (tx, client, onPage) => {
        const [batch] = await tx.select().from(batches).where(eq(batches.id, batchId))
        if (!batch) throw new JobProblem('batch-gone')
        const onShare: OnShare = (share) => onPage(null, undefined, share)
        await (isBack ? bringBack : takeBack)(tx, client, batch, onShare)
        await reproject(tx, client, { contacts: await sharers(tx, batch), because: 'place' })
        await onPage(null, 'counting')
        await countContacts(tx, batch.listId)
        return { total: batch.rows, result: { rows: batch.rows } }
      },
    })
  },
}

/** Contacts of this batch and of others are no longer joined with each other: each is as it would be alone. */
async function takeBack(tx: Db, client: PoolClient, batch: BatchRow, onShare: OnShare): Promise<void> {
  const rested = await readRows(tx, JOINED)`
    update joins j set suspended_by = ${batch.id}
    from contacts s, contacts m
    where s.id = j.survivor_id and m.id = j.member_id and j.list_id = ${batch.listId}
      and j.undone_at is null and j.suspended_by is null
      and (s.batch_id = ${batch.id}) <> (m.batch_id = ${batch.id})
    returning j.survivor_id, j.member_id`
  const joined = rested.flatMap(bothOf)
  const touched = [...joined, ...(await rootsOf(tx, joined))]
  await tx.update(batches).set({ state: 'taken-back' }).where(eq(batches.id, batch.id))
  await pointAnew(tx, joined)
  const { mine, others } = await byBatch(tx, batch, touched)
  await reproject(tx, client, { contacts: mine, because: 'changed' }, { onShare: partOf(onShare, 0, 2) })
  await carrySent(tx, mine)
  // Rows of other batches were one person by what one of this batch holds, or may be one person all the same.
  await joinAgain(tx, client, batch.listId, others, { onShare: partOf(onShare, 1, 2) })
}

const JOINED = { survivorId: num, memberId: num }
const bothOf = ({ survivorId, memberId }: RowOf<typeof JOINED>): readonly number[] => [survivorId, memberId]

/** Which of these contacts are of a batch, and which are of others. */
async function byBatch(
  tx: Db,
  batch: BatchRow,
  ids: readonly number[],
): Promise<{ readonly mine: readonly number[]; readonly others: readonly number[] }> {
  const found = await readRows(tx, { id: num, isMine: bool })`
    select id, batch_id = ${batch.id} as is_mine from contacts where id = any(${sql.param(ids)}::bigint[])`
  const those = (areMine: boolean) => found.flatMap(({ id, isMine }) => (isMine === areMine ? [id] : []))
  return { mine: those(true), others: those(false) }
}

/** Joins that rested are back, and whoever they were about is decided anew. */
async function bringBack(tx: Db, client: PoolClient, batch: BatchRow, onShare: OnShare): Promise<void> {
  await tx.update(batches).set({ state: 'ready' }).where(eq(batches.id, batch.id))
  const resting = await readRows(tx, JOINED)`
    select survivor_id, member_id from joins where suspended_by = ${batch.id} and undone_at is null`
  // A member that was joined to another meanwhile, or whose partner is taken back too, stays as it is.
  await tx.execute(sql`
    update joins j set suspended_by = null
    from contacts s, contacts m
    where s.id = j.survivor_id and m.id = j.member_id and j.suspended_by = ${batch.id} and j.undone_at is null
      and not exists (select 1 from joins o where o.member_id = j.member_id and o.undone_at is null and o.suspended_by is null)
      and not exists (select 1 from batches b where b.id in (s.batch_id, m.batch_id) and b.state <> 'ready')`)
  const ids = resting.flatMap(bothOf)
  await pointAnew(tx, ids)
  await joinAgain(tx, client, batch.listId, ids, { onShare: partOf(onShare, 0, 2) })
  // Whoever came meanwhile may be one person with the others of the batch, or share a line.
  const added = { listId: batch.listId, added: { batchId: batch.id } }
  await joinExactDuplicates(tx, client, added, { onShare: partOf(onShare, 1, 2) })
}

/** Lets these contacts stand for themselves, and then points them to whom they are joined now. */
async function pointAnew(tx: Db, ids: readonly number[]): Promise<void> {
  const all = await readIds(tx)`
    select id from contacts where id = any(${sql.param(ids)}::bigint[]) or joined_into = any(${sql.param(ids)}::bigint[])`
  await tx.execute(sql`
    update contacts c set joined_into = null where c.id = any(${sql.param(all)}::bigint[]) and not exists (
      select 1 from joins j where j.member_id = c.id and j.undone_at is null and j.suspended_by is null)`)
  const standing = await readIds(tx)`
    select c.id from contacts c where c.joined_into is null and (c.id = any(${sql.param(all)}::bigint[]) or c.id in (
      select j.survivor_id from joins j where j.member_id = any(${sql.param(all)}::bigint[]) and j.undone_at is null and j.suspended_by is null))`
  await pointToSurvivors(tx, standing)
}

/** Standing contacts of other batches that hold a number of this one: whether it is shared may have changed. */
async function sharers(tx: Db, batch: BatchRow): Promise<number[]> {
  return readIds(tx)`
    select distinct o.contact_id as id from contact_numbers n
    join contacts mine on mine.id = n.contact_id and mine.batch_id = ${batch.id}
    join contact_numbers o on o.e164 = n.e164 and o.list_id = n.list_id and o.contact_id <> n.contact_id
    join contacts c on c.id = o.contact_id and c.joined_into is null`
}
