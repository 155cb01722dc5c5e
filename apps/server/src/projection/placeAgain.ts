import { suppressibleKeys } from '@upper-field/core/pair'
import type { LineType } from '@upper-field/core/phone'
import { scopesOfKeys } from '@upper-field/core/split'
import { sql } from 'drizzle-orm'
import { type CopyBytes, copyBytesOf } from '../db/copy'
import type { Db } from '../db/database'
import { groupBy } from '../db/groupBy'
import { bool, num, orNull, readRows, text, word } from '../db/readRows'
import { suppressionScopes } from '../suppression/matches'
import { PLACEMENT_COLUMNS, placementCells } from './columns'
import { factsOfNumbers } from './facts'
import { type Placed, placementOf, type ReachNumber } from './placementOf'
import { lineIn, type SharedIn } from './sharedIn'

/** What is stored of a contact that decides where it belongs. */
interface StoredReach {
  readonly id: number
  readonly listId: string
  readonly domain: string
  readonly numbers: readonly ReachNumber[]
  readonly addresses: readonly string[]
}

/**
 * Decides anew where contacts belong, by the numbers and addresses that are stored of them: their rows are not read
 * again, since nothing else of them can have changed.
 * @returns what is to be stored of them
 */
export async function placeAgain(tx: Db, ids: readonly number[], sharedIn: SharedIn): Promise<CopyBytes> {
  const contacts = await readReach(tx, ids)
  const e164s = [...new Set(contacts.flatMap(({ numbers }) => numbers.map(({ e164 }) => e164)))]
  const facts = await factsOfNumbers(tx, e164s)
  const scopesOf = await suppressionScopes(tx, () => contacts.flatMap(keysOf))
  const shared = await sharedIn({ listIds: [...new Set(contacts.map(({ listId }) => listId))], e164s })
  const placed = contacts.map((contact) => ({
    id: contact.id,
    ...placementOf({
      numbers: contact.numbers,
      hasEmail: contact.addresses.length > 0,
      suppressedFor: scopesOf ? scopesOfKeys(keysOf(contact), scopesOf) : [],
      factsOf: (e164) => facts.get(e164),
      isShared: (e164) => shared.has(lineIn(contact.listId, e164)),
    }),
  }))
  return copyOf(placed)
}

const keysOf = ({ numbers, addresses, domain }: StoredReach): readonly string[] =>
  suppressibleKeys({ e164s: numbers.map(({ e164 }) => e164), addresses, domain })

const copyOf = (placed: readonly (Placed & { readonly id: number })[]): CopyBytes =>
  copyBytesOf(
    'replaced',
    ['id', ...PLACEMENT_COLUMNS],
    placed.map((one) => [one.id, ...placementCells(one)]),
  )

const REACH_NUMBER = { contactId: num, e164: text, country: orNull(text), lineType: word<LineType>, valid: bool }

async function readReach(tx: Db, ids: readonly number[]): Promise<readonly StoredReach[]> {
  const wanted = sql`any(${sql.param([...ids])}::bigint[])`
  const contacts = await readRows(tx, { id: num, listId: text, domain: text })`
    select id, list_id, domain from contacts where id = ${wanted} order by id`
  const numbers = await readRows(tx, REACH_NUMBER)`
    select contact_id, e164, country, line_type, is_valid as valid from contact_numbers
    where contact_id = ${wanted} order by contact_id, position`
  const emails = await readRows(tx, { contactId: num, address: text })`
    select contact_id, address from contact_emails where contact_id = ${wanted} order by contact_id, position`
  const numbersOf = groupBy(numbers, (one) => one.contactId)
  const emailsOf = groupBy(emails, (one) => one.contactId)
  return contacts.map((contact) => ({
    ...contact,
    numbers: numbersOf.get(contact.id) ?? [],
    addresses: (emailsOf.get(contact.id) ?? []).map(({ address }) => address),
  }))
}
