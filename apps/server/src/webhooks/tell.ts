import type { WebhookEvent } from '@upper-field/contract'
import type { Db } from '../db/database'
import { insertRows } from '../db/insertRows'
import { readRows, text } from '../db/readRows'
import { webhookMessages } from '../db/schema'

/**
 * Has every webhook that wants it told of an event, a message for each payload: written in the transaction of what
 * happened, so that both are there or neither. Payloads hold ids and states, and nothing of a person.
 * @param listId the list it happened in; null where it concerns all of them
 */
export async function tellWebhooks(
  tx: Db,
  listId: string | null,
  event: WebhookEvent,
  payloads: readonly Readonly<Record<string, unknown>>[],
): Promise<void> {
  if (payloads.length === 0) return
  const told = await readRows(tx, { id: text })`
    select id from webhooks where is_on and ${event} = any(events) and (list_id is null or list_id = ${listId})`
  await insertRows(
    tx,
    webhookMessages,
    told.flatMap(({ id }) => payloads.map((data) => ({ webhookId: id, event, payload: { listId, ...data } }))),
  )
}
