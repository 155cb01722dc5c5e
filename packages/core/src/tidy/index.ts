export { readCountry } from '../table'
export {
  ADDED_BY,
  CHANGE_CODES,
  type Change,
  type ChangeCode,
  EDIT,
  TIDY_CODES,
  type TidyCode,
} from './changes'
export { mendCompanyCase, takeLegalForm } from './companyName'
export {
  columnNames,
  compileRoutine,
  fieldOf,
  type Layout,
  type RoutineOptions,
  type Settled,
  type Tidier,
} from './compileRoutine'
export { readDate } from './dates'
export { mendEmail, proposeEmail } from './emailForm'
export { EMAIL_KINDS, type EmailKind, type ReadEmail, readEmails } from './emails'
export { type HandCell, handOf } from './hand'
export { inSpokenOrder, mendNameCase, takeNameApart, withoutDecorations } from './nameParts'
export { joinName, type PersonName, splitName } from './names'
export { type PostalCode, tidyPostalCode } from './postalCode'
export {
  type CellReading,
  type ContactValues,
  type ProjectedContact,
  type ProjectOptions,
  projectRow,
} from './projectRow'
export { readRegion } from './region'
export {
  BLANK_WORDS,
  DATE_ORDERS,
  isRepeatableStep,
  newStep,
  proposeRoutine,
  ROUTINE_VERSION,
  type Routine,
  STEP_KINDS,
  type Step,
  type StepKind,
  type StepOptions,
} from './routine'
export type { StepProblem } from './steps'
export { readDomain, readProfile } from './web'
