export {
  describeLine,
  FRESH_DAYS,
  isDead,
  isUsableMobile,
  LINE_STATUSES,
  type Line,
  type LineStatus,
  needsCheck,
  type RegisterFacts,
  rankLines,
} from './lineFacts'
