export { type CellTruth, FAULTS, writeCell } from './faults'
export { type DemoFile, fairBadges, quotationRequests, type RowTruth } from './files'
