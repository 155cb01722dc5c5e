import type { Format, Merge, Note, SheetRow } from '@upper-field/core/table'

export interface SheetName {
  readonly name: string
  readonly hidden: boolean
}

/** What is known of a sheet before its rows are read. */
export interface SheetFacts {
  readonly merges: readonly Merge[]
  readonly hiddenRows: number
  /** Positions from 0. */
  readonly hiddenColumns: readonly number[]
}

/** What was met while rows were read. */
export interface SheetFindings {
  formulasWithoutValue: number
  /** Addresses of the first of them, as a spreadsheet writes them. */
  formulaCells: string[]
  storedDigits: number
  firstStored: string
}

/** So many cells are named; more are counted. */
const MOST_NAMED = 12

export function noteFormula(findings: SheetFindings, address: string): void {
  findings.formulasWithoutValue++
  if (findings.formulaCells.length < MOST_NAMED) findings.formulaCells.push(address)
}

export const noFindings = (): SheetFindings => ({
  formulasWithoutValue: 0,
  formulaCells: [],
  storedDigits: 0,
  firstStored: '',
})

/** A file of one or several tables of cells that is no plain text. */
export interface Container {
  readonly format: Format
  readonly sheets: readonly SheetName[]
  readonly notes: readonly Note[]
  /** Names of columns that the container itself gives (keys, card properties); null where rows hold the headings. */
  readonly headings: readonly string[] | null
  facts(sheet: string): Promise<SheetFacts>
  /** Rows in order, some at a time. `limit` is a hint: no more are needed. */
  rows(sheet: string, findings: SheetFindings, limit?: number): AsyncGenerator<readonly SheetRow[]>
}

/** Marks a record that holds an item which could not be read (a card, a line of JSON). */
export const BROKEN_ITEM = '\u001a'
