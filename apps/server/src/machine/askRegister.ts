import type { Judgement } from '@upper-field/contract'
import { needsCheck } from '@upper-field/core/check'
import { sql } from 'drizzle-orm'
import { openFacts } from '../check/openFacts'
import { LINES } from '../check/subjects'
import { tellHolders } from '../check/tellHolders'
import { transaction } from '../db/database'
import { LOCKS } from '../db/locks'
import { readCount } from '../db/readRows'
import { Problem } from '../http/problem'
import type { Services } from '../services'
import { sha256Hex } from '../sha256'
import { charge } from '../spend/charge'
import { refuseOverLimit, refuseOverProviderLimit } from '../spend/limit'
import { knownOf, type Read } from './knownValues'
import { settingsNow } from './settingsNow'

/** Who asks, and what it may spend. */
export interface Asker {
  /** Of the key; null for a person, who asks nobody for money here. */
  readonly keyId: string | null
  readonly budget: number
}

/** Asks the register about what nothing fresh is known of, as far as the key may pay. @returns what each answer cost */
export async function askRegister(
  services: Services,
  read: readonly Read[],
  { keyId, budget }: Asker,
  notAsked: Map<string, NonNullable<Judgement['notAsked']>>,
): Promise<Map<string, number>> {
  const costs = new Map<string, number>()
  const known = await knownOf(services, read)
  const { freshDays } = await settingsNow(services)
  const wanted = new Set<string>()
  for (const one of read) {
    if (one.kind !== 'number') continue
    const { e164, valid } = one.number
    if (!valid) notAsked.set(e164, 'not-valid')
    else if (!needsCheck(known.line(e164), services.now(), freshDays)) notAsked.set(e164, 'fresh')
    else wanted.add(e164)
  }
  const service = wanted.size === 0 ? null : await openFacts(services, LINES).catch(() => null)
  for (const e164 of wanted) {
    if (!service) notAsked.set(e164, 'no-register')
    else if (keyId === null) notAsked.set(e164, 'no-budget')
    else {
      const cost = await askOne(services, service, { e164, keyId, budget })
      if (typeof cost === 'number') costs.set(e164, cost)
      else notAsked.set(e164, cost)
    }
  }
  return costs
}

type LineService = Awaited<ReturnType<typeof openFacts<Parameters<typeof LINES.subjectOf>[0]>>>

/**
 * Asks about one number under a key of the day: repeated, it is the same question, and paid once. Two that ask at the
 * same moment wait for each other, so that a budget is not passed.
 */
async function askOne(
  { pool, now }: Services,
  service: LineService,
  { e164, keyId, budget }: { readonly e164: string; readonly keyId: string; readonly budget: number },
): Promise<number | 'no-budget' | 'failed'> {
  const at = new Date(now())
  const question = `judge:${keyId}:${sha256Hex(e164).slice(0, 32)}:${at.toISOString().slice(0, 10)}`
  const { id: provider, price } = service.terms
  return transaction(pool, async (tx, client) => {
    await tx.execute(sql`select pg_advisory_xact_lock(${LOCKS.checks}, hashtext(${keyId}))`)
    const spent = await readCount(tx)`
      select coalesce(sum(amount), 0) as n from charges
      where question like ${`judge:${keyId}:%`} and at >= date_trunc('month', now())`
    if (spent + price > budget) return 'no-budget' as const
    try {
      await refuseOverLimit(tx, price)
      await refuseOverProviderLimit(tx, provider, price)
    } catch (error) {
      if (error instanceof Problem) return 'no-budget' as const
      throw error
    }
    const answer = await service.askOne(e164, question).catch(() => null)
    if (answer === null) return 'failed' as const
    if (!LINES.toldNothing(answer.told)) {
      await LINES.storeFacts(tx, [answer.told], at)
      await tellHolders(tx, client, [{ about: LINES, subjects: [e164] }])
    }
    if (answer.cost > 0)
      await charge(tx, [
        { listId: null, provider, subject: e164, question, amount: answer.cost, reason: LINES.reason, at },
      ])
    return answer.cost
  })
}
