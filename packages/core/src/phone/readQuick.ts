import { isFictionNumber, isLocalFiction, isPlaceholderRun } from './placeholders'
import { readDialled } from './readDialled'
import { type ScannedCell, scanCell } from './scanCell'
import type { NumberLabel, Reading, ReadNumber, Repair } from './types'

const LEAST = 7
const PLACEHOLDER: Reading = { verdict: 'placeholder', numbers: [], repairs: [], problem: null }

/**
 * Reads the cells most lists are made of: one number or two, in digits and punctuation, with a label, an extension
 * or the common damages of a spreadsheet.
 * @returns null for every cell that needs a closer look: the full reading decides, and comes to the same where both do
 */
export function readQuick(raw: string, country: string | null): Reading | null {
  const cell = scanCell(raw)
  if (cell === null || cell.digits.length < LEAST) return null
  if (isPlaceholderRun(cell.digits) || isLocalFiction(cell.digits, country))
    return cell.hasLookalikes || cell.slash !== -1 || cell.repairs.length > 0 ? null : PLACEHOLDER
  const one = readScanned(cell, country)
  if (one !== null) return one
  return cell.slash === -1 || cell.repairs.length > 0 ? null : readBoth(raw, cell.slash, country)
}

function readScanned(cell: ScannedCell, country: string | null): Reading | null {
  const { digits, hasPlus, label, extension } = cell
  const found = readDialled(digits, hasPlus, country)
  if (!found?.plan.valid) return null
  const { plan } = found
  if (isFictionNumber(plan.countryCode, plan.national) || isPlaceholderRun(plan.national)) return null
  const repairs = joined(cell.hasLookalikes ? LOOKALIKES : cell.repairs, found.repairs)
  return {
    verdict: repairs.length > 0 ? 'repaired' : 'clean',
    numbers: [numberOf(plan, extension, label)],
    repairs,
    problem: null,
  }
}

const LOOKALIKES: readonly Repair[] = ['letters-for-digits']

const joined = (before: readonly Repair[], found: readonly Repair[]): readonly Repair[] =>
  before.length === 0 ? found : found.length === 0 ? before : [...new Set([...before, ...found])]

const numberOf = (
  plan: { readonly e164: string; readonly country: string | null; readonly lineType: ReadNumber['lineType'] },
  extension: string | null,
  label: NumberLabel | null,
): ReadNumber => ({
  e164: plan.e164,
  country: plan.country,
  lineType: plan.lineType,
  extension,
  label,
  valid: true,
  possible: true,
})

/** Two numbers with a slash between them, where the whole is none. */
function readBoth(raw: string, slash: number, country: string | null): Reading | null {
  const first = readQuick(raw.slice(0, slash), country)
  const second = first && readQuick(raw.slice(slash + 1), country)
  const a = first?.numbers[0]
  const b = second?.numbers[0]
  if (!first || !second || !a || !b || first.numbers.length > 1 || second.numbers.length > 1) return null
  const isSame = a.e164 === b.e164 && a.extension === b.extension
  return {
    verdict: 'repaired',
    numbers: isSame ? [a] : [a, b],
    repairs: [...new Set<Repair>(['several-numbers', ...first.repairs, ...second.repairs])],
    problem: null,
  }
}
