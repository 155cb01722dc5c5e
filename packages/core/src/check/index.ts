export { ADDRESS_STATES, type AddressState, DELIVERABILITIES, type Deliverability, rankAddresses } from './addressFacts'
export {
  CALL_STATES,
  type CallHours,
  type CallPlace,
  type CallState,
  DEFAULT_CALL_HOURS,
  type LocalTime,
  localTime,
  mayBeCalled,
} from './callHours'
export {
  type AddressFacts,
  AGES_AS,
  type AgesAs,
  addressAgesAs,
  DEFAULT_FRESH_DAYS,
  type FreshDays,
  isFresh,
  lineAgesAs,
  needsVerifying,
} from './freshness'
export {
  describeLine,
  isDead,
  isUsableMobile,
  LINE_STATUSES,
  type Line,
  type LineStatus,
  needsCheck,
  type RegisterFacts,
  rankLines,
} from './lineFacts'
export { SURENESS, type Sureness, surenessOf } from './sureness'
