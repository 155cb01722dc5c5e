export { CELL_KINDS, type CellKind } from './cellKinds'
export { splitCells } from './cells'
export type { ColumnFacts } from './columnFacts'
export { columnKey } from './columnKey'
export { readCountry } from './countries'
export { DAMAGES, type Damage } from './damage'
export { DELIMITERS, type Dialect } from './dialect'
export {
  decoderOf,
  decodeText,
  ENCODINGS,
  type Encoding,
  type EncodingJudgement,
  judgeEncoding,
  keepsAsciiInPlace,
} from './encodings'
export { assignField, canBeReached, FIELDS, type Field, isRepeatable, type Mapping } from './fields'
export { FILE_PROBLEM_TEXT } from './fileProblems'
export type { TableShape, WantedHeadings } from './findTable'
export { fold } from './fold'
export { type GridRow, isBlankCell, isBlankRow, MERGED, type Merge, type Merged, type SheetRow } from './grid'
export { fieldOfHeading } from './headingWords'
export { type CountryInference, inferCountry } from './inferCountry'
export { AS_THEY_STAND, HELD_REASONS, type HeldReason, type JudgedRow, judgeRow, type RowRules } from './judgeRow'
export { layoutKey } from './layoutKey'
export { mendNotes, NOTE_CODES, type Note, type NoteCode, notes } from './notes'
export {
  columnName,
  isLeftOut,
  MOST_COLUMNS,
  type OpenedHead,
  type OpenedTable,
  openTable,
  type TableHead,
  type TableWishes,
} from './openTable'
export { delimiterName, ENCODING_NAMES, type OpenedText, openText } from './openText'
export { TELLING_POSTAL } from './placeEvidence'
export { isPostalCodeOf } from './postalShapes'
export { servesEverybody } from './publicHosts'
export { FILE_PROBLEMS, type FileProblem, FORMATS, type Format, type Recognised, recognise } from './recognise'
export { cellsOfRow, ROW_MENDS, type RowLayout, type RowMend } from './rowCells'
export { LONGEST_CELL, type ScannedRecord, scanRecords } from './scanRecords'
export { type FieldSuggestion, SUGGESTION_REASONS, type SuggestionReason } from './suggestFields'
export { type TableArea, tablesIn } from './tablesIn'
export { DEFAULT_ROW_WISHES, type RowWishes, rowTaker } from './takeRows'
export { TOWNS_OF } from './towns'
export { countryOfEnding } from './wordEvidence'
export { csvCell, csvLine, harmlessCell, writeRecord } from './writing'
