import type { TestServer } from './harness'

/** Contacts of indexed batches that are not in the index of their list with the words they hold. */
export const wrongWords = ({ sql }: Pick<TestServer, 'sql'>, listId: string) =>
  sql(
    `select c.id, c.search, w.words from contacts c join batches b on b.id = c.batch_id and b.is_indexed
     left join words."${listId}" w on w.contact_id = c.id where c.list_id = $1 and w.words is distinct from c.search`,
    [listId],
  )
