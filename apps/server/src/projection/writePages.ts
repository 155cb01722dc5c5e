import type { PoolClient } from 'pg'
import { renewWords } from '../contacts/words'
import { tellWords } from '../contacts/wordsAhead'
import type { CopyBytes } from '../db/copy'
import type { Db } from '../db/database'
import { CONTACT_COLUMNS, type ContactLines, STANDING_COLUMNS } from './columns'
import { contactCopy, loadCopies, reachCopies } from './copyLines'
import type { StoodAgain } from './standAgain'

/** Contacts of a page, written out before they are stored: meanwhile others have the connection. */
export interface WrittenPage {
  readonly ids: readonly number[]
  readonly listIds: readonly string[]
  readonly copies: readonly CopyBytes[]
}

const idsOf = (lines: readonly ContactLines[]): readonly number[] => lines.map(({ contact }) => Number(contact[ID]))

const listsOf = (lines: readonly ContactLines[]): readonly string[] => [
  ...new Set(lines.map(({ contact }) => String(contact[LIST_ID]))),
]

const placeOf = (name: (typeof CONTACT_COLUMNS)[number]): number => CONTACT_COLUMNS.indexOf(name)
const [ID, LIST_ID, SEARCH] = [placeOf('id'), placeOf('list_id'), placeOf('search')]

export const numbersPage = (lines: readonly ContactLines[]): WrittenPage => ({
  ids: idsOf(lines),
  listIds: listsOf(lines),
  copies: reachCopies(lines),
})

export async function writeNumbers(client: PoolClient, { ids, copies }: WrittenPage): Promise<void> {
  await client.query('delete from contact_numbers where contact_id = any($1::bigint[])', [ids])
  await client.query('delete from contact_emails where contact_id = any($1::bigint[])', [ids])
  await loadCopies(client, copies)
}

/** The same of contacts, with what a search finds them by. */
export interface ContactsPage extends WrittenPage {
  readonly said: readonly { readonly listId: string; readonly id: number; readonly words: string }[]
}

export const contactsPage = (lines: readonly ContactLines[]): ContactsPage => ({
  ids: idsOf(lines),
  listIds: listsOf(lines),
  copies: [contactCopy('refreshed', lines)],
  said: lines.map(({ contact }) => ({
    listId: String(contact[LIST_ID]),
    id: Number(contact[ID]),
    words: String(contact[SEARCH]),
  })),
})

export async function writeContacts(
  { tx, client }: { readonly tx: Db; readonly client: PoolClient },
  { ids, listIds, copies, said }: ContactsPage,
  { isOutOfIndex = false }: { readonly isOutOfIndex?: boolean },
): Promise<void> {
  await client.query(
    'create temp table if not exists refreshed (like contacts including defaults) on commit delete rows; truncate refreshed',
  )
  await loadCopies(client, copies)
  const sets = CONTACT_COLUMNS.filter((column) => column !== 'id').map((column) => `${column} = r.${column}`)
  // The planner knows nothing of a table just filled: told the ids, it does not read the large one whole.
  await client.query(
    `update contacts c set ${sets.join(', ')} from refreshed r where c.id = r.id and c.id = any($1::bigint[])`,
    [ids],
  )
  if (!isOutOfIndex) for (const listId of listIds) await renewWords(tx, listId, ids)
  for (const { listId, id, words } of said) tellWords(listId, id, words)
}

/** Writes how contacts stand now, of those with whom that is otherwise. */
export async function writeStanding(
  client: PoolClient,
  ids: readonly number[],
  { columns, copy }: StoodAgain,
): Promise<void> {
  await client.query(
    `create temp table if not exists replaced on commit delete rows as select id, ${STANDING_COLUMNS.join(', ')} from contacts where false; truncate replaced`,
  )
  await loadCopies(client, [copy])
  const [now, then] = ['c', 'r'].map((table) => columns.map((column) => `${table}.${column}`).join(', '))
  await client.query(
    `update contacts c set ${columns.map((column) => `${column} = r.${column}`).join(', ')} from replaced r
    where c.id = r.id and c.id = any($1::bigint[]) and (${now}) is distinct from (${then})`,
    [ids],
  )
}
