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
export { CODES_OF, codesAtStake } from './codesOfSteps'
export { isCompany } from './companyInName'
export { mendCompanyCase, takeLegalForm } from './companyName'
export { type Compared, compareTidiers } from './compareTidiers'
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
export { type Difference, differenceOf, type ToldAlike } from './differenceOf'
export { mendEmail, proposeEmail, proposeReadable } from './emailForm'
export { EMAIL_KINDS, type EmailKind, type ReadEmail, readEmails } from './emails'
export { type HandCell, handOf, slipKey, slipOf } from './hand'
export {
  MORE_KEYS,
  type MoreField,
  type MoreValues,
  mergeMore,
  readAmount,
  readDeviceId,
  readGender,
} from './moreValues'
export { type Asides, takeAsides } from './nameAsides'
export { mendNameCase } from './nameCase'
export { inSpokenOrder, takeNameApart, withoutDecorations } from './nameParts'
export { joinName, type PersonName, splitName } from './names'
export { type PostalCode, tidyPostalCode } from './postalCode'
export {
  type CellReading,
  type ContactValues,
  type ProjectedContact,
  type ProjectOptions,
  projectRow,
} from './projectRow'
export { REFUSAL_KINDS, type Refusal, type RefusalKind, readRefusal } from './refusal'
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
export { twoPeople } from './twoPeople'
export { readDomain, readProfile } from './web'
