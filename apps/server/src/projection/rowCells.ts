import {
  type Dialect,
  type Encoding,
  type Format,
  type Mapping,
  type Merged,
  type Note,
  splitCells,
} from '@upper-field/core/table'
import { type ProjectedContact, projectRow } from '@upper-field/core/tidy'
import { type FileSettings, readingDialect } from '@upper-field/files'
import type { batches } from '../db/schema'

export type BatchRow = typeof batches.$inferSelect

/** How a batch's rows become contacts. */
export interface BatchSettings {
  readonly dialect: Dialect
  readonly mapping: Mapping
  readonly defaultCountry: string | null
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

export const settingsOf = (batch: BatchRow): BatchSettings => ({
  dialect: readingDialect(fileSettingsOf(batch)),
  mapping: batch.mapping as Mapping,
  defaultCountry: batch.defaultCountry,
})

/** A stored row projected again, as it was when it was brought in. */
export const projectStored = (text: string, { dialect, mapping, defaultCountry }: BatchSettings): ProjectedContact =>
  projectRow(splitCells(text, dialect.delimiter), { mapping, defaultCountry })
