import { createHash } from 'node:crypto'
import { type AudienceShape, shapeOf } from '@upper-field/core/send'
import { eq, sql } from 'drizzle-orm'
import { copyInto } from '../db/copy'
import { type Db, transaction } from '../db/database'
import { insertRows } from '../db/insertRows'
import { destinations, editionCompanies, editionPieces, editions } from '../db/schema'
import { type JobHandler, JobProblem, type StepOutcome } from '../jobs/runner'
import { type JobRow, saveJob } from '../jobs/store'
import { withListLock } from '../lists/listLock'
import { countContacts } from '../projection/cube'
import type { Services } from '../services'
import { sha256Hex } from '../sha256'
import { type EditionRow, extrasFor, headOf, textFor } from './fileText'
import { pageOfMembers, type SendableContact } from './members'

/** Prepares the file of an edition a page of contacts at a time; the file is never held in memory. */
export const editionJob: JobHandler = {
  async step(services, job): Promise<StepOutcome> {
    const edition = await findEdition(services.db, job)
    const { after = 0, position = 0 } = job.cursor as { after?: number; position?: number }
    const page = await pageOfMembers(
      services.db,
      { listId: edition.listId, filter: edition.filter, isForPeople: edition.form === 'people' },
      after,
    )
    if (page.last === null) return finish(services, job, edition)
    const extras = await extrasFor(services.db, edition, page.members)
    const shape = await shapeFor(services.db, edition)
    const lines = page.members.flatMap((member) => {
      const text = textFor(edition, shape, member, extras)
      return text === null ? [] : [{ member, text }]
    })
    const heading = position === 0 ? headOf(edition, shape, extras.headings) : ''
    await transaction(services.pool, async (tx, client) => {
      const ready = edition.takes === 'companies' ? await eachCompanyOnce(tx, edition.id, lines) : lines
      const bytes = Buffer.from(heading + ready.map(({ text }) => text).join(''))
      await tx.insert(editionPieces).values({ editionId: edition.id, position, bytes })
      await copyInto(
        client,
        'edition_members',
        ['edition_id', 'contact_id'],
        ready.map(({ member }) => [edition.id, member.id]),
      )
      await tx
        .update(editions)
        .set({
          people: edition.people + ready.length,
          leftOut: edition.leftOut + page.suppressed + page.members.length - ready.length,
          bytes: edition.bytes + bytes.length,
        })
        .where(eq(editions.id, edition.id))
      await saveJob(tx, job.id, {
        phase: 'writing',
        done: job.done + page.suppressed + page.members.length,
        cursor: { after: page.last, position: position + 1 },
      })
    })
    return { next: 'step' }
  },

  async ended({ db }, job, state) {
    const { editionId } = job.payload as { editionId: string }
    await db.update(editions).set({ state }).where(eq(editions.id, editionId))
  },
}

/** The edition a job is about. Throws a job problem where it is gone. */
export async function findEdition(db: Db, job: JobRow): Promise<EditionRow> {
  const { editionId } = job.payload as { editionId: string }
  const [edition] = await db.select().from(editions).where(eq(editions.id, editionId))
  if (!edition) throw new JobProblem('edition-gone')
  return edition
}

interface ReadyLine {
  readonly member: SendableContact
  readonly text: string
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
  const hash = createHash('sha256')
  for await (const piece of piecesOf(services.db, edition.id)) hash.update(piece)
  const holding = { work: 'send' as const, jobId: job.id }
  await withListLock(services, edition.listId, holding, async (tx) => {
    await tx
      .update(editions)
      .set({ state: 'ready', sha256: hash.digest('hex') })
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
