import type { FoundAs } from '@upper-field/core/fill'
import { readPhoneCell } from '@upper-field/core/phone'
import { readEmails } from '@upper-field/core/tidy'
import { and, eq, sql } from 'drizzle-orm'
import { openConnection } from '../connections/client'
import { type Db, transaction } from '../db/database'
import { attempts, candidates, charges, fillRuns, fills } from '../db/schema'
import { notFound, Problem } from '../http/problem'
import { withListLock } from '../lists/listLock'
import { findOpenList } from '../lists/routes'
import type { Services } from '../services'
import { charge } from '../spend/charge'
import { refuseOverLimit, refuseOverProviderLimit } from '../spend/limit'
import { reportAccepted } from './askProvider'
import { planOf } from './plan'
import { foundValueOf, projectFound } from './projectFound'
import type { AttemptRow } from './run'
import { priceOfTaking, valuesHeld } from './trail'

const HOLDING = { work: 'fill' } as const

/**
 * Takes a candidate that was set aside into its contact, on a person's word. A provider that charges for what is taken is
 * told, and charges now.
 * @param agreed the most it may cost, in millionths of a euro
 */
export async function takeCandidate(
  services: Services,
  { attemptId, position, agreed }: { readonly attemptId: string; readonly position: number; readonly agreed: number },
): Promise<void> {
  const { db } = services
  const [attempt] = await db.select().from(attempts).where(eq(attempts.id, attemptId))
  const [candidate] = await db
    .select()
    .from(candidates)
    .where(and(eq(candidates.attemptId, attemptId), eq(candidates.position, position)))
  const [run] = attempt ? await db.select().from(fillRuns).where(eq(fillRuns.jobId, attempt.jobId)) : []
  if (!attempt || !candidate || !run) throw notFound('candidate')
  await findOpenList(db, attempt.listId)
  const value = candidate.e164 ?? candidate.address
  if (value === null) throw new Problem(409, 'not-a-value', 'This is no number and no address. Nothing was taken.')
  await refuseHeld(db, attempt.contactId, value)
  const [paid] = await db
    .select({ id: charges.id })
    .from(charges)
    .where(and(eq(charges.attemptId, attemptId), eq(charges.provider, attempt.provider)))
  const price = priceOfTaking(await planOf(db, run), attempt.provider, paid !== undefined)
  if (price > agreed)
    throw new Problem(409, 'costs-more', 'The provider charges more for it now than was agreed. Nothing was taken.')
  const at = new Date(services.now())
  if (price > 0) await payForTaking(services, attempt, { value, price, at })
  await withListLock(services, attempt.listId, HOLDING, async (tx, client) => {
    await refuseHeld(tx, attempt.contactId, value)
    await tx.insert(fills).values({
      listId: attempt.listId,
      contactId: attempt.contactId,
      attemptId,
      provider: attempt.provider,
      e164: candidate.e164,
      address: candidate.address,
      foundAs: foundAsOf(value),
      madeAt: at,
    })
    await projectFound(tx, client, attempt.listId, [{ contactId: attempt.contactId, value }])
  })
}

/**
 * Tells a provider that its value is taken, and books what it charges. What the limits do not allow, and what a busy list
 * would not, is refused before. The list is not held meanwhile: others would wait for the provider too.
 */
async function payForTaking(
  services: Services,
  attempt: AttemptRow,
  { value, price, at }: { readonly value: string; readonly price: number; readonly at: Date },
): Promise<void> {
  await refuseOverLimit(services.db, price)
  await refuseOverProviderLimit(services.db, attempt.provider, price)
  await withListLock(services, attempt.listId, HOLDING, (tx) => refuseHeld(tx, attempt.contactId, value))
  await reportAccepted(await openConnection(services, attempt.provider), attempt.id)
  await transaction(services.pool, (tx) => bookTaking(tx, attempt, price, at))
}

/** Books what a provider charges for a value that was taken by hand, once however often it is told. */
async function bookTaking(tx: Db, attempt: AttemptRow, price: number, at: Date): Promise<void> {
  const spent = await charge(tx, [
    {
      listId: attempt.listId,
      jobId: attempt.jobId,
      provider: attempt.provider,
      subject: String(attempt.contactId),
      contactId: attempt.contactId,
      attemptId: attempt.id,
      question: attempt.id,
      amount: price,
      reason: 'taken by hand',
      at,
    },
  ])
  await tx
    .update(fillRuns)
    .set({ spent: sql`spent + ${spent}` })
    .where(eq(fillRuns.jobId, attempt.jobId))
}

async function refuseHeld(db: Db, contactId: number, value: string): Promise<void> {
  if ((await valuesHeld(db, contactId)).has(value))
    throw new Problem(409, 'known-already', 'The contact has it already. Nothing was taken.')
}

/** As what a value is taken, by what it is. */
function foundAsOf(value: string): FoundAs {
  if (value.includes('@')) return readEmails(value)[0]?.kind === 'personal' ? 'personal-email' : 'work-email'
  const lineType = readPhoneCell(value).numbers[0]?.lineType
  return lineType === 'mobile' || lineType === 'fixed-or-mobile' ? 'mobile' : 'office'
}

/** Takes a found value out of its contact again. What was paid stays paid. */
export async function takeFillBack(services: Services, fillId: string): Promise<void> {
  const [found] = await services.db.select().from(fills).where(eq(fills.id, fillId))
  if (!found || found.undoneAt) throw notFound('found value')
  await findOpenList(services.db, found.listId)
  await withListLock(services, found.listId, HOLDING, async (tx, client) => {
    await tx
      .update(fills)
      .set({ undoneAt: new Date(services.now()) })
      .where(eq(fills.id, fillId))
    await projectFound(tx, client, found.listId, [foundValueOf(found)])
  })
}
