import { readText, type ToldState } from '@upper-field/core/send'
import { and, eq } from 'drizzle-orm'
import { type Db, transaction } from '../db/database'
import { isLostConnection } from '../db/errors'
import { readRows, text } from '../db/readRows'
import { audiences, deliveries, trials } from '../db/schema'
import { logError } from '../http/problem'
import { JobProblem } from '../jobs/jobProblem'
import type { Services } from '../services'
import { tellWebhooks } from '../webhooks/tell'
import { emptyBooks } from './audienceBooks'
import { findDestination } from './destinations'
import type { AudienceRow } from './difference'
import { lastDelivered } from './lastDelivered'
import { GONE, type NetworkClient, NetworkRefused, openNetwork } from './networkClient'

const SECOND = 1000
const DAY = 86_400 * SECOND

/** Asks a network how an audience and its trials stand, and notes it. Throws a job problem where it cannot be asked. */
export async function lookAt(services: Services, audience: AudienceRow): Promise<void> {
  const { db } = services
  if (audience.remoteId === null) return
  const network = await openNetwork(services, await findDestination(db, audience.destination))
  try {
    const told = await network.state(audience.remoteId)
    // At once: whoever reads that it is usable, and asks no more, reads also what came of the delivery.
    await transaction(services.pool, (tx) => noteTold(tx, audience, told, new Date(services.now())))
  } catch (error) {
    if (!(error instanceof NetworkRefused)) throw error
    await transaction(services.pool, (tx) => noteGone(tx, audience, error.code))
  }
  await lookAtTrials(db, audience, network)
}

async function noteTold(tx: Db, audience: AudienceRow, told: ToldState, now: Date): Promise<void> {
  await tx
    .update(audiences)
    .set({
      state: told.state,
      reason: told.state === 'refused' ? (told.reason ?? 'not-said') : null,
      matched: told.size,
      lapsesAt: told.lapsesAt === null ? null : new Date(told.lapsesAt),
      toldAt: now,
      lookAt: nextLook(told.state, audience, now),
    })
    .where(eq(audiences.id, audience.id))
  if (told.state !== audience.state)
    await tellWebhooks(tx, audience.listId, 'delivery.state', [{ audienceId: audience.id, state: told.state }])
  if (told.state === 'usable' && told.size !== null) await noteMatched(tx, audience.id, told.size)
}

/** While something is under way it is looked at often, and less so the longer it takes; then once a day. */
function nextLook(state: string, { toldAt }: AudienceRow, now: Date): Date {
  if (state !== 'received' && state !== 'matching') return new Date(now.getTime() + DAY)
  const waited = toldAt === null ? 0 : now.getTime() - toldAt.getTime()
  return new Date(now.getTime() + Math.min(Math.max(waited * 1.5, 2 * SECOND), 600 * SECOND))
}

/** The first size that is told after a delivery is what came of it. */
async function noteMatched(db: Db, audienceId: string, matched: number): Promise<void> {
  const last = await lastDelivered(db, audienceId)
  if (last && last.matched === null) await db.update(deliveries).set({ matched }).where(eq(deliveries.id, last.id))
}

/** What the network no longer knows is sent whole the next time. */
async function noteGone(tx: Db, audience: AudienceRow, code: string): Promise<void> {
  if (code === GONE) await emptyBooks(tx, audience.id, code)
  else
    await tx
      .update(audiences)
      .set({ state: 'refused', reason: code, lookAt: null })
      .where(eq(audiences.id, audience.id))
}

async function lookAtTrials(db: Db, { id }: AudienceRow, network: NetworkClient): Promise<void> {
  const { trial } = network.calls
  if (!trial) return
  const open = await db
    .select()
    .from(trials)
    .where(and(eq(trials.audienceId, id), eq(trials.state, 'on')))
  for (const one of open) {
    const told = await network.ask(trial.look, { campaign: one.remoteId }).catch((error: unknown) => {
      if (!(error instanceof NetworkRefused)) throw error
      return null
    })
    // A campaign the network knows nothing of tells nothing any more.
    if (told === null) {
      await db.update(trials).set({ state: 'failed' }).where(eq(trials.id, one.id))
      continue
    }
    const [reach, spent] = [Number(readText(trial.reach, told)), Number(readText(trial.spent, told))]
    const isOver = trial.over.includes(readText(trial.state, told) ?? '')
    await db
      .update(trials)
      .set({
        state: isOver ? 'over' : 'on',
        reach: Number.isFinite(reach) ? Math.round(reach) : null,
        spent: Number.isFinite(spent) ? spent : null,
      })
      .where(eq(trials.id, one.id))
  }
}

/** A network that cannot be asked is asked again later, in milliseconds. */
const LATER = 60 * SECOND

/** Asks about every audience whose turn has come. Several servers may do so at once: each takes others. */
export async function lookAtAll(services: Services): Promise<void> {
  const { db } = services
  const due = await readRows(db, { id: text })`
    update audiences set look_at = now() + make_interval(secs => ${LATER / SECOND}) where id in (
      select id from audiences a where remote_id is not null and removed_at is null and (look_at <= now()
        or exists (select 1 from trials t where t.audience_id = a.id and t.state = 'on' and (a.told_at is null or a.told_at < now() - interval '5 seconds')))
      order by look_at limit 20 for update skip locked)
    returning id`
  for (const { id } of due) {
    const [audience] = await db.select().from(audiences).where(eq(audiences.id, id))
    if (audience)
      await lookAt(services, audience).catch((error: unknown) => {
        if (isLostConnection(error)) throw error
        // One that cannot be looked at keeps no other waiting.
        if (!(error instanceof JobProblem)) logError('audience', error)
      })
  }
}
