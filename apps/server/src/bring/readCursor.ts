import { ROW_MENDS } from '@upper-field/core/table'
import type { BatchRow } from '../projection/rowCells'
import type { PreparedStep, StepPlace } from './prepareStep'
import { readingOf } from './readingOf'
import type { MendCounts } from './readPiece'

/** How far the rows of a batch are read, and how. */
export interface ReadCursor extends StepPlace {
  /** How many rows needed what to be read, so far. */
  readonly mends: MendCounts
  /** How its rows were tidied; empty before the first, and `several` where somebody changed the routine meanwhile. */
  readonly tidiedBy: string
}

/** @param known what was written down of it, where something was read already */
export const readCursor = (batch: BatchRow, known: Partial<ReadCursor> | null): ReadCursor => ({
  offset: readingOf(batch).start,
  row: 1,
  mends: {},
  tidiedBy: '',
  ...known,
})

export function cursorBehind(cursor: ReadCursor, step: PreparedStep): ReadCursor {
  const isAlike = cursor.tidiedBy === '' || cursor.tidiedBy === step.tidiedBy
  return { ...step.end, mends: sumOf(cursor.mends, step.mends), tidiedBy: isAlike ? step.tidiedBy : 'several' }
}

function sumOf(a: MendCounts, b: MendCounts): MendCounts {
  return Object.fromEntries(
    ROW_MENDS.map((mend) => [mend, (a[mend] ?? 0) + (b[mend] ?? 0)] as const).filter(([, n]) => n > 0),
  )
}
