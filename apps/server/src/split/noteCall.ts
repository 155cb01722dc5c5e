import type { NewCall } from '@upper-field/contract'
import { and, eq, isNull, type SQL, sql } from 'drizzle-orm'
import type { PoolClient } from 'pg'
import type { z } from 'zod'
import { holdersOf } from '../check/storeAnswers'
import { LINES } from '../check/subjects'
import { takeOver } from '../check/tellHolders'
import { type Db, transaction } from '../db/database'
import { orNull, readRow, readRows, text } from '../db/readRows'
import { calls, suppressionEntries, suppressionLists } from '../db/schema'
import { notFound, Problem } from '../http/problem'
import { withListLock } from '../lists/listLock'
import { findOpenList } from '../lists/routes'
import type { Services } from '../services'
import { sha256Hex } from '../sha256'
import { addKeys } from '../suppression/entries'
import { placeAnew } from '../suppression/placeAnew'

/** The list of whoever has asked in a call not to be called again. */
const ASKED_NOT_TO = 'Asked not to be called'
const IN_A_CALL = 'Asked in a call.'

interface Noted extends z.infer<typeof NewCall> {
  readonly listId: string
  readonly who: string
  readonly signal: AbortSignal
}

/**
 * Notes what came of a call. An outcome is a fact: a wrong number is out of service in every list, and whoever asked
 * not to be called is suppressed for calls at once.
 */
export async function noteCall(services: Services, noted: Noted): Promise<{ id: string }> {
  const { listId, contactId, e164, outcome, againAt, who, signal } = noted
  await mustHold(services.db, noted)
  const row = { listId, contactId, e164, outcome, againAt: againAt === null ? null : new Date(againAt), madeBy: who }
  const insert = async (tx: Db, before: Record<string, string | null> | null) => {
    const [made] = await tx
      .insert(calls)
      .values({ ...row, before })
      .returning({ id: calls.id })
    if (!made) throw new Error('insert returned nothing')
    return made
  }
  if (outcome === 'wrong-number')
    return withHolders(services, { listId, e164, signal }, async (tx, client, touched) => {
      const before = await markWrong(tx, e164)
      await refreshHolders(tx, client, e164, touched)
      return insert(tx, before)
    })
  return transaction(services.pool, async (tx, client) => {
    if (outcome === 'asked-not-to') await suppressForCalls(tx, client, e164, who)
    return insert(tx, null)
  })
}

/** Takes back what came of a call, and what it changed. */
export async function undoCall(services: Services, callId: string, signal: AbortSignal): Promise<void> {
  const [call] = await services.db
    .select()
    .from(calls)
    .where(and(eq(calls.id, callId), isNull(calls.undoneAt)))
  if (!call) throw notFound('call')
  await findOpenList(services.db, call.listId)
  const undo = (tx: Db) =>
    tx
      .update(calls)
      .set({ undoneAt: new Date(services.now()) })
      .where(eq(calls.id, callId))
  if (call.outcome === 'wrong-number') {
    await withHolders(services, { listId: call.listId, e164: call.e164, signal }, async (tx, client, touched) => {
      await takeWrongBack(tx, call)
      await refreshHolders(tx, client, call.e164, touched)
      await undo(tx)
    })
    return
  }
  await transaction(services.pool, async (tx, client) => {
    if (call.outcome === 'asked-not-to') await letGo(tx, client, call)
    await undo(tx)
  })
}

async function mustHold(db: Db, { listId, contactId, e164 }: Noted): Promise<void> {
  const { rows } = await db.execute(sql`
    select 1 from contact_numbers where list_id = ${listId} and contact_id = ${contactId} and e164 = ${e164} limit 1`)
  if (rows.length === 0)
    throw new Problem(409, 'other-number', 'This contact does not have this number any more. Nothing was noted.')
}

/** Work on every list that holds a number. */
async function withHolders<T>(
  services: Services,
  { listId, e164, signal }: { readonly listId: string; readonly e164: string; readonly signal: AbortSignal },
  work: (tx: Db, client: PoolClient, touched: readonly string[]) => Promise<T>,
): Promise<T> {
  const holders = await holdersOf(services.db, LINES, [e164])
  const touched = [...new Set([listId, ...holders.map((one) => one.listId)])].sort()
  return withListLock(services, touched, { work: 'split', signal }, (tx, client) => work(tx, client, touched))
}

async function refreshHolders(tx: Db, client: PoolClient, e164: string, touched: readonly string[]): Promise<void> {
  const holders = await holdersOf(tx, LINES, [e164])
  for (const listId of touched) {
    const ids = holders.flatMap((one) => (one.listId === listId ? one.id : []))
    await takeOver(tx, client, listId, ids)
  }
}

/** A person has called it: it does not reach whom it was for. @returns what was known before */
async function markWrong(tx: Db, e164: string): Promise<Record<string, string | null> | null> {
  const before = await readRow(tx, BEFORE)`
    select line_type, status, checked_at::text as checked_at, ages_as from numbers where e164 = ${e164}`
  await tx.execute(sql`
    insert into numbers (e164, status, checked_at, ages_as) values (${e164}, 'out-of-service', now(), 'out-of-service')
    on conflict (e164) do update set status = 'out-of-service', checked_at = now(), ages_as = 'out-of-service'`)
  return before ?? null
}

/** As it is kept with the call. */
const BEFORE = { line_type: orNull(text), status: orNull(text), checked_at: orNull(text), ages_as: text }

type CallRow = typeof calls.$inferSelect

/** Calls about the same number with the same outcome that still stand, but for this one. */
const othersLike = ({ id, e164, outcome }: CallRow): SQL =>
  sql`calls where id <> ${id} and e164 = ${e164} and outcome = ${outcome} and undone_at is null`

/**
 * Puts back what was known before a call that was a wrong number. A later call that found the same goes on saying so, and
 * what the register has told since stays.
 */
async function takeWrongBack(tx: Db, call: CallRow): Promise<void> {
  const { id, e164, before } = call
  const madeAt = sql`(select made_at from calls where id = ${id})`
  const later = await readRow(tx, { id: text })`
    select id from ${othersLike(call)} and made_at > ${madeAt} order by made_at limit 1`
  // What was known before this call is what was known before both.
  if (later) await tx.update(calls).set({ before }).where(eq(calls.id, later.id))
  else if (before === null) await tx.execute(sql`delete from numbers where e164 = ${e164} and checked_at = ${madeAt}`)
  else
    await tx.execute(sql`
      update numbers set status = ${before.status ?? null}, checked_at = ${before.checked_at ?? null}::timestamptz, ages_as = ${before.ages_as ?? 'mobile'}
      where e164 = ${e164} and checked_at = ${madeAt}`)
}

async function suppressForCalls(tx: Db, client: PoolClient, e164: string, who: string): Promise<void> {
  await tx
    .insert(suppressionLists)
    .values({ name: ASKED_NOT_TO, kind: 'opt-outs', scope: 'calls' })
    .onConflictDoNothing()
  const [list] = await tx.select().from(suppressionLists).where(eq(suppressionLists.name, ASKED_NOT_TO))
  if (!list) throw new Error('the suppression list is not there')
  const facts = { suppressionListId: list.id, reason: IN_A_CALL, asHashes: false, expiresAt: null, who }
  await addKeys(tx, client, facts, [{ kind: 'number', key: e164 }])
}

/** Lets a number go that was asked about in this call alone: what another call or a person has said stays. */
async function letGo(tx: Db, client: PoolClient, call: CallRow): Promise<void> {
  const { e164 } = call
  const entries = await readRows(tx, { id: text })`
    select e.id from suppression_entries e join suppression_lists l on l.id = e.suppression_list_id
    where l.name = ${ASKED_NOT_TO} and e.hash = ${sha256Hex(e164)} and e.batch_id is null and e.reason = ${IN_A_CALL}
      and not exists (select 1 from ${othersLike(call)})`
  for (const { id } of entries) await tx.delete(suppressionEntries).where(eq(suppressionEntries.id, id))
  await placeAnew(tx, client, [{ kind: 'number', hash: sha256Hex(e164), key: e164 }])
}
