import type { PoolClient } from 'pg'
import { copyInto } from '../db/copy'
import { CONTACT_COLUMNS, type ContactLines, EMAIL_COLUMNS, NUMBER_COLUMNS } from './columns'

/** Loads projected contacts into `contacts`, or into a table of the same shape. */
export const copyContacts = (
  client: PoolClient,
  table: 'contacts' | 'refreshed',
  lines: readonly ContactLines[],
): Promise<void> =>
  copyInto(
    client,
    table,
    CONTACT_COLUMNS,
    lines.map(({ contact }) => contact),
  )

/** Loads the numbers and e-mails of projected contacts. */
export async function copyNumbersAndEmails(client: PoolClient, lines: readonly ContactLines[]): Promise<void> {
  await copyInto(
    client,
    'contact_numbers',
    NUMBER_COLUMNS,
    lines.flatMap(({ numbers }) => numbers),
  )
  await copyInto(
    client,
    'contact_emails',
    EMAIL_COLUMNS,
    lines.flatMap(({ emails }) => emails),
  )
}
