import { type SQL, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { readColumns } from '../db/readColumns'

export interface KnownNumber {
  readonly e164: string
  readonly country: string | null
  readonly isMobile: boolean
}

export interface KnownEmail {
  readonly address: string
  readonly isPersonal: boolean
}

/** The numbers of contacts that are valid and not known to be out of service. @param ids in their order */
export async function knownNumbers(db: Db, ids: readonly number[]): Promise<(id: number) => readonly KnownNumber[]> {
  const [of = [], e164s = [], countries = [], mobile = []] = await readColumns(
    db,
    ['n.contact_id', 'n.e164', 'n.country', "coalesce(f.line_type, n.line_type) in ('mobile', 'fixed-or-mobile')"],
    sql`from contact_numbers n left join numbers f on f.e164 = n.e164
      where ${isOf(ids)} and n.is_valid and coalesce(f.status, '') <> 'out-of-service' order by n.contact_id, n.position`,
  )
  return ofEach(of, (at) => ({
    e164: e164s[at] ?? '',
    country: countries[at] || null,
    isMobile: mobile[at] === 'true',
  }))
}

/** @param ids in their order */
export async function knownEmails(db: Db, ids: readonly number[]): Promise<(id: number) => readonly KnownEmail[]> {
  const [of = [], addresses = [], personal = []] = await readColumns(
    db,
    ['contact_id', 'address', "kind = 'personal'"],
    sql`from contact_emails where ${isOf(ids)} order by contact_id, position`,
  )
  return ofEach(of, (at) => ({ address: addresses[at] ?? '', isPersonal: personal[at] === 'true' }))
}

/** Where so few ids lie between those that are wanted, all of them are read: one after the other is many times as quick. */
const FEW_BETWEEN = 3

function isOf(ids: readonly number[]): SQL {
  const [first, last] = [ids[0] ?? 0, ids.at(-1) ?? 0]
  return last - first < FEW_BETWEEN * ids.length
    ? sql`contact_id between ${first} and ${last}`
    : sql`contact_id = any(${sql.param([...ids])}::bigint[])`
}

/** What each contact has, asked for in their order: both are read from front to back once. */
function ofEach<T>(of: readonly string[], read: (at: number) => T): (id: number) => readonly T[] {
  let at = 0
  const here = () => Number(of[at] ?? Number.POSITIVE_INFINITY)
  return (id) => {
    while (here() < id) at++
    const from = at
    while (here() === id) at++
    return from === at ? NONE : Array.from({ length: at - from }, (_, i) => read(from + i))
  }
}

const NONE: readonly never[] = []
