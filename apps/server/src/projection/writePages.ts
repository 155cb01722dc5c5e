import type { PoolClient } from 'pg'
import { copyInto } from '../db/copy'
import { CONTACT_COLUMNS, type ContactLines } from './columns'
import { contactCopy, loadCopies, reachCopies } from './copyLines'

export async function writeNumbers(client: PoolClient, lines: readonly ContactLines[]): Promise<void> {
  const ids = lines.map(({ contact }) => contact[0])
  await client.query('delete from contact_numbers where contact_id = any($1::bigint[])', [ids])
  await client.query('delete from contact_emails where contact_id = any($1::bigint[])', [ids])
  await loadCopies(client, reachCopies(lines))
}

export async function writeContacts(
  client: PoolClient,
  lines: readonly ContactLines[],
  { isOutOfIndex = false }: { readonly isOutOfIndex?: boolean },
): Promise<void> {
  await client.query(
    'create temp table if not exists refreshed (like contacts including defaults) on commit delete rows',
  )
  await client.query('truncate refreshed')
  await loadCopies(client, [contactCopy('refreshed', lines)])
  const sets = CONTACT_COLUMNS.filter((column) => column !== 'id').map((column) => `${column} = r.${column}`)
  // The planner knows nothing of a table just filled: told the ids, it does not read the large one whole.
  const ids = lines.map(({ contact }) => contact[0])
  await client.query(
    `update contacts c set ${sets.join(', ')} from refreshed r where c.id = r.id and c.id = any($1::bigint[])`,
    [ids],
  )
  if (!isOutOfIndex) await writeWords(client, ids)
}

/** What the search looks in, of contacts that are in its index and have been written. */
export async function writeWords(client: PoolClient, ids: readonly unknown[]): Promise<void> {
  await client.query(
    `update contact_words w set words = c.search from contacts c
     where c.id = w.contact_id and w.words <> c.search and w.contact_id = any($1::bigint[])`,
    [ids],
  )
}

/** What depends on who else holds a number. */
const PLACEMENT = [
  'id',
  'is_shared',
  'lane',
  'lane_reason',
  'call_from',
  'suppressed_for',
  'can_text',
  'can_call',
] as const

export async function writePlacements(client: PoolClient, lines: readonly ContactLines[]): Promise<void> {
  await client.query(
    'create temp table if not exists replaced (id bigint, is_shared boolean, lane text, lane_reason text, call_from text, suppressed_for text, can_text boolean, can_call boolean) on commit delete rows',
  )
  await client.query('truncate replaced')
  const places = PLACEMENT.map((column) => CONTACT_COLUMNS.indexOf(column))
  await copyInto(
    client,
    'replaced',
    PLACEMENT,
    lines.map(({ contact }) => places.map((at) => contact[at] ?? null)),
  )
  const changing = PLACEMENT.filter((column) => column !== 'id')
  await client.query(
    `update contacts c set ${changing.map((column) => `${column} = r.${column}`).join(', ')} from replaced r
    where c.id = r.id and c.id = any($1::bigint[])
      and (${changing.map((column) => `c.${column}`).join(', ')}) is distinct from (${changing.map((column) => `r.${column}`).join(', ')})`,
    [lines.map(({ contact }) => contact[0])],
  )
}
