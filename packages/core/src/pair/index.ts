export { PAIR_KEYS, type PairKey } from './blocks'
export { areNamesCompatible } from './compatibleNames'
export { PAIR_FIELDS, PAIR_LEVELS, type PairField } from './fields'
export { type Forgetting, findForgotten, type Holder } from './forgetting'
export {
  type ExactJoin,
  type ExactJoiner,
  exactJoiner,
  type KeptApart,
  type KeyHolder,
  type SharedKey,
} from './joinExact'
export { type Mergeable, mergeContacts, partSources } from './mergeContacts'
export {
  createPairing,
  DEFAULT_THRESHOLDS,
  type Paired,
  type PairOptions,
  pairContacts,
  type Thresholds,
} from './pairContacts'
export type { PairFound } from './pairFound'
export { type Pairable, pairInputOf } from './pairInput'
export type { PairInput } from './pairTable'
export type { Evidence } from './score'
export type { Bin } from './scores'
export { kindOfSharedLine, type LineHolder, SHARED_LINE_KINDS, type SharedLineKind } from './sharedLine'
export {
  SUPPRESSION_KEYS,
  SUPPRESSION_KINDS,
  type SuppressionKey,
  type SuppressionKind,
  type SuppressionRow,
  suppressibleKeys,
  suppressibleKeysOf,
  suppressionKey,
  suppressionRowKeys,
} from './suppression'
export { type ColumnUse, suppressionRow, useOfColumn } from './suppressionFile'
export {
  AS_THEY_COME,
  DEFAULT_SURVIVORSHIP,
  type HowToSurvive,
  SURVIVOR_PARTS,
  SURVIVORSHIP_RULES,
  type SurvivorPart,
  type Survivorship,
  type SurvivorshipRule,
  sourceOf,
} from './survivorship'
export { areWrittenAlike, type Writing } from './writtenAs'
