import type { TidyState } from '@upper-field/contract'
import { proposeRoutine } from '@upper-field/core/tidy'

/** Where the tidying of a small list stands, made up. */
export const TIDY: TidyState = {
  routine: proposeRoutine(),
  name: null,
  isProposed: true,
  columns: [],
  contacts: 2,
  counts: { 'lost-zero': 2 },
  problems: [],
  leftOut: [],
  acts: [],
  hasOlderActs: false,
}
