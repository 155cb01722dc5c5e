import {
  cellsOfRow,
  type Dialect,
  type Encoding,
  type Format,
  type Mapping,
  type Merged,
  type Note,
  type RowLayout,
} from '@upper-field/core/table'
import { compileRoutine, type ProjectedContact, type Settled, type Tidier } from '@upper-field/core/tidy'
import { type FileSettings, isContainer, readingDialect } from '@upper-field/files'
import type { batches } from '../db/schema'
import type { Tidying } from './tidying'

export type BatchRow = typeof batches.$inferSelect

/** How a batch's rows become contacts. */
export interface BatchSettings {
  readonly dialect: Dialect
  readonly layout: RowLayout
  readonly tidier: Tidier
}

/** How the file of a batch is read. */
export const fileSettingsOf = (batch: BatchRow): FileSettings => ({
  format: batch.format as Format,
  sheet: batch.sheet,
  encoding: batch.encoding as Encoding,
  delimiter: batch.delimiter,
  bom: batch.bom,
  firstRow: batch.firstRow,
  headingsRow: batch.headingsRow,
  headings: batch.headings,
  merged: batch.merged as Merged,
  takesHidden: batch.takesHidden,
  notes: batch.notes as Note[],
})

export const dialectOf = (batch: BatchRow): Dialect => readingDialect(fileSettingsOf(batch))

/** How the rows of a batch are cut into cells, as they were when it was read. */
export const layoutOf = (batch: BatchRow): RowLayout => ({
  delimiter: dialectOf(batch).delimiter,
  columns: batch.headings.length,
  isSheet: isContainer(batch.format as Format),
})

/** How a batch's rows become contacts under a list's routine. */
export const settingsOf = (batch: BatchRow, { routine, leftOut, leftOutOf }: Tidying): BatchSettings => ({
  dialect: dialectOf(batch),
  layout: layoutOf(batch),
  tidier: compileRoutine(
    routine,
    { mapping: batch.mapping as Mapping, headings: batch.headings },
    {
      defaultCountry: batch.defaultCountry,
      publicHosts: new Set(batch.publicHosts),
      leftOut: new Set([...leftOut, ...(leftOutOf.get(batch.id) ?? [])]),
    },
  ),
})

/** A stored row projected again. */
export const projectStored = (
  text: string,
  { layout, tidier }: BatchSettings,
  settled: Settled | undefined,
): ProjectedContact => tidier.tidy(cellsOfRow(text, layout).cells, settled)
