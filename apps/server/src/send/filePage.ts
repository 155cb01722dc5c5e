import { type AudienceShape, createMembersPreparer, headingsOf, shapeOf } from '@upper-field/core/send'
import { csvLine } from '@upper-field/core/table'
import { eq } from 'drizzle-orm'
import type { Db } from '../db/database'
import { destinations } from '../db/schema'
import { JobProblem } from '../jobs/jobProblem'
import { sha256Hex } from '../sha256'
import { readerAsItCame } from './asItCame'
import { extrasOf } from './extras'
import { type EditionRow, headFor, partOf } from './fileText'
import { foundOf } from './found'
import { inTurns, type Turn } from './inTurns'
import { FOR_PEOPLE, pageOfMembers, type SendablePage, sendablePage, wantedBy } from './members'

/** A line of a file; of a row that became no contact, and of one that may not be sent, without its contact. */
export interface ReadyLine {
  readonly contactId: number | null
  readonly text: string
}

/** Lines that stand in a file one behind the other, written out: thousands of texts that wait to be stored cost as much as making them. */
export interface FilePart {
  readonly lines: number
  readonly contactIds: readonly number[]
  readonly bytes: Buffer
}

export const partOfLines = (lines: readonly ReadyLine[]): FilePart => ({
  lines: lines.length,
  contactIds: lines.flatMap(({ contactId }) => contactId ?? []),
  bytes: Buffer.from(lines.map(({ text }) => text).join('')),
})

/** Where a page begins or ends: behind a contact, or behind a row of a batch. */
export interface PagePlace {
  readonly after: number
  readonly isFirst: boolean
  /** Known where nothing was there to be read. */
  readonly isEnd?: boolean
}

/** The next lines of a file. */
export interface FilePage {
  readonly heading: string
  /** Of a list of companies each line is one of its own: it may stand in the file by now. */
  readonly parts: readonly FilePart[]
  /** How many contacts or rows were looked at for them; none at the end of the file. */
  readonly looked: number
  readonly end: PagePlace
}

/** Reads the lines behind a place. @param onEnd told where they end as soon as that is known: others may be read meanwhile */
export type ReadPage = (at: PagePlace, onEnd: (end: PagePlace) => void) => Promise<FilePage>

/** How the pages of a file are read: contacts a filter chooses, for people or for a network, or rows of a batch as they came. */
export async function pageReader(db: Db, edition: EditionRow): Promise<ReadPage> {
  if (edition.batchId !== null) return readerAsItCame(db, edition, edition.batchId)
  return edition.form === 'people' ? readerForPeople(db, edition) : readerForNetwork(db, edition)
}

/** Behind the last line. */
export const noPage = ({ after, isFirst }: PagePlace): FilePage => ({
  heading: '',
  parts: [],
  looked: 0,
  end: { after, isFirst, isEnd: true },
})

function readerForPeople(db: Db, edition: EditionRow): ReadPage {
  const { listId, filter } = edition
  return async (at, onEnd) => {
    const page = await pageOfMembers(db, { listId, filter, isForPeople: true, wanted: FOR_PEOPLE }, at.after)
    if (page.last === null) return noPage(at)
    const end = { after: page.last, isFirst: false }
    onEnd(end)
    const extras = await extrasOf(db, listId, page.members)
    const found = await foundOf(db, page.members)
    const lines = page.members.map((member) => ({
      contactId: member.id,
      text: partOf(edition, member, { extras, besides: found.get(member.id) }),
    }))
    const heading = at.isFirst ? headFor(edition, extras.headings) : ''
    return { heading, parts: [partOfLines(lines)], looked: page.suppressed + page.members.length, end }
  }
}

async function readerForNetwork(db: Db, edition: EditionRow): Promise<ReadPage> {
  const { listId, filter } = edition
  const shape = await shapeOfEdition(db, edition)
  const prepare = createMembersPreparer(shape, { hash: edition.form === 'hashed' ? sha256Hex : null })
  const partsOf = (lines: readonly ReadyLine[]) =>
    shape.takes === 'companies' ? lines.map((line) => partOfLines([line])) : [partOfLines(lines)]
  return async (at, onEnd) => {
    const page = await sendablePage(db, { listId, filter, isForPeople: false, wanted: wantedBy(shape) }, at.after)
    if (page === null) return noPage(at)
    const end = { after: page.ids.at(-1) ?? at.after, isFirst: false }
    onEnd(end)
    const parts: FilePart[] = []
    for await (const turn of inTurns(page.columns, prepare)) parts.push(...partsOf(readyLines(page, turn)))
    return { heading: at.isFirst ? csvLine(headingsOf(shape)) : '', parts, looked: page.ids.length, end }
  }
}

/** The lines of those who are ready, of one turn. */
function readyLines(page: SendablePage, { from, size, prepared }: Turn): readonly ReadyLine[] {
  const lines: ReadyLine[] = []
  for (let at = 0; at < size; at++) {
    if (page.isClosed(from + at) || prepared.leftOutAt(at) !== null) continue
    lines.push({ contactId: page.ids[from + at] ?? null, text: prepared.lineAt(at) })
  }
  return lines
}

/** What the lines of an audience look like. Throws a job problem where its destination is gone. */
export async function shapeOfEdition(db: Db, { destination, takes }: EditionRow): Promise<AudienceShape> {
  const [row] = await db.select().from(destinations).where(eq(destinations.id, destination))
  const shape = row ? shapeOf(row.document, takes) : null
  if (!shape) throw new JobProblem('destination-gone')
  return shape
}
