import { type SQL, sql } from 'drizzle-orm'

/**
 * Whether a contact is shown, as a condition: one of a batch that is still being read, or was taken back, is not.
 * @param contact the table of contacts, by the name it has in the statement
 */
export const shownText = (contact: string): string =>
  `exists (select 1 from batches shown where shown.id = ${contact}.batch_id and shown.state = 'ready')`

/** See `shownText`. */
export const isShown = (contact = 'contacts'): SQL => sql.raw(shownText(contact))
