import type { NewPrices } from '@upper-field/core/fill'
import { eq } from 'drizzle-orm'
import { transaction } from '../db/database'
import { fillRuns } from '../db/schema'
import { saveJob, saveJobIf } from '../jobs/store'
import type { Services } from '../services'

/** Lets a run rest until somebody says whether it is to go on at the new prices. Nothing more is asked before. */
export async function askAboutPrices({ pool }: Services, jobId: string, newPrices: NewPrices): Promise<void> {
  await transaction(pool, async (tx) => {
    await tx.update(fillRuns).set({ newPrices }).where(eq(fillRuns.jobId, jobId))
    await saveJob(tx, jobId, { problem: 'price-changed' })
    await saveJobIf(tx, jobId, ['running', 'queued', 'waiting'], { state: 'pausing' })
  })
}

/** Whoever let a run go on that had asked has agreed to the new prices. @returns false where it had not asked */
export async function agreeToPrices(
  { db }: Services,
  { jobId, prices, newPrices }: Pick<typeof fillRuns.$inferSelect, 'jobId' | 'prices' | 'newPrices'>,
): Promise<boolean> {
  const agreed = Object.entries(newPrices).map(([id, { now }]) => [id, { agreed: now, told: now }])
  if (agreed.length === 0) return false
  await db
    .update(fillRuns)
    .set({ prices: { ...prices, ...Object.fromEntries(agreed) }, newPrices: {} })
    .where(eq(fillRuns.jobId, jobId))
  return true
}
