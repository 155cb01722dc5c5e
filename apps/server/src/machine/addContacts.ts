import type { AddedContact, AddedContacts } from '@upper-field/contract'
import { FIELDS, type Field, isRepeatable, type Mapping } from '@upper-field/core/table'
import { and, eq, inArray, sql } from 'drizzle-orm'
import type { z } from 'zod'
import { beginAutomations } from '../automations/begin'
import { growBatch, makeOwnBatch } from '../bring/ownBatch'
import { scopesIn } from '../contacts/page'
import { type Db, transaction } from '../db/database'
import { isThereAlready } from '../db/errors'
import { insertRows } from '../db/insertRows'
import { bool, num, orNull, readRows, text, word } from '../db/readRows'
import { batches, machineBatches, machineContacts } from '../db/schema'
import { fillNewBatch } from '../fill/standingFill'
import { notFound, Problem } from '../http/problem'
import type { BatchRow } from '../projection/rowCells'
import type { Services } from '../services'
import { sha256Hex } from '../sha256'
import { tellWebhooks } from '../webhooks/tell'

type Sent = z.output<typeof AddedContacts>
type SentContact = Sent['contacts'][number]

/** Who adds: a key, or a person in its place. */
export interface Adder {
  readonly id: string
  readonly name: string
}

/** So many values of a repeatable field stand side by side. */
const REPEATS = 3
const EXTRA = 'Sent with it'
/** Columns of a batch that grows: every field, numbers and addresses several times, and what else was sent. */
const COLUMNS: readonly { readonly heading: string; readonly field: Mapping[number] }[] = [
  { heading: 'Id', field: null },
  ...FIELDS.flatMap((field) =>
    Array.from({ length: isRepeatable(field) ? REPEATS : 1 }, (_, at) => ({
      heading: at === 0 ? field : `${field} ${at + 1}`,
      field,
    })),
  ),
  { heading: EXTRA, field: null },
]

/**
 * Adds people to the batch of the day. Each is there once by the caller's own id, whoever sends it again: by the list's
 * routine, joined with whom it equals, suppressed where a list says so. Throws a problem where an id comes again with
 * other values.
 */
export async function addContacts(
  services: Services,
  listId: string,
  { contacts, country }: Sent,
  adder: Adder,
): Promise<{ readonly batchId: string; readonly contacts: AddedContact[] }> {
  const { db } = services
  const ids = contacts.map(({ id }) => id)
  if (new Set(ids).size < ids.length)
    throw new Problem(422, 'id-twice', 'Two contacts of this call have the same id. Nothing was added.')
  const batch = await batchOfDay(services, listId, adder, country)
  const added = await addFresh(services, batch, contacts, adder)
  const told = await becameOf(db, listId, adder.id, ids)
  if (added.size > 0)
    await tell(
      services,
      batch,
      told.filter(({ id }) => added.has(id)),
    )
  return { batchId: batch.id, contacts: told.map((one) => ({ ...one, isKnown: !added.has(one.id) })) }
}

/** Adds those that are not there yet. @returns their ids; the others were known, or another call has added them meanwhile */
async function addFresh(
  services: Services,
  batch: BatchRow,
  contacts: readonly SentContact[],
  adder: Adder,
): Promise<ReadonlySet<string>> {
  const { listId } = batch
  for (;;) {
    const ids = contacts.map(({ id }) => id)
    const known = await knownIds(services.db, listId, adder.id, ids)
    refuseOthers(contacts, known)
    const fresh = contacts.filter(({ id }) => !known.has(id))
    try {
      await growBatch(services, batch, fresh.map(cellsOf), async (tx, made, start) => {
        const rows = made.map((contactId, at) => {
          const sent = fresh[start + at] as SentContact
          return { listId, keyId: adder.id, theirId: sent.id, contactId, sent: digestOf(sent) }
        })
        await insertRows(tx, machineContacts, rows)
      })
      return new Set(fresh.map(({ id }) => id))
    } catch (error) {
      // Another call has just added one of them: that one is known now, and the others are still to be added.
      if (!isThereAlready(error, 'machine_contacts')) throw error
    }
  }
}

async function batchOfDay(
  { db, pool, now }: Services,
  listId: string,
  adder: Adder,
  country: string | null,
): Promise<BatchRow> {
  const day = new Date(now()).toISOString().slice(0, 10)
  const ofDay = and(
    eq(machineBatches.listId, listId),
    eq(machineBatches.keyId, adder.id),
    eq(machineBatches.day, country === null ? day : `${day} ${country}`),
  )
  const find = async (from: Db) =>
    (
      await from
        .select({ batch: batches })
        .from(machineBatches)
        .innerJoin(batches, eq(batches.id, machineBatches.batchId))
        // One that was taken back is not shown: another is begun for whoever comes after.
        .where(and(ofDay, eq(batches.state, 'ready')))
    )[0]?.batch
  const found = await find(db)
  if (found) return found
  return transaction(pool, async (tx) => {
    await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${`${listId} ${adder.id}`}, 0))`)
    const other = await find(tx)
    if (other) return other
    const made = await makeOwnBatch(tx, {
      listId,
      name: `${adder.name}, ${day}`,
      columns: COLUMNS,
      sourceKind: 'asked-us',
      gatheredOn: day,
      lawfulBasis: 'not-stated',
      note: 'Added by another program.',
    })
    if (country !== null) await tx.update(batches).set({ defaultCountry: country }).where(eq(batches.id, made.id))
    await tx
      .insert(machineBatches)
      .values({ listId, keyId: adder.id, day: country === null ? day : `${day} ${country}`, batchId: made.id })
      .onConflictDoUpdate({
        target: [machineBatches.listId, machineBatches.keyId, machineBatches.day],
        set: { batchId: made.id },
      })
    return { ...made, defaultCountry: country }
  })
}

function cellsOf({ id, fields, extra }: SentContact): readonly string[] {
  const valuesOf = (field: Field): readonly string[] => {
    const value = fields[field]
    return value === undefined ? [] : typeof value === 'string' ? [value] : value
  }
  const cells = FIELDS.flatMap((field) => {
    const values = valuesOf(field)
    if (!isRepeatable(field)) return [values.join(' ')]
    // What finds no column of its own stands in the last: nothing is lost.
    return Array.from({ length: REPEATS }, (_, at) =>
      at === REPEATS - 1 ? values.slice(at).join(' / ') : (values[at] ?? ''),
    )
  })
  const more = Object.entries(extra).map(([name, value]) => `${name}: ${value}`)
  return [id, ...cells, more.join('; ')]
}

const digestOf = ({ fields, extra }: SentContact): string =>
  sha256Hex(JSON.stringify([Object.entries(fields).sort(byName), Object.entries(extra).sort(byName)]))
const byName = ([a]: readonly [string, unknown], [b]: readonly [string, unknown]): number => (a < b ? -1 : 1)

async function knownIds(
  db: Db,
  listId: string,
  keyId: string,
  ids: readonly string[],
): Promise<ReadonlyMap<string, string>> {
  const rows = await db
    .select({ id: machineContacts.theirId, sent: machineContacts.sent })
    .from(machineContacts)
    .where(
      and(
        eq(machineContacts.listId, listId),
        eq(machineContacts.keyId, keyId),
        inArray(machineContacts.theirId, [...ids]),
      ),
    )
  return new Map(rows.map(({ id, sent }) => [id, sent]))
}

function refuseOthers(contacts: readonly SentContact[], known: ReadonlyMap<string, string>): void {
  const other = contacts.find((one) => known.has(one.id) && known.get(one.id) !== digestOf(one))
  if (other)
    throw new Problem(
      409,
      'id-taken',
      `The id “${other.id.slice(0, 80)}” was sent before with other values. Nothing was added.`,
    )
}

/** What became of contacts by the caller's own ids, in their order. Throws where one is not there. */
export async function becameOf(
  db: Db,
  listId: string,
  keyId: string | null,
  ids: readonly string[],
): Promise<Omit<AddedContact, 'isKnown'>[]> {
  const found = await readRows(db, BECAME)`
    select m.their_id, c.id as contact_id, coalesce(c.joined_into, c.id) as stands_as, c.joined_into is not null as is_joined, s.is_readable,
      s.lane, s.lane_reason, s.verdict, s.number, s.email, s.line_type, s.line_status, s.suppressed_for
    from machine_contacts m join contacts c on c.id = m.contact_id join contacts s on s.id = coalesce(c.joined_into, c.id)
    where m.list_id = ${listId} ${keyId === null ? sql`` : sql`and m.key_id = ${keyId}`} and m.their_id = any(${sql.param([...ids])}::text[])`
  const byId = new Map(found.map((one) => [one.theirId, one]))
  return ids.map((id) => {
    const one = byId.get(id)
    if (!one) throw notFound('contact')
    const { theirId: _, isReadable, isJoined, ...became } = one
    const suppressedFor = scopesIn(became.suppressedFor)
    return {
      id,
      ...became,
      became: !isReadable
        ? 'nothing-readable'
        : isJoined
          ? 'joined'
          : suppressedFor.length > 0
            ? 'suppressed'
            : 'contact',
      suppressedFor,
    }
  })
}

const BECAME = {
  theirId: text,
  contactId: num,
  standsAs: num,
  isJoined: bool,
  isReadable: bool,
  lane: text,
  verdict: word<AddedContact['verdict']>,
  number: orNull(text),
  email: orNull(text),
  lineType: word<AddedContact['lineType']>,
  lineStatus: word<AddedContact['lineStatus']>,
  suppressedFor: text,
}

/** Other programs are told, and the plan that stands for new batches is begun, where one does. */
async function tell(
  { pool }: Services,
  batch: BatchRow,
  fresh: readonly Omit<AddedContact, 'isKnown'>[],
): Promise<void> {
  await transaction(pool, async (tx) => {
    const about = fresh.map(({ id, contactId, standsAs, became, lane, suppressedFor }) => ({
      id,
      contactId,
      standsAs,
      became,
      lane,
      suppressedFor,
    }))
    await tellWebhooks(tx, batch.listId, 'contact.placed', about)
    await tellWebhooks(
      tx,
      batch.listId,
      'contact.suppressed',
      about.filter(({ became }) => became === 'suppressed'),
    )
    await beginAutomations(tx, batch.listId, 'contact-added', batch.id)
    await fillNewBatch(tx, batch)
  })
}
