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
  type Placement,
  type PlacementInput,
  placeContact,
} from './placeContact'
