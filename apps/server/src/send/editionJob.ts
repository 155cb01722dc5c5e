import { createHash } from 'node:crypto'
import { and, eq, sql } from 'drizzle-orm'
import { type Db, transaction } from '../db/database'
import { insertRows } from '../db/insertRows'
import { editionCompanies, editionPieces, editions } from '../db/schema'
import { JobProblem } from '../jobs/jobProblem'
import type { JobHandler, StepOutcome } from '../jobs/runner'
import { beginStep, createStepsAhead, type Preparing } from '../jobs/stepsAhead'
import { type JobRow, saveJob } from '../jobs/store'
import { withListLock } from '../lists/listLock'
import type { Services } from '../services'
import { sha256Hex } from '../sha256'
import { createFileDigests } from './fileDigests'
import { type FilePage, type FilePart, type PagePlace, pageReader } from './filePage'
import { type EditionRow, layoutOf } from './fileText'
import { noteMembers, noteSent } from './noteSent'
import { bindWorkbook } from './workbook'

/** Prepares the file of an edition a page of contacts at a time; the file is never held in memory. */
export const editionJob: JobHandler = {
  async step(services, job): Promise<StepOutcome> {
    const edition = await findEdition(services.db, job)
    if (edition.state === 'ready') return noteThoseSent(services, job, edition)
    // Somebody in it was forgotten meanwhile.
    if (edition.state === 'withdrawn') throw new JobProblem('edition-gone')
    const { after = 0, position = 0 } = job.cursor as { after?: number; position?: number }
    const at = { after, isFirst: position === 0 }
    const page = await ahead.take(job.id, at, await preparing(services.db, edition)).prepared
    if (page.looked === 0) return finish(services, job, edition)
    const bytes = await transaction(services.pool, async (tx) => writePage(tx, job, edition, { page, position }))
    digests.add(edition.id, position, bytes)
    return { next: 'step' }
  },

  async ended({ db }, job, state) {
    ahead.drop(job.id)
    const { editionId } = job.payload as { editionId: string }
    await db
      .update(editions)
      .set({ state })
      .where(and(eq(editions.id, editionId), eq(editions.state, 'preparing')))
  },
}

async function writePage(
  tx: Db,
  job: JobRow,
  edition: EditionRow,
  { page, position }: { readonly page: FilePage; readonly position: number },
): Promise<Buffer> {
  const ready = edition.takes === 'companies' ? await eachCompanyOnce(tx, edition.id, page.parts) : page.parts
  const bytes = Buffer.concat([Buffer.from(page.heading), ...ready.map((part) => part.bytes)])
  const lines = ready.reduce((sum, part) => sum + part.lines, 0)
  await tx.insert(editionPieces).values({ editionId: edition.id, position, bytes })
  await noteMembers(
    tx,
    edition.id,
    ready.flatMap(({ contactIds }) => contactIds),
  )
  await tx
    .update(editions)
    .set({
      people: edition.people + lines,
      leftOut: edition.leftOut + page.looked - lines,
      bytes: edition.bytes + bytes.length,
    })
    .where(eq(editions.id, edition.id))
  await saveJob(tx, job.id, {
    phase: 'writing',
    done: job.done + page.looked,
    cursor: { after: page.end.after, position: position + 1 },
  })
  return bytes
}

const digests = createFileDigests()
const ahead = createStepsAhead<PagePlace, FilePage>(({ after }) => after)

/** One page is stored while the next is read and brought into form. */
const AHEAD = 1

async function preparing(db: Db, edition: EditionRow): Promise<Preparing<PagePlace, FilePage>> {
  const read = await pageReader(db, edition)
  return { depth: AHEAD, hasMore: ({ isEnd }) => isEnd !== true, begin: (at) => beginStep(at, read) }
}

/** The edition a job is about. Throws a job problem where it is gone. */
export async function findEdition(db: Db, job: JobRow): Promise<EditionRow> {
  const { editionId } = job.payload as { editionId: string }
  const [edition] = await db.select().from(editions).where(eq(editions.id, editionId))
  if (!edition) throw new JobProblem('edition-gone')
  return edition
}

/** Several people of one company make one line of a list of companies. @param parts of a line each */
async function eachCompanyOnce(tx: Db, editionId: string, parts: readonly FilePart[]): Promise<readonly FilePart[]> {
  const byKey = new Map(parts.map((part): [string, FilePart] => [sha256Hex(part.bytes), part]))
  const made = await insertRows(
    tx,
    editionCompanies,
    [...byKey.keys()].map((key) => ({ editionId, key })),
    sql`on conflict do nothing returning key`,
  )
  const fresh = new Set(made.map(({ key }) => String(key)))
  return [...byKey].filter(([key]) => fresh.has(key)).map(([, part]) => part)
}

/** The file is whole, and may be fetched from here on. */
async function finish(services: Services, job: JobRow, edition: EditionRow): Promise<StepOutcome> {
  const { db } = services
  const isWorkbook = edition.form === 'people' && layoutOf(edition).kind === 'xlsx'
  const { position = 0, isBound } = job.cursor as { position?: number; isBound?: boolean }
  if (isWorkbook && isBound !== true) {
    await bindWorkbook(services, edition, job)
    return { next: 'step' }
  }
  const seen = digests.take(edition.id, position)
  const sha256 = seen !== null && !isWorkbook ? seen : await digestOf(db, edition.id)
  await db.update(editions).set({ state: 'ready', sha256 }).where(eq(editions.id, edition.id))
  return { next: 'step' }
}

async function digestOf(db: Db, editionId: string): Promise<string> {
  const hash = createHash('sha256')
  for await (const piece of piecesOf(db, editionId)) hash.update(piece)
  return hash.digest('hex')
}

async function noteThoseSent(services: Services, job: JobRow, { id, listId, people, leftOut }: EditionRow) {
  await withListLock(services, listId, { work: 'send', jobId: job.id }, async (tx) => {
    await noteSent(tx, listId, id)
    await saveJob(tx, job.id, { phase: 'done', result: { people, leftOut } })
  })
  return { next: 'done' } as const
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
