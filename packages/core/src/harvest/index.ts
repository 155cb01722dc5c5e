export type { Business } from './business'
export { type Finding, FOUND_HOW, type FoundHow } from './findNumbers'
export { type Harvest, type HarvestOptions, harvest, TAKEN_FROM } from './harvest'
export { type Block, type Page, readPage } from './page'
