import { suppressibleKeys } from '@upper-field/core/pair'
import type { LineType } from '@upper-field/core/phone'
import { scopesOfKeys } from '@upper-field/core/split'
import { sql } from 'drizzle-orm'
import { type CopyBytes, copyBytesOf } from '../db/copy'
import type { CopyLine, CopyValue } from '../db/copyText'
import type { Db } from '../db/database'
import { groupBy } from '../db/groupBy'
import { bool, num, orNull, type RowOf, readRows, text, word } from '../db/readRows'
import { withJoined } from '../pair/standsFor'
import { suppressionScopes } from '../suppression/matches'
import { PLACEMENT_COLUMNS, placementCells, STANDING_COLUMNS, standingCells } from './columns'
import { factsOfAddresses, factsOfNumbers } from './facts'
import { placementOf, type Reach } from './placementOf'
import { lineIn, type SharedIn } from './sharedIn'
import { type NumberOrigin, standingOf } from './standingOf'

/** What is to be stored of contacts, by the columns that may be otherwise. */
export interface StoodAgain {
  readonly columns: readonly string[]
  readonly copy: CopyBytes
}

/**
 * Decides anew where contacts belong, by the numbers and addresses that are stored of them: their rows are not read
 * again, since nothing else of them can have changed.
 */
export async function placeAgain(tx: Db, ids: readonly number[], sharedIn: SharedIn): Promise<StoodAgain> {
  const all = await readReach(tx, ids)
  const reachOf = await reachAmong(tx, all, sharedIn)
  const placed = all.map((contact) => [contact.id, ...placementCells(placementOf(reachOf(contact)))])
  return stoodAgain(PLACEMENT_COLUMNS, placed)
}

/**
 * Decides anew how contacts stand of whose numbers or addresses something was learnt, by what is stored of them.
 * @returns what is to be stored, and of whom the rows have to be read again: of whoever has another best number now, since
 * it is shown as it stood there, or several addresses, whose order in the rows decides between equals
 */
export async function learnAgain(
  tx: Db,
  ids: readonly number[],
  sharedIn: SharedIn,
): Promise<StoodAgain & { readonly toRead: readonly number[] }> {
  const all = await readReach(tx, ids)
  const found = await withFoundAddress(tx, ids)
  const reachOf = await reachAmong(tx, all, sharedIn)
  const verified = await factsOfAddresses(tx, [...new Set(all.flatMap(({ addresses }) => addresses))])
  const stood: CopyValue[][] = []
  const toRead: number[] = []
  for (const contact of all) {
    const [address, ...others] = contact.addresses
    const emailState = address === undefined ? 'none' : (verified.get(address)?.deliverability ?? 'not-checked')
    const reach = reachOf(contact)
    const standing = standingOf({ ...reach, numbers: contact.numbers, hasOwnEmail: reach.hasEmail, emailState })
    const isSame = (standing.placed.best?.e164 ?? null) === contact.number
    if (isSame && others.length === 0 && !found.has(contact.id))
      stood.push([contact.id, ...standingCells(standing, emailState)])
    else toRead.push(contact.id)
  }
  return { ...stoodAgain(STANDING_COLUMNS, stood), toRead }
}

/** Reads what is known of the numbers of some contacts, and who said no. @returns what decides where each of them belongs */
async function reachAmong(
  tx: Db,
  contacts: readonly StoredReach[],
  sharedIn: SharedIn,
): Promise<(contact: StoredReach) => Reach> {
  const e164s = [...new Set(contacts.flatMap(({ numbers }) => numbers.map(({ e164 }) => e164)))]
  const facts = await factsOfNumbers(tx, e164s)
  const scopesOf = await suppressionScopes(tx, () => contacts.flatMap(keysOf))
  const shared = await sharedIn({ listIds: [...new Set(contacts.map(({ listId }) => listId))], e164s })
  return (contact) => ({
    numbers: contact.numbers,
    hasEmail: contact.addresses.length > 0,
    suppressedFor: scopesOf ? scopesOfKeys(keysOf(contact), scopesOf) : [],
    factsOf: (e164) => facts.get(e164),
    isShared: (e164) => shared.has(lineIn(contact.listId, e164)),
  })
}

const keysOf = ({ numbers, addresses, domain }: StoredReach): readonly string[] =>
  suppressibleKeys({ e164s: numbers.map(({ e164 }) => e164), addresses, domain })

/** @param cells the id of each contact, and what is to be stored in the columns */
const stoodAgain = (columns: readonly string[], cells: readonly CopyLine[]): StoodAgain => ({
  columns,
  copy: copyBytesOf('replaced', ['id', ...columns], cells),
})

const CONTACT = { id: num, listId: text, domain: text, number: orNull(text) }

const NUMBER = {
  contactId: num,
  e164: text,
  country: orNull(text),
  lineType: word<LineType>,
  valid: bool,
  origin: word<NumberOrigin>,
}

/** What is stored of a contact that decides how it stands. */
interface StoredReach extends RowOf<typeof CONTACT> {
  readonly numbers: readonly RowOf<typeof NUMBER>[]
  /** The best one first. */
  readonly addresses: readonly string[]
}

async function readReach(tx: Db, ids: readonly number[]): Promise<readonly StoredReach[]> {
  const wanted = sql`any(${sql.param([...ids])}::bigint[])`
  const contacts = await readRows(tx, CONTACT)`
    select id, list_id, domain, number from contacts where id = ${wanted} order by id`
  const numbers = await readRows(tx, NUMBER)`
    select contact_id, e164, country, line_type, is_valid as valid, origin from contact_numbers
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

/** Contacts for whom, or for whoever is joined to them, a provider found an address: it may be the only one they have. */
async function withFoundAddress(tx: Db, ids: readonly number[]): Promise<ReadonlySet<number>> {
  const found = await readRows(tx, { id: num })`
    select distinct w.root as id from fills f join ${withJoined(ids)} w on w.id = f.contact_id
    where f.undone_at is null and f.address is not null`
  return new Set(found.map(({ id }) => id))
}
