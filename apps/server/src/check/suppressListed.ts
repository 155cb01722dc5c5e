import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { readRow, text } from '../db/readRows'
import { suppressionLists } from '../db/schema'
import { sha256Hex } from '../sha256'

/** The list that numbers of do-not-call registers are kept on; whoever runs the application may name another so. */
const LIST = 'Do-not-call registers'
const WHO = 'do-not-call check'

export interface ListedNumber {
  readonly e164: string
  readonly isListed: boolean
  readonly register: string | null
}

/**
 * Suppresses numbers for calls that a do-not-call register holds, and lets those go that it holds no more. Whoever
 * calls this projects the holders of these numbers anew afterwards.
 */
export async function suppressListed(tx: Db, numbers: readonly ListedNumber[]): Promise<void> {
  const listId = await registerList(tx)
  const gone = numbers.filter(({ isListed }) => !isListed).map(({ e164 }) => sha256Hex(e164))
  await tx.execute(sql`
    delete from suppression_entries
    where suppression_list_id = ${listId} and batch_id is null and added_by = ${WHO}
      and hash = any(${sql.param(gone)}::text[])`)
  const listed = numbers.filter(({ isListed }) => isListed)
  await tx.execute(sql`
    insert into suppression_entries (suppression_list_id, kind, hash, key, reason, added_by)
    select ${listId}::uuid, 'number', e.hash, e.key, e.reason, ${WHO}
    from unnest(${sql.param(listed.map(({ e164 }) => sha256Hex(e164)))}::text[],
      ${sql.param(listed.map(({ e164 }) => e164))}::text[],
      ${sql.param(listed.map(({ register }) => `On ${register ?? 'a do-not-call register'}.`))}::text[]) as e (hash, key, reason)
    on conflict (suppression_list_id, hash, batch_id) do nothing`)
}

async function registerList(tx: Db): Promise<string> {
  await tx.insert(suppressionLists).values({ name: LIST, kind: 'register', scope: 'calls' }).onConflictDoNothing()
  const list = await readRow(tx, { id: text })`select id from suppression_lists where name = ${LIST}`
  return list?.id ?? ''
}
