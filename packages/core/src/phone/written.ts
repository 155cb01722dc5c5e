export { writtenAtHome, writtenForOthers } from './engine/format'
