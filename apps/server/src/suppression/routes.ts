import type { SuppressionList, SuppressionPage } from '@upper-field/contract'
import { suppressionKey } from '@upper-field/core/pair'
import { eq, type SQL, sql } from 'drizzle-orm'
import type { Hono } from 'hono'
import type { PoolClient } from 'pg'
import type { z } from 'zod'
import { type Db, transaction } from '../db/database'
import { num, orNull, readRows, text, when, word } from '../db/readRows'
import { suppressionBatches, suppressionEntries, suppressionLists } from '../db/schema'
import { CURSOR, readCursor } from '../http/cursor'
import { notFound, Problem } from '../http/problem'
import { serve } from '../http/serve'
import { withListLock } from '../lists/listLock'
import type { CallServices } from '../services'
import { addRows, batchesOf, findBatch, takeBatchBack } from './batches'
import { addEntries, addKeys } from './entries'
import type { EntryKey } from './entryHolders'
import { forgetPerson, listsOfPerson, readForgetting } from './forget'
import { placeAnew } from './placeAnew'

const PAGE = 100

export function suppressionRoutes(app: Hono, services: CallServices): void {
  const { db, pool } = services
  const { hashesAmong } = services.config.limits

  serve(app, services, 'readSuppressionLists', () => describeLists(db))
  serve(app, services, 'makeSuppressionList', async ({ body }) => {
    const [made] = await transaction(pool, (tx) =>
      tx.insert(suppressionLists).values(body).onConflictDoNothing().returning(),
    )
    if (!made) throw new Problem(409, 'name-taken', `There is a suppression list “${body.name}” already.`)
    return one(await describeLists(db, made.id))
  })
  serve(app, services, 'readSuppressionEntries', async ({ params, query, me }) => {
    const page = await pageOfEntries(db, params.suppressionListId, query.cursor)
    await services.callLimits.read(me.id, page.entries.length)
    return me.role === 'viewer' ? { ...page, entries: page.entries.map(masked) } : page
  })
  serve(app, services, 'addSuppressionEntries', ({ params, body, me }) =>
    transaction(pool, async (tx, client) => {
      one(await describeLists(tx, params.suppressionListId))
      const { suppressionListId } = params
      return addEntries(tx, client, { ...body, suppressionListId, who: me.name, hashesAmong })
    }),
  )
  serve(app, services, 'dropSuppressionEntry', async ({ params }) => {
    await transaction(pool, async (tx, client) => {
      const [dropped] = await tx.delete(suppressionEntries).where(eq(suppressionEntries.id, params.entryId)).returning()
      if (!dropped) throw notFound('entry')
      await placeAnew(tx, client, [dropped as EntryKey])
    })
    return {}
  })
  serve(app, services, 'readSuppressionBatches', ({ params }) => batchesOf(db, params.suppressionListId))
  serve(app, services, 'announceSuppressionBatch', ({ params, body, me }) =>
    transaction(pool, async (tx) => {
      const { id: suppressionListId } = one(await describeLists(tx, params.suppressionListId))
      const { expiresAt, ...facts } = body
      const [made] = await tx
        .insert(suppressionBatches)
        .values({ ...facts, suppressionListId, addedBy: me.name, expiresAt: expiresAt ? new Date(expiresAt) : null })
        .returning({ id: suppressionBatches.id })
      return findBatch(tx, made?.id ?? '')
    }),
  )
  serve(app, services, 'addSuppressionRows', ({ params, body }) =>
    transaction(pool, (tx, client) =>
      addRows(tx, client, { batchId: params.suppressionBatchId, hashesAmong }, body.rows),
    ),
  )
  serve(app, services, 'takeSuppressionBack', ({ params }) =>
    transaction(pool, (tx, client) => takeBatchBack(tx, client, params.suppressionBatchId, new Date(services.now()))),
  )
  serve(app, services, 'readForgetting', ({ params }) => readForgetting(db, params.contactId))
  serve(app, services, 'forgetPerson', async ({ params, me, signal }) => {
    const listIds = await listsOfPerson(db, params.contactId)
    return withListLock(services, listIds, { work: 'forget', signal }, (tx, client) =>
      forgetPerson(tx, client, { contactId: params.contactId, who: me.name, held: listIds }),
    )
  })
  serve(app, services, 'suppressContact', ({ params, body, me }) =>
    transaction(pool, async (tx, client) => {
      one(await describeLists(tx, body.suppressionListId))
      const keys = await keysOf(tx, sql`c.id = ${params.contactId}`)
      if (keys.length === 0)
        throw new Problem(422, 'nothing-to-suppress', 'This contact has no number and no e-mail to keep it by.')
      return addOwn(tx, client, { ...body, who: me.name }, keys)
    }),
  )
  serve(app, services, 'suppressRefusals', ({ params, body, me }) =>
    transaction(pool, async (tx, client) => {
      one(await describeLists(tx, body.suppressionListId))
      const keys = await keysOf(tx, sql`c.list_id = ${params.listId} and 'refusal' = any(c.changes)`)
      if (keys.length === 0)
        throw new Problem(422, 'nothing-to-suppress', 'None of them has a number or an e-mail to keep them by.')
      return addOwn(tx, client, { ...body, who: me.name, reason: 'A remark in a list said so.' }, keys)
    }),
  )
}

interface OwnFacts {
  readonly suppressionListId: string
  readonly reason: string
  readonly who: string
}

async function addOwn(tx: Db, client: PoolClient, facts: OwnFacts, keys: Awaited<ReturnType<typeof keysOf>>) {
  const { added, marked, waiting } = await addKeys(tx, client, { ...facts, asHashes: false, expiresAt: null }, keys)
  return { added, known: keys.length - added, unread: [], unreadTotal: 0, marked, waiting }
}

/** Numbers and addresses of contacts `c`; a role address belongs to others as well. */
async function keysOf(tx: Db, whom: SQL) {
  const held = await readRows(tx, { key: text })`
    select n.e164 as key from contact_numbers n join contacts c on c.id = n.contact_id where ${whom} and n.is_valid
    union select m.address from contact_emails m join contacts c on c.id = m.contact_id where ${whom} and m.kind <> 'role'`
  return held.flatMap(({ key }) => suppressionKey(key, null) ?? [])
}

async function describeLists(db: Db, id: string | null = null): Promise<SuppressionList[]> {
  const lists = await readRows(db, LIST)`
    select l.*, (select count(*) from (
        select e.hash from suppression_entries e where e.suppression_list_id = l.id group by e.hash) once) as entries
    from suppression_lists l where ${id}::uuid is null or l.id = ${id}::uuid order by l.name`
  return lists.map((list) => ({ ...list, createdAt: list.createdAt.toISOString() }))
}

const LIST = {
  id: text,
  name: text,
  kind: word<SuppressionList['kind']>,
  scope: word<SuppressionList['scope']>,
  entries: num,
  createdAt: when,
}

function one(lists: readonly SuppressionList[]): SuppressionList {
  const [list] = lists
  if (!list) throw notFound('suppression list')
  return list
}

const ENTRY = {
  id: text,
  kind: word<SuppressionPage['entries'][number]['kind']>,
  key: orNull(text),
  reason: text,
  source: orNull(text),
  addedBy: text,
  addedAt: when,
  /** To the microsecond, as a page goes on behind it. */
  at: text,
  expiresAt: orNull(when),
}

async function pageOfEntries(db: Db, listId: string, cursor: string | undefined): Promise<SuppressionPage> {
  const [at = null, id = null] = readCursor<z.ZodType<string>>(cursor, [CURSOR.instant, CURSOR.uuid]) ?? []
  const found = await readRows(db, ENTRY)`
    select e.*, e.added_at::text as at, b.name as source
    from suppression_entries e left join suppression_batches b on b.id = e.batch_id where e.suppression_list_id = ${listId}
      and (${at}::timestamptz is null or (e.added_at, e.id) < (${at}::timestamptz, ${id}::uuid))
    order by e.added_at desc, e.id desc limit ${PAGE + 1}`
  const shown = found.slice(0, PAGE)
  const last = shown.at(-1)
  return {
    entries: shown.map(({ at: _, ...entry }) => ({
      ...entry,
      isMasked: false,
      addedAt: entry.addedAt.toISOString(),
      expiresAt: entry.expiresAt?.toISOString() ?? null,
    })),
    next: found.length > PAGE && last ? `${last.at}/${last.id}` : null,
  }
}

/** Whoever only looks need not know whom nobody may contact: enough of the key is left to tell entries apart. */
const masked = (entry: SuppressionPage['entries'][number]): SuppressionPage['entries'][number] =>
  entry.key === null ? entry : { ...entry, key: maskedKey(entry.key), isMasked: true }

const maskedKey = (key: string): string => {
  const [name = '', host] = key.split('@')
  if (host !== undefined) return `${name.slice(0, 1)}…@${host.slice(0, 1)}…`
  return `${key.slice(0, 3)}…${key.slice(-2)}`
}
