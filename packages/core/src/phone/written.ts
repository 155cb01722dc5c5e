export { writtenForOthers } from './engine/format'
