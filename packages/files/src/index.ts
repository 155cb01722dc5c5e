export {
  BROKEN_ITEM,
  type Container,
  noFindings,
  type SheetFacts,
  type SheetFindings,
  type SheetName,
} from './container'
export { type FileOpening, type FileWishes, findingNotes, type OpenedFile, openContainer, openFile } from './openFile'
export {
  judgeRecord,
  type NumberedRow,
  type ReadingRules,
  readFileRows,
  readText,
  transcode,
  unpackSheet,
} from './readRows'
export { FileRefusal } from './refusal'
export {
  canOnlyBeReadWhole,
  type FileSettings,
  isContainer,
  needsUnpacking,
  readingDialect,
  rowRules,
  settingsOfFile,
} from './settings'
export { type ByteSource, chunksOf, sourceOfBytes } from './source'
export type { StringStore } from './xlsx/strings'
