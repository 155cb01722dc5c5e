import { createHash } from 'node:crypto'
import {
  type AudienceShape,
  createMembersPreparer,
  identifiersAt,
  kindsTaken,
  type PrepareMembers,
} from '@upper-field/core/send'
import { eq } from 'drizzle-orm'
import { type Db, transaction } from '../db/database'
import { insertRows } from '../db/insertRows'
import { editionLeftOut, editions } from '../db/schema'
import type { JobHandler, StepOutcome } from '../jobs/runner'
import { beginStep, createStepsAhead, type Preparing } from '../jobs/stepsAhead'
import { type JobRow, saveJob } from '../jobs/store'
import type { Services } from '../services'
import { sha256Hex } from '../sha256'
import { findEdition } from './editionJob'
import { type EditionLine, linesOf, storeLines } from './editionLines'
import { type After, type EditionPage, editionPages } from './editionPages'
import { shapeOfEdition } from './filePage'
import type { EditionRow } from './fileText'
import { foundByProviders } from './foundBy'
import { inTurns } from './inTurns'
import { createMixCounter, type MixCounter } from './mixes'

interface Place {
  readonly after: After | null
  /** Known where nobody was left to be read. */
  readonly isEnd?: boolean
}

/** The lines of a page, ready to be stored. */
interface ReadyPage {
  /** Null where nobody is left. */
  readonly page: EditionPage | null
  readonly lines: readonly Line[]
  readonly end: Place
}

/** Prepares the next edition of an audience: its lines one by one, so that what changes can be told. */
export const prepareJob: JobHandler = {
  async step(services, job): Promise<StepOutcome> {
    const edition = await findEdition(services.db, job)
    const shape = await shapeOfEdition(services.db, edition)
    const at: Place = { after: (job.cursor.after ?? null) as After | null }
    const ready = await ahead.take(job.id, at, await preparing(services.db, edition, shape)).prepared
    if (ready.page === null) return seal(services, job, edition, shape)
    await storePage(services, job, { edition, shape, page: ready.page, lines: ready.lines })
    return { next: 'step' }
  },

  async ended({ db }, job, state) {
    ahead.drop(job.id)
    const { editionId } = job.payload as { editionId: string }
    await db.update(editions).set({ state }).where(eq(editions.id, editionId))
  },
}

const ahead = createStepsAhead<Place, ReadyPage>(({ after }) =>
  after === null ? 0 : 'contact' in after ? after.contact : after.entry,
)

/** One page is stored while the next is read and brought into form. */
const AHEAD = 1

async function preparing(db: Db, edition: EditionRow, shape: AudienceShape): Promise<Preparing<Place, ReadyPage>> {
  const read = await editionPages(db, edition, shape)
  const prepare = createMembersPreparer(shape, { hash: edition.form === 'hashed' ? sha256Hex : null })
  const ready = async ({ after }: Place, onEnd: (end: Place) => void): Promise<ReadyPage> => {
    const page = await read(after)
    const end = page === null ? { after, isEnd: true } : { after: page.end }
    onEnd(end)
    return { page, lines: page === null ? [] : await preparedLines(page, prepare), end }
  }
  return { depth: AHEAD, hasMore: ({ isEnd }) => isEnd !== true, begin: (at) => beginStep(at, ready) }
}

interface Storing {
  readonly edition: EditionRow
  readonly shape: AudienceShape
  readonly page: EditionPage
  readonly lines: readonly Line[]
}

async function storePage(services: Services, job: JobRow, storing: Storing): Promise<void> {
  const { edition, page, lines } = storing
  await transaction(services.pool, async (tx, client) => {
    const fresh = await storeLines(tx, client, edition.id, lines)
    await insertRows(
      tx,
      editionLeftOut,
      leftOutOf(page, fresh).map((contactId) => ({ editionId: edition.id, contactId })),
    )
    const counter = await countKinds(tx, storing, fresh)
    await tx
      .update(editions)
      .set({
        people: edition.people + fresh.length,
        leftOut: edition.leftOut + page.members.size - fresh.length,
        mix: counter.mix(),
        mixBySource: counter.bySource(),
      })
      .where(eq(editions.id, edition.id))
    await saveJob(tx, job.id, {
      phase: 'writing',
      done: job.done + page.members.size,
      cursor: { after: page.end },
    })
  })
}

/** Contacts that might be sent and make no line of their own. */
function leftOutOf({ members, isSuppressed, contactAt }: EditionPage, fresh: readonly Line[]): readonly number[] {
  const isIn = new Set(fresh.map(({ at }) => at))
  const places = Array.from({ length: members.size }, (_, at) => at)
  return places.flatMap((at) => (isIn.has(at) || isSuppressed(at) ? [] : (contactAt(at) ?? [])))
}

interface Line extends EditionLine {
  /** Whose it is, in the page. */
  readonly at: number
}

/** The lines of a page, each once. */
async function preparedLines(page: EditionPage, prepare: PrepareMembers): Promise<readonly Line[]> {
  const lines = new Map<string, Line>()
  for await (const { from, size, prepared } of inTurns(page.members, prepare)) {
    for (let i = 0; i < size; i++) {
      const at = from + i
      if (page.isSuppressed(at) || prepared.leftOutAt(i) !== null) continue
      const cells = prepared.cellsAt(i)
      const key = sha256Hex(cells.join('\n'))
      if (!lines.has(key)) lines.set(key, { at, key, contactId: page.contactAt(at), cells })
    }
  }
  return [...lines.values()]
}

async function countKinds(tx: Db, { edition, shape, page }: Storing, fresh: readonly Line[]): Promise<MixCounter> {
  const { members, batchAt, kindsAt } = page
  const counter = createMixCounter(edition)
  const taken = kindsTaken(shape)
  const found = await foundByProviders(
    tx,
    fresh.flatMap(({ contactId }) => contactId ?? []),
  )
  for (const { at, contactId } of fresh) {
    const foundBy = found.get(contactId ?? 0) ?? []
    counter.add(identifiersAt(members, at, kindsAt(at), taken), { batchId: batchAt(at), foundBy })
  }
  return counter
}

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
