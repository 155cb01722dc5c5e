import type { Act } from '@upper-field/contract'
import type { Field } from '@upper-field/core/table'
import type { ChangeCode, Routine } from '@upper-field/core/tidy'
import { and, eq, isNull, sql } from 'drizzle-orm'
import { chosenContacts } from '../contacts/page'
import { readFilter } from '../contacts/readFilter'
import type { Db } from '../db/database'
import { isOneOf } from '../db/isOneOf'
import { readIds } from '../db/readRows'
import { acts, batches, contacts, edits, leftOut, lists } from '../db/schema'
import { notFound, Problem } from '../http/problem'
import { alikeFixes, type Slip } from './hand'

/** Something a person changes in how a list is tidied. */
export type TidyChange =
  | { readonly kind: 'routine'; readonly routine: Routine; readonly name: string | null }
  | {
      readonly kind: 'leave-out'
      readonly code: ChangeCode
      readonly batchId: string | null
      readonly contactId: number | null
    }
  | {
      readonly kind: 'edit'
      readonly edits: readonly { readonly contactId: number; readonly column: string; readonly value: string }[]
    }
  /** The nearest mending of every cell with one slip. */
  | { readonly kind: 'mend-alike'; readonly slip: Slip }
  | {
      readonly kind: 'bulk-edit'
      readonly filter: string
      /** Only these of them. */
      readonly contactIds?: readonly number[] | undefined
      readonly column: string
      readonly value: string
    }
  | {
      readonly kind: 'reading'
      readonly batchId: string
      readonly defaultCountry: string | null
      readonly mapping: (Field | null)[]
    }
  | { readonly kind: 'take-back'; readonly actId: string }

/** What a change leaves to be projected again: some contacts, or whatever comes out otherwise than before. */
export type Touched = readonly number[] | WhateverDiffers

/** Whatever comes out otherwise than before, of one batch or of the whole list. */
export interface WhateverDiffers {
  readonly ofBatch: string | null
}

export interface MadeAct {
  readonly actId: string
  readonly touched: Touched
}

/** Writes a change down as a fact that can be taken back. Contacts are projected afterwards, in the same transaction. */
export async function storeChange(tx: Db, listId: string, change: TidyChange, madeBy: string): Promise<MadeAct> {
  switch (change.kind) {
    case 'routine':
      return storeRoutine(tx, listId, change, madeBy)
    case 'leave-out':
      return storeLeftOut(tx, listId, change, madeBy)
    case 'edit':
      return storeEdits(tx, listId, change.edits, madeBy)
    case 'mend-alike':
      return storeAlike(tx, listId, change.slip, madeBy)
    case 'bulk-edit':
      return storeBulkEdit(tx, listId, change, madeBy)
    case 'reading':
      return storeReading(tx, listId, change, madeBy)
    case 'take-back':
      return takeBack(tx, listId, change.actId)
  }
}

type ActFacts = Pick<typeof acts.$inferInsert, 'kind' | 'contacts' | 'detail' | 'before'>

async function newAct(tx: Db, listId: string, madeBy: string, facts: ActFacts): Promise<string> {
  const [made] = await tx
    .insert(acts)
    .values({ listId, madeBy, ...facts })
    .returning({ id: acts.id })
  if (!made) throw new Error('insert returned nothing')
  return made.id
}

async function storeRoutine(
  tx: Db,
  listId: string,
  { routine, name }: Extract<TidyChange, { kind: 'routine' }>,
  madeBy: string,
): Promise<MadeAct> {
  const [list] = await tx
    .select({ routine: lists.routine, name: lists.routineName })
    .from(lists)
    .where(eq(lists.id, listId))
  const actId = await newAct(tx, listId, madeBy, {
    kind: 'routine',
    contacts: null,
    detail: name ?? `${routine.steps.filter(({ isOn }) => isOn).length} steps`,
    before: { routine: list?.routine ?? null, name: list?.name ?? null },
  })
  await tx.update(lists).set({ routine, routineName: name }).where(eq(lists.id, listId))
  return { actId, touched: { ofBatch: null } }
}

async function storeLeftOut(
  tx: Db,
  listId: string,
  { code, batchId, contactId }: Extract<TidyChange, { kind: 'leave-out' }>,
  madeBy: string,
): Promise<MadeAct> {
  if (contactId !== null) await mustBeIn(tx, listId, [contactId])
  const actId = await newAct(tx, listId, madeBy, {
    kind: 'leave-out',
    contacts: contactId === null ? null : 1,
    detail: code,
  })
  await tx.insert(leftOut).values({ actId, listId, code, batchId, contactId })
  return { actId, touched: contactId === null ? { ofBatch: batchId } : [contactId] }
}

async function storeEdits(
  tx: Db,
  listId: string,
  given: Extract<TidyChange, { kind: 'edit' }>['edits'],
  madeBy: string,
): Promise<MadeAct> {
  const ids = [...new Set(given.map(({ contactId }) => contactId))]
  await mustBeIn(tx, listId, ids)
  const detail = given.length === 1 ? `${given[0]?.column}: ${given[0]?.value}` : valuesText(given.length)
  const actId = await newAct(tx, listId, madeBy, { kind: 'edit', contacts: ids.length, detail })
  await tx
    .insert(edits)
    .values(given.map(({ contactId, column, value }) => ({ actId, contactId, column, value })))
    .onConflictDoNothing()
  return { actId, touched: ids }
}

const valuesText = (n: number): string => (n === 1 ? '1 value' : `${n.toLocaleString('en')} values`)

/** One act for all cells with one slip, however many there are. */
async function storeAlike(tx: Db, listId: string, slip: Slip, madeBy: string): Promise<MadeAct> {
  const actId = await newAct(tx, listId, madeBy, { kind: 'edit', contacts: 0, detail: '' })
  const touched: number[] = []
  for await (const fixes of alikeFixes(tx, listId, slip)) {
    if (fixes.length === 0) continue
    await tx
      .insert(edits)
      .values(fixes.map(({ contactId, column, value }) => ({ actId, contactId, column, value })))
      .onConflictDoNothing()
    touched.push(...fixes.map(({ contactId }) => contactId))
  }
  await tx
    .update(acts)
    .set({ contacts: touched.length, detail: valuesText(touched.length) })
    .where(eq(acts.id, actId))
  return { actId, touched }
}

async function storeBulkEdit(
  tx: Db,
  listId: string,
  { filter: text, contactIds, column, value }: Extract<TidyChange, { kind: 'bulk-edit' }>,
  madeBy: string,
): Promise<MadeAct> {
  const actId = await newAct(tx, listId, madeBy, { kind: 'bulk-edit', contacts: 0, detail: `${column}: ${value}` })
  const filter = readFilter(text)
  const isPicked = contactIds ? sql`and ${isOneOf(contacts.id, contactIds)}` : sql``
  const touched = await readIds(tx)`
    insert into edits (act_id, contact_id, column_name, value)
    select ${actId}, id, ${column}, ${value} from contacts where ${chosenContacts(listId, filter)} ${isPicked}
    returning contact_id as id`
  await tx.update(acts).set({ contacts: touched.length }).where(eq(acts.id, actId))
  return { actId, touched }
}

/** A batch is read under another country, or its columns hold something else than was thought. */
async function storeReading(
  tx: Db,
  listId: string,
  { batchId, defaultCountry, mapping }: Extract<TidyChange, { kind: 'reading' }>,
  madeBy: string,
): Promise<MadeAct> {
  const batch = await findReadyBatch(tx, listId, batchId)
  const actId = await newAct(tx, listId, madeBy, {
    kind: 'reading',
    contacts: null,
    detail: `${batch.name}: ${defaultCountry ?? 'no country'}`,
    before: { batchId, defaultCountry: batch.defaultCountry, mapping: batch.mapping },
  })
  await tx.update(batches).set({ defaultCountry, mapping }).where(eq(batches.id, batchId))
  return { actId, touched: { ofBatch: batchId } }
}

async function findReadyBatch(tx: Db, listId: string, batchId: string): Promise<typeof batches.$inferSelect> {
  const [batch] = await tx
    .select()
    .from(batches)
    .where(and(eq(batches.id, batchId), eq(batches.listId, listId)))
  if (!batch) throw notFound('batch')
  if (batch.state !== 'ready') throw new Problem(409, 'batch-not-ready', 'This batch has not been read to its end.')
  return batch
}

async function mustBeIn(tx: Db, listId: string, ids: readonly number[]): Promise<void> {
  const found = await tx.$count(contacts, and(eq(contacts.listId, listId), isOneOf(contacts.id, ids)))
  if (found !== ids.length) throw notFound('contact')
}

/** Takes an act back whole. */
async function takeBack(tx: Db, listId: string, actId: string): Promise<MadeAct> {
  const act = await findActToTakeBack(tx, actId)
  if (act.listId !== listId) throw notFound('change')
  const now = new Date()
  await tx.update(acts).set({ undoneAt: now }).where(eq(acts.id, actId))
  const given = await tx
    .update(edits)
    .set({ undoneAt: now })
    .where(eq(edits.actId, actId))
    .returning({ id: edits.contactId })
  const [skipped] = await tx
    .update(leftOut)
    .set({ undoneAt: now })
    .where(eq(leftOut.actId, actId))
    .returning({ id: leftOut.contactId, batchId: leftOut.batchId })
  if (act.kind === 'routine' || act.kind === 'reading') {
    return { actId, touched: await putBack(tx, listId, act.before) }
  }
  if (skipped) return { actId, touched: skipped.id === null ? { ofBatch: skipped.batchId } : [skipped.id] }
  return { actId, touched: [...new Set(given.map(({ id }) => id))] }
}

async function putBack(tx: Db, listId: string, before: (typeof acts.$inferSelect)['before']): Promise<WhateverDiffers> {
  if (before && 'batchId' in before) {
    const { batchId, defaultCountry, mapping } = before
    await tx.update(batches).set({ defaultCountry, mapping }).where(eq(batches.id, batchId))
    return { ofBatch: batchId }
  }
  await tx
    .update(lists)
    .set({ routine: before?.routine ?? null, routineName: before?.name ?? null })
    .where(eq(lists.id, listId))
  return { ofBatch: null }
}

/** An act that still stands. A routine, and how a batch is read, can be taken back only while no later one was applied over it. */
export async function findActToTakeBack(db: Db, actId: string): Promise<typeof acts.$inferSelect> {
  const act = await findAct(db, actId)
  if (act.undoneAt) throw new Problem(409, 'taken-back-already', 'This was taken back already.')
  if (act.kind !== 'routine' && act.kind !== 'reading') return act
  const isSameBatch =
    act.before && 'batchId' in act.before ? sql`${acts.before}->>'batchId' = ${act.before.batchId}` : sql`true`
  const later = and(
    eq(acts.listId, act.listId),
    eq(acts.kind, act.kind),
    isSameBatch,
    isNull(acts.undoneAt),
    // Compared in the database: a date here is cut to milliseconds.
    sql`${acts.madeAt} > (select made_at from acts where id = ${act.id})`,
  )
  if ((await db.select({ id: acts.id }).from(acts).where(later).limit(1)).length > 0)
    throw new Problem(409, `later-${act.kind}`, `A later ${act.kind} was applied over this one. Take that back first.`)
  return act
}

export async function findAct(db: Db, actId: string): Promise<typeof acts.$inferSelect> {
  const [found] = await db.select().from(acts).where(eq(acts.id, actId))
  if (!found) throw notFound('change')
  return found
}

export const asAct = (act: typeof acts.$inferSelect): Act => ({
  id: act.id,
  kind: act.kind as Act['kind'],
  contacts: act.contacts,
  detail: act.detail,
  madeBy: act.madeBy,
  madeAt: act.madeAt.toISOString(),
  undoneAt: act.undoneAt?.toISOString() ?? null,
})
