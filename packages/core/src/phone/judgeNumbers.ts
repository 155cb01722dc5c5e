import type { OneNumber } from './readOneNumber'
import type { Problem, Reading, ReadNumber, Repair } from './types'

/** What is known of a cell beside its numbers. */
export interface Beside {
  /** What was mended before the numbers were read. */
  readonly repairs: readonly Repair[]
  readonly remark: string | null
  /** Its digits are one number or several, and neither is likelier. */
  readonly isUnsure: boolean
}

/** The reading of a cell without a number. */
export const unreadable = (problem: Problem): Reading => ({
  verdict: 'unreadable',
  numbers: [],
  repairs: [],
  problem,
})

/** Texts in a row; null where there is none. */
export const joined = (texts: readonly (string | null)[]): string | null => texts.filter((one) => one).join(' ') || null

/** The reading of a cell from what each of its numbers is. */
export function judgeNumbers(read: readonly OneNumber[], beside: Beside): Reading {
  const reading = judge(read, beside)
  return beside.remark === null ? reading : { ...reading, remark: beside.remark }
}

function judge(read: readonly OneNumber[], { repairs: before, isUnsure }: Beside): Reading {
  const numbers = distinctNumbers(read)
  const problem = isUnsure ? 'two-readings' : (read.map(problemOf).find((found) => found !== null) ?? null)
  if (numbers.length === 0) {
    return read.some((one) => one.status === 'placeholder')
      ? { verdict: 'placeholder', numbers, repairs: [], problem: null }
      : unreadable(problem ?? 'no-digits')
  }
  const repairs = [...new Set([...before, ...read.flatMap((one) => (one.status === 'read' ? one.repairs : []))])]
  if (problem !== null) return { verdict: 'doubtful', numbers, repairs, problem }
  return { verdict: repairs.length > 0 ? 'repaired' : 'clean', numbers, repairs, problem: null }
}

const problemOf = (one: OneNumber): Problem | null => (one.status === 'placeholder' ? null : one.problem)

function distinctNumbers(read: readonly OneNumber[]): readonly ReadNumber[] {
  const numbers = new Map<string, ReadNumber>()
  for (const one of read) {
    if (one.status !== 'read') continue
    for (const number of one.rival ? [one.number, one.rival] : [one.number]) {
      const key = `${number.e164};${number.extension ?? ''}`
      if (!numbers.has(key)) numbers.set(key, number)
    }
  }
  return [...numbers.values()]
}
