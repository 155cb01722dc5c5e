export { plainCharacters } from './characters'
export { callingCode, formatNumber, isPlanCountry } from './plan'
export { readPhoneCell } from './readPhoneCell'
export {
  LABELS,
  LINE_TYPES,
  type LineType,
  type NumberLabel,
  PROBLEMS,
  type Problem,
  type Reading,
  type ReadNumber,
  type ReadOptions,
  REPAIRS,
  type Repair,
  VERDICTS,
  type Verdict,
} from './types'
