import { cellsIn, fileHead, fileRow } from '@upper-field/core/send'
import { cellsOfRow } from '@upper-field/core/table'
import { eq } from 'drizzle-orm'
import { pageOfHeld } from '../bring/heldRows'
import type { Db } from '../db/database'
import { isOneOf } from '../db/isOneOf'
import { num, orNull, readRows, text } from '../db/readRows'
import { batches, contacts } from '../db/schema'
import { JobProblem } from '../jobs/jobProblem'
import { type BatchRow, layoutOf as rowLayoutOf } from '../projection/rowCells'
import { noPage, partOfLines, type ReadPage, type ReadyLine } from './filePage'
import { type EditionRow, layoutOf, personOf } from './fileText'
import { foundOf } from './found'
import { type SendableContact, sendableById } from './members'

const PAGE = 2000

interface StoredRow {
  readonly row: number
  readonly cells: readonly string[]
  readonly contactId: number | null
  /** The contact it was joined to, and that one's row where it is of the same file. */
  readonly survivorId: number | null
  readonly survivorRow: number | null
  readonly held: string | null
}

/**
 * The next rows of a batch as they came: each with its own cells in their own order, and beside them what the layout
 * wants to know of its contact. Rows that were held stand there too, with their reason as the verdict.
 */
export const readerAsItCame =
  (db: Db, edition: EditionRow, batchId: string): ReadPage =>
  async (at, onEnd) => {
    const [batch] = await db.select().from(batches).where(eq(batches.id, batchId))
    if (!batch) throw new JobProblem('batch-gone')
    const rows = await rowsAfter(db, batch, at.after)
    const last = rows.at(-1)
    if (!last) return noPage(at)
    const end = { after: last.row, isFirst: false }
    onEnd(end)
    const layout = { ...layoutOf(edition), hasExtras: false }
    const headings = [...batch.headings, ...layout.columns.map(({ heading }) => heading)]
    const people = await sendableById(
      db,
      rows.flatMap(({ survivorId }) => survivorId ?? []),
    )
    const own = await verdictsOf(db, rows)
    const found = await foundOf(db, [...people.values()])
    const lines = rows.map((row): ReadyLine => {
      const contact = row.survivorId === null ? undefined : people.get(row.survivorId)
      const beside = cellsIn(layout, personIn(row, contact, { own, found }))
      const text = fileRow(layout, headings, [...row.cells, ...beside])
      // Whoever several rows are is sent once: with the row of their own.
      return { contactId: contact && contact.id === row.contactId && mayCount(contact) ? contact.id : null, text }
    })
    return {
      heading: at.isFirst ? fileHead(layout, headings) : '',
      parts: [partOfLines(lines)],
      looked: rows.length,
      end,
    }
  }

/** Parked ones and those on a suppression list stand in the file, and are not sent by that. */
const mayCount = ({ lane, suppressedFor }: SendableContact): boolean => lane !== 'parked' && suppressedFor.length === 0

const NOBODY = {
  fullName: '',
  givenName: '',
  familyName: '',
  company: '',
  title: '',
  numbers: [],
  emails: [],
  street: '',
  postalCode: '',
  city: '',
  region: '',
  country: '',
  site: '',
  profile: '',
  birthDate: '',
  gender: '',
  industry: '',
  companyPage: '',
  value: '',
  deviceId: '',
  lane: '',
  notFor: [],
  lineType: '',
  lineStatus: '',
  asItStood: '',
  emailState: '',
  foundNumber: '',
  foundEmail: '',
  sameAsRow: '',
} as const

function personIn(
  { contactId, survivorId, survivorRow, held }: StoredRow,
  contact: SendableContact | undefined,
  known: { readonly own: ReadonlyMap<number, string>; readonly found: Awaited<ReturnType<typeof foundOf>> },
) {
  if (!contact || contactId === null) return { ...NOBODY, verdict: held === null ? '' : `held: ${held}` }
  const besides = known.found.get(contact.id)
  const isJoined = survivorId !== contactId
  return {
    ...personOf(contact, {
      foundNumber: besides?.foundNumber ?? '',
      foundEmail: besides?.foundEmail ?? '',
      sameAsRow: isJoined && survivorRow !== null ? String(survivorRow) : '',
    }),
    verdict: known.own.get(contactId) ?? '',
  }
}

const ROW = { row: num, text, contactId: orNull(num), survivorId: orNull(num), survivorRow: orNull(num) }

async function rowsAfter(db: Db, batch: BatchRow, after: number): Promise<readonly StoredRow[]> {
  const rows = await readRows(db, ROW)`
    select r.row, r.text, c.id as contact_id, coalesce(c.joined_into, c.id) as survivor_id, s.row as survivor_row
    from rows r left join contacts c on c.batch_id = r.batch_id and c.row = r.row
    left join contacts s on s.id = c.joined_into and s.batch_id = r.batch_id
    where r.batch_id = ${batch.id} and r.row > ${after} order by r.row limit ${PAGE}`
  const held = await pageOfHeld(db, batch, after, PAGE)
  const layout = rowLayoutOf(batch)
  const width = batch.headings.length
  const stored = [
    ...rows.map(({ text, ...row }) => ({ ...row, cells: toWidth(cellsOfRow(text, layout).cells, width), held: null })),
    ...held.map(({ row, cells, reason }) => ({
      row,
      cells: toWidth(cells, width),
      contactId: null,
      survivorId: null,
      survivorRow: null,
      held: reason,
    })),
  ]
  return stored.toSorted((a, b) => a.row - b.row).slice(0, PAGE)
}

/** Every row has as many cells as the file has columns, so that what stands beside them stands in its column. */
const toWidth = (cells: readonly string[], width: number): readonly string[] =>
  Array.from({ length: width }, (_, at) => cells[at] ?? '')

/** The verdict on each row's own cell, whoever its contact was joined to. */
async function verdictsOf(db: Db, rows: readonly StoredRow[]): Promise<ReadonlyMap<number, string>> {
  const ids = rows.flatMap(({ contactId }) => contactId ?? [])
  const { id, verdict } = contacts
  const told = await db.select({ id, verdict }).from(contacts).where(isOneOf(id, ids))
  return new Map(told.map((one) => [one.id, one.verdict]))
}
