import { companyFactsIn } from '@upper-field/core/fill'
import { areNamesCompatible } from '@upper-field/core/pair'
import { readDomain } from '@upper-field/core/tidy'
import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { asGiven, insertRows } from '../db/insertRows'
import { companyFacts } from '../db/schema'
import type { JudgedAnswer } from './judgeAnswers'

/** Keeps what answers told of companies, besides what they were asked for: the latest word on each contact's. */
export async function keepCompanyFacts(
  tx: Db,
  listId: string,
  judged: readonly JudgedAnswer[],
  toldAt: Date,
): Promise<void> {
  const rows = judged.flatMap(({ attempt, contact, provider, items }) => {
    const facts = companyFactsIn(items, (name) => !areNamesCompatible(name, contact.fullName))
    if (facts === null) return []
    const domain = readDomain(facts.site) ?? ''
    return [{ contactId: contact.id, listId, attemptId: attempt.id, provider: provider.id, domain, toldAt, ...facts }]
  })
  const once = [...new Map(rows.map((row) => [row.contactId, row])).values()]
  await insertRows(
    tx,
    companyFacts,
    once,
    sql`on conflict (contact_id) do update ${asGiven('attempt_id', 'provider', 'domain', 'site', 'page', 'industry', 'headcount', 'told_at')}`,
  )
}
