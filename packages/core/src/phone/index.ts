export { plainCharacters } from './characters'
export { callingDigitsOf, countOfPlan, planCountries } from './engine/tables'
export { type Fix, lettersAsDigits, nearestFixes, onlyNumberIn } from './nearestFixes'
export { dialledFrom, type NumberFacts, numberFacts, type Textable, textable, timeZonesOf } from './numberFacts'
export { formatNumber, isValidE164 } from './plan'
export { readPhoneCell } from './readPhoneCell'
export {
  isUnsure,
  LABELS,
  LINE_TYPES,
  type LineType,
  type NumberLabel,
  PROBLEMS,
  type Problem,
  REPAIRS,
  type Reading,
  type ReadNumber,
  type ReadOptions,
  type Repair,
  VERDICTS,
  type Verdict,
} from './types'
