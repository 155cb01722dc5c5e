import type { PoolClient } from 'pg'
import { renewWords } from '../contacts/words'
import type { CopyBytes } from '../db/copy'
import type { Db } from '../db/database'
import { CONTACT_COLUMNS, type ContactLines, PLACEMENT_COLUMNS } from './columns'
import { contactCopy, loadCopies, reachCopies } from './copyLines'

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

const [ID, LIST_ID] = [CONTACT_COLUMNS.indexOf('id'), CONTACT_COLUMNS.indexOf('list_id')]

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

export const contactsPage = (lines: readonly ContactLines[]): WrittenPage => ({
  ids: idsOf(lines),
  listIds: listsOf(lines),
  copies: [contactCopy('refreshed', lines)],
})

export async function writeContacts(
  { tx, client }: { readonly tx: Db; readonly client: PoolClient },
  { ids, listIds, copies }: WrittenPage,
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
}

export async function writePlacements(
  client: PoolClient,
  ids: readonly number[],
  placements: CopyBytes,
): Promise<void> {
  await client.query(
    'create temp table if not exists replaced (id bigint, is_shared boolean, lane text, lane_reason text, call_from text, suppressed_for text, can_text boolean, can_call boolean) on commit delete rows; truncate replaced',
  )
  await loadCopies(client, [placements])
  const [now, then] = ['c', 'r'].map((table) => PLACEMENT_COLUMNS.map((column) => `${table}.${column}`).join(', '))
  await client.query(
    `update contacts c set ${PLACEMENT_COLUMNS.map((column) => `${column} = r.${column}`).join(', ')} from replaced r
    where c.id = r.id and c.id = any($1::bigint[]) and (${now}) is distinct from (${then})`,
    [ids],
  )
}
