import { readingDialect } from '@upper-field/files'
import { type BatchRow, fileSettingsOf } from '../projection/rowCells'

/** Where the rows of a batch are read from. */
export function readingOf(batch: BatchRow): {
  readonly part: 'file' | 'table'
  readonly bytes: number
  readonly start: number
} {
  const settings = fileSettingsOf(batch)
  return batch.tableBytes === null
    ? { part: 'file', bytes: batch.bytes, start: readingDialect(settings).bom }
    : { part: 'table', bytes: batch.tableBytes, start: 0 }
}
