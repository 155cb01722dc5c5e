export { areNamesCompatible } from './compatibleNames'
export { type ExactJoin, joinExact, type KeyHolder, type SharedKey } from './joinExact'
export { type Mergeable, mergeContacts } from './mergeContacts'
