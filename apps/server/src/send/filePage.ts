import { type AudienceShape, headingsOf, shapeOf } from '@upper-field/core/send'
import { csvLine } from '@upper-field/core/table'
import { eq } from 'drizzle-orm'
import type { Db } from '../db/database'
import { destinations } from '../db/schema'
import { JobProblem } from '../jobs/jobProblem'
import { pageAsItCame } from './asItCame'
import { extrasOf } from './extras'
import { type EditionRow, headFor, lineWriter, partOf } from './fileText'
import { foundOf } from './found'
import { FOR_PEOPLE, type MembersPage, pageOfMembers, wantedBy } from './members'

/** A line of a file; of a row that became no contact, and of one that may not be sent, without its contact. */
export interface ReadyLine {
  readonly contactId: number | null
  readonly text: string
}

/** The next lines of a file. */
export interface FilePage {
  readonly heading: string
  readonly lines: readonly ReadyLine[]
  /** How many contacts or rows were looked at for them. */
  readonly looked: number
  /** Behind which the next page begins. */
  readonly last: number
}

export interface At {
  readonly after: number
  readonly isFirst: boolean
}

/** The next lines: of the contacts a filter chooses, or of the rows of a batch as they came. Null at the end. */
export const nextPage = (db: Db, edition: EditionRow, at: At): Promise<FilePage | null> =>
  edition.batchId === null ? pageOfContacts(db, edition, at) : pageAsItCame(db, edition, edition.batchId, at)

const pageOfContacts = (db: Db, edition: EditionRow, at: At): Promise<FilePage | null> =>
  edition.form === 'people' ? pageForPeople(db, edition, at) : pageForNetwork(db, edition, at)

async function pageForPeople(db: Db, edition: EditionRow, { after, isFirst }: At): Promise<FilePage | null> {
  const { listId, filter } = edition
  const page = await pageOfMembers(db, { listId, filter, isForPeople: true, wanted: FOR_PEOPLE }, after)
  if (page.last === null) return null
  const extras = await extrasOf(db, listId, page.members)
  const found = await foundOf(db, page.members)
  const lines = page.members.map((member) => ({
    contactId: member.id,
    text: partOf(edition, member, { extras, besides: found.get(member.id) }),
  }))
  return { heading: isFirst ? headFor(edition, extras.headings) : '', lines, looked: lookedAt(page), last: page.last }
}

async function pageForNetwork(db: Db, edition: EditionRow, { after, isFirst }: At): Promise<FilePage | null> {
  const { listId, filter } = edition
  const shape = await shapeOfEdition(db, edition)
  const page = await pageOfMembers(db, { listId, filter, isForPeople: false, wanted: wantedBy(shape) }, after)
  if (page.last === null) return null
  const lineOf = lineWriter(edition, shape)
  const lines = page.members.flatMap((member) => {
    const text = lineOf(member)
    return text === null ? [] : [{ contactId: member.id, text }]
  })
  const heading = isFirst ? csvLine(headingsOf(shape)) : ''
  return { heading, lines, looked: lookedAt(page), last: page.last }
}

const lookedAt = ({ suppressed, members }: MembersPage): number => suppressed + members.length

/** What the lines of an audience look like. Throws a job problem where its destination is gone. */
export async function shapeOfEdition(db: Db, { destination, takes }: EditionRow): Promise<AudienceShape> {
  const [row] = await db.select().from(destinations).where(eq(destinations.id, destination))
  const shape = row ? shapeOf(row.document, takes) : null
  if (!shape) throw new JobProblem('destination-gone')
  return shape
}
