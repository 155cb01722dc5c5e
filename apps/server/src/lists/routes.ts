import type { List } from '@upper-field/contract'
import { desc, eq, isNotNull, isNull, sql } from 'drizzle-orm'
import type { Hono } from 'hono'
import { makeWords } from '../contacts/words'
import { type Db, transaction } from '../db/database'
import { num, readRows, text } from '../db/readRows'
import { lists } from '../db/schema'
import { notFound, Problem } from '../http/problem'
import { serve } from '../http/serve'
import { readTerraces } from '../projection/cube'
import type { CallServices } from '../services'

type ListRow = typeof lists.$inferSelect

export function listRoutes(app: Hono, services: CallServices): void {
  const { db } = services

  serve(app, services, 'readLists', async ({ query }) => {
    const which = query.archived === 'yes' ? isNotNull(lists.archivedAt) : isNull(lists.archivedAt)
    return describe(db, await db.select().from(lists).where(which).orderBy(desc(lists.changedAt)))
  })

  serve(app, services, 'makeList', async ({ body }) => {
    const made = await transaction(services.pool, async (tx) => {
      const [list] = await tx.insert(lists).values({ name: body.name }).returning()
      if (list) await makeWords(tx, list.id)
      return list ? [list] : []
    })
    return one(await describe(db, made))
  })

  serve(app, services, 'readList', async ({ params }) => one(await describe(db, [await findList(db, params.listId)])))

  serve(app, services, 'changeList', async ({ params, body }) => {
    const list = await findList(db, params.listId)
    const archivedAt =
      body.archived === undefined
        ? list.archivedAt
        : body.archived
          ? (list.archivedAt ?? new Date(services.now()))
          : null
    const [changed] = await db
      .update(lists)
      .set({ name: body.name ?? list.name, archivedAt, changedAt: new Date(services.now()) })
      .where(eq(lists.id, list.id))
      .returning()
    return one(await describe(db, changed ? [changed] : []))
  })
}

export async function findList(db: Db, listId: string): Promise<ListRow> {
  const [found] = await db.select().from(lists).where(eq(lists.id, listId))
  if (!found) throw notFound('list')
  return found
}

/** A list that may be worked on: an archived one is only looked at. */
export async function findOpenList(db: Db, listId: string): Promise<ListRow> {
  const list = await findList(db, listId)
  if (list.archivedAt)
    throw new Problem(409, 'list-archived', 'This list is archived. Bring it back before you change it.')
  return list
}

async function describe(db: Db, found: readonly ListRow[]): Promise<List[]> {
  if (found.length === 0) return []
  const ids = found.map(({ id }) => id)
  const counts = await readTerraces(db, ids)
  const counted = await readRows(db, { listId: text, n: num })`
    select list_id, count(*) as n from batches where state = 'ready' and list_id = any(${sql.param(ids)}::uuid[]) group by list_id`
  const batchCounts = new Map(counted.map(({ listId, n }) => [listId, n]))
  return found.map((list) => ({
    id: list.id,
    name: list.name,
    contacts: counts.get(list.id)?.contacts ?? 0,
    batches: batchCounts.get(list.id) ?? 0,
    createdAt: list.createdAt.toISOString(),
    changedAt: list.changedAt.toISOString(),
    archivedAt: list.archivedAt?.toISOString() ?? null,
    terrace: counts.get(list.id)?.terrace.map((step) => ({ ...step, changes: [...step.changes] })) ?? [],
  }))
}

function one(described: readonly List[]): List {
  const [list] = described
  if (!list) throw notFound('list')
  return list
}
