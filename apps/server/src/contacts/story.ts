import type { CheckSettings, ContactStory, StoryFact } from '@upper-field/contract'
import { type CallState, describeLine, isDead, localTime, rankLines } from '@upper-field/core/check'
import { type LineType, type NumberLabel, numberFacts, timeZonesOf } from '@upper-field/core/phone'
import { isClosed, joinScopes, lineToCall, lineToText, type Scope } from '@upper-field/core/split'
import { type StoryEntry, tellStory } from '@upper-field/core/story'
import { cellsOfRow, type Field } from '@upper-field/core/table'
import { EDIT, fieldOf } from '@upper-field/core/tidy'
import { and, eq, sql } from 'drizzle-orm'
import { callStateOf } from '../check/callPlaces'
import { readCheckSettings } from '../check/settings'
import type { Db } from '../db/database'
import { bool, num, orNull, readRows, text, word } from '../db/readRows'
import { addresses, batches, contactEmails, contacts, rows } from '../db/schema'
import { notFound } from '../http/problem'
import { factsOfNumbers } from '../projection/facts'
import { type BatchRow, layoutOf, projectStored, settingsOf } from '../projection/rowCells'
import type { NumberOrigin } from '../projection/standingOf'
import { settledOf, tidyingOf } from '../projection/tidying'
import { suppressionsOf } from '../suppression/matches'
import { contactLines } from './page'
import { isShown } from './shown'
import {
  actEntries,
  attemptEntries,
  callEntries,
  checkEntries,
  chosenEntries,
  companyEntries,
  fillEntries,
  forgottenEntries,
  joinEntries,
  registerEntries,
  sentEntries,
  verifiedEntries,
} from './storyEntries'

type Entry = StoryEntry<StoryFact>

/** Everything known about one contact, derived from what is stored: the row, and each thing that happened to it. */
export async function storyOf(db: Db, contactId: number, now: number): Promise<ContactStory> {
  const record = await findContact(db, contactId)
  const [batch] = await db.select().from(batches).where(eq(batches.id, record.batchId))
  if (!batch) throw notFound('contact')
  const text = await rowText(db, record.batchId, record.row)
  const numbers = await numbersOf(db, contactId, record.listId, now)
  const e164s = numbers.map(({ e164 }) => e164)
  const emails = await emailsOf(db, contactId)
  const [contact] = await contactLines(db, [contactId])
  if (!contact) throw notFound('contact')
  const known = tellStory<StoryFact>(
    readEntries(batch, record, await tidyAgain(db, record, text, batch)),
    await actEntries(db, contactId),
    await joinEntries(db, contactId),
    await chosenEntries(db, contactId),
    await checkEntries(db, e164s, record.listId),
    await registerEntries(db, e164s, record.listId),
    await verifiedEntries(
      db,
      emails.map(({ address }) => address),
      record.listId,
    ),
    await attemptEntries(db, contactId),
    await fillEntries(db, contactId),
    await companyEntries(db, contactId),
    await callEntries(db, contactId),
    await forgottenEntries(db, contactId),
  )
  const suppressedBy = await suppressionsOf(db, {
    e164s,
    addresses: emails.map(({ address }) => address),
    domain: record.domain,
  })
  const suppressedFor = joinScopes(suppressedBy.map(({ scope }) => scope))
  const at = known.at(-1)?.at ?? batch.createdAt.toISOString()
  const shared = numbers
    .filter(({ isShared }) => isShared)
    .map(({ e164, holders }): Entry => ({ at, what: { kind: 'shared-line', e164, holders } }))
  const placed: Entry = { at, what: { kind: 'placed', lane: contact.lane, reason: contact.laneReason } }
  return {
    contact,
    row: rowAsItStood(text, batch),
    rowIsHere: true,
    values: valuesOf(record),
    numbers: numbers.map(({ holders: _, ...number }) => withoutCalls(number, suppressedFor)),
    bestTo: bestOf(numbers, suppressedFor),
    emails,
    suppressedBy,
    story: [...tellStory(known, shared, [placed], await sentEntries(db, contactId))],
  }
}

type ContactRecord = typeof contacts.$inferSelect

async function findContact(db: Db, contactId: number): Promise<ContactRecord> {
  const [record] = await db
    .select()
    .from(contacts)
    .where(and(eq(contacts.id, contactId), isShown()))
  if (!record) throw notFound('contact')
  return record
}

async function rowText(db: Db, batchId: string, row: number): Promise<string> {
  const [found] = await db
    .select({ text: rows.text })
    .from(rows)
    .where(sql`${rows.batchId} = ${batchId} and ${rows.row} = ${row}`)
  return found?.text ?? ''
}

function rowAsItStood(text: string, batch: BatchRow): ContactStory['row'] {
  const cells = cellsOfRow(text, layoutOf(batch)).cells
  return batch.headings.map((heading, i) => ({
    heading,
    cell: cells[i] ?? '',
    field: (batch.mapping[i] ?? null) as Field | null,
  }))
}

function valuesOf(record: ContactRecord): Record<string, string> {
  const values = {
    'full-name': record.fullName,
    company: record.company,
    title: record.title,
    city: record.city,
    region: record.region,
    'postal-code': record.postalCode,
    street: record.street,
    country: record.country,
    domain: record.domain,
    profile: record.profile,
    'birth-date': record.birthDate,
  }
  return Object.fromEntries(Object.entries(values).filter(([, value]) => value !== ''))
}

/** The row through each step of the routine: what every value was, what it is, and what the phone cells were read as. */
function readEntries(batch: BatchRow, record: ContactRecord, tidied: TidiedRow): Entry[] {
  const at = batch.createdAt.toISOString()
  const { readings, changes } = tidied
  const cells = readings.map(
    ({ column, raw, reading }): Entry => ({
      at,
      what: {
        kind: 'read',
        // A person may have given a number where the file has no column for one.
        column: batch.headings[column] || 'Number',
        raw,
        reading: { ...reading, numbers: [...reading.numbers], repairs: [...reading.repairs] },
      },
    }),
  )
  const made = changes
    .filter(({ step, column }) => step !== EDIT && fieldOf(column) !== 'number')
    .map(({ step, code, column, was, is }): Entry => ({ at, what: { kind: 'tidied', step, code, column, was, is } }))
  return [
    { at, what: { kind: 'brought-in', row: record.row, batch: batch.name } },
    ...made,
    ...cells.filter(isWorthTelling),
  ]
}

const isWorthTelling = ({ what }: Entry): boolean => what.kind === 'read' && what.reading.verdict !== 'empty'

type TidiedRow = ReturnType<typeof projectStored>

async function tidyAgain(db: Db, record: ContactRecord, text: string, batch: BatchRow): Promise<TidiedRow> {
  const settings = settingsOf(batch, await tidyingOf(db, batch.listId))
  return projectStored(text, settings, (await settledOf(db, [record.id])).get(record.id))
}

const NUMBER = {
  e164: text,
  extension: orNull(text),
  label: orNull(word<NumberLabel>),
  country: orNull(text),
  lineType: word<LineType>,
  valid: bool,
  origin: word<NumberOrigin>,
  holders: num,
}

type NumberOfContact = ContactStory['numbers'][number] & { readonly holders: number }

async function numbersOf(db: Db, contactId: number, listId: string, now: number): Promise<NumberOfContact[]> {
  const found = await readRows(db, NUMBER)`
    select n.*, n.is_valid as valid, (select count(distinct coalesce(c.joined_into, c.id)) from contact_numbers o join contacts c on c.id = o.contact_id
                 where o.e164 = n.e164 and o.list_id = ${listId} and ${isShown('c')}) as holders
    from contact_numbers n where n.contact_id = ${contactId} order by n.position`
  const settings = await readCheckSettings(db)
  const facts = await factsOfNumbers(
    db,
    found.map(({ e164 }) => e164),
  )
  return found.map(({ country, ...number }) => {
    const { e164, valid, holders } = number
    const { lineType, status, knownFrom } = describeLine(number, facts.get(e164))
    return {
      ...number,
      lineType,
      status,
      knownFrom,
      isShared: holders > 1,
      ...factsFor(e164, lineType),
      ...(valid ? callFactsOf(e164, country ?? '', settings, now) : { call: null, clock: null }),
    }
  })
}

function factsFor(e164: string, lineType: LineType) {
  const { region, timeZones, textable } = numberFacts(e164, lineType)
  return { region, timeZones: [...timeZones], textable }
}

/** Whether a number may be called at this moment, and what the clocks there show. */
function callFactsOf(e164: string, country: string, settings: CheckSettings, now: number) {
  const zones = timeZonesOf(e164)
  const [zone] = zones
  const clock = zone === undefined || zones.length > 1 ? null : clockText(localTime(zone, now).minutes)
  return { call: callStateOf(`${country} ${zones.join('|')}`, settings, now), clock }
}

const clockText = (minutes: number): string =>
  `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`

/** Nobody is called whom a suppression list keeps out of calls, whatever the hour. */
const withoutCalls = <N extends { readonly call: CallState | null }>(
  number: N,
  suppressedFor: readonly Scope[],
): N | (Omit<N, 'call'> & { readonly call: 'suppressed' }) =>
  number.call !== null && isClosed(suppressedFor, 'calls') ? { ...number, call: 'suppressed' as const } : number

/** The best numbers of a contact, to text and to call; none for what it is suppressed for. */
function bestOf(numbers: readonly NumberOfContact[], suppressedFor: readonly Scope[]): ContactStory['bestTo'] {
  const lines = rankLines(numbers).map((line) => ({
    ...line,
    isShared: isSharedIn(numbers, line.e164),
    isDead: isDead(line),
  }))
  return {
    text: isClosed(suppressedFor, 'texts') ? null : (lineToText(lines)?.e164 ?? null),
    call: isClosed(suppressedFor, 'calls') ? null : (lineToCall(lines)?.e164 ?? null),
  }
}

const isSharedIn = (numbers: readonly NumberOfContact[], e164: string): boolean =>
  numbers.some((number) => number.e164 === e164 && number.isShared)

async function emailsOf(db: Db, contactId: number): Promise<ContactStory['emails']> {
  const { address, kind, position } = contactEmails
  const found = await db
    .select({ address, kind, deliverability: addresses.deliverability, checkedAt: addresses.checkedAt })
    .from(contactEmails)
    .leftJoin(addresses, eq(addresses.address, address))
    .where(eq(contactEmails.contactId, contactId))
    .orderBy(position)
  return found.map(({ deliverability, checkedAt, ...email }) => ({
    ...email,
    state: deliverability ?? 'not-checked',
    checkedAt: checkedAt?.toISOString() ?? null,
  }))
}
