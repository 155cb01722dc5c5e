import type { Preflight } from '@upper-field/contract'
import { type AudienceShape, type Destination, prepareMember, type SendField } from '@upper-field/core/send'
import type { Db } from '../db/database'
import { pageOfMembers, type SendableContact } from './members'

export interface PreflightInput {
  readonly listId: string
  readonly filter: string
  readonly destination: Destination
  readonly shape: AudienceShape
}

/** What a destination would refuse, and what is mended on the way, counted over the chosen contacts. */
export async function runPreflight(db: Db, { listId, filter, destination, shape }: PreflightInput): Promise<Preflight> {
  const tally = createTally(shape)
  for (let after: number | null = 0; after !== null; ) {
    const page = await pageOfMembers(db, { listId, filter, isForPeople: false }, after)
    tally.suppressed += page.suppressed
    for (const member of page.members) count(tally, member, shape)
    after = page.last
  }
  const { size, name, id } = destination
  return {
    destination: id,
    name,
    takes: shape.takes,
    chosen: tally.chosen,
    ready: tally.ready,
    suppressed: tally.suppressed,
    missing: entries(tally.missing).map(([field, n]) => ({ field, n })),
    nothingToMatch: tally.nothingToMatch,
    countryFromNumber: tally.countryFromNumber,
    leftBlank: entries(tally.leftBlank).map(([fields, n]) => ({ fields: fields.split(' ') as SendField[], n })),
    unreadable: entries(tally.unreadable).map(([field, n]) => ({ field, n })),
    codeMended: tally.codeMended,
    identifiers: entries(tally.identifiers).map(([field, n]) => ({ field, n })),
    byCount: tally.byCount,
    workAddresses: tally.workAddresses,
    personalAddresses: tally.personalAddresses,
    toldFrom: size.toldFrom,
    fewest: size.fewest,
    fewestMatched: size.fewestMatched,
  }
}

interface Tally {
  readonly someOf: readonly SendField[]
  /** Lines of companies that were counted; null where people are sent. */
  readonly companies: Set<string> | null
  chosen: number
  ready: number
  suppressed: number
  nothingToMatch: number
  countryFromNumber: number
  codeMended: number
  workAddresses: number
  personalAddresses: number
  readonly missing: Map<SendField, number>
  readonly leftBlank: Map<string, number>
  readonly unreadable: Map<SendField, number>
  readonly identifiers: Map<SendField, number>
  /** How many ready ones have one identifier, two, and three or more. */
  readonly byCount: [number, number, number]
}

const createTally = ({ takes, rules, columns }: AudienceShape): Tally => ({
  companies: takes === 'companies' ? new Set() : null,
  someOf: rules.someOf.filter((field) => columns.some((column) => column.field === field)),
  chosen: 0,
  ready: 0,
  suppressed: 0,
  nothingToMatch: 0,
  countryFromNumber: 0,
  codeMended: 0,
  workAddresses: 0,
  personalAddresses: 0,
  missing: new Map(),
  leftBlank: new Map(),
  unreadable: new Map(),
  identifiers: new Map(),
  byCount: [0, 0, 0],
})

function count(tally: Tally, member: SendableContact, shape: AudienceShape): void {
  tally.chosen++
  const prepared = prepareMember(member, shape, { hash: null })
  if (prepared.status === 'left-out') {
    if (prepared.reason.why === 'missing') add(tally.missing, prepared.reason.field)
    else tally.nothingToMatch++
    return
  }
  if (tally.companies) {
    const key = prepared.cells.join('\n')
    if (tally.companies.has(key)) return
    tally.companies.add(key)
  }
  tally.ready++
  for (const mend of prepared.mends) {
    if (mend.what === 'country-from-number') tally.countryFromNumber++
    else if (mend.what === 'group-left-blank') add(tally.leftBlank, mend.group.join(' '))
    else add(tally.unreadable, mend.field)
  }
  if (hadNoCode(member)) tally.codeMended++
  const known = tally.someOf.map((field) => (member.values[field] ?? []).filter((value) => value !== '').length)
  for (const [at, field] of tally.someOf.entries()) if ((known[at] ?? 0) > 0) add(tally.identifiers, field)
  const together = known.reduce((sum, n) => sum + n, 0)
  tally.byCount[together > 2 ? 2 : together > 1 ? 1 : 0]++
  if (member.record.email_kind === 'work') tally.workAddresses++
  else if (member.record.email_kind === 'personal') tally.personalAddresses++
}

/** The best number stood in its row without the code of its country, and has one now. */
const hadNoCode = ({ numbers, record }: SendableContact): boolean =>
  numbers.length > 0 && record.raw_number !== '' && !/^\W*(?:\+|00)/.test(record.raw_number)

function add<K>(counts: Map<K, number>, key: K): void {
  counts.set(key, (counts.get(key) ?? 0) + 1)
}

const entries = <K>(counts: ReadonlyMap<K, number>): readonly (readonly [K, number])[] =>
  [...counts].sort((a, b) => b[1] - a[1])
