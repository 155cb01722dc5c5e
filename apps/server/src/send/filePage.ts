import { setImmediate } from 'node:timers/promises'
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
import { FOR_PEOPLE, pageOfMembers, sendablePage, wantedBy } from './members'

/** A line of a file; of a row that became no contact, and of one that may not be sent, without its contact. */
export interface ReadyLine {
  readonly contactId: number | null
  readonly text: string
}

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
  readonly lines: readonly ReadyLine[]
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
  lines: [],
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
    return { heading, lines, looked: page.suppressed + page.members.length, end }
  }
}

/** So many lines are written before others have their turn: what is read meanwhile is asked for, and what is stored told. */
const TURN = 2000

async function readerForNetwork(db: Db, edition: EditionRow): Promise<ReadPage> {
  const { listId, filter } = edition
  const shape = await shapeOfEdition(db, edition)
  const prepare = createMembersPreparer(shape, { hash: edition.form === 'hashed' ? sha256Hex : null })
  return async (at, onEnd) => {
    const page = await sendablePage(db, { listId, filter, isForPeople: false, wanted: wantedBy(shape) }, at.after)
    if (page === null) return noPage(at)
    const end = { after: page.ids.at(-1) ?? at.after, isFirst: false }
    onEnd(end)
    await setImmediate()
    const prepared = prepare(page.columns)
    const lines: ReadyLine[] = []
    for (const [place, contactId] of page.ids.entries()) {
      if (place % TURN === 0) await setImmediate()
      if (page.isClosed(place) || prepared.leftOutAt(place) !== null) continue
      lines.push({ contactId, text: prepared.lineAt(place) })
    }
    return { heading: at.isFirst ? csvLine(headingsOf(shape)) : '', lines, looked: page.ids.length, end }
  }
}

/** What the lines of an audience look like. Throws a job problem where its destination is gone. */
export async function shapeOfEdition(db: Db, { destination, takes }: EditionRow): Promise<AudienceShape> {
  const [row] = await db.select().from(destinations).where(eq(destinations.id, destination))
  const shape = row ? shapeOf(row.document, takes) : null
  if (!shape) throw new JobProblem('destination-gone')
  return shape
}
