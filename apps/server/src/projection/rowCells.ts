import { type Dialect, type Encoding, type Mapping, splitCells } from '@upper-field/core/table'
import { type ProjectedContact, projectRow } from '@upper-field/core/tidy'
import type { batches } from '../db/schema'

export type BatchRow = typeof batches.$inferSelect

/** How a batch's rows become contacts. */
export interface BatchSettings {
  readonly dialect: Dialect
  readonly mapping: Mapping
  readonly defaultCountry: string | null
}

export const settingsOf = (batch: BatchRow): BatchSettings => ({
  dialect: { encoding: batch.encoding as Encoding, delimiter: batch.delimiter, bom: batch.bom },
  mapping: batch.mapping as Mapping,
  defaultCountry: batch.defaultCountry,
})

/** A stored row projected again, as it was when it was brought in. */
export const projectStored = (text: string, { dialect, mapping, defaultCountry }: BatchSettings): ProjectedContact =>
  projectRow(splitCells(text, dialect.delimiter), { mapping, defaultCountry })
