import type { CheckSettings, ContactStory, StoryFact } from '@upper-field/contract'
import { type CallState, describeLine, isDead, localTime, rankLines } from '@upper-field/core/check'
import { type LineType, type NumberLabel, numberFacts, timeZonesOf } from '@upper-field/core/phone'
import { isClosed, joinScopes, lineToCall, lineToText, type Scope } from '@upper-field/core/split'
import { type StoryEntry, tellStory } from '@upper-field/core/story'
import { cellsOfRow, type Field } from '@upper-field/core/table'
import { EDIT, fieldOf } from '@upper-field/core/tidy'
import { eq, sql } from 'drizzle-orm'
import { callStateOf } from '../check/callPlaces'
import { readCheckSettings } from '../check/settings'
import type { Db } from '../db/database'
import { batches, rows } from '../db/schema'
import { notFound } from '../http/problem'
import { factsOfNumbers } from '../projection/facts'
import { type BatchRow, layoutOf, projectStored, settingsOf } from '../projection/rowCells'
import { settledOf, tidyingOf } from '../projection/tidying'
import { suppressionsOf } from '../suppression/matches'
import { asLine, type ContactRecord } from './page'
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
  const [batch] = await db.select().from(batches).where(eq(batches.id, record.batch_id))
  if (!batch) throw notFound('contact')
  const text = await rowText(db, record.batch_id, record.row)
  const numbers = await numbersOf(db, contactId, record.list_id, now)
  const e164s = numbers.map(({ e164 }) => e164)
  const emails = await emailsOf(db, contactId)
  const contact = asLine(record)
  const known = tellStory<StoryFact>(
    readEntries(batch, record, await tidyAgain(db, record, text, batch)),
    await actEntries(db, contactId),
    await joinEntries(db, contactId),
    await chosenEntries(db, contactId),
    await checkEntries(db, e164s, record.list_id),
    await registerEntries(db, e164s, record.list_id),
    await verifiedEntries(
      db,
      emails.map(({ address }) => address),
      record.list_id,
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
    domain: String(record.domain ?? ''),
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

async function findContact(db: Db, contactId: number): Promise<ContactRecord> {
  const found = await db.execute<ContactRecord>(sql`
    select c.* from contacts c where c.id = ${contactId} and ${isShown('c')}`)
  const record = found.rows[0]
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
  const names = [
    'full_name',
    'company',
    'title',
    'city',
    'region',
    'postal_code',
    'street',
    'country',
    'domain',
    'profile',
    'birth_date',
  ]
  return Object.fromEntries(
    names.map((name) => [name.replace('_', '-'), String(record[name] ?? '')]).filter(([, value]) => value !== ''),
  )
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
  const id = Number(record.id)
  const settings = settingsOf(batch, await tidyingOf(db, batch.listId))
  return projectStored(text, settings, (await settledOf(db, [id])).get(id))
}

type NumberOfContact = ContactStory['numbers'][number] & { readonly holders: number }

async function numbersOf(db: Db, contactId: number, listId: string, now: number): Promise<NumberOfContact[]> {
  const found = await db.execute<{
    e164: string
    extension: string | null
    label: string | null
    country: string | null
    line_type: string
    is_valid: boolean
    origin: string
    holders: string
  }>(sql`
    select n.*, (select count(distinct coalesce(c.joined_into, c.id)) from contact_numbers o join contacts c on c.id = o.contact_id
                 where o.e164 = n.e164 and o.list_id = ${listId} and ${isShown('c')}) as holders
    from contact_numbers n where n.contact_id = ${contactId} order by n.position`)
  const settings = await readCheckSettings(db)
  const facts = await factsOfNumbers(
    db,
    found.rows.map(({ e164 }) => e164),
  )
  return found.rows.map((row) => {
    const line = describeLine(
      { e164: row.e164, valid: row.is_valid, lineType: row.line_type as LineType },
      facts.get(row.e164),
    )
    return {
      e164: row.e164,
      extension: row.extension,
      label: row.label as NumberLabel | null,
      valid: row.is_valid,
      lineType: line.lineType,
      status: line.status,
      knownFrom: line.knownFrom,
      origin: row.origin as 'row' | 'join' | 'fill',
      isShared: Number(row.holders) > 1,
      holders: Number(row.holders),
      ...factsFor(row.e164, line.lineType),
      ...(row.is_valid ? callFactsOf(row.e164, row.country ?? '', settings, now) : { call: null, clock: null }),
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
  const { rows: found } = await db.execute<Record<string, string | null>>(sql`
    select e.address, e.kind, f.deliverability, f.checked_at::text from contact_emails e
    left join addresses f on f.address = e.address where e.contact_id = ${contactId} order by e.position`)
  return found.map(({ address, kind, deliverability, checked_at }) => ({
    address: address ?? '',
    kind: kind as ContactStory['emails'][number]['kind'],
    state: (deliverability ?? 'not-checked') as ContactStory['emails'][number]['state'],
    checkedAt: checked_at ? new Date(checked_at).toISOString() : null,
  }))
}
