import type { LaneRules, Segment } from '@upper-field/contract'
import { type LaneRule, mistakesInRules, proposedRules } from '@upper-field/core/split'
import { eq, sql } from 'drizzle-orm'
import type { Hono } from 'hono'
import type { PoolClient } from 'pg'
import { columnsOf } from '../contacts/columnsOf'
import { chosenContacts } from '../contacts/page'
import { readFilter, readWholeFilter } from '../contacts/readFilter'
import { type Sampling, sampleOf } from '../contacts/sample'
import { type Db, transaction } from '../db/database'
import { num, readIds, readRow } from '../db/readRows'
import { contacts, laneRules, segments } from '../db/schema'
import { notFound, Problem } from '../http/problem'
import { serve } from '../http/serve'
import { withListLock } from '../lists/listLock'
import { findList, findOpenList } from '../lists/routes'
import { countContacts } from '../projection/cube'
import { reproject } from '../projection/reproject'
import type { CallServices } from '../services'
import { readCallSheet } from './callSheet'
import { rulesOf } from './decideLanes'
import { noteCall, undoCall } from './noteCall'

export function splitRoutes(app: Hono, services: CallServices): void {
  const { db } = services

  serve(app, services, 'readLaneRules', async ({ params }) => {
    await findList(db, params.listId)
    return readLaneRules(db, params.listId)
  })
  serve(app, services, 'keepLaneRules', async ({ params, body, signal }) => {
    await findOpenList(db, params.listId)
    const rules = body.rules ?? []
    const columns = new Set((await columnsOf(db, params.listId)).map(({ key }) => key))
    const [mistake] = mistakesInRules(rules, columns)
    if (mistake)
      throw new Problem(422, 'rule-off', `${rules[mistake.at]?.name || `Rule ${mistake.at + 1}`}: ${mistake.message}`)
    return withListLock(services, params.listId, { work: 'split', signal, counts: 'whole' }, async (tx, client) => {
      await tx.delete(laneRules).where(eq(laneRules.listId, params.listId))
      if (rules.length > 0)
        await tx.insert(laneRules).values(rules.map((rule, position) => ({ ...rule, listId: params.listId, position })))
      else await placeAsUsual(tx, client, params.listId)
      await countContacts(tx, params.listId, { repairs: 'as-they-were' })
      return readLaneRules(tx, params.listId)
    })
  })
  serve(app, services, 'placeByHand', async ({ params, body, signal }) => {
    const isThis = eq(contacts.id, params.contactId)
    const [contact] = await db.select({ listId: contacts.listId }).from(contacts).where(isThis)
    if (!contact) throw notFound('contact')
    const { listId } = contact
    await findOpenList(db, listId)
    return withListLock(services, listId, { work: 'split', signal }, async (tx, client) => {
      await tx
        .update(contacts)
        .set({ laneByHand: body.lane ?? '' })
        .where(isThis)
      if (body.lane === null) await reproject(tx, client, { contacts: [params.contactId], because: 'place' })
      await countContacts(tx, listId)
      const [placed] = await tx.select({ lane: contacts.lane }).from(contacts).where(isThis)
      return { lane: placed?.lane ?? 'parked' }
    })
  })

  serve(app, services, 'readCallSheet', async ({ params, query, me }) => {
    await findList(db, params.listId)
    const sheet = await readCallSheet(services, { listId: params.listId, filter: query.filter, who: me.name })
    await services.callLimits.read(me.id, sheet.next.length)
    return sheet
  })
  serve(app, services, 'noteCall', async ({ params, body, me, signal }) => {
    await findOpenList(db, params.listId)
    return noteCall(services, { ...body, listId: params.listId, who: me.name, signal })
  })
  serve(app, services, 'undoCall', async ({ params, signal }) => {
    await undoCall(services, params.callId, signal)
    return {}
  })

  serve(app, services, 'readSegments', async ({ params }) => {
    const found = await db.select().from(segments).where(eq(segments.listId, params.listId)).orderBy(segments.name)
    return Promise.all(found.map((one) => asSegment(db, one)))
  })
  serve(app, services, 'keepSegment', async ({ params, body, me }) => {
    await findOpenList(db, params.listId)
    await readWholeFilter(db, params.listId, body.filter)
    const [kept] = await transaction(services.pool, (tx) =>
      tx
        .insert(segments)
        .values({ ...body, listId: params.listId, madeBy: me.name })
        .onConflictDoUpdate({ target: [segments.listId, segments.name], set: { filter: body.filter } })
        .returning(),
    )
    if (!kept) throw new Error('insert returned nothing')
    return asSegment(db, kept)
  })
  serve(app, services, 'removeSegment', async ({ params }) => {
    const gone = await db.delete(segments).where(eq(segments.id, params.segmentId)).returning()
    if (gone.length === 0) throw notFound('segment')
    return {}
  })
}

async function readLaneRules(db: Db, listId: string): Promise<LaneRules> {
  const rules = await rulesOf(db, listId)
  return { isOwn: rules.length > 0, rules: [...(rules.length > 0 ? rules : await proposalFor(db, listId))] }
}

/** What share of a list has a whole address is told well enough by some of it. */
const SAMPLING: Sampling = { above: 50_000, size: 5000 }

async function proposalFor(db: Db, listId: string): Promise<readonly LaneRule[]> {
  const sample = await sampleOf(db, listId, SAMPLING)
  const counted = await readRow(db, { contacts: num, addresses: num })`
    select count(*) as contacts, count(*) filter (where street <> '' and postal_code <> '' and city <> '') as addresses
    from ${sample?.from ?? sql`contacts`} where list_id = ${listId} and joined_into is null`
  return proposedRules(counted?.contacts ?? 0, counted?.addresses ?? 0)
}

/** Without rules of its own a list's contacts go where each belongs by itself again. */
async function placeAsUsual(tx: Db, client: PoolClient, listId: string): Promise<void> {
  const ids = await readIds(tx)`
    select id from contacts where list_id = ${listId} and lane_reason in ('by-rule', 'no-rule') order by id`
  await reproject(tx, client, { contacts: ids, because: 'place' })
}

async function asSegment(db: Db, { id, listId, name, filter, madeBy }: typeof segments.$inferSelect): Promise<Segment> {
  return { id, name, filter, madeBy, contacts: await db.$count(contacts, chosenContacts(listId, readFilter(filter))) }
}
