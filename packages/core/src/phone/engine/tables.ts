import { countOutcomes, LONGEST_COUNTED, outcomeAfter } from './automata'
import { type NumberForms, numberFormsOf } from './format'
import { PLAN } from './planData'

/** What the plan says where a number ends. */
export interface Outcome {
  /** Position in the calling code's regions; -1 where the number is not valid. */
  readonly region: number
  /** Position in `TYPE_ORDER`; -1 where the number is not valid. */
  readonly type: number
  /** Regions whose general pattern the number matches, whatever its length: a bit for each. No code has more than 31. */
  readonly general: number
}

/** Numbers of digits: a bit for each length, none above `LONGEST_LENGTH`. */
export interface Lengths {
  readonly possible: number
  readonly local: number
  /** The least and the most that is possible; -1 where nothing is. */
  readonly least: number
  readonly most: number
}

export const LONGEST_LENGTH = 30

interface RawLengths {
  readonly possible: readonly number[]
  readonly local: readonly number[]
}

/** A region's rules for taking prefixes off. Patterns are made once, when the region is first met. */
export interface RegionRules {
  readonly region: string
  readonly code: number
  /** Position among the regions of its calling code. */
  readonly index: number
  readonly idd: RegExp | null
  readonly prefix: RegExp | null
  /** What is dialled for abroad, where that is one thing. */
  readonly dialledIdd: string | null
  /** The same as plain digits, one or the other, where that is all they are: most are. */
  readonly plainIdds: readonly string[] | null
  readonly plainPrefixes: readonly string[] | null
  readonly transform: string | null
  readonly lengths: Lengths
}

export interface CallingCode extends NumberForms {
  readonly start: number
  readonly regions: readonly string[]
  readonly main: Lengths
}

/** By the code itself: none is above 999. */
const codes: readonly (CallingCode | undefined)[] = codeTable()

function codeTable(): (CallingCode | undefined)[] {
  const all: (CallingCode | undefined)[] = Array.from({ length: 1000 })
  for (const one of PLAN.codes as unknown as readonly RawCode[])
    all[one.code] = { ...one, ...numberFormsOf(one.code), main: lengthsOf(one.main) }
  return all
}

function lengthsOf({ possible, local }: RawLengths): Lengths {
  return { possible: bitsOf(possible), local: bitsOf(local), least: possible[0] ?? 0, most: possible.at(-1) ?? 0 }
}

/** A bit for each number. */
function bitsOf(numbers: readonly number[]): number {
  return numbers.reduce((bits, one) => (one < 0 ? bits : bits | (1 << one)), 0)
}

const outcomes: readonly Outcome[] = PLAN.outcomes.map(([region, type, general]) => ({
  region: region as number,
  type: type as number,
  general: bitsOf(general as readonly number[]),
}))
type RawCode = Omit<CallingCode, 'main' | keyof Omit<NumberForms, 'code'>> & { readonly main: RawLengths }
type RawRegion = (typeof PLAN.regions)['GB'] & {
  readonly transform: string | null
  readonly prefix: string | null
  readonly usualIdd: string | null
}
const raw = PLAN.regions as unknown as Readonly<Record<string, RawRegion>>
/** Digits, with a wait for a tone among them perhaps. */
const SINGLE_IDD = /^\d+(?:[~\u2053\u223C\uFF5E]\d+)?$/
const known = new Map<string, RegionRules | null>()
/** Digits that no number is made of. */
export const NOTHING = outcomes[0] as Outcome

export const callingCodeOf = (code: number): CallingCode | undefined => codes[code]

/** Rules of a region; of a calling code without country by `001` and its code. Null where the plan has none. */
export function rulesOf(region: string, code?: number): RegionRules | null {
  const key = region === '001' ? `001/${code}` : region
  const found = known.get(key)
  if (found !== undefined) return found
  const data = Object.hasOwn(raw, key) ? raw[key] : undefined
  const rules = data
    ? {
        region,
        code: data.code,
        index: codes[data.code]?.regions.indexOf(region) ?? 0,
        idd: data.idd ? new RegExp(`^(?:${data.idd})`) : null,
        prefix: data.prefix ? new RegExp(`^(?:${data.prefix})`) : null,
        dialledIdd: data.usualIdd ?? (data.idd && SINGLE_IDD.test(data.idd) ? data.idd : null),
        plainIdds: alternativesOf(data.idd),
        plainPrefixes: data.transform === null ? alternativesOf(data.prefix) : null,
        transform: data.transform,
        lengths: lengthsOf(data.lengths),
      }
    : null
  known.set(key, rules)
  return rules
}

/** What a pattern matches, in its order, where it is nothing but digits and a choice between them. */
const alternativesOf = (pattern: string | null): readonly string[] | null =>
  pattern !== null && /^\d+(?:\|\d+)*$/.test(pattern) ? pattern.split('|') : null

/** Every country of the plan, by ISO 3166-1 alpha-2. */
export const planCountries = (): readonly string[] => Object.keys(raw).filter((key) => /^[A-Z]{2}$/.test(key))

/** The calling code of a country in digits; empty where the plan does not know it. */
export const callingDigitsOf = (country: string): string => String(rulesOf(country)?.code ?? '')

const counts = new Map<number, Float64Array>()

/**
 * How many numbers of so many national digits the plan of a country calls valid; zero where it has none. Counted over
 * the automaton, once for each calling code.
 */
export function countOfPlan(country: string, digits: number): number {
  const rules = rulesOf(country)
  const code = rules ? codes[rules.code] : undefined
  if (!rules || !code || digits > LONGEST_COUNTED) return 0
  const groups = code.regions.length
  const counted = counts.get(code.code) ?? countOutcomes(code.start, (at) => (outcomes[at] as Outcome).region, groups)
  counts.set(code.code, counted)
  return counted[digits * groups + rules.index] ?? 0
}

const mainRules: (RegionRules | null | undefined)[] = Array.from({ length: 1000 })

/** Rules of the main region of a calling code. */
export function mainRulesOf({ code, regions }: CallingCode): RegionRules | null {
  const kept = mainRules[code]
  if (kept !== undefined) return kept
  const rules = rulesOf(regions[0] ?? '001', code)
  mainRules[code] = rules
  return rules
}

/** Runs national digits through the automaton of their calling code. */
export function outcomeOf({ start }: CallingCode, from: number, to: number): Outcome {
  return outcomes[outcomeAfter(start, from, to)] as Outcome
}
