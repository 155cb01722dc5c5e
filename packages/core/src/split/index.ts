export {
  FILTER_FIELDS,
  type Filter,
  type FilterField,
  type FilterIssue,
  parseFilter,
  togglePile,
  writeFilter,
} from './parseFilter'
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
