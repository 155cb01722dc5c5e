import type { Preflight } from '@upper-field/contract'
import {
  type AudienceShape,
  countValues,
  createMembersPreparer,
  type Destination,
  type PreparedMembers,
  type SendField,
} from '@upper-field/core/send'
import { type SQL, sql } from 'drizzle-orm'
import { asEstimate, type Sampling, sampleOf } from '../contacts/sample'
import type { Db } from '../db/database'
import { type SendableContact, type SendablePage, sendablePage, wantedBy } from './members'

export interface PreflightInput {
  readonly listId: string
  readonly filter: string
  readonly destination: Destination
  readonly shape: AudienceShape
  /** Everybody is looked at, however large the list. */
  readonly isExact: boolean
  readonly sampling?: Sampling
}

/** What is looked at beside what is sent. */
const LOOKED_AT = { columns: ['raw_number', 'email_kind'] }

/** So many of a large list are looked at for a first answer. */
const SAMPLING: Sampling = { above: 60_000, size: 10_000 }
/** Of fewer in a sample too little is known: everybody is looked at then, and they are not many. */
const FEWEST_SAMPLED = 200

/**
 * What a destination would refuse, and what is mended on the way, counted over the chosen contacts; estimated by some of
 * them where the list is large. Companies are told apart by looking at all of them.
 */
export async function runPreflight(db: Db, input: PreflightInput): Promise<Preflight> {
  const { listId, shape, isExact, sampling = SAMPLING } = input
  const sample = isExact || shape.takes === 'companies' ? null : await sampleOf(db, listId, sampling)
  const sampled = sample && (await tallyOf(db, input, sql`id in (select id from ${sample.from})`))
  if (!sample || !sampled || sampled.chosen < FEWEST_SAMPLED)
    return describe(input, await tallyOf(db, input, sql`true`), (n) => n, null)
  return describe(input, sampled, (n) => asEstimate(n * sample.each), sampled.chosen)
}

async function tallyOf(db: Db, input: PreflightInput, among: SQL): Promise<Tally> {
  const tally = createTally(input.shape)
  for await (const page of pagesOf(db, input, { among }))
    for (let at = 0; at < page.ids.length; at++) {
      if (page.isClosed(at)) tally.suppressed++
      else count(tally, page, at)
    }
  return tally
}

/** Contacts in the form of their destination, which are never sent as they stand here: nothing is hashed. */
interface LookedAt extends SendablePage {
  readonly prepared: PreparedMembers
}

async function* pagesOf(
  db: Db,
  { listId, filter, shape }: Pick<PreflightInput, 'listId' | 'filter' | 'shape'>,
  { among = sql`true`, after = 0 }: { readonly among?: SQL; readonly after?: number },
): AsyncGenerator<LookedAt> {
  const prepare = createMembersPreparer(shape, { hash: null })
  const what = { listId, filter, isForPeople: false, wanted: wantedBy(shape, LOOKED_AT), among }
  for (let page = await sendablePage(db, what, after); page !== null; ) {
    yield { ...page, prepared: prepare(page.columns) }
    page = await sendablePage(db, what, page.ids.at(-1) ?? 0)
  }
}

function describe(
  { destination: { size, name, id }, shape }: PreflightInput,
  tally: Tally,
  told: (n: number) => number,
  lookedAt: number | null,
): Preflight {
  const n = (finding: string) => told(tally.findings.get(finding) ?? 0)
  const about = (kind: string) => findingsAbout(tally, kind).map(([what, n]) => [what, told(n)] as const)
  return {
    destination: id,
    name,
    takes: shape.takes,
    lookedAt,
    chosen: told(tally.chosen),
    ready: n('ready'),
    suppressed: told(tally.suppressed),
    missing: about('missing').map(([field, n]) => ({ field: field as SendField, n })),
    nothingToMatch: n('nothing-to-match'),
    countryFromNumber: n('country-from-number'),
    leftBlank: about('blank').map(([fields, n]) => ({ fields: fields.split(' ') as SendField[], n })),
    unreadable: about('unreadable').map(([field, n]) => ({ field: field as SendField, n })),
    codeMended: n('code-mended'),
    identifiers: entries(tally.identifiers).map(([field, n]) => ({ field, n: told(n) })),
    byCount: tally.byCount.map(told) as Preflight['byCount'],
    workAddresses: told(tally.workAddresses),
    personalAddresses: told(tally.personalAddresses),
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
  suppressed: number
  workAddresses: number
  personalAddresses: number
  /** How many each finding is about, by its code. */
  readonly findings: Map<string, number>
  readonly identifiers: Map<SendField, number>
  /** How many ready ones have one identifier, two, and three or more. */
  readonly byCount: [number, number, number]
}

const createTally = ({ takes, rules, columns }: AudienceShape): Tally => ({
  companies: takes === 'companies' ? new Set() : null,
  someOf: rules.someOf.filter((field) => columns.some((column) => column.field === field)),
  chosen: 0,
  suppressed: 0,
  workAddresses: 0,
  personalAddresses: 0,
  findings: new Map(),
  identifiers: new Map(),
  byCount: [0, 0, 0],
})

function count(tally: Tally, page: LookedAt, at: number): void {
  const isReady = page.prepared.leftOutAt(at) === null
  tally.chosen++
  if (isReady && tally.companies) {
    const key = page.prepared.cellsAt(at).join('\n')
    if (tally.companies.has(key)) return
    tally.companies.add(key)
  }
  for (const finding of findingsAt(page, at)) add(tally.findings, finding)
  if (!isReady) return
  let together = 0
  for (const field of tally.someOf) {
    const n = countValues(page.columns.values[field]?.[at])
    if (n > 0) add(tally.identifiers, field)
    together += n
  }
  tally.byCount[together > 2 ? 2 : together > 1 ? 1 : 0]++
  const kind = page.toldAt('email_kind', at)
  if (kind === 'work') tally.workAddresses++
  else if (kind === 'personal') tally.personalAddresses++
}

/** What is found of one contact, in codes: ready or why not, and what is mended or left blank. */
function findingsAt(page: LookedAt, at: number): readonly string[] {
  const leftOut = page.prepared.leftOutAt(at)
  if (leftOut) return [leftOut.why === 'missing' ? `missing ${leftOut.field}` : 'nothing-to-match']
  const mends = page.prepared.mendsAt(at).map((mend) => {
    if (mend.what === 'group-left-blank') return `blank ${mend.group.join(' ')}`
    return mend.what === 'unreadable' ? `unreadable ${mend.field}` : mend.what
  })
  return ['ready', ...mends, ...(hadNoCode(page, at) ? ['code-mended'] : [])]
}

/** Contacts that are looked at for one page of a finding: a rare one is looked for in steps. */
const MOST_PAGES = 4

/**
 * The contacts a finding counts, from one on. A suppressed one is told by its finding alone.
 * @returns the contacts, and behind which to go on; null at the end
 */
export async function contactsOfFinding(
  db: Db,
  input: Pick<PreflightInput, 'listId' | 'filter' | 'shape'>,
  { finding, after, limit }: { readonly finding: string; readonly after: number; readonly limit: number },
): Promise<{ readonly contacts: readonly SendableContact[]; readonly next: number | null }> {
  const contacts: SendableContact[] = []
  let [pages, last] = [0, after]
  for await (const page of pagesOf(db, input, { after })) {
    for (let at = 0; at < page.ids.length; at++) {
      if (page.isClosed(at) ? finding !== 'suppressed' : !findingsAt(page, at).includes(finding)) continue
      const contact = page.contactAt(at)
      contacts.push(contact)
      if (contacts.length === limit) return { contacts, next: contact.id }
    }
    last = page.ids.at(-1) ?? last
    if (++pages === MOST_PAGES) return { contacts, next: last }
  }
  return { contacts, next: null }
}

/** The best number stood in its row without the code of its country, and has one now. */
const hadNoCode = (page: LookedAt, at: number): boolean =>
  countValues(page.columns.values.number?.[at]) > 0 && !/^(?:$|\W*(?:\+|00))/.test(page.toldAt('raw_number', at))

/** Findings of a kind, each with what it is about. */
const findingsAbout = ({ findings }: Tally, kind: string): readonly (readonly [string, number])[] =>
  entries(findings).flatMap(([code, n]) => (code.startsWith(`${kind} `) ? [[code.slice(kind.length + 1), n]] : []))

function add<K>(counts: Map<K, number>, key: K): void {
  counts.set(key, (counts.get(key) ?? 0) + 1)
}

const entries = <K>(counts: ReadonlyMap<K, number>): readonly (readonly [K, number])[] =>
  [...counts].sort((a, b) => b[1] - a[1])
