import { eq, type SQL, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { readCount } from '../db/readRows'
import { audiences } from '../db/schema'
import { UNSEEN } from './audienceCounts'
import type { LineOut } from './difference'

/** Whose lines, and the delivery they come and go by. */
interface Delivered {
  readonly id: string
  readonly audienceId: string
}

/**
 * Our books of what a network holds: lines that it took with a delivery. How many they are is kept with the audience, and
 * goes with them: to count a million takes a fifth of a second.
 */
export async function holdMembers(tx: Db, { id, audienceId }: Delivered, lines: readonly LineOut[]): Promise<void> {
  const taken = JSON.stringify(lines.map(({ key, contactId, cells }) => ({ key, contact: contactId, cells })))
  const added = await readCount(tx)`
    with held as (
      insert into audience_members (audience_id, key, contact_id, cells, delivery_id)
      select ${audienceId}, decode(l.key, 'hex'), l.contact, l.cells, ${id}
      from jsonb_to_recordset(${taken}::jsonb) as l (key text, contact bigint, cells text[])
      on conflict (audience_id, key) do update set since = now(), contact_id = excluded.contact_id, delivery_id = excluded.delivery_id
      returning xmax = 0 as is_new)
    select count(*) filter (where is_new) as n from held`
  await countIn(tx, audienceId, added)
}

/** Lines that it took out. */
export async function dropMembers(tx: Db, audienceId: string, lines: readonly LineOut[]): Promise<void> {
  const keys = sql.param(lines.map(({ key }) => key))
  await drop(tx, audienceId, sql`key in (select decode(k, 'hex') from unnest(${keys}::text[]) as k)`)
}

/** Whoever was not part of a whole is no longer there. @returns how many lines those were */
export const dropOthers = (tx: Db, { id, audienceId }: Delivered): Promise<number> =>
  drop(tx, audienceId, sql`delivery_id <> ${id}`)

/** Nobody is in it any more. */
export async function dropEverybody(tx: Db, audienceId: string): Promise<void> {
  await drop(tx, audienceId, sql`true`)
}

/** A network no longer knows an audience: by our books nobody is in it, so that the next delivery sends everybody. */
export async function emptyBooks(tx: Db, audienceId: string, code: string): Promise<void> {
  await dropEverybody(tx, audienceId)
  await tx
    .update(audiences)
    .set({
      remoteId: null,
      state: 'refused',
      reason: code,
      matched: null,
      lapsesAt: null,
      lookAt: null,
      seenVersion: UNSEEN,
    })
    .where(eq(audiences.id, audienceId))
}

async function drop(tx: Db, audienceId: string, which: SQL): Promise<number> {
  const { rowCount } = await tx.execute(
    sql`delete from audience_members where audience_id = ${audienceId} and ${which}`,
  )
  await countIn(tx, audienceId, -(rowCount ?? 0))
  return rowCount ?? 0
}

async function countIn(tx: Db, audienceId: string, more: number): Promise<void> {
  if (more === 0) return
  await tx
    .update(audiences)
    .set({ people: sql`${audiences.people} + ${more}` })
    .where(eq(audiences.id, audienceId))
}
