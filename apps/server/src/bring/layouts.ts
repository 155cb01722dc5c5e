import type { Layout, NewBatch } from '@upper-field/contract'
import { layoutKey } from '@upper-field/core/table'
import { eq } from 'drizzle-orm'
import type { Db } from '../db/database'
import { layouts } from '../db/schema'

/** Keeps how a file was mapped, for the next one of its layout. */
export async function rememberLayout(tx: Db, batch: NewBatch): Promise<void> {
  const key = layoutKey(batch.headings)
  if (!key) return
  const values = {
    mapping: batch.mapping,
    defaultCountry: batch.defaultCountry,
    sourceKind: batch.sourceKind,
    lawfulBasis: batch.lawfulBasis,
    batchName: batch.name,
    usedAt: new Date(),
  }
  await tx
    .insert(layouts)
    .values({ key, ...values })
    .onConflictDoUpdate({ target: layouts.key, set: values })
}

export async function knownLayout(db: Db, key: string): Promise<Layout | null> {
  const [found] = await db.select().from(layouts).where(eq(layouts.key, key))
  if (!found) return null
  const { key: _, ...layout } = found
  return { ...layout, usedAt: found.usedAt.toISOString() } as Layout
}
