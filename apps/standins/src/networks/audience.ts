/** An account of the operator's at a network. */
export interface Account {
  readonly id: string
  readonly name: string
  /** What it lacks, in codes: with `exclude-only` it may exclude people but not aim at them. */
  readonly lacks: readonly string[]
}

export type Purpose = 'aim' | 'exclude' | 'seed'
export type Change = 'add' | 'remove'
/** A line of an audience: what the network compares, and the line itself. */
export interface Line {
  readonly key: string
  readonly identifiers: readonly string[]
}

/** What distinguishes one network from another. */
export interface NetworkRules {
  readonly accounts: readonly Account[]
  /** Sizes are rounded to this, and told from `toldFrom` on. */
  readonly roundedTo: number
  readonly toldFrom: number
  readonly fewestMatched: number
  readonly fewestLines: number
  /** How long matching takes, in minutes, and for each thousand lines. */
  readonly minutes: { readonly least: number; readonly perThousand: number }
  readonly mostLinesOfPart: number
  /** Longest membership in days; null where it does not lapse. */
  readonly mostDays: number | null
  readonly isReplacedWhole: boolean
}

export interface NewAudience {
  readonly account: string
  readonly name: string
  readonly takes: 'people' | 'companies'
  readonly purpose: Purpose
  /** An audience of companies that its people are looked for in. */
  readonly within: string | null
  readonly keepsDays: number | null
}

export type State = 'received' | 'matching' | 'usable' | 'refused' | 'lapsed'
export interface AudienceState {
  readonly state: State
  readonly reason: string | null
  /** Accounts matched, rounded; null below the size from which it is told. */
  readonly size: number | null
  readonly lapsesAt: Date | null
}

/** A refusal with its code. */
export class Refused extends Error {
  constructor(readonly code: string) {
    super(code)
  }
}
