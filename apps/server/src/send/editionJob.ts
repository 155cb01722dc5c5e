import { createHash } from 'node:crypto'
import { type AudienceShape, shapeOf } from '@upper-field/core/send'
import { eq, sql } from 'drizzle-orm'
import { copyInto } from '../db/copy'
import { type Db, transaction } from '../db/database'
import { insertRows } from '../db/insertRows'
import { destinations, editionCompanies, editionPieces, editions } from '../db/schema'
import { createReadAhead } from '../jobs/readAhead'
import { type JobHandler, JobProblem, type StepOutcome } from '../jobs/runner'
import { type JobRow, saveJob } from '../jobs/store'
import { withListLock } from '../lists/listLock'
import { countContacts } from '../projection/cube'
import type { Services } from '../services'
import { sha256Hex } from '../sha256'
import { pageAsItCame } from './asItCame'
import { type Besides, type EditionRow, extrasFor, headOf, layoutOf, textFor } from './fileText'
import { foundOf } from './found'
import { pageOfMembers } from './members'
import { bindWorkbook } from './workbook'

/** Prepares the file of an edition a page of contacts at a time; the file is never held in memory. */
export const editionJob: JobHandler = {
  async step(services, job): Promise<StepOutcome> {
    const edition = await findEdition(services.db, job)
    const { after = 0, position = 0 } = job.cursor as { after?: number; position?: number }
    const page = await (ahead.take(job.id, after) ?? nextPage(services.db, edition, { after, isFirst: position === 0 }))
    if (page === null) return finish(services, job, edition)
    ahead.begin(job.id, page.last, nextPage(services.db, edition, { after: page.last, isFirst: false }))
    await transaction(services.pool, async (tx, client) => {
      const ready = edition.takes === 'companies' ? await eachCompanyOnce(tx, edition.id, page.lines) : page.lines
      const bytes = Buffer.from(page.heading + ready.map(({ text }) => text).join(''))
      await tx.insert(editionPieces).values({ editionId: edition.id, position, bytes })
      await copyInto(
        client,
        'edition_members',
        ['edition_id', 'contact_id'],
        ready.flatMap(({ contactId }) => (contactId === null ? [] : [[edition.id, contactId]])),
      )
      await tx
        .update(editions)
        .set({
          people: edition.people + ready.length,
          leftOut: edition.leftOut + page.looked - ready.length,
          bytes: edition.bytes + bytes.length,
        })
        .where(eq(editions.id, edition.id))
      await saveJob(tx, job.id, {
        phase: 'writing',
        done: job.done + page.looked,
        cursor: { after: page.last, position: position + 1 },
      })
    })
    return { next: 'step' }
  },

  async ended({ db }, job, state) {
    ahead.drop(job.id)
    const { editionId } = job.payload as { editionId: string }
    await db.update(editions).set({ state }).where(eq(editions.id, editionId))
  },
}

const ahead = createReadAhead<FilePage | null>()

/** The edition a job is about. Throws a job problem where it is gone. */
export async function findEdition(db: Db, job: JobRow): Promise<EditionRow> {
  const { editionId } = job.payload as { editionId: string }
  const [edition] = await db.select().from(editions).where(eq(editions.id, editionId))
  if (!edition) throw new JobProblem('edition-gone')
  return edition
}

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

interface At {
  readonly after: number
  readonly isFirst: boolean
}

/** The next lines: of the contacts a filter chooses, or of the rows of a batch as they came. Null at the end. */
const nextPage = (db: Db, edition: EditionRow, at: At): Promise<FilePage | null> =>
  edition.batchId === null ? pageOfContacts(db, edition, at) : pageAsItCame(db, edition, edition.batchId, at)

async function pageOfContacts(db: Db, edition: EditionRow, { after, isFirst }: At): Promise<FilePage | null> {
  const { listId, filter, form } = edition
  const page = await pageOfMembers(db, { listId, filter, isForPeople: form === 'people' }, after)
  if (page.last === null) return null
  const extras = await extrasFor(db, edition, page.members)
  const shape = await shapeFor(db, edition)
  const found = form === 'people' ? await foundOf(db, page.members) : new Map<number, Besides>()
  const lines = page.members.flatMap((member) => {
    const text = textFor(edition, shape, member, { extras, besides: found.get(member.id) })
    return text === null ? [] : [{ contactId: member.id, text }]
  })
  const heading = isFirst ? headOf(edition, shape, extras.headings) : ''
  return { heading, lines, looked: page.suppressed + page.members.length, last: page.last }
}

/** Several people of one company make one line of a list of companies. */
async function eachCompanyOnce(tx: Db, editionId: string, lines: readonly ReadyLine[]): Promise<readonly ReadyLine[]> {
  const byKey = new Map(lines.map((line): [string, ReadyLine] => [sha256Hex(line.text), line]))
  const made = await insertRows(
    tx,
    editionCompanies,
    [...byKey.keys()].map((key) => ({ editionId, key })),
    sql`on conflict do nothing returning key`,
  )
  const fresh = new Set(made.map(({ key }) => String(key)))
  return [...byKey].filter(([key]) => fresh.has(key)).map(([, line]) => line)
}

/** What the lines of an audience look like; null for a file for people. Throws a job problem where its destination is gone. */
export async function shapeFor(db: Db, { form, destination, takes }: EditionRow): Promise<AudienceShape | null> {
  if (form === 'people') return null
  const [row] = await db.select().from(destinations).where(eq(destinations.id, destination))
  const shape = row ? shapeOf(row.document, takes) : null
  if (!shape) throw new JobProblem('destination-gone')
  return shape
}

async function finish(services: Services, job: JobRow, edition: EditionRow): Promise<StepOutcome> {
  const isWorkbook = edition.form === 'people' && layoutOf(edition).kind === 'xlsx'
  if (isWorkbook && job.cursor.isBound !== true) {
    await bindWorkbook(services, edition, job)
    return { next: 'step' }
  }
  const hash = createHash('sha256')
  for await (const piece of piecesOf(services.db, edition.id)) hash.update(piece)
  const holding = { work: 'send' as const, jobId: job.id, counts: 'whole' as const }
  await withListLock(services, edition.listId, holding, async (tx) => {
    await tx
      .update(editions)
      .set({ state: 'ready', sha256: hash.digest('hex'), bytes: edition.bytes })
      .where(eq(editions.id, edition.id))
    await tx.execute(sql`
      update contacts c set is_sent = true from edition_members m where m.edition_id = ${edition.id} and m.contact_id = c.id and not c.is_sent`)
    await countContacts(tx, edition.listId)
    await saveJob(tx, job.id, { phase: 'done', result: { people: edition.people, leftOut: edition.leftOut } })
  })
  return { next: 'done' }
}

/** The file of an edition, a piece at a time. */
export async function* piecesOf(db: Db, editionId: string): AsyncGenerator<Buffer> {
  for (let position = 0; ; position++) {
    const [piece] = await db
      .select({ bytes: editionPieces.bytes })
      .from(editionPieces)
      .where(sql`${editionPieces.editionId} = ${editionId} and ${editionPieces.position} = ${position}`)
    if (!piece) return
    yield piece.bytes
  }
}
