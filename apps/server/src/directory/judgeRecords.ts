import type { AnswerItem, RecordState } from '@upper-field/core/connect'
import { suppressibleKeys } from '@upper-field/core/pair'
import { readPhoneCell } from '@upper-field/core/phone'
import { readDomain, readEmails } from '@upper-field/core/tidy'
import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { readRows, text } from '../db/readRows'
import { sha256Hex } from '../sha256'

export interface JudgedRecord {
  readonly record: string
  readonly facts: AnswerItem
  readonly state: RecordState
  /** Its numbers in E.164 and its addresses. */
  readonly reach: readonly string[]
}

/** A text of an answer; empty where it tells none. */
export const textOf = (facts: AnswerItem, field: keyof AnswerItem): string => String(facts[field] ?? '').trim()

interface Reach {
  readonly e164s: readonly string[]
  readonly addresses: readonly string[]
  readonly domain: string
}

/** In front of what stands for the id of a business whose directory gave none: no directory is told of it. */
export const WITHOUT_ID = '#'

/** The directory's own id; where it gave none, what it told: the same told twice is one business. */
export const recordOf = (facts: AnswerItem): string =>
  textOf(facts, 'record') || `${WITHOUT_ID}${sha256Hex(JSON.stringify(facts)).slice(0, 32)}`

/** Ways to reach a business, each in its one form. */
function reachOf(facts: AnswerItem): Reach {
  const { numbers } = readPhoneCell(textOf(facts, 'number'), { country: textOf(facts, 'country') || null })
  return {
    e164s: numbers.filter(({ valid }) => valid).map(({ e164 }) => e164),
    addresses: readEmails(textOf(facts, 'email')).map(({ address }) => address),
    domain: readDomain(textOf(facts, 'site')) ?? '',
  }
}

const isYes = (value: AnswerItem['closed']): boolean => value === true || /^(?:true|yes|1|closed)$/i.test(String(value))

/** What tells that a business is in a list already. A branch has its head office's number, which tells nothing of it. */
const ownWays = (facts: AnswerItem, { e164s, addresses }: Reach): readonly string[] =>
  textOf(facts, 'headOffice') === '' ? [...e164s, ...addresses] : addresses

/**
 * Judges a page of businesses: what is closed, suppressed, in the list already or told before is not taken. Of two of
 * one page with the same number or address the first is.
 * @param toldBefore ids the same directory has told this list of
 */
export async function judgeRecords(
  db: Db,
  listId: string,
  items: readonly AnswerItem[],
  toldBefore: ReadonlySet<string>,
): Promise<readonly JudgedRecord[]> {
  const all = items.map((facts) => ({ facts, record: recordOf(facts), reach: reachOf(facts) }))
  const known = await knownReaches(
    db,
    listId,
    all.map(({ reach }) => reach),
  )
  const taken = new Set<string>()
  const seen = new Set(toldBefore)
  return all.map(({ facts, record, reach }) => {
    const ways = ownWays(facts, reach)
    const state = stateOf()
    seen.add(record)
    if (state === 'taken') for (const way of ways) taken.add(way)
    return { record, facts, state, reach: [...reach.e164s, ...reach.addresses] }

    function stateOf(): RecordState {
      if (seen.has(record)) return 'told-before'
      if (suppressibleKeys(reach).some((key) => known.suppressed.has(key))) return 'suppressed'
      if (isYes(facts.closed)) return 'closed'
      return ways.some((way) => known.inList.has(way) || taken.has(way)) ? 'there-already' : 'taken'
    }
  })
}

async function knownReaches(db: Db, listId: string, reaches: readonly Reach[]) {
  const keys = new Map(reaches.flatMap(suppressibleKeys).map((key) => [sha256Hex(key), key]))
  const ways = (of: 'e164s' | 'addresses') => sql.param([...new Set(reaches.flatMap((reach) => reach[of]))])
  const known = await readRows(db, { is: text, value: text })`
    select 'suppressed' as is, hash as value from suppression_entries
      where hash = any(${sql.param([...keys.keys()])}::text[]) and (expires_at is null or expires_at > now())
    union all select 'in-list', e164 from contact_numbers where list_id = ${listId} and e164 = any(${ways('e164s')}::text[])
    union all select 'in-list', address from contact_emails where list_id = ${listId} and address = any(${ways('addresses')}::text[])`
  return {
    suppressed: new Set(known.flatMap(({ is, value }) => (is === 'suppressed' ? (keys.get(value) ?? []) : []))),
    inList: new Set(known.flatMap(({ is, value }) => (is === 'in-list' ? value : []))),
  }
}
