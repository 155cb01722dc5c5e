import { scanRecords } from '@upper-field/core/table'
import { type CopyBytes, copyBytesOf } from '../db/copy'
import type { Database, Db } from '../db/database'
import { JobProblem } from '../jobs/jobProblem'
import { type BatchRow, type BatchSettings, settingsOf } from '../projection/rowCells'
import { tidyingKey, tidyingOf } from '../projection/tidying'
import { loadBytes, PIECE } from './pieces'
import { projectRows, takeContactIds } from './projectRows'
import { readingOf } from './readingOf'
import { type HeldBytes, type MendCounts, readPiece } from './readPiece'

/** Bytes read in one step; twice as many where a single row is longer. */
const STEP = PIECE
const LONGEST_STEP = 16 * PIECE

/** Where a step begins or ends: a byte of the table, and the number of the row that stands there. */
export interface StepPlace {
  readonly offset: number
  readonly row: number
}

/** Everything one step stores. */
export interface PreparedStep {
  readonly end: StepPlace
  /** How its rows were tidied. */
  readonly tidiedBy: string
  /** Rows that were read or held. */
  readonly rows: number
  readonly held: number
  readonly withMobile: number
  /** How many rows needed what to be read. */
  readonly mends: MendCounts
  readonly copies: readonly CopyBytes[]
}

/**
 * Reads the rows of a step and makes contacts of them, written out to be stored: it changes nothing but the ids it takes.
 * @param onEnd told where the next step begins, as soon as that is known and ids have been taken: the next may be prepared
 * meanwhile, and its contacts still stand behind these
 */
export async function prepareStep(
  { db, pool }: Pick<Database, 'db' | 'pool'>,
  batch: BatchRow,
  at: StepPlace,
  onEnd: (end: StepPlace) => void,
): Promise<PreparedStep> {
  const tidying = await tidyingOf(db, batch.listId)
  const settings = settingsOf(batch, tidying)
  const { bytes, records, consumed } = await nextRecords(db, batch, settings, at)
  const firstId = await takeContactIds(pool, records.length)
  const end = { offset: at.offset + consumed, row: at.row + records.length }
  onEnd(end)
  const { read, held, mends } = await readPiece(bytes, records, batch, settings, at.row)
  const { copies, withMobile } = await projectRows(db, batch, read, firstId)
  const all = [heldCopy(batch, held), ...copies]
  const [rows, tidiedBy] = [read.length + held.length, tidyingKey(tidying, batch.id)]
  return { end, tidiedBy, rows, held: held.length, withMobile, mends, copies: all }
}

/** The next whole rows of the file. A row that does not fit into one step is given a longer one. */
async function nextRecords(
  db: Db,
  batch: BatchRow,
  { dialect }: BatchSettings,
  { offset }: StepPlace,
): Promise<ReturnType<typeof scanRecords> & { readonly bytes: Buffer }> {
  for (let length = STEP; ; length *= 2) {
    const { part, bytes: size } = readingOf(batch)
    const end = Math.min(offset + length, size)
    const bytes = await loadBytes(db, batch.id, part, offset, end)
    if (bytes.length !== end - offset) throw new JobProblem('file-incomplete')
    const scanned = scanRecords(bytes, { delimiter: dialect.delimiter, isLast: end === size })
    if (scanned.consumed > 0 || length >= LONGEST_STEP) return { ...scanned, bytes }
  }
}

const heldCopy = (batch: BatchRow, held: readonly HeldBytes[]): CopyBytes =>
  copyBytesOf(
    'held_rows',
    ['batch_id', 'row', 'reason', 'bytes'],
    held.map(({ row, reason, bytes }) => [batch.id, row, reason, bytes]),
  )
