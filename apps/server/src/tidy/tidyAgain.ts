import { areWrittenAlike, type Writing } from '@upper-field/core/pair'
import { cellsOfRow } from '@upper-field/core/table'
import {
  type ChangeCode,
  type Compared,
  type ContactValues,
  compareTidiers,
  type Settled,
  type ToldAlike,
} from '@upper-field/core/tidy'
import { eq, inArray, sql } from 'drizzle-orm'
import type { PoolClient } from 'pg'
import { BREATH, breathe } from '../breathe'
import { indexAnew } from '../contacts/indexAnew'
import { renewWords } from '../contacts/words'
import type { Db } from '../db/database'
import { bool, num, type RowOf, readRows, text } from '../db/readRows'
import { batches } from '../db/schema'
import { severalAtOnce, type Turn, takingTurns } from '../db/takingTurns'
import type { OnPage } from '../jobs/giveUp'
import { type OnShare, partOf } from '../jobs/share'
import { joinAgain } from '../pair/joinAgain'
import { sharersOf } from '../pair/sharers'
import { rootsOf } from '../pair/standsFor'
import { countContacts } from '../projection/cube'
import { type Reprojecting, reproject } from '../projection/reproject'
import { type BatchRow, type BatchSettings, settingsOf } from '../projection/rowCells'
import { sharedLines } from '../projection/sharedIn'
import { type MadeOfRows, madeOfOne } from '../projection/tidiedRows'
import { settledOf, type Tidying, tidyingOf } from '../projection/tidying'
import { storeChange, type TidyChange, type WhateverDiffers } from './acts'
import { codesAtStakeOf, wasChangedBy } from './atStake'

const PAGE = 2000
/** From so many contacts on it is quicker to index the whole list anew. */
const MANY = 5000

export interface TidyProgress {
  /** Told after each page; throws to give the whole change up. */
  readonly onPage?: OnPage
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
  const { all, alone, sharers }: Rewritten =
    'ofBatch' in touched
      ? await rewriteAlone(
          tx,
          client,
          listId,
          {
            ...touched,
            before,
            readBefore,
            after: await tidyingOf(tx, listId),
            codes: codesAtStakeOf(before.routine, change),
          },
          onPage,
        )
      : { all: { keys: touched, values: [] }, alone: noneYet(), sharers: [] }
  const contacts = all.keys.length + all.values.length
  const isOutOfIndex = contacts > MANY
  if (!isOutOfIndex) await renewWords(tx, listId, [...alone.keys, ...alone.values])
  const written = { ids: alone.keys, sharers }
  const onShare: OnShare = (share) => onPage(null, 'joining', share)
  const joining = { isOutOfIndex, written, onShare: partOf(onShare, 0, 2) }
  const decided = await joinAgain(tx, client, listId, all.keys, joining)
  const isWritten = new Set([...alone.values, ...decided])
  await rewriteJoined(
    tx,
    client,
    all.values.filter((id) => !isWritten.has(id)),
    { isOutOfIndex, onShare: partOf(onShare, 1, 2) },
  )
  if (contacts > 0) {
    await onPage(null, 'counting')
    await countContacts(tx, listId)
  }
  if (isOutOfIndex) await indexAnew(tx, listId)
  return { actId, contacts }
}

/** Who comes out otherwise. */
interface Otherwise {
  /** In what tells who they are: who those are one person with is to be decided anew. */
  readonly keys: readonly number[]
  /** In other values only. */
  readonly values: readonly number[]
}

/** Those who come out otherwise, of whom those that stand for one row are written. */
interface Rewritten {
  readonly all: Otherwise
  readonly alone: Otherwise
  /** Who held a number with `alone.keys` before. */
  readonly sharers: readonly number[]
}

/** Writes those that come out otherwise and stand for one row, a page while others are looked at. */
async function rewriteAlone(
  tx: Db,
  client: PoolClient,
  listId: string,
  change: Change,
  onPage: OnPage,
): Promise<Rewritten> {
  const [all, alone] = [noneYet(), noneYet()]
  const sharers: number[] = []
  const turn = takingTurns()
  const how = { isOutOfIndex: true, turn, sharedIn: sharedLines(tx, 0) }
  let done = 0
  await severalAtOnce(differing(tx, turn, listId, change), async (page) => {
    for (const because of ['keys', 'values'] as const) {
      const made = page.alone[because]
      const ids = made.map(({ key }) => key.id)
      all[because].push(...page.all[because])
      alone[because].push(...ids)
      if (because === 'keys') sharers.push(...(await turn(() => sharersOf(tx, ids))))
      await reproject(tx, client, { made, because }, how)
    }
    done += page.looked
    await onPage(done)
  })
  return { all, alone, sharers }
}

/** Writes those that come out otherwise in values only and are one person with others, and whoever they are joined to. */
async function rewriteJoined(tx: Db, client: PoolClient, ids: readonly number[], how: Reprojecting): Promise<void> {
  if (ids.length === 0) return
  const contacts = [...ids, ...(await rootsOf(tx, ids))]
  await reproject(tx, client, { contacts, because: 'values' }, how)
}

const noneYet = (): { readonly keys: number[]; readonly values: number[] } => ({ keys: [], values: [] })

/** Contacts of a page that come out otherwise. */
interface Differing {
  readonly all: Otherwise
  /** Those that stand for one row, as they are now. */
  readonly alone: Readonly<Record<keyof Otherwise, readonly MadeOfRows[]>>
  /** How many were looked at. */
  readonly looked: number
}

/** How a list was tidied and its batches were read, and how it is tidied now. */
interface Change extends WhateverDiffers {
  readonly before: Tidying
  readonly readBefore: readonly BatchRow[]
  readonly after: Tidying
  /** What a contact must have been changed by to come out otherwise; null where it need not. */
  readonly codes: readonly ChangeCode[] | null
}

/** Contacts that come out otherwise than before, batches that were taken back included; page by page. */
async function* differing(tx: Db, turn: Turn, listId: string, change: Change): AsyncGenerator<Differing> {
  const comparers = new Map<string, Compare>()
  for (let last = 0; ; ) {
    const { rows, settled } = await turn(async () => {
      const read = await pageOf(tx, listId, change, last)
      await learn(tx, read, comparers, change)
      const ids = read.map(({ id }) => id)
      return { rows: read, settled: await settledOf(tx, ids) }
    })
    if (rows.length === 0) return
    const all = noneYet()
    const alone: Record<keyof Otherwise, MadeOfRows[]> = { keys: [], values: [] }
    for (const [i, { id, batchId, row, text, isAlone }] of rows.entries()) {
      if (i % BREATH === 0) await breathe()
      const compared = comparers.get(batchId)?.(text, settled.get(id)) ?? UNCOMPARED
      if (compared.difference === 'none') continue
      all[compared.difference].push(id)
      if (isAlone) alone[compared.difference].push(madeOfOne({ id, listId, batchId, row }, compared.now))
    }
    last = rows.at(-1)?.id ?? last
    yield { all, alone, looked: rows.length }
  }
}

/** Of a batch that came meanwhile. */
const UNCOMPARED: Compared = { difference: 'none' }

const STORED = { id: num, batchId: text, row: num, text, isAlone: bool }
type StoredText = RowOf<typeof STORED>

async function pageOf(
  tx: Db,
  listId: string,
  { ofBatch, codes }: Pick<Change, 'ofBatch' | 'codes'>,
  after: number,
): Promise<readonly StoredText[]> {
  const isIts = ofBatch === null ? sql`true` : sql`c.batch_id = ${ofBatch}`
  return readRows(tx, STORED)`
    select c.id, c.batch_id, c.row, r.text, c.joined_into is null and c.joined = 0 as is_alone from contacts c join rows r on r.batch_id = c.batch_id and r.row = c.row
    where c.list_id = ${listId} and c.id > ${after} and ${isIts} and ${wasChangedBy(codes)} order by c.id limit ${PAGE}`
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
