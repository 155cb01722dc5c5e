import type { Call, CallLimit, KeyPlace } from '../callTemplates'

/** What a service gives. */
export const GIVES = [
  'mobile',
  'any-number',
  'work-email',
  'personal-email',
  'company-site',
  'company-page',
  'company-industry',
  'company-headcount',
  'line-facts',
  'email-facts',
  'do-not-call',
  'businesses',
] as const
export type Gives = (typeof GIVES)[number]

/** What a service must be told: one of these sets. */
export const INPUT_SETS = [
  'profile',
  'name-and-company',
  'name-and-domain',
  'email',
  'number',
  'trade-and-place',
] as const
export type InputSet = (typeof INPUT_SETS)[number]

/** What one item of an answer may tell. */
export const ANSWER_FIELDS = [
  'number',
  'email',
  'score',
  'name',
  'lineType',
  'status',
  'carrier',
  'ported',
  'timeZone',
  'lastSeen',
  'deliverability',
  'learntAt',
  'listed',
  'register',
  'site',
  'page',
  'industry',
  'headcount',
  'record',
  'trade',
  'address',
  'city',
  'postalCode',
  'country',
  'closed',
  'headOffice',
] as const
export type AnswerField = (typeof ANSWER_FIELDS)[number]

export const CHARGED_PER = ['call', 'candidate', 'accepted', 'answered', 'deliverable'] as const

/** How an answer comes. */
export type Answers =
  | { readonly how: 'at-once' }
  /** The service calls `{{ callback }}`; signed with the connection's key, as Standard Webhooks are. */
  | { readonly how: 'callback'; readonly isSigned: boolean }
  /** We look again until it is there. Paths are JSONPath. */
  | {
      readonly how: 'polling'
      /** Where the receipt stands that `{{ receipt }}` is filled in from. */
      readonly receipt: string
      readonly look: Call
      readonly state: string
      /** What stands there while the answer is not ready. */
      readonly working: readonly string[]
    }

/** One way to ask. */
export interface Way {
  readonly call: Call
  readonly answers: Answers
  /** Where the items of an answer stand: JSONPath (RFC 9535). */
  readonly items: string
}

/**
 * A service outside, declared: what it gives, what it must be told, how it is asked, how it answers and what it charges.
 * Nothing of it is code, and no code knows one by its name.
 */
export interface Connector {
  readonly format: typeof FORMAT
  readonly id: string
  readonly name: string
  readonly about: string
  readonly gives: readonly Gives[]
  readonly accepts: readonly InputSet[]
  /** Whose numbers it knows of (ISO 3166-1 alpha-2): nobody else's are asked about. Null where it does not say. */
  readonly countries: readonly string[] | null
  /** Where it is unless a connection says otherwise. */
  readonly address: string
  readonly key: KeyPlace
  readonly one: Way
  /** How many are asked about in one call, where the service takes that. */
  readonly many: (Way & { readonly most: number }) | null
  /** Where each fact stands within an item: JSONPath. */
  readonly fields: Readonly<Partial<Record<AnswerField, string>>>
  /** The service's words for a fact, and ours. */
  readonly words: Readonly<Partial<Record<AnswerField, Readonly<Record<string, string>>>>>
  readonly statuses: {
    readonly notFound: readonly number[]
    readonly tryLater: readonly number[]
    readonly ourFault: readonly number[]
  }
  readonly limit: CallLimit
  readonly charge: {
    readonly per: (typeof CHARGED_PER)[number]
    readonly euros: number
    /** Where an answer tells what one charge costs now, in euros: JSONPath on the whole answer. */
    readonly toldAt?: string | undefined
    /** Answers that say all of this cost nothing: in our words. */
    readonly freeWhen?: readonly Readonly<Partial<Record<AnswerField, string>>>[] | undefined
  }
  /** Most candidates of one answer that are looked at, and charged. */
  readonly mostCandidates: number
  /** A subscription: nothing more is charged, so it is asked first. */
  readonly isPaidFor: boolean
  /** Tells the service that a value of it was taken, where it charges for those. */
  readonly report: Call | null
  /** How businesses are listed by trade and place, where it gives those; `one` asks for a page of them. */
  readonly directory: Directory | null
  /** What it has charged by its own books, where it tells; `{{ month }}` is YYYY-MM (UTC). */
  readonly statement: Statement | null
}

/** How trades or places are looked up by `{{ search }}`. Paths are JSONPath. */
export interface LookUp {
  readonly call: Call
  readonly items: string
  /** What a question names it by. */
  readonly code: string
  readonly name: string
}

/** A directory of businesses: `{{ trade }}` and `{{ place }}` are codes that were looked up. Paths are JSONPath. */
export interface Directory {
  readonly trades: LookUp
  readonly places: LookUp
  /** Tells how many there are before anything is paid. */
  readonly count: {
    readonly call: Call
    readonly total: string
    /** How many of those are left out as known, where it tells. */
    readonly leftOut: string | null
    /** What one charge costs now, in euros, where it tells. */
    readonly price: string | null
  }
  /** Most businesses of one page; `{{ size }}` is how many are wanted. */
  readonly perPage: number
  /** Where `{{ cursor }}` of the next page stands; nothing there is the last page. */
  readonly next: string
  /** Where a page tells how many it left out as known. */
  readonly leftOut: string | null
  /** How what is known already is named, so that it is not given and not paid; null where it cannot be. */
  readonly known: {
    /** Its own ids, as `{{ knownRecords }}`. */
    readonly records: boolean
    /** Numbers as `{{ knownNumbers }}`: in E.164, or SHA-256 of that in lower-case hexadecimal digits. */
    readonly numbers: 'none' | 'plain' | 'sha256'
    /** Most of each that are named in one call. */
    readonly most: number
  } | null
}

/** A service's own books: a line for each day. Paths are JSONPath. */
export interface Statement {
  readonly call: Call
  readonly items: string
  /** YYYY-MM-DD, UTC. */
  readonly day: string
  readonly charges: string
  readonly euros: string
}

/** The format of these documents. What is written for a newer one is refused. */
export const FORMAT = 1
