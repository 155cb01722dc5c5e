import { areWrittenAlike, type Writing } from '@upper-field/core/pair'
import { cellsOfRow } from '@upper-field/core/table'
import {
  type Compared,
  type ContactValues,
  compareTidiers,
  type ProjectedContact,
  type Settled,
  type ToldAlike,
} from '@upper-field/core/tidy'
import { eq, inArray } from 'drizzle-orm'
import type { PoolClient } from 'pg'
import { BREATH, breathe } from '../breathe'
import { indexAnew } from '../contacts/indexAnew'
import { renewWords } from '../contacts/words'
import type { Db } from '../db/database'
import { num, orNull, type RowOf, readRows, text } from '../db/readRows'
import { batches } from '../db/schema'
import { severalAtOnce, type Turn, takingTurns } from '../db/takingTurns'
import { joinAgain } from '../pair/joinAgain'
import { countContacts } from '../projection/cube'
import { reproject } from '../projection/reproject'
import { type BatchRow, type BatchSettings, settingsOf } from '../projection/rowCells'
import { sharedLines } from '../projection/sharedIn'
import { settledOf, type Tidying, tidyingOf } from '../projection/tidying'
import { storeChange, type TidyChange } from './acts'

const PAGE = 2000
/** From so many contacts on it is quicker to index the whole list anew. */
const MANY = 5000

export interface TidyProgress {
  /** Told after each page; throws to give the whole change up. */
  readonly onPage?: (done: number) => Promise<void>
}

/**
 * Makes a change and projects what it touches, in one transaction that has the list for itself: a list shows the old state
 * or the new one, never a mixture, whatever happens on the way.
 * @returns the act, and how many contacts came out otherwise
 */
export async function makeChange(
  tx: Db,
  client: PoolClient,
  listId: string,
  change: TidyChange,
  madeBy: string,
  { onPage = async () => {} }: TidyProgress = {},
): Promise<{ readonly actId: string; readonly contacts: number }> {
  const before = await tidyingOf(tx, listId)
  // Edits name their contacts: how the batches were read is not asked for then.
  const isOfSome = change.kind === 'edit' || change.kind === 'bulk-edit' || change.kind === 'mend-alike'
  const readBefore = isOfSome ? [] : await tx.select().from(batches).where(eq(batches.listId, listId))
  const { actId, touched } = await storeChange(tx, listId, change, madeBy)
  const { keys, rewritten, contacts } =
    touched === 'whatever-differs'
      ? await rewriteValues(tx, client, listId, { before, readBefore, after: await tidyingOf(tx, listId) }, onPage)
      : { keys: touched, rewritten: [], contacts: touched.length }
  const isOutOfIndex = contacts > MANY
  if (!isOutOfIndex) await renewWords(tx, listId, rewritten)
  await joinAgain(tx, client, listId, keys, { isOutOfIndex })
  if (contacts > 0) await countContacts(tx, listId)
  if (isOutOfIndex) await indexAnew(tx, listId)
  return { actId, contacts }
}

/**
 * Writes what comes out otherwise in values only, a page while others are looked at.
 * @returns who was written, whose keys are otherwise (who those are one person with is to be decided anew), and how many
 * came out otherwise
 */
async function rewriteValues(
  tx: Db,
  client: PoolClient,
  listId: string,
  change: Change,
  onPage: (done: number) => Promise<void>,
): Promise<{ readonly keys: readonly number[]; readonly rewritten: readonly number[]; readonly contacts: number }> {
  const keys: number[] = []
  const rewritten = new Set<number>()
  const how = { isOutOfIndex: true, turn: takingTurns(), sharedIn: sharedLines(tx, 0) }
  let [done, contacts] = [0, 0]
  await severalAtOnce(differing(tx, how.turn, listId, change, rewritten), async (page) => {
    keys.push(...page.keys)
    contacts += page.keys.length + page.values.size
    await reproject(tx, client, { contacts: page.rewritten, because: 'values', known: page.values }, how)
    done += page.looked
    await onPage(done)
  })
  return { keys, rewritten: [...rewritten], contacts }
}

/** Contacts of a page that come out otherwise. */
interface Differing {
  /** In what tells who they are. */
  readonly keys: readonly number[]
  /** In other values only, as they are now. */
  readonly values: ReadonlyMap<number, ProjectedContact>
  /** These, and those they are joined to, whose values come from them too; each once, though it comes again. */
  readonly rewritten: readonly number[]
  /** How many were looked at. */
  readonly looked: number
}

/** How a list was tidied and its batches were read, and how it is tidied now. */
interface Change {
  readonly before: Tidying
  readonly readBefore: readonly BatchRow[]
  readonly after: Tidying
}

/** Contacts that come out otherwise than before, batches that were taken back included; page by page. */
async function* differing(
  tx: Db,
  turn: Turn,
  listId: string,
  change: Change,
  rewritten: Set<number>,
): AsyncGenerator<Differing> {
  const comparers = new Map<string, Compare>()
  for (let last = 0; ; ) {
    const { rows, settled } = await turn(async () => {
      const read = await pageOf(tx, listId, last)
      await learn(tx, read, comparers, change)
      const ids = read.map(({ id }) => id)
      return { rows: read, settled: await settledOf(tx, ids) }
    })
    if (rows.length === 0) return
    const keys: number[] = []
    const values = new Map<number, ProjectedContact>()
    const page: number[] = []
    const rewrite = (id: number) => {
      if (!rewritten.has(id)) page.push(id)
      rewritten.add(id)
    }
    for (const [i, { id, batchId, text, joinedInto }] of rows.entries()) {
      if (i % BREATH === 0) await breathe()
      const compared = comparers.get(batchId)?.(text, settled.get(id))
      if (compared?.difference === 'keys') keys.push(id)
      if (compared?.difference !== 'values') continue
      values.set(id, compared.now)
      rewrite(joinedInto ?? id)
      rewrite(id)
    }
    last = rows.at(-1)?.id ?? last
    yield { keys, values, rewritten: page, looked: rows.length }
  }
}

const STORED = { id: num, batchId: text, text, joinedInto: orNull(num) }
type StoredText = RowOf<typeof STORED>

async function pageOf(tx: Db, listId: string, after: number): Promise<readonly StoredText[]> {
  return readRows(tx, STORED)`
    select c.id, c.batch_id, c.joined_into, r.text from contacts c join rows r on r.batch_id = c.batch_id and r.row = c.row
    where c.list_id = ${listId} and c.id > ${after} order by c.id limit ${PAGE}`
}

type Compare = (text: string, settled: Settled | undefined) => Compared

/** Makes the comparisons of batches that are met for the first time. */
async function learn(
  tx: Db,
  rows: readonly StoredText[],
  comparers: Map<string, Compare>,
  { before, readBefore, after }: Change,
): Promise<void> {
  const unknown = [...new Set(rows.map(({ batchId }) => batchId))].filter((id) => !comparers.has(id))
  if (unknown.length === 0) return
  const found: BatchRow[] = await tx.select().from(batches).where(inArray(batches.id, unknown))
  for (const batch of found) {
    const was = readBefore.find(({ id }) => id === batch.id)
    if (was) comparers.set(batch.id, comparerOf(settingsOf(was, before), settingsOf(batch, after)))
  }
}

function comparerOf(was: BatchSettings, is: BatchSettings): Compare {
  const compare = compareTidiers(was.tidier, is.tidier, areJoinedAlike)
  return (text, settled) => compare(cellsOfRow(text, is.layout).cells, settled)
}

/** Most of what a routine changes of names is how they are written: nobody is joined otherwise by that. */
const areJoinedAlike: ToldAlike = (a, b) => areWrittenAlike(writingOf(a), writingOf(b))

const writingOf = ({ fullName, birthDate, company }: ContactValues): Writing => ({ name: fullName, birthDate, company })
