export { areNamesCompatible } from './compatibleNames'
export { type ExactJoin, type ExactJoiner, exactJoiner, type KeyHolder, type SharedKey } from './joinExact'
export { type Mergeable, mergeContacts } from './mergeContacts'
