export { type CellTruth, FAULTS, writeCell } from './faults'
export {
  campsitePages,
  customers,
  directory,
  fairBadges,
  fairWorkbook,
  optOuts,
  profileExport,
  quotationRequests,
  scenarioFiles,
} from './files'
export type { DemoFile, RowTruth } from './table'
