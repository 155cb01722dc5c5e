export {
  type Callable,
  type CalledBefore,
  callAgainAt,
  compareCallable,
  OUTCOMES,
  type Outcome,
  REST_HOURS,
} from './callSheet'
export {
  ALL_FIELDS,
  AMOUNT_FIELDS,
  type AnyField,
  type ColumnTerm,
  DATE_FIELDS,
  FILTER_FIELDS,
  type Filter,
  type FilterField,
  type FilterIssue,
  type FilterNode,
  PRESENCE_FIELDS,
  PRESENT,
  TEXT_FIELDS,
  type Term,
  type TextField,
  TRACE_FIELDS,
} from './filterTree'
export { FUNCTIONS, type JobFunction, type JobLevel, LEVELS, type ReadTitle, readTitle } from './jobTitles'
export { type LaneRule, laneIdFor, mistakesInRules, proposedRules, USES } from './laneRules'
export { type Columns, parseFilter, togglePile, writeFilter } from './parseFilter'
export {
  LANE_REASONS,
  LANES,
  type Lane,
  type LaneReason,
  lineToCall,
  lineToText,
  type PlacedLine,
  type Placement,
  type PlacementInput,
  placeContact,
} from './placeContact'
export { isClosed, joinScopes, SCOPES, type Scope, scopesOfKeys, type Use } from './scopes'
