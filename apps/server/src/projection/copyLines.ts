import type { PoolClient } from 'pg'
import { type CopyBytes, copyBytesOf, copyWritten } from '../db/copy'
import { CONTACT_COLUMNS, type ContactLines, EMAIL_COLUMNS, NUMBER_COLUMNS } from './columns'

/** Projected contacts, written out for a table of the shape of `contacts`. */
export const contactCopy = (table: 'contacts' | 'refreshed', lines: readonly ContactLines[]): CopyBytes =>
  copyBytesOf(
    table,
    CONTACT_COLUMNS,
    lines.map(({ contact }) => contact),
  )

/** Their numbers and e-mails, written out. */
export const reachCopies = (lines: readonly ContactLines[]): readonly CopyBytes[] => [
  copyBytesOf(
    'contact_numbers',
    NUMBER_COLUMNS,
    lines.flatMap(({ numbers }) => numbers),
  ),
  copyBytesOf(
    'contact_emails',
    EMAIL_COLUMNS,
    lines.flatMap(({ emails }) => emails),
  ),
]

/** Loads what was written out, table by table. */
export async function loadCopies(client: PoolClient, copies: readonly CopyBytes[]): Promise<void> {
  for (const one of copies) await copyWritten(client, one)
}
