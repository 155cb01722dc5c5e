import { decoderOf, type HeldReason, type Mapping, type RowMend, type scanRecords } from '@upper-field/core/table'
import type { ProjectedContact } from '@upper-field/core/tidy'
import { judgeRecord, rowRules } from '@upper-field/files'
import { BREATH, breathe } from '../breathe'
import { type BatchRow, type BatchSettings, fileSettingsOf } from '../projection/rowCells'

export interface ReadRow {
  readonly row: number
  readonly text: string
  readonly own: ProjectedContact
}

export interface HeldBytes {
  readonly row: number
  readonly reason: HeldReason
  readonly bytes: Buffer
}

export type MendCounts = Readonly<Partial<Record<RowMend, number>>>

/** Rows of a batch's file, read or held; blank ones are neither. */
export interface ReadPiece {
  readonly read: readonly ReadRow[]
  readonly held: readonly HeldBytes[]
  /** How many rows needed what to be read. */
  readonly mends: MendCounts
}

/**
 * Reads rows of a batch's file. Rows are numbered as they stand in the file, from 1, headings and blank rows counted, so
 * that a row is found again in a spreadsheet.
 * @param records where they stand in `bytes`, whole ones only
 * @param firstRow the number of the first of them
 */
export async function readPiece(
  bytes: Buffer,
  records: ReturnType<typeof scanRecords>['records'],
  batch: BatchRow,
  settings: BatchSettings,
  firstRow: number,
): Promise<ReadPiece> {
  const decode = decoderFor(settings)
  const rules = rowRules(fileSettingsOf(batch), batch.mapping as Mapping)
  const read: ReadRow[] = []
  const held: HeldBytes[] = []
  const mends: Partial<Record<RowMend, number>> = {}
  let row = firstRow
  for (const { start, end, problem } of records) {
    const number = row++
    if (number % BREATH === 0) await breathe()
    if (number < batch.firstRow) continue
    const judged = judgeRecord(decode(bytes, start, end), problem, settings.dialect, rules)
    if (judged.status === 'held')
      held.push({ row: number, reason: judged.reason, bytes: Buffer.from(bytes.subarray(start, end)) })
    if (judged.status !== 'read') continue
    read.push({ row: number, text: judged.text, own: settings.tidier.tidy(judged.cells) })
    for (const mend of judged.mends) mends[mend] = (mends[mend] ?? 0) + 1
  }
  return { read, held, mends }
}

type Decode = (bytes: Buffer, start: number, end: number) => string

function decoderFor({ dialect }: BatchSettings): Decode {
  if (dialect.encoding === 'utf-8') return (bytes, start, end) => bytes.toString('utf8', start, end)
  const decode = decoderOf(dialect.encoding)
  return (bytes, start, end) => decode(bytes.subarray(start, end))
}
