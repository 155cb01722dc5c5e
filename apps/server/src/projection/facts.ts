import type { AddressFacts, Deliverability, LineStatus, RegisterFacts } from '@upper-field/core/check'
import type { LineType } from '@upper-field/core/phone'
import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'

/** What the register has told about these numbers, for those it was ever asked about. */
export async function factsOfNumbers(tx: Db, e164s: readonly string[]): Promise<Map<string, RegisterFacts>> {
  if (e164s.length === 0) return new Map()
  const { rows } = await tx.execute<{
    e164: string
    line_type: string | null
    status: string | null
    checked_at: string | Date | null
  }>(sql`select e164, line_type, status, checked_at from numbers where e164 = any(${sql.param(e164s)}::text[])`)
  return new Map(
    rows.map((row) => [
      row.e164,
      {
        lineType: row.line_type as LineType | null,
        status: row.status as LineStatus | null,
        checkedAt: row.checked_at === null ? null : new Date(row.checked_at).getTime(),
      },
    ]),
  )
}

/** What the verifier has said about these addresses, for those it ever told something of. */
export async function factsOfAddresses(tx: Db, addresses: readonly string[]): Promise<Map<string, AddressFacts>> {
  if (addresses.length === 0) return new Map()
  const { rows } = await tx.execute<{ address: string; deliverability: string; checked_at: string | Date }>(
    sql`select address, deliverability, checked_at from addresses where address = any(${sql.param([...addresses])}::text[])`,
  )
  return new Map(
    rows.map(({ address, deliverability, checked_at }) => [
      address,
      { deliverability: deliverability as Deliverability, checkedAt: new Date(checked_at).getTime() },
    ]),
  )
}
