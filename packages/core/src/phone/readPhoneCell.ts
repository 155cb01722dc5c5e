import { percentDecoded } from '../percent'
import { plainCharacters } from './characters'
import type { RegionRules } from './engine/tables'
import { homeOf } from './plan'
import { joinRepairs } from './readDialled'
import { type OneNumber, readOneNumber } from './readOneNumber'
import { readQuick } from './readQuick'
import { mendSpreadsheetDamage } from './spreadsheetDamage'
import type { Problem, Reading, ReadNumber, ReadOptions, Repair } from './types'
import { isEmptyCell } from './words'

const LONGEST_CELL = 500

const EMPTY: Reading = { verdict: 'empty', numbers: [], repairs: [], problem: null }

/**
 * Reads one phone cell: every number in it, in order, with what had to be mended on the way.
 * The judgement of validity, country and line type is the reference's (npm `google-libphonenumber`).
 * @param raw the cell as it stood
 * @param options.country ISO 3166-1 alpha-2 of the row, else of the batch
 * @returns a reading; it never throws, and never invents a digit
 */
export function readPhoneCell(raw: string, { country = null }: ReadOptions = {}): Reading {
  const home = homeOf(country)
  return readQuick(raw, home) ?? readFully(raw, home)
}

/** The reading of any cell, step by step. */
export function readFully(raw: string, home: RegionRules | null): Reading {
  if (raw.length > LONGEST_CELL) return unreadable('cell-too-long')
  const text = plainCharacters(raw).trim()
  if (text === '' || isEmptyCell(text)) return EMPTY
  const decoded = percentDecoded(text)
  if (decoded !== null) return asRepaired(readFully(decoded, home), ['percent-encoding'])
  const damage = mendSpreadsheetDamage(text)
  if (damage.status === 'digits-lost') return unreadable('digits-lost')
  if (damage.repairs.length > 0) {
    // What a spreadsheet hurt is plain digits once it is mended.
    const mended = readQuick(damage.text, home)
    if (mended) return asRepaired(mended, damage.repairs)
  }
  const region = home?.region ?? null
  const parts = splitNumbers(damage.text, region)
  const read = parts.map((part) => readOneNumber(part, region))
  const splitRepairs: readonly Repair[] = parts.length > 1 ? ['several-numbers'] : []
  return judge(read, [...damage.repairs, ...splitRepairs])
}

/** What was read only after something was mended before. */
function asRepaired(reading: Reading, before: readonly Repair[]): Reading {
  if (reading.numbers.length === 0) return reading
  const verdict = reading.verdict === 'clean' ? 'repaired' : reading.verdict
  return { ...reading, verdict, repairs: joinRepairs(before, reading.repairs) }
}

const unreadable = (problem: Problem): Reading => ({ verdict: 'unreadable', numbers: [], repairs: [], problem })

function judge(read: readonly OneNumber[], before: readonly Repair[]): Reading {
  const numbers = distinctNumbers(read)
  const problem = read.map(problemOf).find((found) => found !== null) ?? null
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

const CERTAIN_SPLIT =
  /\s*(?:[\r\n\t]+|;(?!\s*(?:ext|phone-context|isub)=)|\|(?=.*\d)|\s(?:or|oder|ou|and|und|et|o|u\.?|y|e|bzw\.?|&)\s|\s&\s)\s*/i
/** Nothing else can stand between two numbers. */
const MAY_SPLIT = /[\s;|/,&]/
const LIKELY_SPLIT = /\s*(?:\/|,(?!\s*(?:ext|x\d|dw))|\s{2,}|\s-\s)\s*/i

/**
 * The numbers of a cell, in order. A slash or a comma also stands inside single numbers (`0664/555 01 82`),
 * so these split only what is no valid number as a whole.
 */
function splitNumbers(text: string, country: string | null): readonly string[] {
  if (!MAY_SPLIT.test(text)) return [text]
  const certain = text.split(CERTAIN_SPLIT).filter(holdsSomething)
  const parts = certain.length > 1 && certain.every((part) => countDigits(part) >= 5) ? certain : [text]
  return parts.flatMap((part) => splitLikely(part, country))
}

function splitLikely(text: string, country: string | null): readonly string[] {
  const parts = text.split(LIKELY_SPLIT).filter(holdsSomething)
  if (parts.length < 2 || parts.some((part) => countDigits(part) < 6)) return [text]
  if (isValid(readOneNumber(text, country))) return [text]
  return parts.some((part) => isValid(readOneNumber(part, country))) ? parts : [text]
}

const isValid = (one: OneNumber): boolean => one.status === 'placeholder' || (one.status === 'read' && one.number.valid)
const holdsSomething = (part: string): boolean => /\S/.test(part)
const countDigits = (part: string): number => part.replace(/\D/g, '').length
