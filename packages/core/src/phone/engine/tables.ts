import { DIGITS, ZERO } from './digits'
import { PLAN, STATES } from './planData'

/** Words a state: ten next states and the outcome there. */
const WIDTH = 11

/** What the plan says where a number ends. */
export interface Outcome {
  /** Position in the calling code's regions; -1 where the number is not valid. */
  readonly region: number
  /** Position in `TYPE_ORDER`; -1 where the number is not valid. */
  readonly type: number
  /** Regions whose general pattern the number matches, whatever its length. */
  readonly general: readonly number[]
}

export interface Lengths {
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
  /** The same as plain digits, where that is all they are: most are. */
  readonly plainIdd: string | null
  readonly plainPrefix: string | null
  readonly transform: string | null
  readonly lengths: Lengths
}

/** One way of writing numbers: pattern, how its groups stand, what they start with, and the form at home. */
export type PlanFormat = readonly [pattern: string, form: string, leading: string, home: string]

export interface CallingCode {
  readonly code: number
  /** The code in digits, and with its plus sign. */
  readonly text: string
  readonly plus: string
  readonly start: number
  readonly regions: readonly string[]
  readonly main: Lengths
  /** What is dialled in front of a national number at home; often nothing. */
  readonly trunk: string
  readonly formats: readonly PlanFormat[]
  /** How its numbers are written for others, where that differs. */
  readonly formatsAbroad: readonly PlanFormat[]
}

/** By the code itself: none is above 999. */
const codes: readonly (CallingCode | undefined)[] = codeTable()

function codeTable(): (CallingCode | undefined)[] {
  const all: (CallingCode | undefined)[] = Array.from({ length: 1000 })
  for (const one of PLAN.codes as unknown as readonly Omit<CallingCode, 'text' | 'plus'>[])
    all[one.code] = { ...one, text: String(one.code), plus: `+${one.code}` }
  return all
}
const outcomes: readonly Outcome[] = PLAN.outcomes.map(([region, type, general]) => ({
  region: region as number,
  type: type as number,
  general: general as readonly number[],
}))
type RawRegion = (typeof PLAN.regions)['GB'] & {
  readonly transform: string | null
  readonly prefix: string | null
  readonly usualIdd: string | null
}
const raw = PLAN.regions as unknown as Readonly<Record<string, RawRegion>>
/** Digits, with a wait for a tone among them perhaps. */
const SINGLE_IDD = /^\d+(?:[~\u2053\u223C\uFF5E]\d+)?$/
const known = new Map<string, RegionRules | null>()
let states: Uint16Array | null = null

/** The automata, unpacked when the first number is read. */
function table(): Uint16Array {
  if (states) return states
  const text = atob(STATES)
  const words = new Uint16Array(text.length / 2)
  for (let i = 0; i < words.length; i++) words[i] = text.charCodeAt(i * 2) | (text.charCodeAt(i * 2 + 1) << 8)
  states = words
  return words
}

/** Digits that no number is made of. */
export const NOTHING = outcomes[0] as Outcome

export const callingCodeOf = (code: number): CallingCode | undefined => codes[code]

/** A list is mostly of one country: its rules need not be looked up. */
let lastRegion = ''
let lastRules: RegionRules | null = null

function keepLast(region: string, rules: RegionRules | null): RegionRules | null {
  lastRegion = region
  lastRules = rules
  return rules
}

/** Rules of a region; of a calling code without country by `001` and its code. Null where the plan has none. */
export function rulesOf(region: string, code?: number): RegionRules | null {
  if (region === lastRegion) return lastRules
  const key = region === '001' ? `001/${code}` : region
  const found = known.get(key)
  if (found !== undefined) return region === '001' ? found : keepLast(region, found)
  const data = Object.hasOwn(raw, key) ? raw[key] : undefined
  const rules = data
    ? {
        region,
        code: data.code,
        index: codes[data.code]?.regions.indexOf(region) ?? 0,
        idd: data.idd ? new RegExp(`^(?:${data.idd})`) : null,
        prefix: data.prefix ? new RegExp(`^(?:${data.prefix})`) : null,
        dialledIdd: data.usualIdd ?? (data.idd && SINGLE_IDD.test(data.idd) ? data.idd : null),
        plainIdd: data.idd && /^\d+$/.test(data.idd) ? data.idd : null,
        plainPrefix: data.prefix && data.transform === null && /^\d+$/.test(data.prefix) ? data.prefix : null,
        transform: data.transform,
        lengths: data.lengths,
      }
    : null
  known.set(key, rules)
  return rules
}

const mainRules: (RegionRules | null | undefined)[] = []

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
  const words = table()
  let state = start
  for (let i = from; i < to && state !== 0; i++) state = words[state * WIDTH + (DIGITS[i] as number) - ZERO] as number
  return outcomes[state === 0 ? 0 : (words[state * WIDTH + 10] as number)] as Outcome
}
