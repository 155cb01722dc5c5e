import { createHash } from 'node:crypto'
import {
  type AudienceMember,
  type AudienceShape,
  createPreparer,
  headingsOf,
  IDENTIFYING_FIELDS,
  identifiersOf,
  kindsTaken,
} from '@upper-field/core/send'
import { csvLine } from '@upper-field/core/table'
import { eq, sql } from 'drizzle-orm'
import { type Db, transaction } from '../db/database'
import { insertRows } from '../db/insertRows'
import { audiences, editionLeftOut, editionLines, editions } from '../db/schema'
import { JobProblem } from '../jobs/jobProblem'
import type { JobHandler, StepOutcome } from '../jobs/runner'
import { type JobRow, saveJob } from '../jobs/store'
import type { Services } from '../services'
import { sha256Hex } from '../sha256'
import { findEdition } from './editionJob'
import { pageOfEntries } from './entryMembers'
import { shapeOfEdition } from './filePage'
import type { EditionRow } from './fileText'
import { type Kinds, kindsKnownOf } from './kindsKnown'
import { pageOfMembers, wantedBy } from './members'
import { createMixCounter } from './mixes'

/** Where the next page begins: behind a contact, or behind an entry of a suppression list. */
type After = { readonly contact: number } | { readonly entry: string }

interface Candidate {
  readonly contactId: number | null
  readonly batchId: string
  readonly member: AudienceMember
}

interface Page {
  readonly candidates: readonly Candidate[]
  readonly suppressed: number
  readonly last: After | null
}

/** Prepares the next edition of an audience: its lines one by one, so that what changes can be told. */
export const prepareJob: JobHandler = {
  async step(services, job): Promise<StepOutcome> {
    const edition = await findEdition(services.db, job)
    const audience = await audienceOfEdition(services.db, edition)
    const shape = await shapeOfEdition(services.db, edition)
    const after = (job.cursor.after ?? null) as After | null
    const page = await pageAfter(services.db, edition, shape, { suppressionListId: audience.suppressionListId, after })
    if (page.last === null) return seal(services, job, edition, shape)
    await takePage(services, job, edition, shape, page)
    return { next: 'step' }
  },

  async ended({ db }, job, state) {
    const { editionId } = job.payload as { editionId: string }
    await db.update(editions).set({ state }).where(eq(editions.id, editionId))
  },
}

async function audienceOfEdition(db: Db, { audienceId }: EditionRow): Promise<typeof audiences.$inferSelect> {
  const [audience] = audienceId === null ? [] : await db.select().from(audiences).where(eq(audiences.id, audienceId))
  if (!audience) throw new JobProblem('edition-gone')
  return audience
}

async function pageAfter(
  db: Db,
  { listId, filter }: EditionRow,
  shape: AudienceShape,
  { suppressionListId, after }: { readonly suppressionListId: string | null; readonly after: After | null },
): Promise<Page> {
  if (suppressionListId !== null) {
    const page = await pageOfEntries(db, suppressionListId, after && 'entry' in after ? after.entry : '')
    const candidates = page.members.map((member) => ({ contactId: null, batchId: '', member }))
    return { candidates, suppressed: 0, last: page.last === null ? null : { entry: page.last } }
  }
  const page = await pageOfMembers(
    db,
    {
      listId,
      filter,
      isForPeople: false,
      wanted: wantedBy(shape, { fields: IDENTIFYING_FIELDS, columns: ['batch_id'] }),
    },
    after && 'contact' in after ? after.contact : 0,
  )
  return {
    candidates: page.members.map((member) => ({
      contactId: member.id,
      batchId: member.told.batch_id ?? '',
      member,
    })),
    suppressed: page.suppressed,
    last: page.last === null ? null : { contact: page.last },
  }
}

async function takePage(
  services: Services,
  job: JobRow,
  edition: EditionRow,
  shape: AudienceShape,
  { candidates, suppressed, last }: Page,
): Promise<void> {
  const kinds = await kindsKnownOf(
    services.db,
    candidates.flatMap(({ contactId }) => contactId ?? []),
  )
  const lines = preparedLines(candidates, shape, edition.form === 'hashed' ? sha256Hex : null)
  await transaction(services.pool, async (tx) => {
    const made = await insertRows(
      tx,
      editionLines,
      [...lines].map(([key, { candidate, cells }]) => ({
        editionId: edition.id,
        key: `\\x${key}` as unknown as Buffer,
        contactId: candidate.contactId,
        cells: [...cells],
      })),
      sql`on conflict do nothing returning encode(key, 'hex') as key`,
    )
    const fresh = made.flatMap(({ key }) => lines.get(String(key))?.candidate ?? [])
    const isIn = new Set(fresh)
    const leftOut = candidates.flatMap((one) => (isIn.has(one) ? [] : (one.contactId ?? [])))
    await insertRows(
      tx,
      editionLeftOut,
      leftOut.map((contactId) => ({ editionId: edition.id, contactId })),
    )
    const counter = countKinds(edition, fresh, shape, kinds)
    await tx
      .update(editions)
      .set({
        people: edition.people + fresh.length,
        leftOut: edition.leftOut + suppressed + candidates.length - lines.size,
        mix: counter.mix(),
        mixBySource: counter.bySource(),
      })
      .where(eq(editions.id, edition.id))
    await saveJob(tx, job.id, {
      phase: 'writing',
      done: job.done + suppressed + candidates.length,
      cursor: { after: last },
    })
  })
}

interface Line {
  readonly candidate: Candidate
  readonly cells: readonly string[]
}

/** Lines by the SHA-256 of their cells: whoever has the same line is in the audience once. */
function preparedLines(
  candidates: readonly Candidate[],
  shape: AudienceShape,
  hash: ((text: string) => string) | null,
): ReadonlyMap<string, Line> {
  const lines = new Map<string, Line>()
  const prepare = createPreparer(shape, { hash })
  for (const candidate of candidates) {
    const prepared = prepare(candidate.member)
    if (prepared.status !== 'ready') continue
    const key = sha256Hex(prepared.cells.join('\n'))
    if (!lines.has(key)) lines.set(key, { candidate, cells: prepared.cells })
  }
  return lines
}

function countKinds(edition: EditionRow, fresh: readonly Candidate[], shape: AudienceShape, kinds: Kinds) {
  const counter = createMixCounter(edition)
  const taken = kindsTaken(shape)
  for (const { contactId, batchId, member } of fresh) {
    const known = contactId === null ? UNKNOWN : kinds.of(contactId)
    const foundBy = contactId === null ? [] : kinds.foundBy(contactId)
    counter.add(identifiersOf(member, known, taken), { batchId, foundBy })
  }
  return counter
}

/** Of somebody known by an entry alone nobody knows what kind of address or number it is. */
const UNKNOWN = { hasPersonalEmail: false, hasWorkEmail: false, hasMobile: false }

/** The edition is whole: what its file would be is fixed by its digest. */
async function seal(services: Services, job: JobRow, edition: EditionRow, shape: AudienceShape): Promise<StepOutcome> {
  const hash = createHash('sha256')
  let bytes = 0
  for await (const text of linesOf(services.db, edition.id, shape)) {
    hash.update(text)
    bytes += Buffer.byteLength(text)
  }
  await transaction(services.pool, async (tx) => {
    await tx
      .update(editions)
      .set({ state: 'ready', sha256: hash.digest('hex'), bytes })
      .where(eq(editions.id, edition.id))
    await saveJob(tx, job.id, { phase: 'done', result: { people: edition.people, leftOut: edition.leftOut } })
  })
  return { next: 'done' }
}

const LINES = 5000

/** An edition as a file, a page of lines at a time, in the order of their keys. */
export async function* linesOf(
  db: Db,
  editionId: string,
  shape: Pick<AudienceShape, 'columns'>,
): AsyncGenerator<string> {
  yield csvLine(headingsOf(shape))
  for (let after = ''; ; ) {
    const { rows } = await db.execute<{ key: string; cells: string[] }>(sql`
      select encode(key, 'hex') as key, cells from edition_lines
      where edition_id = ${editionId} and key > decode(${after}, 'hex') order by key limit ${LINES}`)
    if (rows.length === 0) return
    yield rows.map(({ cells }) => csvLine(cells)).join('')
    after = rows.at(-1)?.key ?? ''
  }
}
