import { plainAt, valuesAt } from '../answerPaths'
import { type Call, type CallLimit, createTemplates, type KeyPlace } from '../callTemplates'

/** What an audience is for. */
export const PURPOSES = ['aim', 'exclude', 'seed'] as const
export type Purpose = (typeof PURPOSES)[number]

/** How an audience stands at its network. */
export const AUDIENCE_STATES = ['received', 'matching', 'usable', 'refused', 'lapsed'] as const
export type AudienceState = (typeof AUDIENCE_STATES)[number]

/** What a part of a delivery does: adds its lines, takes them out, or is a part of the whole that replaces what was. */
export const PART_CHANGES = ['add', 'remove', 'whole'] as const
export type PartChange = (typeof PART_CHANGES)[number]

/** What an account may lack, or why something is refused: the network's code in a sentence of ours. */
export interface Refusal {
  readonly says: string
  /** What to do about it. */
  readonly remedy: string
  /** How long that takes. */
  readonly takes: string
  /** An account that lacks it may do nothing, or may exclude but not aim. */
  readonly stops: 'everything' | 'aiming'
}

/**
 * How a network is called. Every call is a template, and every fact of an answer stands at a JSONPath: what a network is
 * like is data.
 */
export interface NetworkCalls {
  /** Where it is unless the key that is kept says otherwise. */
  readonly address: string
  readonly key: KeyPlace
  readonly limit: CallLimit
  readonly tryLater: readonly number[]
  readonly accounts: {
    readonly call: Call
    readonly items: string
    readonly id: string
    readonly name: string
    /** Codes of what it lacks. */
    readonly lacks: string
  }
  /** Makes an audience; its id there stands at `id`. */
  readonly make: { readonly call: Call; readonly id: string }
  /** Begins an upload, where a network wants that; `{{ upload }}` is filled in from its `id`. */
  readonly begin: { readonly call: Call; readonly id: string } | null
  /** Sends a part of at most so many lines. */
  readonly part: {
    readonly most: number
    readonly calls: Readonly<Partial<Record<PartChange, Call>>>
  }
  /** Said after the last part. */
  readonly finish: Call | null
  readonly state: {
    readonly call: Call
    readonly state: string
    readonly words: Readonly<Record<string, AudienceState>>
    /** Accounts matched, where the network tells. */
    readonly size: string
    readonly reason: string | null
    readonly lapsesAt: string | null
  }
  readonly remove: Call | null
  /** Where the code of a refusal stands, and what each means. */
  readonly refusals: { readonly code: string; readonly words: Readonly<Record<string, Refusal>> }
  /** The network's words for what an audience is for. */
  readonly purposes: Readonly<Partial<Record<Purpose, string>>>
  /** A small campaign with inclusions and exclusions; its reach tells how many are matched. */
  readonly trial: {
    readonly call: Call
    readonly id: string
    readonly look: Call
    readonly state: string
    readonly over: readonly string[]
    readonly reach: string
    readonly spent: string
  } | null
  /** Makes a larger audience of similar people out of one. */
  readonly similar: { readonly call: Call; readonly id: string } | null
}

/** What templates of a network may name, with a sample of each. */
export const NETWORK_VALUES = {
  account: 'a "b"',
  audience: 'a "b"',
  upload: 'a "b"',
  title: 'a "b"',
  takes: 'people',
  purpose: 'a "b"',
  within: 'a "b"',
  days: 30,
  headings: ['a "b"'],
  rows: [['a "b"']],
  records: [{ 'a "b"': 'c' }],
  csv: 'a,b\r\n',
  aim: ['a "b"'],
  exclude: ['a "b"'],
  daily: 5,
  country: 'GB',
  closeness: 5,
  campaign: 'a "b"',
} as const
export type NetworkValue = keyof typeof NETWORK_VALUES

export const networkTemplates = createTemplates<NetworkValue>(NETWORK_VALUES)

/** An account of ours at a network. */
export interface NetworkAccount {
  readonly id: string
  readonly name: string
  /** Codes, as the network tells them. */
  readonly lacks: readonly string[]
}

/** Most accounts of one key that are shown. */
const MOST_ACCOUNTS = 200

/** The accounts an answer tells of; null where it cannot be read. */
export function readAccounts(
  { items, id, name, lacks }: NetworkCalls['accounts'],
  json: unknown,
): readonly NetworkAccount[] | null {
  if (json === null || typeof json !== 'object') return null
  const accounts = valuesAt(items, json)
    .slice(0, MOST_ACCOUNTS)
    .map((one) => ({
      id: String(plainAt(id, one) ?? ''),
      name: String(plainAt(name, one) ?? ''),
      lacks: valuesAt(lacks, one)
        .flat()
        .flatMap((code) => (typeof code === 'string' && code !== '' ? [code] : [])),
    }))
  return accounts.every((one) => one.id !== '') ? accounts : null
}

/** A text at a path of an answer; null where nothing stands there. */
export function readText(path: string | null, json: unknown): string | null {
  const value = path === null || json === null || typeof json !== 'object' ? undefined : plainAt(path, json)
  return value === undefined || value === '' ? null : String(value).slice(0, 200)
}

/** How an audience stands, as its network tells. */
export interface ToldState {
  readonly state: AudienceState
  readonly size: number | null
  readonly reason: string | null
  /** ISO 8601. */
  readonly lapsesAt: string | null
}

/** The state an answer tells of; null where it cannot be read. */
export function readAudienceState(calls: NetworkCalls['state'], json: unknown): ToldState | null {
  const word = readText(calls.state, json)
  const state = word === null ? undefined : calls.words[word]
  if (state === undefined) return null
  const size = readText(calls.size, json)
  const lapses = readText(calls.lapsesAt, json)
  return {
    state,
    size: size !== null && /^\d+$/.test(size) ? Number(size) : null,
    reason: readText(calls.reason, json),
    lapsesAt: lapses !== null && !Number.isNaN(Date.parse(lapses)) ? new Date(lapses).toISOString() : null,
  }
}

const UNKNOWN: Omit<Refusal, 'says'> = { remedy: 'Ask the network what it means.', takes: '', stops: 'everything' }

/** What a code of a network means, in words; one that is not declared is shown as it is. */
export const refusalOf = ({ words }: NetworkCalls['refusals'], code: string): Refusal =>
  words[code] ?? { says: `It says "${code}".`, ...UNKNOWN }

/** Why an account may not take an audience of a purpose; null where it may. */
export function whyNotFor(
  calls: Pick<NetworkCalls, 'refusals'>,
  account: NetworkAccount,
  purpose: Purpose,
): (Refusal & { readonly code: string }) | null {
  for (const code of account.lacks) {
    const refusal = refusalOf(calls.refusals, code)
    if (refusal.stops === 'everything' || purpose !== 'exclude') return { code, ...refusal }
  }
  return null
}

/** The lines of a part in every way a template may want them. Lines under one heading stand in a list where they repeat. */
export function partValues(
  headings: readonly string[],
  rows: readonly (readonly string[])[],
  csv: string,
): Readonly<Partial<Record<NetworkValue, unknown>>> {
  return { headings, rows, csv, records: rows.map((row) => recordOf(headings, row)) }
}

function recordOf(headings: readonly string[], row: readonly string[]): Readonly<Record<string, string | string[]>> {
  const cells = new Map<string, string[]>()
  for (const [at, heading] of headings.entries()) cells.set(heading, [...(cells.get(heading) ?? []), row[at] ?? ''])
  return Object.fromEntries([...cells].map(([heading, all]) => [heading, all.length === 1 ? (all[0] ?? '') : all]))
}
