import type { Judgement } from '@upper-field/contract'
import { suppressibleKeys } from '@upper-field/core/pair'
import { type ReadNumber, readPhoneCell } from '@upper-field/core/phone'
import { joinScopes, type Scope } from '@upper-field/core/split'
import { type ReadEmail, readEmails } from '@upper-field/core/tidy'
import { shownText } from '../contacts/shown'
import type { Services } from '../services'
import { sha256Hex } from '../sha256'
import { together } from './together'

type Reading = ReturnType<typeof readPhoneCell>
type Verdict = Reading['verdict']

/** A value as it was read. */
export type Read =
  | { readonly kind: 'number'; readonly number: ReadNumber; readonly verdict: Verdict }
  | { readonly kind: 'email'; readonly email: ReadEmail }
  | { readonly kind: 'unreadable'; readonly verdict: Verdict; readonly problem: Reading['problem'] }

/** Reads a value: an address where it is one, else the first number in it. */
export function readValue(value: string, country: string | null): Read {
  const [email] = value.includes('@') ? readEmails(value) : []
  if (email) return { kind: 'email', email }
  const { numbers, verdict, problem } = readPhoneCell(value, { country })
  const [number] = numbers
  return number ? { kind: 'number', number, verdict } : { kind: 'unreadable', verdict, problem }
}

/** What suppression lists can know a value by. */
export const keysOf = (one: Read): readonly string[] =>
  one.kind === 'unreadable'
    ? []
    : suppressibleKeys(
        one.kind === 'number'
          ? { e164s: [one.number.e164], addresses: [], domain: '' }
          : { e164s: [], addresses: [one.email.address], domain: '' },
      )

/** Contacts that are named of those that hold a value. */
const NAMED = 20

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
      join contacts c on c.id = h.contact_id and c.joined_into is null and ${shownText('c')}) as holders`

type Known = Awaited<ReturnType<typeof lookUp>>
const looks = new WeakMap<Services['pool'], (read: readonly Read[]) => Promise<Known>>()

/** Everything that is known of values, by one look at the database; values of calls at the same time share it. */
export function knownOf({ pool }: Pick<Services, 'pool'>, read: readonly Read[]): Promise<Known> {
  const look = looks.get(pool) ?? together<Read, Known>((all) => lookUp(pool, all))
  looks.set(pool, look)
  return look(read)
}

async function lookUp(pool: Services['pool'], read: readonly Read[]) {
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
