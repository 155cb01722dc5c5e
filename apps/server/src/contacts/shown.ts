import { type SQL, sql } from 'drizzle-orm'

/**
 * Whether a contact is shown, as a condition: one of a batch that is still being read, or was taken back, is not.
 * @param contact the table of contacts, by the name it has in the statement
 */
export const shownText = (contact: string): string =>
  `exists (select 1 from batches shown where shown.id = ${contact}.batch_id and shown.state = 'ready')`

/** See `shownText`. */
export const isShown = (contact = 'contacts'): SQL => sql.raw(shownText(contact))

/** States of a batch that was shown: one that was taken back stays in the index, and is tidied along. */
export const SHOWN_ONCE: readonly string[] = ['ready', 'taken-back']

/**
 * Whether a batch was ever shown, as a condition.
 * @param batch the table of batches, by the name it has in the statement
 */
export const wasShown = (batch = 'batches'): SQL =>
  sql.raw(`${batch}.state in (${SHOWN_ONCE.map((state) => `'${state}'`).join(', ')})`)
