import { callingDigitsOf, countOfPlan, readPhoneCell } from '../phone'
import { type Ledger, SAMPLE, USUAL } from './countryLedger'
import { fieldOfHeading } from './headingWords'
import type { InferredColumn } from './inferCountry'

/** A number without a country code, and where the plan takes it as it stands. */
export interface NationalNumber {
  /** How likely it is in each country that takes it, in powers of ten. */
  readonly chances: ReadonlyMap<string, number>
  readonly validIn: ReadonlySet<string>
  /** Where it is valid after a repair: a leading zero that a spreadsheet took, a code without its plus. */
  readonly mendedIn: ReadonlySet<string>
}

/** Islands whose numbers lie within the plan of another country; whoever writes such a list means that one. */
const WITHIN: Readonly<Record<string, string>> = {
  GG: 'GB',
  JE: 'GB',
  IM: 'GB',
  AX: 'FI',
  SJ: 'NO',
  BL: 'GP',
  MF: 'GP',
}

const PHONE_SHAPE = /^(?:\D{0,12}[\s:])?[+(]?[\d\s()./\-–]{6,26}(?:\s?(?:x|ext\.?|#)\s?\d{1,5})?$/i
const CODED = /^\s*(?:\+|00(?=[1-9]))/

/** What numbers tell: those with a code, and where the plan takes the others as they stand. */
export function weighNumbers(ledger: Ledger, columns: readonly InferredColumn[]) {
  const cells = columns.filter(mayHoldNumbers).flatMap((column) => column.cells.slice(0, SAMPLE))
  const coded = cells
    .filter((cell) => CODED.test(cell))
    .flatMap((cell) => {
      const [number] = readPhoneCell(cell, { country: null }).numbers
      return number?.valid && number.country ? [WITHIN[number.country] ?? number.country] : []
    })
  const plain = cells.filter((cell) => !CODED.test(cell)).slice(0, SAMPLE)
  const national = plain.flatMap((cell) => readNational(cell, ledger.scores.keys()) ?? [])
  for (const country of ledger.scores.keys()) ledger.add(country, weightOfNumbers(national, country))
  for (const country of new Set(coded)) {
    const n = coded.filter((one) => one === country).length
    // Whoever writes codes may write to anywhere: a hint, and a weighty one where all are alike.
    ledger.add(country, Math.min(4, (2.5 * n) / coded.length + Math.min(1.5, n / 6)))
    ledger.say(country, 'codes', `${n} of ${coded.length} numbers with a code are of there`)
  }
  sayValid(ledger, national)
  return { national, coded }
}

/** A column whose cells can be numbers: by its heading, or by most of its cells. */
function mayHoldNumbers({ heading, cells }: InferredColumn): boolean {
  const named = fieldOfHeading(heading)?.field
  if (cells.length === 0 || (named !== undefined && named !== 'number' && named !== 'none')) return false
  const shaped = cells.filter((cell) => {
    const digits = cell.replace(/\D/g, '').length
    return PHONE_SHAPE.test(cell.trim()) && digits >= 7 && digits <= 15
  }).length
  if (named === 'number') return shaped > 0
  return named === undefined && shaped / cells.length > 0.6 && !isOtherDigits(cells)
}

/** Digits that are something else: dates, and counters or keys that rise by one. */
function isOtherDigits(cells: readonly string[]): boolean {
  const dates = cells.filter((cell) => /^\d{1,4}[./-]\d{1,2}[./-]\d{1,4}/.test(cell.trim())).length
  if (dates / cells.length > 0.5) return true
  const numbers = cells.map((cell) => Number(cell.trim()))
  return cells.length > 2 && numbers.every((n, i) => i === 0 || n - (numbers[i - 1] ?? 0) === 1)
}

/** How likely a number that no plan takes is, as one of a list of that country: a slip, or one from abroad. */
const INVALID = -13
/** Lengths of numbers that a plan gives out side by side. */
const LENGTHS_IN_USE = [7, 8, 9, 10, 11]

/**
 * A number tells of a country by how few there are like it: where the plan takes it, one of so many; where it takes
 * none such, hardly possible. What is read only after a repair counts less. Null where no plan takes it.
 */
function readNational(cell: string, countries: Iterable<string>): NationalNumber | null {
  const chances = new Map<string, number>()
  const validIn = new Set<string>()
  const mendedIn = new Set<string>()
  for (const country of countries) {
    const reading = readPhoneCell(cell, { country })
    const [number] = reading.numbers
    if (!number?.valid || !number.country || (number.country !== country && WITHIN[number.country] !== country))
      continue
    const isHurt = reading.repairs.some((repair) => repair !== 'label-taken-off' && repair !== 'several-numbers')
    chances.set(country, Math.max(INVALID, chanceOf(country, number.e164) - (isHurt ? 1.5 : 0)))
    const takes = isHurt ? mendedIn : validIn
    takes.add(country)
  }
  return chances.size === 0 ? null : { chances, validIn, mendedIn }
}

/** Numbers of one list are alike: how few there are like them is told by so many, and more tell nothing new. */
const MOST_TELLING = 8
/** One cell may be wrong: it does not settle alone what many say. */
const OF_ONE_CELL = 0.8

/** What all numbers say of a country: how likely those are that its plan takes, and that it does not take the others. */
function weightOfNumbers(national: readonly NationalNumber[], country: string): number {
  const chances = national.flatMap(({ chances }) => chances.get(country) ?? [])
  const mean = chances.length > 0 ? chances.reduce((sum, one) => sum + one, 0) / chances.length : INVALID
  const others = national.length - chances.length
  return OF_ONE_CELL * (mean * Math.min(national.length, MOST_TELLING) + others * (INVALID - mean))
}

/** The chance of one number among all its plan gives out, in powers of ten. */
function chanceOf(country: string, e164: string): number {
  const national = e164.length - 1 - callingDigitsOf(country).length
  const lengths = LENGTHS_IN_USE.filter((length) => countOfPlan(country, length) > 1e5).length
  return -Math.log10(Math.max(1, countOfPlan(country, national)) * Math.max(1, lengths))
}

function sayValid(ledger: Ledger, national: readonly NationalNumber[]): void {
  if (national.length === 0) return
  for (const country of ledger.scores.keys()) {
    const n = national.filter(({ validIn }) => validIn.has(country)).length
    if (n === 0) continue
    const elsewhere = [...ledger.scores.keys()].some(
      (other) =>
        other !== country && USUAL.has(other) && national.filter(({ validIn }) => validIn.has(other)).length >= n,
    )
    ledger.say(
      country,
      'numbers',
      `${n} of ${national.length} numbers are valid there${elsewhere ? '' : ' and nowhere else so well'}`,
    )
  }
}
