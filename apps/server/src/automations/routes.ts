import type { Automation, AutomationRun } from '@upper-field/contract'
import { and, desc, eq } from 'drizzle-orm'
import type { Hono } from 'hono'
import { automationRuns, automations } from '../db/schema'
import { notFound } from '../http/problem'
import { serve } from '../http/serve'
import { findList, findOpenList } from '../lists/routes'
import type { CallServices, Services } from '../services'
import type { RunRow } from './startStep'

const SHOWN = 30

export function automationRoutes(app: Hono, services: CallServices): void {
  const { db } = services

  serve(app, services, 'readAutomations', async ({ params }) => {
    await findList(db, params.listId)
    const ofList = eq(automations.listId, params.listId)
    return (await db.select().from(automations).where(ofList).orderBy(automations.madeAt)).map(asAutomation)
  })

  serve(app, services, 'makeAutomation', async ({ params, body, me }) => {
    await findOpenList(db, params.listId)
    const [made] = await db
      .insert(automations)
      .values({ ...body, listId: params.listId, madeBy: me.name, lastDay: dayOf(services) })
      .returning()
    if (!made) throw new Error('insert returned nothing')
    return asAutomation(made)
  })

  serve(app, services, 'switchAutomation', async ({ params, body }) => {
    const [changed] = await db
      .update(automations)
      .set({ isOn: body.isOn })
      .where(eq(automations.id, params.automationId))
      .returning()
    if (!changed) throw notFound('automation')
    // A job that is under way comes to its end; what would be begun after it is not.
    if (!body.isOn) await stopRuns(changed.id)
    return asAutomation(changed)
  })

  serve(app, services, 'removeAutomation', async ({ params }) => {
    const removed = await db.delete(automations).where(eq(automations.id, params.automationId)).returning()
    if (removed.length === 0) throw notFound('automation')
    await stopRuns(params.automationId)
    return {}
  })

  serve(app, services, 'readAutomationRuns', async ({ params }) => {
    await findList(db, params.listId)
    const rows = await db
      .select()
      .from(automationRuns)
      .where(eq(automationRuns.listId, params.listId))
      .orderBy(desc(automationRuns.startedAt))
      .limit(SHOWN)
    return rows.map(asRun)
  })

  async function stopRuns(automationId: string): Promise<void> {
    await db
      .update(automationRuns)
      .set({ state: 'stopped', finishedAt: new Date(services.now()) })
      .where(and(eq(automationRuns.automationId, automationId), eq(automationRuns.state, 'running')))
  }
}

/** Of a day that has begun already the first run is tomorrow's. */
const dayOf = ({ now }: Services): string => new Date(now()).toISOString().slice(0, 10)

const asAutomation = (row: typeof automations.$inferSelect): Automation => ({
  id: row.id,
  start: row.start as Automation['start'],
  hour: row.hour,
  steps: row.steps,
  isOn: row.isOn,
  madeBy: row.madeBy,
  madeAt: row.madeAt.toISOString(),
})

const asRun = (row: RunRow): AutomationRun => ({
  id: row.id,
  automationId: row.automationId,
  start: row.start as AutomationRun['start'],
  batchId: row.batchId,
  state: row.state as AutomationRun['state'],
  working: row.state === 'running' ? (row.steps[row.done.length]?.work ?? null) : null,
  done: row.done,
  startedAt: row.startedAt.toISOString(),
  finishedAt: row.finishedAt?.toISOString() ?? null,
})
