import type { CheckSettings, Judgement } from '@upper-field/contract'
import { describeLine, needsCheck } from '@upper-field/core/check'
import { suppressibleKeys } from '@upper-field/core/pair'
import { type ReadNumber, readPhoneCell, timeZonesOf } from '@upper-field/core/phone'
import { isClosed, joinScopes, type Scope } from '@upper-field/core/split'
import { type ReadEmail, readEmails } from '@upper-field/core/tidy'
import { sql } from 'drizzle-orm'
import { callStateOf } from '../check/callPlaces'
import { openFacts } from '../check/openFacts'
import { readCheckSettings } from '../check/settings'
import { charge } from '../check/storeAnswers'
import { LINES } from '../check/subjects'
import { transaction } from '../db/database'
import { LOCKS } from '../db/locks'
import { Problem } from '../http/problem'
import type { Services } from '../services'
import { sha256Hex } from '../sha256'
import { refuseOverLimit, refuseOverProviderLimit } from '../spend/limit'

/** Who asks, and what it may spend. */
export interface Asker {
  /** Of the key; null for a person, who asks nobody for money here. */
  readonly keyId: string | null
  readonly budget: number
}

interface Asked {
  readonly values: readonly string[]
  readonly country: string | null
  readonly ask: boolean
}

type Read =
  | { readonly kind: 'number'; readonly number: ReadNumber }
  | { readonly kind: 'email'; readonly email: ReadEmail }
  | { readonly kind: 'unreadable' }

/** Contacts that are named of those that hold a value. */
const NAMED = 20

/**
 * Tells of each value what it is and what is known of it: line, status, suppression, lists, whether it may be texted and
 * called now. The register is asked only where that was wanted, and the key may pay.
 */
export async function judge(
  services: Services,
  { values, country, ask }: Asked,
  asker: Asker,
): Promise<{ readonly judgements: Judgement[]; readonly cost: number }> {
  const read = values.map((value) => readValue(value, country))
  const notAsked = new Map<string, NonNullable<Judgement['notAsked']>>()
  const costs = ask ? await askRegister(services, read, asker, notAsked) : new Map<string, number>()
  const known = await knownOf(services, read)
  const settings = await settingsNow(services)
  const judgements = read.map((one, at): Judgement => {
    const value = values[at] ?? ''
    if (one.kind === 'unreadable') return { ...NOTHING, value, ...unreadable(value, country) }
    const subject = one.kind === 'number' ? one.number.e164 : one.email.address
    const suppressedFor = known.suppressedFor(keysOf(one))
    const told = {
      ...NOTHING,
      value,
      normal: subject,
      suppressedFor: [...suppressedFor],
      inLists: known.holders(subject),
    }
    if (one.kind === 'email') {
      const facts = known.address(subject)
      return {
        ...told,
        kind: 'email',
        verdict: 'clean',
        emailKind: one.email.kind,
        addressState: facts?.state ?? 'not-checked',
        checkedAt: facts?.checkedAt ?? null,
      }
    }
    const { number } = one
    const line = describeLine(number, known.line(subject))
    const isMobile = line.lineType === 'mobile' || line.lineType === 'fixed-or-mobile'
    const isDead = line.status === 'out-of-service'
    return {
      ...told,
      kind: 'number',
      verdict: readPhoneCell(value, { country }).verdict,
      country: number.country,
      lineType: line.lineType,
      lineStatus: line.status,
      knownFrom: line.knownFrom,
      checkedAt: known.line(subject)?.at ?? null,
      mayBeTexted: number.valid && isMobile && !isDead && !isClosed(suppressedFor, 'texts'),
      call: callOf(number, isDead, suppressedFor, settings, services.now()),
      cost: costs.get(subject) ?? 0,
      notAsked: ask ? (notAsked.get(subject) ?? null) : null,
    }
  })
  return { judgements, cost: [...costs.values()].reduce((sum, one) => sum + one, 0) }
}

/** How checks are done, as it was a second ago at most: programs that ask often need not have it looked up each time. */
const settingsOf = new WeakMap<Services['db'], { readonly at: number; readonly set: Promise<CheckSettings> }>()
const KEPT = 1000

function settingsNow({ db }: Services): Promise<CheckSettings> {
  const kept = settingsOf.get(db)
  if (kept && performance.now() - kept.at < KEPT) return kept.set
  const set = readCheckSettings(db)
  settingsOf.set(db, { at: performance.now(), set })
  // A failure is not kept.
  set.catch(() => settingsOf.delete(db))
  return set
}

const NOTHING: Omit<Judgement, 'value'> = {
  kind: 'unreadable',
  verdict: 'unreadable',
  problem: null,
  normal: null,
  country: null,
  lineType: null,
  lineStatus: null,
  knownFrom: null,
  emailKind: null,
  addressState: null,
  checkedAt: null,
  suppressedFor: [],
  inLists: [],
  mayBeTexted: false,
  call: null,
  cost: 0,
  notAsked: null,
}

function readValue(value: string, country: string | null): Read {
  const [email] = value.includes('@') ? readEmails(value) : []
  if (email) return { kind: 'email', email }
  const [number] = readPhoneCell(value, { country }).numbers
  return number ? { kind: 'number', number } : { kind: 'unreadable' }
}

function unreadable(value: string, country: string | null): Pick<Judgement, 'verdict' | 'problem'> {
  const { verdict, problem } = readPhoneCell(value, { country })
  return { verdict, problem: problem ?? null }
}

function callOf(
  { e164, country, valid }: ReadNumber,
  isDead: boolean,
  suppressedFor: readonly Scope[],
  settings: CheckSettings,
  at: number,
): Judgement['call'] {
  if (!valid || isDead) return null
  if (isClosed(suppressedFor, 'calls')) return 'suppressed'
  return callStateOf(`${country ?? ''} ${timeZonesOf(e164).join('|')}`, settings, at)
}

const keysOf = (one: Read): readonly string[] =>
  one.kind === 'unreadable'
    ? []
    : suppressibleKeys(
        one.kind === 'number'
          ? { e164s: [one.number.e164], addresses: [], domain: '' }
          : { e164s: [], addresses: [one.email.address], domain: '' },
      )

interface LineKnown {
  readonly lineType: ReadNumber['lineType'] | null
  readonly status: Judgement['lineStatus']
  readonly checkedAt: number | null
  readonly at: string | null
}

/** Of numbers ($1), addresses ($2) and the hashes of whatever suppresses them ($3). */
const ALL_THAT_IS_KNOWN = `
  select
    (select coalesce(json_agg(json_build_object('of', e164, 'type', line_type, 'status', status, 'at', checked_at)), '[]')
      from numbers where e164 = any($1::text[])) as lines,
    (select coalesce(json_agg(json_build_object('of', address, 'status', deliverability, 'at', checked_at)), '[]')
      from addresses where address = any($2::text[])) as addresses,
    (select coalesce(json_agg(json_build_object('of', e.hash, 'scope', l.scope)), '[]')
      from suppression_entries e join suppression_lists l on l.id = e.suppression_list_id
      where e.hash = any($3::text[]) and (e.expires_at is null or e.expires_at > now())) as suppressed,
    (select coalesce(json_agg(json_build_object('of', h.of, 'list', c.list_id, 'contact', c.id) order by c.id), '[]') from (
      select e164 as of, contact_id from contact_numbers where e164 = any($1::text[])
      union all
      select address, contact_id from contact_emails where address = any($2::text[])) h
      join contacts c on c.id = h.contact_id and c.joined_into is null
      join batches b on b.id = c.batch_id and b.state = 'ready') as holders`

/** Everything that is known of values, by one look at the database. */
async function knownOf({ pool }: Pick<Services, 'pool'>, read: readonly Read[]) {
  const numbers = read.flatMap((one) => (one.kind === 'number' ? [one.number.e164] : []))
  const emails = read.flatMap((one) => (one.kind === 'email' ? [one.email.address] : []))
  const byHash = new Map(read.flatMap(keysOf).map((key) => [sha256Hex(key), key]))
  const { rows } = await pool.query<{ lines: Told[]; addresses: Told[]; suppressed: Told[]; holders: Told[] }>({
    // By its name it is planned once for each connection: planning takes longer than answering.
    name: 'judge',
    text: ALL_THAT_IS_KNOWN,
    values: [numbers, emails, [...byHash.keys()]],
  })
  const [told] = rows
  const lines = new Map(told?.lines.map((one) => [one.of, asLine(one)]))
  const addresses = new Map(
    told?.addresses.map((one) => [
      one.of,
      { state: one.status as NonNullable<Judgement['addressState']>, checkedAt: isoOf(one.at) },
    ]),
  )
  const scopes = new Map<string, Scope[]>()
  for (const { of, scope } of told?.suppressed ?? []) {
    const key = byHash.get(of) ?? ''
    scopes.set(key, [...(scopes.get(key) ?? []), scope as Scope])
  }
  const holders = new Map<string, Judgement['inLists']>()
  for (const { of, list = '', contact = 0 } of told?.holders ?? [])
    holders.set(of, [...(holders.get(of) ?? []), { listId: list, contactId: contact }])
  return {
    line: (e164: string) => lines.get(e164),
    address: (address: string) => addresses.get(address),
    suppressedFor: (keys: readonly string[]) => joinScopes(keys.flatMap((key) => scopes.get(key) ?? [])),
    holders: (subject: string) => (holders.get(subject) ?? []).slice(0, NAMED),
  }
}

interface Told {
  readonly of: string
  readonly type?: string | null
  readonly status?: string | null
  readonly at?: string | null
  readonly scope?: string
  readonly list?: string
  readonly contact?: number
}

const isoOf = (at: string | null | undefined): string | null => (at ? new Date(at).toISOString() : null)
const asLine = ({ type, status, at }: Told) => ({
  lineType: (type ?? null) as LineKnown['lineType'],
  status: (status ?? null) as LineKnown['status'],
  checkedAt: at ? new Date(at).getTime() : null,
  at: isoOf(at),
})

/** Asks the register about what nothing fresh is known of, as far as the key may pay. @returns what each answer cost */
async function askRegister(
  services: Services,
  read: readonly Read[],
  { keyId, budget }: Asker,
  notAsked: Map<string, NonNullable<Judgement['notAsked']>>,
): Promise<Map<string, number>> {
  const costs = new Map<string, number>()
  const known = await knownOf(services, read)
  const { freshDays } = await settingsNow(services)
  const wanted = new Set<string>()
  for (const one of read) {
    if (one.kind !== 'number') continue
    const { e164, valid } = one.number
    if (!valid) notAsked.set(e164, 'not-valid')
    else if (!needsCheck(known.line(e164), services.now(), freshDays)) notAsked.set(e164, 'fresh')
    else wanted.add(e164)
  }
  const service = wanted.size === 0 ? null : await openFacts(services, LINES).catch(() => null)
  for (const e164 of wanted) {
    if (!service) notAsked.set(e164, 'no-register')
    else if (keyId === null) notAsked.set(e164, 'no-budget')
    else {
      const cost = await askOne(services, service, { e164, keyId, budget })
      if (typeof cost === 'number') costs.set(e164, cost)
      else notAsked.set(e164, cost)
    }
  }
  return costs
}

type LineService = Awaited<ReturnType<typeof openFacts<Parameters<typeof LINES.subjectOf>[0]>>>

/**
 * Asks about one number under a key of the day: repeated, it is the same question, and paid once. Two that ask at the
 * same moment wait for each other, so that a budget is not passed.
 */
async function askOne(
  { pool, now }: Services,
  service: LineService,
  { e164, keyId, budget }: { readonly e164: string; readonly keyId: string; readonly budget: number },
): Promise<number | 'no-budget' | 'failed'> {
  const at = new Date(now())
  const question = `judge:${keyId}:${sha256Hex(e164).slice(0, 32)}:${at.toISOString().slice(0, 10)}`
  const { id: provider, price } = service.terms
  return transaction(pool, async (tx) => {
    await tx.execute(sql`select pg_advisory_xact_lock(${LOCKS.checks}, hashtext(${keyId}))`)
    const { rows } = await tx.execute<{ spent: string }>(sql`
      select coalesce(sum(amount), 0) as spent from charges
      where question like ${`judge:${keyId}:%`} and at >= date_trunc('month', now())`)
    if (Number(rows[0]?.spent ?? 0) + price > budget) return 'no-budget' as const
    try {
      await refuseOverLimit(tx, price)
      await refuseOverProviderLimit(tx, provider, price)
    } catch (error) {
      if (error instanceof Problem) return 'no-budget' as const
      throw error
    }
    const answer = await service.askOne(e164, question).catch(() => null)
    if (answer === null) return 'failed' as const
    if (!LINES.toldNothing(answer.told)) await LINES.storeFacts(tx, [answer.told], at)
    if (answer.cost > 0)
      await charge(tx, [
        { listId: null, provider, subject: e164, question, amount: answer.cost, reason: LINES.reason, at },
      ])
    return answer.cost
  })
}
