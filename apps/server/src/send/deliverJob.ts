import { datedName, headingsOf, type PartChange, partValues, roundsOf, whyNotFor } from '@upper-field/core/send'
import { csvLine } from '@upper-field/core/table'
import { and, eq } from 'drizzle-orm'
import { type Db, transaction } from '../db/database'
import { audiences, deliveries } from '../db/schema'
import { JobProblem } from '../jobs/jobProblem'
import type { JobHandler, StepOutcome } from '../jobs/runner'
import { type JobRow, saveJob } from '../jobs/store'
import { withListLock } from '../lists/listLock'
import type { Services } from '../services'
import { tellWebhooks } from '../webhooks/tell'
import { dropMembers, dropOthers, emptyBooks, holdMembers } from './audienceBooks'
import { UNSEEN } from './audienceCounts'
import { audienceOf, findDestination } from './destinations'
import { type AudienceRow, type LineOut, nextLines } from './difference'
import { GONE, type NetworkClient, NetworkRefused, openNetwork } from './networkClient'
import { noteAudience, noteSent } from './noteSent'
import { dropSuppressed } from './suppressedSince'

type DeliveryRow = typeof deliveries.$inferSelect

/** Where a delivery goes on after a crash. */
interface Cursor {
  /** Which of its rounds it is in, and the key behind which the next part begins. */
  readonly round: number
  readonly after: string
  /** The key with which the part ends that is on its way: it may have been taken; null where none is. */
  readonly until: string | null
  readonly part: number
  readonly upload: string | null
  readonly isBegun: boolean
}

const START: Cursor = { round: 0, after: '', until: null, part: 0, upload: null, isBegun: false }

interface Going {
  readonly services: Services
  readonly job: JobRow
  readonly delivery: DeliveryRow
  readonly audience: AudienceRow
  readonly network: NetworkClient
  readonly headings: readonly string[]
  readonly cursor: Cursor
}

/** Sends an edition to its network in parts, each of which is taken once however often it is sent. */
export const deliverJob: JobHandler = {
  async step(services, job): Promise<StepOutcome> {
    const going = await load(services, job)
    try {
      if (!going.cursor.isBegun) return await begin(going)
      const round = roundsAt(going)[going.cursor.round]
      return round === undefined ? await finish(going) : await sendPart(going, round)
    } catch (error) {
      if (!(error instanceof NetworkRefused)) throw error
      await transaction(services.pool, (tx) => noteRefusal(tx, going, error.code))
      throw new JobProblem('network-refused', { cause: error })
    }
  },

  async ended({ db }, job, state) {
    await db
      .update(deliveries)
      .set({ state, endedAt: new Date() })
      .where(and(eq(deliveries.jobId, job.id), eq(deliveries.state, 'under-way')))
  },
}

async function load(services: Services, job: JobRow): Promise<Going> {
  const { db } = services
  const { deliveryId } = job.payload as { deliveryId: string }
  const delivery = await underWay(db, deliveryId)
  const [audience] = await db.select().from(audiences).where(eq(audiences.id, delivery.audienceId))
  if (!audience) throw new JobProblem('edition-gone')
  const destination = await findDestination(db, audience.destination).catch((cause) => {
    throw new JobProblem('destination-gone', { cause })
  })
  const network = await openNetwork(services, destination)
  const headings = headingsOf(audienceOf(destination, audience.takes))
  return { services, job, delivery, audience, network, headings, cursor: { ...START, ...job.cursor } }
}

/** The delivery, which is under way again where a person goes on with one that had ended before its end. */
async function underWay(db: Db, deliveryId: string): Promise<DeliveryRow> {
  const [found] = await db.select().from(deliveries).where(eq(deliveries.id, deliveryId))
  if (!found) throw new JobProblem('edition-gone')
  if (found.state === 'under-way' || found.state === 'done') return found
  const again = { state: 'under-way', endedAt: null, refusal: null }
  await db.update(deliveries).set(again).where(eq(deliveries.id, deliveryId))
  return { ...found, ...again }
}

/** A delivery of removals alone goes as the network can take them: one by one, or by sending everybody else anew. */
function roundsAt({ delivery, network }: Going): readonly PartChange[] {
  if (delivery.way !== 'removals') return roundsOf(delivery.way)
  return network.calls.part.calls.remove ? ['remove'] : ['whole']
}

/** Is the account still fit, is the audience there, and has the network an upload for it? */
async function begin(going: Going): Promise<StepOutcome> {
  const { services, job, delivery, audience, network } = going
  const account = (await network.accounts()).find(({ id }) => id === audience.accountId)
  if (!account) throw new NetworkRefused('no-such-account')
  const lack = whyNotFor(network.calls, account, audience.purpose)
  if (lack) throw new NetworkRefused(lack.code)
  const remoteId = audience.remoteId ?? (await makeThere(going))
  const upload = await network.begin({ audience: remoteId, account: audience.accountId }, `${delivery.id} begin`)
  await transaction(services.pool, async (tx) => {
    await tx.update(audiences).set({ remoteId }).where(eq(audiences.id, audience.id))
    await saveJob(tx, job.id, { phase: 'sending', cursor: { ...going.cursor, isBegun: true, upload } })
  })
  return { next: 'step' }
}

async function makeThere({ services, audience, network, delivery }: Going): Promise<string> {
  const { accountId, purpose, takes, name } = audience
  return network.make(
    {
      account: accountId,
      title: datedName(name, new Date(services.now())),
      takes,
      purpose: network.calls.purposes[purpose] ?? purpose,
      within: audience.within === null ? '' : await remoteIdOf(services.db, audience.within),
      days: audience.keepsDays ?? 0,
    },
    // An audience that the network forgot is made anew: by another key than the one it forgot.
    `${audience.id} ${delivery.id}`,
  )
}

async function remoteIdOf(db: Db, audienceId: string): Promise<string> {
  const [found] = await db.select().from(audiences).where(eq(audiences.id, audienceId))
  if (!found?.remoteId) throw new NetworkRefused('outer-audience-not-sent')
  return found.remoteId
}

async function sendPart(going: Going, round: PartChange): Promise<StepOutcome> {
  const { services, delivery, audience, network, cursor } = going
  const { editionId, startedAt } = delivery
  const isOnItsWay = cursor.until !== null
  // Whoever says no while others are sent, or while the delivery rests, is in no part that was not sent yet.
  if (!isOnItsWay && round !== 'remove' && editionId !== null)
    await transaction(services.pool, (tx) => dropSuppressed(tx, editionId))
  const lines = await nextLines(services.db, round, {
    audience,
    editionId,
    startedAt,
    after: cursor.after,
    until: cursor.until,
    most: network.calls.part.most,
  })
  if (lines.length === 0) {
    const next = { ...cursor, round: cursor.round + 1, after: '', until: null }
    await saveJob(services.db, going.job.id, { cursor: next })
    return { next: 'step' }
  }
  // Sent again after a crash, it has the same lines: the network takes a part once, by its key.
  if (!isOnItsWay) await saveJob(services.db, going.job.id, { cursor: { ...cursor, until: lines.at(-1)?.key ?? null } })
  const refusal = await sentOrRefused(going, round, lines)
  await transaction(services.pool, (tx) => bookPart(tx, going, { round, lines, refusal }))
  return { next: 'step' }
}

/** @returns the code by which the network refused this part; null where it took it. One part refused is not the end. */
async function sentOrRefused(going: Going, round: PartChange, lines: readonly LineOut[]): Promise<string | null> {
  const { network, audience, delivery, headings, cursor } = going
  const call = network.calls.part.calls[round]
  if (!call) throw new JobProblem('destination-gone')
  const rows = lines.map(({ cells }) => cells)
  const csv = [headings, ...rows].map((cells) => csvLine(cells)).join('')
  const values = {
    ...partValues(headings, rows, csv),
    account: audience.accountId,
    audience: audience.remoteId ?? '',
    upload: cursor.upload ?? '',
    days: audience.keepsDays ?? 0,
  }
  try {
    await network.part(call, values, `${delivery.id} part ${cursor.part}`)
    return null
  } catch (error) {
    if (error instanceof NetworkRefused && error.code !== GONE) return error.code
    throw error
  }
}

interface Part {
  readonly round: PartChange
  readonly lines: readonly LineOut[]
  readonly refusal: string | null
}

/** Our books change with what the network took, in the transaction that goes on to the next part. */
async function bookPart(
  tx: Db,
  { job, delivery, audience, cursor }: Going,
  { round, lines, refusal }: Part,
): Promise<void> {
  const taken = refusal === null ? lines : []
  if (round === 'remove') await dropMembers(tx, audience.id, taken)
  else await holdMembers(tx, delivery, taken)
  const renewed = taken.filter((line) => line.isRenewed).length
  await tx
    .update(deliveries)
    .set({
      added: delivery.added + (round === 'remove' ? 0 : taken.length - renewed),
      removed: delivery.removed + (round === 'remove' ? taken.length : 0),
      renewed: delivery.renewed + renewed,
      refusedLines: delivery.refusedLines + lines.length - taken.length,
      refusedParts: delivery.refusedParts + (refusal === null ? 0 : 1),
      refusal: refusal ?? delivery.refusal,
    })
    .where(eq(deliveries.id, delivery.id))
  await saveJob(tx, job.id, {
    done: job.done + lines.length,
    cursor: { ...cursor, after: lines.at(-1)?.key ?? cursor.after, until: null, part: cursor.part + 1 },
  })
}

async function finish(going: Going): Promise<StepOutcome> {
  const { services, job, delivery, audience, network, cursor } = going
  if (delivery.refusedParts > 0 && delivery.added + delivery.removed + delivery.renewed === 0)
    throw new NetworkRefused(delivery.refusal ?? 'part-unreadable')
  const at = { audience: audience.remoteId ?? '', upload: cursor.upload ?? '', account: audience.accountId }
  await network.finish(at, `${delivery.id} finish`)
  const now = new Date(services.now())
  await withListLock(services, audience.listId, { work: 'send', jobId: job.id }, async (tx) => {
    // Whoever was not part of a whole is no longer there.
    if (roundsAt(going).includes('whole')) {
      const removed = await dropOthers(tx, delivery)
      await tx.update(deliveries).set({ removed }).where(eq(deliveries.id, delivery.id))
    }
    await tx.update(deliveries).set({ state: 'done', endedAt: now }).where(eq(deliveries.id, delivery.id))
    await tx
      .update(audiences)
      .set({ state: 'received', reason: null, toldAt: now, lookAt: now, seenVersion: UNSEEN })
      .where(eq(audiences.id, audience.id))
    await tellDelivery(tx, audience, { deliveryId: delivery.id, state: 'received' })
    await noteDelivered(tx, audience, delivery)
    await saveJob(tx, job.id, { phase: 'done', result: await resultOf(tx, delivery.id) })
  })
  return { next: 'done' }
}

const tellDelivery = (
  db: Db,
  { id, listId }: AudienceRow,
  told: { readonly deliveryId: string; readonly state: string; readonly reason?: string },
) => tellWebhooks(db, listId, 'delivery.state', [{ audienceId: id, ...told }])

/** Who is in it counts as sent, and has it in their story. */
async function noteDelivered(tx: Db, { id, listId }: AudienceRow, { editionId }: DeliveryRow): Promise<void> {
  if (editionId === null) return
  await noteAudience(tx, editionId, id)
  await noteSent(tx, listId, editionId)
}

async function resultOf(tx: Db, deliveryId: string): Promise<Record<string, number>> {
  const [row] = await tx.select().from(deliveries).where(eq(deliveries.id, deliveryId))
  return { added: row?.added ?? 0, removed: row?.removed ?? 0, refused: row?.refusedLines ?? 0 }
}

/** A network that said no ends the delivery. One that forgot the audience is sent everybody the next time. */
async function noteRefusal(tx: Db, { delivery, audience }: Going, code: string): Promise<void> {
  await tx
    .update(deliveries)
    .set({ state: 'refused', refusal: code, endedAt: new Date() })
    .where(eq(deliveries.id, delivery.id))
  await tellDelivery(tx, audience, { deliveryId: delivery.id, state: 'refused', reason: code })
  if (code === GONE) await emptyBooks(tx, audience.id, code)
  else await tx.update(audiences).set({ state: 'refused', reason: code }).where(eq(audiences.id, audience.id))
}
