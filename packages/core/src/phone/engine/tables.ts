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
  readonly codeText: string
  /** Position among the regions of its calling code. */
  readonly index: number
  readonly idd: RegExp | null
  readonly prefix: RegExp | null
  /** The same as plain digits, where that is all they are: most are. */
  readonly plainIdd: string | null
  readonly plainPrefix: string | null
  readonly transform: string | null
  readonly lengths: Lengths
}

export interface CallingCode {
  readonly code: number
  readonly start: number
  readonly regions: readonly string[]
  readonly main: Lengths
  /** How its numbers are written at home; empty where no zero is ever dialled in front. */
  readonly formats: readonly (readonly [pattern: string, leading: string, hasZero: number])[]
}

const codes: ReadonlyMap<number, CallingCode> = new Map(
  (PLAN.codes as unknown as readonly CallingCode[]).map((one) => [one.code, one]),
)
const outcomes: readonly Outcome[] = PLAN.outcomes.map(([region, type, general]) => ({
  region: region as number,
  type: type as number,
  general: general as readonly number[],
}))
type RawRegion = (typeof PLAN.regions)['GB'] & { readonly transform: string | null; readonly prefix: string | null }
const raw = PLAN.regions as unknown as Readonly<Record<string, RawRegion>>
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

export const callingCodeOf = (code: number): CallingCode | undefined => codes.get(code)

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
        codeText: String(data.code),
        index: codes.get(data.code)?.regions.indexOf(region) ?? 0,
        idd: data.idd ? new RegExp(`^(?:${data.idd})`) : null,
        prefix: data.prefix ? new RegExp(`^(?:${data.prefix})`) : null,
        plainIdd: data.idd && /^\d+$/.test(data.idd) ? data.idd : null,
        plainPrefix: data.prefix && data.transform === null && /^\d+$/.test(data.prefix) ? data.prefix : null,
        transform: data.transform,
        lengths: data.lengths,
      }
    : null
  known.set(key, rules)
  return rules
}

/** Runs a national number through the automaton of its calling code. Digits only. */
export function outcomeOf({ start }: CallingCode, digits: string): Outcome {
  const words = table()
  let state = start
  for (let i = 0; i < digits.length && state !== 0; i++) state = words[state * WIDTH + digits.charCodeAt(i) - 48] ?? 0
  return outcomes[state === 0 ? 0 : (words[state * WIDTH + 10] ?? 0)] as Outcome
}

interface HomeFormat {
  readonly pattern: RegExp
  readonly leading: RegExp | null
  readonly hasZero: boolean
}

const formats = new Map<number, readonly HomeFormat[]>()

/** True where the country of this calling code writes the number with a zero dialled in front. */
export function isWrittenWithZero(code: CallingCode, national: string): boolean {
  if (code.formats.length === 0 || national.startsWith('0')) return false
  let found = formats.get(code.code)
  if (!found) {
    found = code.formats.map(([pattern, leading, hasZero]) => ({
      pattern: new RegExp(`^(?:${pattern})$`),
      leading: leading === '' ? null : new RegExp(`^(?:${leading})`),
      hasZero: hasZero === 1,
    }))
    formats.set(code.code, found)
  }
  const chosen = found.find(({ leading, pattern }) => (leading?.test(national) ?? true) && pattern.test(national))
  return chosen?.hasZero ?? false
}
