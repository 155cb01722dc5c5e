import { describeLine, isDead, type Line, type RegisterFacts, rankLines } from '@upper-field/core/check'
import { type LineType, timeZonesOf } from '@upper-field/core/phone'
import { isClosed, lineToCall, lineToText, type Placement, placeContact, type Scope } from '@upper-field/core/split'

/** A number by which somebody may be reached. */
export interface ReachNumber {
  readonly e164: string
  /** ISO 3166-1 alpha-2; empty or null where it is not known. */
  readonly country: string | null
  readonly lineType: LineType
  readonly valid: boolean
}

/** What decides where a contact belongs. */
export interface Reach {
  readonly numbers: readonly ReachNumber[]
  readonly hasEmail: boolean
  /** What suppression lists keep it out of. */
  readonly suppressedFor: readonly Scope[]
  readonly factsOf: (e164: string) => RegisterFacts | undefined
  /** True for numbers that other contacts of the list hold too. */
  readonly isShared: (e164: string) => boolean
}

type SharedLine = Line & { readonly isShared: boolean; readonly isDead: boolean }

/** Where a contact belongs, and by what. */
export interface Placed {
  /** The best one first. */
  readonly lines: readonly SharedLine[]
  readonly best: SharedLine | null
  readonly placement: Placement
  /** What suppression lists forbid: by it the contact is not reached. */
  readonly suppressedFor: readonly Scope[]
  /** Whether it has a line to text, and one to call, whatever suppression lists say. */
  readonly canText: boolean
  readonly canCall: boolean
  /** Country and time zones of the line to call, as `US America/Chicago|America/Denver`; empty where none may be called. */
  readonly callFrom: string
}

/** Line facts → lane. Pure: the same reach gives the same place. */
export function placementOf({ numbers, hasEmail, suppressedFor, factsOf, isShared }: Reach): Placed {
  const known = rankLines(numbers.map((number) => describeLine(number, factsOf(number.e164))))
  const lines = known.map((line) => sharedLine(line, isShared(line.e164)))
  const toCall = lineToCall(lines)
  return {
    lines,
    best: lines[0] ?? null,
    placement: placeContact({ lines, hasEmail, suppressedFor }),
    suppressedFor,
    canText: lineToText(lines) !== null,
    canCall: toCall !== null,
    callFrom: isClosed(suppressedFor, 'calls') ? '' : callFromOf(toCall?.e164, numbers),
  }
}

// Written out: these run for every row, and a spread takes V8 many times as long.
const sharedLine = (line: Line, isShared: boolean): SharedLine => ({
  e164: line.e164,
  valid: line.valid,
  lineType: line.lineType,
  status: line.status,
  knownFrom: line.knownFrom,
  isShared,
  isDead: isDead(line),
})

function callFromOf(e164: string | undefined, numbers: readonly ReachNumber[]): string {
  if (e164 === undefined) return ''
  const country = numbers.find((number) => number.e164 === e164)?.country ?? ''
  return `${country} ${timeZonesOf(e164).join('|')}`
}
