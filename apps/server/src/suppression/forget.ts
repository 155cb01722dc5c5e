import type { Forgetting } from '@upper-field/contract'
import { findForgotten, type Holder, suppressionKey } from '@upper-field/core/pair'
import { eq, sql } from 'drizzle-orm'
import type { PoolClient } from 'pg'
import type { Db } from '../db/database'
import { listOf, num, readIds, readRows, text } from '../db/readRows'
import { suppressionLists } from '../db/schema'
import { memberIs, withoutId } from '../db/spans'
import { notFound, Problem } from '../http/problem'
import { joinAgain } from '../pair/joinAgain'
import { sharersOf } from '../pair/sharers'
import { rootsOf } from '../pair/standsFor'
import { countContacts } from '../projection/cube'
import { reproject } from '../projection/reproject'
import { leaveAudiences } from '../send/owedRemovals'
import { sha256Hex } from '../sha256'
import { addKeys } from './entries'

/** The suppression list whose hashed keys keep forgotten people out. */
const LIST = 'Forgotten on request'
/** Who holds a key of somebody who holds a key of the person: farther nobody looks. */
const ROUNDS = 4

/** A person in all lists, with everything that is theirs. */
interface Person {
  readonly ids: readonly number[]
  readonly keys: readonly string[]
  readonly heldByOthers: readonly string[]
  readonly listIds: readonly string[]
  readonly editionIds: readonly string[]
  readonly told: Forgetting
}

/** What forgetting the person of this contact would erase. */
export async function readForgetting(tx: Db, contactId: number): Promise<Forgetting> {
  return (await findPerson(tx, contactId)).told
}

/** The lists a person stands in: they are held while the person is erased. */
export const listsOfPerson = async (db: Db, contactId: number): Promise<readonly string[]> =>
  (await findPerson(db, contactId)).listIds

interface Wish {
  readonly contactId: number
  readonly who: string
  /** Lists that are held. */
  readonly held: readonly string[]
}

/**
 * Erases a person from every list: the text of their rows, all values, edits, joins, what providers gave and what the
 * register said. The rows keep their place, so that every count stays right. Their keys are kept as hashes alone.
 */
export async function forgetPerson(tx: Db, client: PoolClient, { contactId, who, held }: Wish): Promise<Forgetting> {
  const person = await findPerson(tx, contactId)
  if (person.listIds.some((id) => !held.includes(id)))
    throw new Problem(
      409,
      'elsewhere-too',
      'This person has just come into another list. Nothing was erased; try again.',
    )
  const sharers = await sharersOf(tx, person.ids)
  await eraseFacts(tx, person)
  await eraseRows(tx, person, who)
  for (const listId of person.listIds) {
    const ids = await readIds(tx)`
      select id from contacts where list_id = ${listId} and id = any(${sql.param(person.ids)}::bigint[])`
    await joinAgain(tx, client, listId, ids)
  }
  // Before they were erased, these shared a line with the person.
  await reproject(tx, client, { contacts: sharers.filter((id) => !person.ids.includes(id)), because: 'place' })
  for (const listId of person.listIds) await countContacts(tx, listId)
  const suppressionListId = await listOfForgotten(tx)
  const keys = person.keys.flatMap((key) => suppressionKey(key, null) ?? [])
  await addKeys(tx, client, { suppressionListId, reason: '', asHashes: true, expiresAt: null, who }, keys)
  return person.told
}

async function listOfForgotten(tx: Db): Promise<string> {
  await tx.insert(suppressionLists).values({ name: LIST, kind: 'opt-outs' }).onConflictDoNothing()
  const [list] = await tx.select().from(suppressionLists).where(eq(suppressionLists.name, LIST))
  return list?.id ?? ''
}

async function findPerson(tx: Db, contactId: number): Promise<Person> {
  let person = await joinedWith(tx, [contactId])
  if (person.length === 0) throw notFound('contact')
  let found = findForgotten(person, [])
  for (let round = 0; round < ROUNDS; round++) {
    const keys = [...found.keys, ...found.heldByOthers]
    const others = await holdersOf(
      tx,
      sql`c.id in (
        select contact_id from contact_numbers where e164 = any(${sql.param(keys)}::text[]) and is_valid
        union select contact_id from contact_emails where address = any(${sql.param(keys)}::text[]) and kind <> 'role')`,
    )
    const mine = new Set(person.map(({ id }) => id))
    const next = findForgotten(
      person,
      others.filter(({ id }) => !mine.has(id)),
    )
    // Whoever was joined to one of them is the person too.
    person = await joinedWith(tx, next.ids)
    found = { ...next, ids: person.map(({ id }) => id) }
    if (person.length === mine.size) break
  }
  return describe(tx, found)
}

/** These contacts with everybody they are joined to, or who is joined to one of them. */
async function joinedWith(tx: Db, ids: readonly number[]): Promise<Holder[]> {
  const roots = sql`any(${sql.param(await rootsOf(tx, ids))}::bigint[])`
  return holdersOf(tx, sql`(c.id = ${roots} or c.joined_into = ${roots})`)
}

async function describe(tx: Db, { ids, keys, heldByOthers }: ReturnType<typeof findForgotten>): Promise<Person> {
  const lists = await readRows(tx, { id: text, name: text })`
    select l.id, l.name from lists l where exists (
      select 1 from contacts c where c.list_id = l.id and c.id = any(${sql.param(ids)}::bigint[])) order by l.id`
  const editions = await readRows(tx, { id: text })`
    select distinct m.edition_id as id from unnest(${sql.param(ids)}::bigint[]) c join edition_members m on ${memberIs(sql`m`, sql`c`)}`
  return {
    ids,
    keys,
    heldByOthers,
    listIds: lists.map(({ id }) => id),
    editionIds: editions.map(({ id }) => id),
    told: {
      contacts: ids.length,
      lists: lists.map(({ name }) => name).sort(),
      keys: keys.length,
      heldByOthers: [...heldByOthers],
      files: editions.length,
    },
  }
}

async function holdersOf(tx: Db, which: ReturnType<typeof sql>): Promise<Holder[]> {
  return readRows(tx, { id: num, name: text, numbers: listOf(text), addresses: listOf(text) })`
    select c.id, c.full_name as name,
      array(select n.e164 from contact_numbers n where n.contact_id = c.id and n.is_valid order by n.position) as numbers,
      array(select e.address from contact_emails e where e.contact_id = c.id and e.kind <> 'role' order by e.position) as addresses
    from contacts c where ${which} order by c.id`
}

/** What was found out about the person, and what was sent of them. What it cost is kept, under a hash. */
async function eraseFacts(tx: Db, { ids, keys, editionIds }: Person): Promise<void> {
  const these = sql`any(${sql.param(ids)}::bigint[])`
  const e164s = sql`any(${sql.param(keys.filter((key) => key.startsWith('+')))}::text[])`
  const hashOf = (column: string) => sql.raw(`encode(sha256(${column}::bytea), 'hex')`)
  await tx.execute(sql`delete from candidates d using attempts a where a.id = d.attempt_id and a.contact_id = ${these}`)
  await tx.execute(sql`update attempts set answer = null where contact_id = ${these}`)
  await tx.execute(sql`delete from fills where contact_id = ${these}`)
  await tx.execute(sql`delete from calls where contact_id = ${these}`)
  await tx.execute(sql`delete from company_facts where contact_id = ${these}`)
  await tx.execute(sql`delete from numbers where e164 = ${e164s}`)
  await tx.execute(sql`update line_checks set e164 = ${hashOf('e164')}, carrier = null where e164 = ${e164s}`)
  await tx.execute(sql`delete from do_not_call where e164 = ${e164s}`)
  await tx.execute(sql`update do_not_call_checks set e164 = ${hashOf('e164')} where e164 = ${e164s}`)
  const addresses = sql`any(${sql.param(keys.filter((key) => key.includes('@')))}::text[])`
  await tx.execute(sql`delete from addresses where address = ${addresses}`)
  await tx.execute(sql`update address_checks set address = ${hashOf('address')} where address = ${addresses}`)
  // The question a charge is for names its subject too.
  for (const subjects of [addresses, e164s])
    await tx.execute(
      sql`update charges set subject = ${hashOf('subject')}, question = ${hashOf('question')} where subject = ${subjects}`,
    )
  // Wherever else they are kept out, they are from now on by the hash alone.
  await tx.execute(sql`
    update suppression_entries set key = null
    where key is not null and hash = any(${sql.param(keys.map(sha256Hex))}::text[])`)
  await erasePages(tx, keys)
  await tx.execute(sql`delete from machine_contacts where contact_id = ${these}`)
  await tx.execute(sql`
    update directory_records set facts = '{}', reach = '{}'
    where contact_id = ${these} or reach && ${sql.param([...keys])}::text[]`)
  const editions = sql`any(${sql.param(editionIds)}::uuid[])`
  await tx.execute(sql`delete from edition_pieces where edition_id = ${editions}`)
  await tx.execute(sql`update editions set state = 'withdrawn' where id = ${editions}`)
  for (const id of ids)
    await tx.execute(
      sql`update edition_members m set bits = ${withoutId(sql`m.bits`, sql`${id}::bigint`)} where ${memberIs(sql`m`, sql`${id}::bigint`)}`,
    )
  await leaveAudiences(tx, ids)
  // Rows that were held back, where they hold an address or a number of the person.
  for (const key of keys)
    await tx.execute(sql`update held_rows set bytes = '' where position(convert_to(${key}, 'UTF8') in bytes) > 0`)
}

/** What was found of the person on pages, and the pages it stands on as they were kept. */
async function erasePages(tx: Db, keys: readonly string[]): Promise<void> {
  const values = sql`any(${sql.param([...keys])}::text[])`
  await tx.execute(sql`
    update harvest_pages p set html = null, business = null, left_out = '[]', title = ''
    from harvest_findings f where f.page_id = p.id and f.value = ${values}`)
  await tx.execute(sql`delete from harvest_findings where value = ${values}`)
  await tx.execute(sql`delete from harvest_decisions where value = ${values} or corrected = ${values}`)
}

/** The rows themselves, what people made of them, and to whom they were joined. */
async function eraseRows(tx: Db, { ids }: Person, who: string): Promise<void> {
  const these = sql`any(${sql.param(ids)}::bigint[])`
  await tx.execute(sql`delete from pairs where a_id = ${these} or b_id = ${these}`)
  await tx.execute(sql`delete from joins where survivor_id = ${these} or member_id = ${these}`)
  await tx.execute(sql`update contacts set joined_into = null where id = ${these}`)
  // What an edit set stands in the note of its act as well.
  await tx.execute(sql`
    update acts a set detail = split_part(a.detail, ':', 1)
    where a.id in (select e.act_id from edits e where e.contact_id = ${these})
      and not exists (select 1 from edits e where e.act_id = a.id and not e.contact_id = ${these})`)
  await tx.execute(sql`delete from edits where contact_id = ${these}`)
  await tx.execute(sql`
    update rows r set text = '' from contacts c
    where c.id = ${these} and r.batch_id = c.batch_id and r.row = c.row`)
  await tx.execute(sql`
    insert into forgotten (contact_id, who) select unnest(${sql.param(ids)}::bigint[]), ${who}
    on conflict (contact_id) do nothing`)
}
