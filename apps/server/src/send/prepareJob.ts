import { createHash } from 'node:crypto'
import { setImmediate } from 'node:timers/promises'
import {
  type AudienceShape,
  columnsOf,
  createMembersPreparer,
  IDENTIFYING_FIELDS,
  identifiersAt,
  type KindsKnown,
  kindsTaken,
  type MemberColumns,
} from '@upper-field/core/send'
import { eq } from 'drizzle-orm'
import { type Db, transaction } from '../db/database'
import { insertRows } from '../db/insertRows'
import { audiences, editionLeftOut, editions } from '../db/schema'
import { JobProblem } from '../jobs/jobProblem'
import type { JobHandler, StepOutcome } from '../jobs/runner'
import { beginStep, createStepsAhead, type Preparing } from '../jobs/stepsAhead'
import { type JobRow, saveJob } from '../jobs/store'
import type { Services } from '../services'
import { sha256Hex } from '../sha256'
import { findEdition } from './editionJob'
import { type EditionLine, linesOf, storeLines } from './editionLines'
import { pageOfEntries } from './entryMembers'
import { shapeOfEdition } from './filePage'
import type { EditionRow } from './fileText'
import { foundByProviders } from './foundBy'
import { sendablePage, wantedBy } from './members'
import { createMixCounter, type MixCounter } from './mixes'

/** Where the next page begins: behind a contact, or behind an entry of a suppression list. */
type After = { readonly contact: number } | { readonly entry: string }

/** Whom the next lines are made of, by their places. */
interface Page {
  readonly members: MemberColumns
  /** Null for an entry of a suppression list. */
  contactAt(at: number): number | null
  /** Empty where nobody knows. */
  batchAt(at: number): string
  isSuppressed(at: number): boolean
  kindsAt(at: number): KindsKnown
  /** Null where nobody is left. */
  readonly last: After | null
}

/** Where a page begins or ends. */
interface Place {
  readonly after: After | null
  /** Known where nobody was left to be read. */
  readonly isEnd?: boolean
}

/** The lines of a page, ready to be stored. */
interface ReadyPage {
  readonly page: Page
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
    if (ready.end.isEnd) return seal(services, job, edition, shape)
    await storePage(services, job, edition, shape, ready)
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
  const { suppressionListId } = await audienceOfEdition(db, edition)
  const hash = edition.form === 'hashed' ? sha256Hex : null
  const read = async ({ after }: Place, onEnd: (end: Place) => void): Promise<ReadyPage> => {
    const page = await pageAfter(db, edition, shape, { suppressionListId, after })
    const end = page.last === null ? { after, isEnd: true } : { after: page.last }
    onEnd(end)
    return { page, lines: await preparedLines(page, shape, hash), end }
  }
  return { depth: AHEAD, hasMore: ({ isEnd }) => isEnd !== true, begin: (at) => beginStep(at, read) }
}

async function audienceOfEdition(db: Db, { audienceId }: EditionRow): Promise<typeof audiences.$inferSelect> {
  const [audience] = audienceId === null ? [] : await db.select().from(audiences).where(eq(audiences.id, audienceId))
  if (!audience) throw new JobProblem('edition-gone')
  return audience
}

async function pageAfter(
  db: Db,
  edition: EditionRow,
  shape: AudienceShape,
  { suppressionListId, after }: { readonly suppressionListId: string | null; readonly after: After | null },
): Promise<Page> {
  return suppressionListId === null
    ? contactsAfter(db, edition, shape, after && 'contact' in after ? after.contact : 0)
    : entriesAfter(db, suppressionListId, after && 'entry' in after ? after.entry : '')
}

async function entriesAfter(db: Db, suppressionListId: string, after: string): Promise<Page> {
  const page = await pageOfEntries(db, suppressionListId, after)
  return {
    members: columnsOf(page.members),
    contactAt: () => null,
    batchAt: () => '',
    isSuppressed: () => false,
    kindsAt: () => UNKNOWN,
    last: page.last === null ? null : { entry: page.last },
  }
}

/** Of somebody known by an entry alone nobody knows what kind of address or number it is. */
const UNKNOWN: KindsKnown = { hasPersonalEmail: false, hasWorkEmail: false, hasMobile: false }

async function contactsAfter(
  db: Db,
  { listId, filter }: EditionRow,
  shape: AudienceShape,
  after: number,
): Promise<Page> {
  const wanted = wantedBy(shape, { fields: IDENTIFYING_FIELDS, columns: ['batch_id'] })
  const page = await sendablePage(db, { listId, filter, isForPeople: false, wanted }, after)
  if (page === null) return NOBODY
  return {
    members: page.columns,
    contactAt: (at) => page.ids[at] ?? null,
    batchAt: (at) => page.toldAt('batch_id', at),
    isSuppressed: page.isClosed,
    kindsAt: page.kindsAt,
    last: { contact: page.ids.at(-1) ?? after },
  }
}

const NOBODY: Page = {
  members: { size: 0, countries: [], numberCountries: [], values: {} },
  contactAt: () => null,
  batchAt: () => '',
  isSuppressed: () => false,
  kindsAt: () => UNKNOWN,
  last: null,
}

async function storePage(
  services: Services,
  job: JobRow,
  edition: EditionRow,
  shape: AudienceShape,
  { page, lines, end }: ReadyPage,
): Promise<void> {
  await transaction(services.pool, async (tx, client) => {
    const fresh = await storeLines(tx, client, edition.id, lines)
    const isIn = new Set(fresh.map(({ at }) => at))
    const candidates = placesOf(page).filter((at) => !page.isSuppressed(at))
    await insertRows(
      tx,
      editionLeftOut,
      candidates
        .flatMap((at) => (isIn.has(at) ? [] : (page.contactAt(at) ?? [])))
        .map((contactId) => ({ editionId: edition.id, contactId })),
    )
    const counter = await countKinds(tx, edition, shape, page, fresh)
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
      cursor: { after: end.after },
    })
  })
}

const placesOf = ({ members: { size } }: Page): readonly number[] => Array.from({ length: size }, (_, at) => at)

interface Line extends EditionLine {
  /** Whose it is, in the page. */
  readonly at: number
}

/** So many lines are written before others have their turn. */
const TURN = 2000

/** The lines of a page, each once. */
async function preparedLines(
  page: Page,
  shape: AudienceShape,
  hash: ((text: string) => string) | null,
): Promise<readonly Line[]> {
  const lines = new Map<string, Line>()
  const prepared = createMembersPreparer(shape, { hash })(page.members)
  for (let at = 0; at < page.members.size; at++) {
    if (at % TURN === 0) await setImmediate()
    if (page.isSuppressed(at) || prepared.leftOutAt(at) !== null) continue
    const cells = prepared.cellsAt(at)
    const key = sha256Hex(cells.join('\n'))
    if (!lines.has(key)) lines.set(key, { at, key, contactId: page.contactAt(at), cells })
  }
  return [...lines.values()]
}

async function countKinds(
  tx: Db,
  edition: EditionRow,
  shape: AudienceShape,
  { members, batchAt, kindsAt }: Page,
  fresh: readonly Line[],
): Promise<MixCounter> {
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
